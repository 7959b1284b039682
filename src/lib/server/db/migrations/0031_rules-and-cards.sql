CREATE TABLE "item_event" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"what" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"happened_at" timestamp with time zone NOT NULL,
	"noted_by" text NOT NULL,
	CONSTRAINT "item_event_what" CHECK ("item_event"."what" in ('drop', 'splash'))
);
--> statement-breakpoint
ALTER TABLE "due_rule" DROP CONSTRAINT "due_rule_what";--> statement-breakpoint
ALTER TABLE "due_rule" DROP CONSTRAINT "due_rule_every";--> statement-breakpoint
ALTER TABLE "due_rule" DROP CONSTRAINT "due_rule_positive";--> statement-breakpoint
ALTER TABLE "item_due" DROP CONSTRAINT "item_due_what";--> statement-breakpoint
ALTER TABLE "item_state" DROP CONSTRAINT "item_state_due_what";--> statement-breakpoint
ALTER TABLE "item_due" DROP CONSTRAINT "item_due_item_id_what_part_pk";--> statement-breakpoint
ALTER TABLE "due_rule" ADD COLUMN "detail" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "due_rule" ADD COLUMN "every_uses" integer;--> statement-breakpoint
ALTER TABLE "due_rule" ADD COLUMN "every_hours" integer;--> statement-breakpoint
ALTER TABLE "due_rule" ADD COLUMN "every_cycles" integer;--> statement-breakpoint
ALTER TABLE "due_rule" ADD COLUMN "after_event" text;--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "set_since" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "item_due" ADD COLUMN "detail" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "item_due" ADD COLUMN "left_words" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "item_due" ADD CONSTRAINT "item_due_item_id_what_detail_part_pk" PRIMARY KEY("item_id","what","detail","part");--> statement-breakpoint
ALTER TABLE "item_model" ADD COLUMN "card" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "item_model" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "item_state" ADD COLUMN "due_detail" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "item_state" ADD COLUMN "due_left" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "item_event" ADD CONSTRAINT "item_event_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_event" ADD CONSTRAINT "item_event_noted_by_user_id_fk" FOREIGN KEY ("noted_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "item_event_item" ON "item_event" USING btree ("item_id","happened_at");--> statement-breakpoint
ALTER TABLE "due_rule" ADD CONSTRAINT "due_rule_after" CHECK ("due_rule"."after_event" in ('use', 'repair', 'fill', 'drop', 'splash'));--> statement-breakpoint
ALTER TABLE "due_rule" ADD CONSTRAINT "due_rule_what" CHECK ("due_rule"."what" in ('inspection', 'bench test', 'list', 'service'));--> statement-breakpoint
ALTER TABLE "due_rule" ADD CONSTRAINT "due_rule_every" CHECK (num_nonnulls("due_rule"."every_months", "due_rule"."every_days", "due_rule"."every_uses", "due_rule"."every_hours", "due_rule"."every_cycles", "due_rule"."after_event") = 1);--> statement-breakpoint
ALTER TABLE "due_rule" ADD CONSTRAINT "due_rule_positive" CHECK (coalesce("due_rule"."every_months", "due_rule"."every_days", "due_rule"."every_uses", "due_rule"."every_hours", "due_rule"."every_cycles", 1) > 0 and "due_rule"."window_days" >= 0);--> statement-breakpoint
ALTER TABLE "item_due" ADD CONSTRAINT "item_due_what" CHECK ("item_due"."what" in ('inspection', 'filters', 'cylinder test', 'fresh air', 'part', 'bench test', 'list', 'service'));--> statement-breakpoint
ALTER TABLE "item_state" ADD CONSTRAINT "item_state_due_what" CHECK ("item_state"."due_what" in ('inspection', 'filters', 'cylinder test', 'fresh air', 'part', 'bench test', 'list', 'service'));--> statement-breakpoint
CREATE TRIGGER item_event_append_only BEFORE UPDATE OR DELETE ON "item_event" FOR EACH ROW EXECUTE FUNCTION refuse_change();
