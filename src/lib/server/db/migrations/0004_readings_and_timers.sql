CREATE TABLE "run_timer" (
	"id" uuid PRIMARY KEY NOT NULL,
	"run_id" uuid NOT NULL,
	"step" text NOT NULL,
	"start_reading" double precision NOT NULL,
	"seconds" integer NOT NULL,
	"started_by" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "inspection_answer" ADD COLUMN "readings" jsonb;--> statement-breakpoint
ALTER TABLE "item_model" ADD COLUMN "rated_bar" integer;--> statement-breakpoint
ALTER TABLE "run_timer" ADD CONSTRAINT "run_timer_run_id_inspection_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."inspection_run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_timer" ADD CONSTRAINT "run_timer_started_by_user_id_fk" FOREIGN KEY ("started_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "run_timer_one_open" ON "run_timer" USING btree ("run_id","step") WHERE "run_timer"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "run_timer_open" ON "run_timer" USING btree ("ended_at");