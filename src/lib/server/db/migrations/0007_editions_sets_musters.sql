CREATE TABLE "photo" (
	"id" uuid PRIMARY KEY NOT NULL,
	"run_id" uuid NOT NULL,
	"step" text NOT NULL,
	"jpeg" "bytea" NOT NULL,
	"sha256" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"taken_by" text NOT NULL,
	"taken_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "procedure_edition" (
	"key" text NOT NULL,
	"version" integer NOT NULL,
	"name" text NOT NULL,
	"family" text NOT NULL,
	"school" text,
	"purpose" text DEFAULT 'inspection' NOT NULL,
	"steps" jsonb NOT NULL,
	"reason" text NOT NULL,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	CONSTRAINT "procedure_edition_key_version_pk" PRIMARY KEY("key","version")
);
--> statement-breakpoint
CREATE TABLE "muster" (
	"id" uuid PRIMARY KEY NOT NULL,
	"place_id" uuid,
	"family" text,
	"started_by" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"closed_by" text,
	"closed_at" timestamp with time zone,
	"missing" jsonb,
	CONSTRAINT "muster_closed_whole" CHECK (("muster"."closed_at" is null) = ("muster"."closed_by" is null) and ("muster"."closed_at" is null) = ("muster"."missing" is null))
);
--> statement-breakpoint
CREATE TABLE "muster_entry" (
	"id" uuid PRIMARY KEY NOT NULL,
	"muster_id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"seen_by" text NOT NULL,
	"seen_at" timestamp with time zone NOT NULL,
	"code" text,
	"station" text,
	CONSTRAINT "muster_entry_code" CHECK (("muster_entry"."code" is null) = ("muster_entry"."station" is null))
);
--> statement-breakpoint
CREATE TABLE "seal_check" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"wearer" text NOT NULL,
	"attempts" jsonb NOT NULL,
	"outcome" text NOT NULL,
	"done_by" text NOT NULL,
	"done_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "bench_test" ADD COLUMN "bench" integer;--> statement-breakpoint
ALTER TABLE "bench_test" ADD COLUMN "trace" "bytea";--> statement-breakpoint
ALTER TABLE "inspection_answer" ADD COLUMN "received_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "inspection_run" ADD COLUMN "purpose" text DEFAULT 'inspection' NOT NULL;--> statement-breakpoint
ALTER TABLE "inspection_run" ADD COLUMN "supersedes" uuid;--> statement-breakpoint
ALTER TABLE "inspection_run" ADD COLUMN "supersede_reason" text;--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "set_id" uuid;--> statement-breakpoint
ALTER TABLE "item_model" ADD COLUMN "hold_drop_bar" double precision;--> statement-breakpoint
ALTER TABLE "item_model" ADD COLUMN "withdrawn_on" date;--> statement-breakpoint
ALTER TABLE "item_model" ADD COLUMN "withdrawn_why" text;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_run_id_inspection_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."inspection_run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_taken_by_user_id_fk" FOREIGN KEY ("taken_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "procedure_edition" ADD CONSTRAINT "procedure_edition_made_by_user_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "muster" ADD CONSTRAINT "muster_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "muster" ADD CONSTRAINT "muster_started_by_user_id_fk" FOREIGN KEY ("started_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "muster" ADD CONSTRAINT "muster_closed_by_user_id_fk" FOREIGN KEY ("closed_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "muster_entry" ADD CONSTRAINT "muster_entry_muster_id_muster_id_fk" FOREIGN KEY ("muster_id") REFERENCES "public"."muster"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "muster_entry" ADD CONSTRAINT "muster_entry_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "muster_entry" ADD CONSTRAINT "muster_entry_seen_by_user_id_fk" FOREIGN KEY ("seen_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seal_check" ADD CONSTRAINT "seal_check_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seal_check" ADD CONSTRAINT "seal_check_done_by_user_id_fk" FOREIGN KEY ("done_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "photo_run" ON "photo" USING btree ("run_id");--> statement-breakpoint
CREATE INDEX "procedure_edition_family" ON "procedure_edition" USING btree ("family");--> statement-breakpoint
CREATE INDEX "muster_started" ON "muster" USING btree ("started_at");--> statement-breakpoint
CREATE UNIQUE INDEX "muster_entry_once" ON "muster_entry" USING btree ("muster_id","item_id");--> statement-breakpoint
CREATE INDEX "seal_check_item" ON "seal_check" USING btree ("item_id","done_at");--> statement-breakpoint
ALTER TABLE "inspection_run" ADD CONSTRAINT "inspection_run_supersedes_inspection_run_id_fk" FOREIGN KEY ("supersedes") REFERENCES "public"."inspection_run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_set_id_item_id_fk" FOREIGN KEY ("set_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "bench_test_one_at_a_time" ON "bench_test" USING btree ("bench") WHERE "bench_test"."ended_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "inspection_run_superseded_once" ON "inspection_run" USING btree ("supersedes");--> statement-breakpoint
CREATE INDEX "item_set" ON "item" USING btree ("set_id");--> statement-breakpoint
ALTER TABLE "inspection_run" ADD CONSTRAINT "inspection_run_superseded_with_reason" CHECK (("inspection_run"."supersedes" is null) = ("inspection_run"."supersede_reason" is null));--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_not_its_own_part" CHECK ("item"."set_id" <> "item"."id");