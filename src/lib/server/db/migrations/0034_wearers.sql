CREATE TABLE "fit_test" (
	"id" uuid PRIMARY KEY NOT NULL,
	"wearer_id" uuid NOT NULL,
	"model_id" uuid NOT NULL,
	"size" text NOT NULL,
	"mask" text NOT NULL,
	"method" text NOT NULL,
	"rule_set" "rule_set" NOT NULL,
	"protocol" text,
	"factors" jsonb,
	"overall" double precision,
	"passed" boolean NOT NULL,
	"reasons" jsonb NOT NULL,
	"worn" text DEFAULT '' NOT NULL,
	"tested_on" date NOT NULL,
	"tested_at" timestamp with time zone,
	"from_paper" boolean DEFAULT false NOT NULL,
	"tester" text DEFAULT '' NOT NULL,
	"signed_by" text NOT NULL,
	"signed_at" timestamp with time zone NOT NULL,
	CONSTRAINT "fit_test_mask" CHECK ("fit_test"."mask" in ('half', 'full')),
	CONSTRAINT "fit_test_method" CHECK ("fit_test"."method" in ('quantitative', 'qualitative')),
	CONSTRAINT "fit_test_whole" CHECK ("fit_test"."method" <> 'quantitative' or ("fit_test"."protocol" is not null and "fit_test"."factors" is not null and "fit_test"."overall" is not null))
);
--> statement-breakpoint
CREATE TABLE "wearer" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" text NOT NULL,
	"name" text NOT NULL,
	"user_id" text,
	"eyewear" boolean DEFAULT false NOT NULL,
	"beard" boolean DEFAULT false NOT NULL,
	"cleared_until" date,
	"trained_until" date,
	"left_on" date,
	"erased_on" date,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "wearer_number_form" CHECK ("wearer"."number" <> '' and length("wearer"."number") <= 20)
);
--> statement-breakpoint
CREATE TABLE "wearer_change" (
	"id" uuid PRIMARY KEY NOT NULL,
	"wearer_id" uuid NOT NULL,
	"what" text NOT NULL,
	"reported_on" date NOT NULL,
	"reported_at" timestamp with time zone NOT NULL,
	"reported_by" text NOT NULL,
	CONSTRAINT "wearer_change_what" CHECK ("wearer_change"."what" in ('weight', 'dental', 'pregnancy', 'scar', 'visible'))
);
--> statement-breakpoint
CREATE TABLE "wearer_name" (
	"name" text PRIMARY KEY NOT NULL,
	"wearer_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "wearer_place" (
	"wearer_id" uuid NOT NULL,
	"place_id" uuid NOT NULL,
	CONSTRAINT "wearer_place_wearer_id_place_id_pk" PRIMARY KEY("wearer_id","place_id")
);
--> statement-breakpoint
ALTER TABLE "fit_test" ADD CONSTRAINT "fit_test_wearer_id_wearer_id_fk" FOREIGN KEY ("wearer_id") REFERENCES "public"."wearer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fit_test" ADD CONSTRAINT "fit_test_model_id_item_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."item_model"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fit_test" ADD CONSTRAINT "fit_test_signed_by_user_id_fk" FOREIGN KEY ("signed_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wearer" ADD CONSTRAINT "wearer_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wearer_change" ADD CONSTRAINT "wearer_change_wearer_id_wearer_id_fk" FOREIGN KEY ("wearer_id") REFERENCES "public"."wearer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wearer_change" ADD CONSTRAINT "wearer_change_reported_by_user_id_fk" FOREIGN KEY ("reported_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wearer_name" ADD CONSTRAINT "wearer_name_wearer_id_wearer_id_fk" FOREIGN KEY ("wearer_id") REFERENCES "public"."wearer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wearer_place" ADD CONSTRAINT "wearer_place_wearer_id_wearer_id_fk" FOREIGN KEY ("wearer_id") REFERENCES "public"."wearer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wearer_place" ADD CONSTRAINT "wearer_place_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "fit_test_wearer" ON "fit_test" USING btree ("wearer_id","tested_on");--> statement-breakpoint
CREATE INDEX "fit_test_model" ON "fit_test" USING btree ("model_id","size");--> statement-breakpoint
CREATE UNIQUE INDEX "wearer_number" ON "wearer" USING btree (lower("number"));--> statement-breakpoint
CREATE UNIQUE INDEX "wearer_user" ON "wearer" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "wearer_by_name" ON "wearer" USING btree (lower("name"));--> statement-breakpoint
CREATE INDEX "wearer_change_wearer" ON "wearer_change" USING btree ("wearer_id","reported_on");--> statement-breakpoint
CREATE INDEX "wearer_name_of" ON "wearer_name" USING btree ("wearer_id");--> statement-breakpoint
CREATE TRIGGER wearer_change_append_only BEFORE UPDATE OR DELETE ON "wearer_change" FOR EACH ROW EXECUTE FUNCTION refuse_change();--> statement-breakpoint
CREATE TRIGGER fit_test_append_only BEFORE UPDATE OR DELETE ON "fit_test" FOR EACH ROW EXECUTE FUNCTION refuse_change();
