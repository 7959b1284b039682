CREATE TABLE "due_rule" (
	"id" uuid PRIMARY KEY NOT NULL,
	"what" text NOT NULL,
	"every_months" integer,
	"every_days" integer,
	"window_days" integer NOT NULL,
	"families" text[] DEFAULT '{}' NOT NULL,
	"model_id" uuid,
	"use_pattern" text,
	"place_id" uuid,
	"replaces" text,
	"reason" text DEFAULT '' NOT NULL,
	"ended_on" date,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "due_rule_what" CHECK ("due_rule"."what" in ('inspection', 'bench test')),
	CONSTRAINT "due_rule_pattern" CHECK ("due_rule"."use_pattern" is null or "due_rule"."use_pattern" in ('personal', 'shared', 'emergency')),
	CONSTRAINT "due_rule_every" CHECK (("due_rule"."every_months" is null) <> ("due_rule"."every_days" is null)),
	CONSTRAINT "due_rule_positive" CHECK (coalesce("due_rule"."every_months", "due_rule"."every_days") > 0 and "due_rule"."window_days" >= 0)
);
--> statement-breakpoint
ALTER TABLE "item_due" DROP CONSTRAINT "item_due_what";--> statement-breakpoint
ALTER TABLE "item_state" DROP CONSTRAINT "item_state_due_what";--> statement-breakpoint
ALTER TABLE "due_rule" ADD CONSTRAINT "due_rule_model_id_item_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."item_model"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "due_rule" ADD CONSTRAINT "due_rule_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_due" ADD CONSTRAINT "item_due_what" CHECK ("item_due"."what" in ('inspection', 'filters', 'cylinder test', 'fresh air', 'part', 'bench test'));--> statement-breakpoint
ALTER TABLE "item_state" ADD CONSTRAINT "item_state_due_what" CHECK ("item_state"."due_what" in ('inspection', 'filters', 'cylinder test', 'fresh air', 'part', 'bench test'));--> statement-breakpoint
-- Whoever keeps the site's choices for a moment hears that its rules are others.
CREATE TRIGGER due_rule_changed AFTER INSERT OR UPDATE ON "due_rule" FOR EACH ROW EXECUTE FUNCTION tell_site_changed();
