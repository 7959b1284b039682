CREATE EXTENSION IF NOT EXISTS pg_trgm;
--> statement-breakpoint
CREATE TABLE "lease" (
	"name" text PRIMARY KEY NOT NULL,
	"holder" uuid NOT NULL,
	"until" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "item_due" (
	"item_id" uuid NOT NULL,
	"what" text NOT NULL,
	"part" text DEFAULT '' NOT NULL,
	"due_from" date NOT NULL,
	"due_on" date NOT NULL,
	CONSTRAINT "item_due_item_id_what_part_pk" PRIMARY KEY("item_id","what","part"),
	CONSTRAINT "item_due_what" CHECK ("item_due"."what" in ('inspection', 'filters', 'cylinder test', 'fresh air', 'part'))
);
--> statement-breakpoint
CREATE TABLE "write_request" (
	"id" uuid PRIMARY KEY NOT NULL,
	"digest" text NOT NULL,
	"answer" jsonb,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "item_due" ADD CONSTRAINT "item_due_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "item_due_on" ON "item_due" USING btree ("due_on","item_id");--> statement-breakpoint
CREATE INDEX "write_request_at" ON "write_request" USING btree ("at");--> statement-breakpoint
CREATE INDEX "inspection_answer_readings" ON "inspection_answer" USING btree ("run_id") WHERE "inspection_answer"."readings" is not null;--> statement-breakpoint
CREATE INDEX "item_of_model" ON "item" USING btree ("model_id");--> statement-breakpoint
CREATE INDEX "item_family" ON "item" USING btree ("family","place_id");--> statement-breakpoint
CREATE INDEX "item_tag_words" ON "item" USING gin ("tag" gin_trgm_ops);--> statement-breakpoint
ALTER TABLE "bench_test" DROP COLUMN "lease_by";--> statement-breakpoint
ALTER TABLE "bench_test" DROP COLUMN "lease_until";--> statement-breakpoint
ALTER TABLE "air_test" ADD CONSTRAINT "air_test_outcome" CHECK ("air_test"."outcome" in ('pass', 'fail', 'incomplete'));--> statement-breakpoint
ALTER TABLE "airline_rig" ADD CONSTRAINT "airline_rig_alarm" CHECK ("airline_rig"."alarm" in ('CO', 'high temperature', 'none'));--> statement-breakpoint
ALTER TABLE "airline_rig" ADD CONSTRAINT "airline_rig_wearing" CHECK ("airline_rig"."wearing" in ('tight-fitting', 'hood'));--> statement-breakpoint
ALTER TABLE "cylinder" ADD CONSTRAINT "cylinder_material" CHECK ("cylinder"."material" in ('steel', 'aluminium', 'composite'));--> statement-breakpoint
ALTER TABLE "cylinder_fill" ADD CONSTRAINT "cylinder_fill_outcome" CHECK ("cylinder_fill"."outcome" in ('full', 'short'));--> statement-breakpoint
ALTER TABLE "rig_event" ADD CONSTRAINT "rig_event_kind" CHECK ("rig_event"."kind" in ('sorbent', 'alarm'));--> statement-breakpoint
ALTER TABLE "bench_test" ADD CONSTRAINT "bench_test_outcome" CHECK ("bench_test"."outcome" in ('pass', 'pass, marginal', 'fail', 'repeat'));--> statement-breakpoint
ALTER TABLE "entry_alarm" ADD CONSTRAINT "entry_alarm_kind" CHECK ("entry_alarm"."kind" in ('check gauge', 'telemetry lost', 'turn back', 'be out', 'warning'));--> statement-breakpoint
ALTER TABLE "entry_reading" ADD CONSTRAINT "entry_reading_by" CHECK ("entry_reading"."by" in ('hand', 'telemetry'));--> statement-breakpoint
ALTER TABLE "defect" ADD CONSTRAINT "defect_closed_how" CHECK ("defect"."closed_how" in ('released', 'withdrawn', 'retired'));--> statement-breakpoint
ALTER TABLE "filter_pair" ADD CONSTRAINT "filter_pair_discard_reason" CHECK ("filter_pair"."discard_reason" in ('smell', 'resistance', 'damage', 'wet', 'indicator', 'date', 'other-task', 'recall'));--> statement-breakpoint
ALTER TABLE "hazard_edition" ADD CONSTRAINT "hazard_edition_outcome" CHECK ("hazard_edition"."outcome" in ('filter', 'supplied air', 'self-contained', 'escape set', 'stop'));--> statement-breakpoint
ALTER TABLE "inspection_run" ADD CONSTRAINT "inspection_run_purpose" CHECK ("inspection_run"."purpose" in ('inspection', 'donning'));--> statement-breakpoint
ALTER TABLE "inspection_run" ADD CONSTRAINT "inspection_run_outcome" CHECK ("inspection_run"."outcome" in ('pass', 'pass, watch', 'fail'));--> statement-breakpoint
ALTER TABLE "procedure_edition" ADD CONSTRAINT "procedure_edition_purpose" CHECK ("procedure_edition"."purpose" in ('inspection', 'donning'));--> statement-breakpoint
ALTER TABLE "seal_check" ADD CONSTRAINT "seal_check_outcome" CHECK ("seal_check"."outcome" in ('seals', 'inspect', 'no entry'));--> statement-breakpoint
ALTER TABLE "item_state" ADD CONSTRAINT "item_state_blocked_word" CHECK ("item_state"."blocked" in ('retired', 'in service', 'held'));--> statement-breakpoint
ALTER TABLE "item_state" ADD CONSTRAINT "item_state_due_what" CHECK ("item_state"."due_what" in ('inspection', 'filters', 'cylinder test', 'fresh air', 'part'));