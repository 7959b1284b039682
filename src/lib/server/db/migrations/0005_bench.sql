CREATE TABLE "bench_chunk" (
	"test_id" uuid NOT NULL,
	"first" integer NOT NULL,
	"samples" jsonb NOT NULL,
	CONSTRAINT "bench_chunk_test_id_first_pk" PRIMARY KEY("test_id","first")
);
--> statement-breakpoint
CREATE TABLE "bench_test" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"recipe" text NOT NULL,
	"recipe_version" integer NOT NULL,
	"instrument" text NOT NULL,
	"volume_l" double precision,
	"started_by" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	"outcome" text,
	"reasons" jsonb,
	"leak_pa_per_min" double precision,
	"start_pa" double precision,
	"corrected_end_pa" double precision,
	"lease_by" uuid,
	"lease_until" timestamp with time zone,
	CONSTRAINT "bench_test_ended_whole" CHECK (("bench_test"."ended_at" is null) = ("bench_test"."outcome" is null))
);
--> statement-breakpoint
ALTER TABLE "bench_chunk" ADD CONSTRAINT "bench_chunk_test_id_bench_test_id_fk" FOREIGN KEY ("test_id") REFERENCES "public"."bench_test"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bench_test" ADD CONSTRAINT "bench_test_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bench_test" ADD CONSTRAINT "bench_test_started_by_user_id_fk" FOREIGN KEY ("started_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bench_test_item" ON "bench_test" USING btree ("item_id","started_at");--> statement-breakpoint
CREATE INDEX "bench_test_open" ON "bench_test" USING btree ("ended_at");