CREATE TABLE "filter_wear" (
	"id" uuid PRIMARY KEY NOT NULL,
	"pair_id" uuid NOT NULL,
	"plan_id" uuid,
	"task" text NOT NULL,
	"worn_on" date NOT NULL,
	"minutes" integer NOT NULL,
	"life_min" double precision,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "filter_wear_minutes" CHECK ("filter_wear"."minutes" between 1 and 1440),
	CONSTRAINT "filter_wear_life" CHECK ("filter_wear"."life_min" is null or "filter_wear"."life_min" >= 0)
);
--> statement-breakpoint
CREATE TABLE "hazard_edition" (
	"id" uuid PRIMARY KEY NOT NULL,
	"plan_id" uuid NOT NULL,
	"edition" integer NOT NULL,
	"version" integer NOT NULL,
	"task" text NOT NULL,
	"place" text NOT NULL,
	"facts" jsonb NOT NULL,
	"outcome" text NOT NULL,
	"review_on" date NOT NULL,
	"expires_on" date NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"approved_by" text NOT NULL,
	"approved_at" timestamp with time zone NOT NULL,
	CONSTRAINT "hazard_edition_dates" CHECK ("hazard_edition"."review_on" <= "hazard_edition"."expires_on")
);
--> statement-breakpoint
CREATE TABLE "plan_flag" (
	"id" uuid PRIMARY KEY NOT NULL,
	"plan_id" uuid NOT NULL,
	"pair_id" uuid,
	"text" text NOT NULL,
	"raised_by" text NOT NULL,
	"raised_at" timestamp with time zone NOT NULL,
	"cleared_by" text,
	"cleared_at" timestamp with time zone,
	"cleared_why" text,
	CONSTRAINT "plan_flag_cleared_whole" CHECK (("plan_flag"."cleared_at" is null) = ("plan_flag"."cleared_by" is null) and ("plan_flag"."cleared_at" is null) = ("plan_flag"."cleared_why" is null))
);
--> statement-breakpoint
CREATE TABLE "site_substance" (
	"key" text PRIMARY KEY NOT NULL,
	"own" boolean NOT NULL,
	"record" jsonb NOT NULL,
	"name" text NOT NULL,
	"words" text NOT NULL,
	"changed_by" text NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "site_substance_key" CHECK ("site_substance"."key" ~ '^[a-z0-9-]+$')
);
--> statement-breakpoint
CREATE TABLE "substance_change" (
	"id" uuid PRIMARY KEY NOT NULL,
	"key" text NOT NULL,
	"field" text NOT NULL,
	"before" jsonb,
	"after" jsonb,
	"why" text NOT NULL,
	"changed_by" text NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	CONSTRAINT "substance_change_why" CHECK (length(trim("substance_change"."why")) > 0)
);
--> statement-breakpoint
ALTER TABLE "filter_lot" ADD COLUMN "recalled_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "filter_lot" ADD COLUMN "recalled_by" text;--> statement-breakpoint
ALTER TABLE "filter_lot" ADD COLUMN "recall_reason" text;--> statement-breakpoint
ALTER TABLE "filter_model" ADD COLUMN "reorder_level" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "filter_model" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "filter_pair" ADD COLUMN "discarded_by" text;--> statement-breakpoint
ALTER TABLE "hazard_plan" ADD COLUMN "copied_from" uuid;--> statement-breakpoint
ALTER TABLE "filter_wear" ADD CONSTRAINT "filter_wear_pair_id_filter_pair_id_fk" FOREIGN KEY ("pair_id") REFERENCES "public"."filter_pair"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_wear" ADD CONSTRAINT "filter_wear_plan_id_hazard_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."hazard_plan"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_wear" ADD CONSTRAINT "filter_wear_entered_by_user_id_fk" FOREIGN KEY ("entered_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hazard_edition" ADD CONSTRAINT "hazard_edition_plan_id_hazard_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."hazard_plan"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hazard_edition" ADD CONSTRAINT "hazard_edition_approved_by_user_id_fk" FOREIGN KEY ("approved_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_flag" ADD CONSTRAINT "plan_flag_plan_id_hazard_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."hazard_plan"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_flag" ADD CONSTRAINT "plan_flag_raised_by_user_id_fk" FOREIGN KEY ("raised_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_flag" ADD CONSTRAINT "plan_flag_cleared_by_user_id_fk" FOREIGN KEY ("cleared_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "site_substance" ADD CONSTRAINT "site_substance_changed_by_user_id_fk" FOREIGN KEY ("changed_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "substance_change" ADD CONSTRAINT "substance_change_changed_by_user_id_fk" FOREIGN KEY ("changed_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "filter_wear_pair" ON "filter_wear" USING btree ("pair_id");--> statement-breakpoint
CREATE UNIQUE INDEX "hazard_edition_once" ON "hazard_edition" USING btree ("plan_id","edition");--> statement-breakpoint
CREATE INDEX "plan_flag_open" ON "plan_flag" USING btree ("cleared_at");--> statement-breakpoint
CREATE INDEX "site_substance_name" ON "site_substance" USING btree ("name");--> statement-breakpoint
CREATE INDEX "substance_change_key" ON "substance_change" USING btree ("key","changed_at");--> statement-breakpoint
ALTER TABLE "filter_lot" ADD CONSTRAINT "filter_lot_recalled_by_user_id_fk" FOREIGN KEY ("recalled_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_pair" ADD CONSTRAINT "filter_pair_discarded_by_user_id_fk" FOREIGN KEY ("discarded_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hazard_plan" ADD CONSTRAINT "hazard_plan_copied_from_hazard_plan_id_fk" FOREIGN KEY ("copied_from") REFERENCES "public"."hazard_plan"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_lot" ADD CONSTRAINT "filter_lot_recall_whole" CHECK (("filter_lot"."recalled_at" is null) = ("filter_lot"."recalled_by" is null) and ("filter_lot"."recalled_at" is null) = ("filter_lot"."recall_reason" is null));--> statement-breakpoint
ALTER TABLE "filter_model" ADD CONSTRAINT "filter_model_mass" CHECK ("filter_model"."mass_g" > 0);--> statement-breakpoint
ALTER TABLE "filter_model" ADD CONSTRAINT "filter_model_coded" CHECK ("filter_model"."code_en" is not null or "filter_model"."code_us" is not null);