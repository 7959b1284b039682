CREATE TABLE "barred_day" (
	"id" uuid PRIMARY KEY NOT NULL,
	"day" date NOT NULL,
	"user_id" text,
	"why" text DEFAULT '' NOT NULL,
	"barred_by" text NOT NULL,
	"barred_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "plan_feed" (
	"id" uuid PRIMARY KEY NOT NULL,
	"hash" text NOT NULL,
	"user_id" text,
	"place_id" uuid,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"read_at" timestamp with time zone,
	"revoked_at" timestamp with time zone,
	CONSTRAINT "plan_feed_hash_unique" UNIQUE("hash"),
	CONSTRAINT "plan_feed_one" CHECK (num_nonnulls("plan_feed"."user_id", "plan_feed"."place_id") = 1)
);
--> statement-breakpoint
CREATE TABLE "plan_pin" (
	"job_key" text PRIMARY KEY NOT NULL,
	"day" date NOT NULL,
	"user_id" text NOT NULL,
	"pinned_by" text NOT NULL,
	"pinned_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "planned_job" (
	"job_key" text PRIMARY KEY NOT NULL,
	"plan_id" uuid NOT NULL,
	"day" date NOT NULL,
	"user_id" text NOT NULL,
	"place_id" uuid,
	"item_id" uuid,
	"job" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "work_hours" (
	"user_id" text PRIMARY KEY NOT NULL,
	"minutes" integer[] NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "work_hours_week" CHECK (cardinality("work_hours"."minutes") = 7 and 0 <= all ("work_hours"."minutes") and 1440 >= all ("work_hours"."minutes"))
);
--> statement-breakpoint
CREATE TABLE "work_plan" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" integer NOT NULL,
	"starts_on" date NOT NULL,
	"ends_on" date NOT NULL,
	"way" text NOT NULL,
	"jobs" integer NOT NULL,
	"peak_min" double precision NOT NULL,
	"bound_min" double precision NOT NULL,
	"figures" jsonb NOT NULL,
	"relaxed" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"changes" jsonb NOT NULL,
	"made_by" text,
	"made_at" timestamp with time zone NOT NULL,
	CONSTRAINT "work_plan_number_unique" UNIQUE("number"),
	CONSTRAINT "work_plan_way" CHECK ("work_plan"."way" in ('anew', 'moved', 'evening'))
);
--> statement-breakpoint
ALTER TABLE "barred_day" ADD CONSTRAINT "barred_day_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "barred_day" ADD CONSTRAINT "barred_day_barred_by_user_id_fk" FOREIGN KEY ("barred_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_feed" ADD CONSTRAINT "plan_feed_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_feed" ADD CONSTRAINT "plan_feed_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_feed" ADD CONSTRAINT "plan_feed_made_by_user_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_pin" ADD CONSTRAINT "plan_pin_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_pin" ADD CONSTRAINT "plan_pin_pinned_by_user_id_fk" FOREIGN KEY ("pinned_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "planned_job" ADD CONSTRAINT "planned_job_plan_id_work_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."work_plan"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "planned_job" ADD CONSTRAINT "planned_job_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "planned_job" ADD CONSTRAINT "planned_job_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_hours" ADD CONSTRAINT "work_hours_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_plan" ADD CONSTRAINT "work_plan_made_by_user_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "barred_day_once" ON "barred_day" USING btree ("day",coalesce("user_id", ''));--> statement-breakpoint
CREATE INDEX "plan_feed_user" ON "plan_feed" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "planned_job_day" ON "planned_job" USING btree ("day","user_id");--> statement-breakpoint
CREATE INDEX "planned_job_place" ON "planned_job" USING btree ("place_id","day");--> statement-breakpoint
CREATE INDEX "planned_job_item" ON "planned_job" USING btree ("item_id");--> statement-breakpoint
CREATE TRIGGER work_plan_append_only BEFORE UPDATE OR DELETE ON "work_plan" FOR EACH ROW EXECUTE FUNCTION refuse_change();
