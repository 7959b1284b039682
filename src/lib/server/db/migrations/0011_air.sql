CREATE TABLE "air_source" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"oil_lubricated" boolean DEFAULT false NOT NULL,
	"banks" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"fills" boolean DEFAULT true NOT NULL,
	CONSTRAINT "air_source_name_unique" UNIQUE("name"),
	CONSTRAINT "air_source_kind" CHECK ("air_source"."kind" in ('compressor', 'banks'))
);
--> statement-breakpoint
CREATE TABLE "air_test" (
	"id" uuid PRIMARY KEY NOT NULL,
	"source_id" uuid NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"sample" jsonb NOT NULL,
	"en" jsonb NOT NULL,
	"grade_d" jsonb NOT NULL,
	"outcome" text NOT NULL,
	"laboratory" text NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "air_work" (
	"id" uuid PRIMARY KEY NOT NULL,
	"source_id" uuid NOT NULL,
	"what" text NOT NULL,
	"done_at" timestamp with time zone NOT NULL,
	"noted_by" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "airline_rig" (
	"item_id" uuid PRIMARY KEY NOT NULL,
	"source_id" uuid NOT NULL,
	"dryer" text DEFAULT '' NOT NULL,
	"sorbent_months" integer,
	"alarm" text DEFAULT 'none' NOT NULL,
	"alarm_ppm" double precision,
	"alarm_days" integer DEFAULT 30 NOT NULL,
	"regulator_bar" double precision NOT NULL,
	"bore_mm" double precision NOT NULL,
	"length_m" double precision NOT NULL,
	"fittings_m" double precision DEFAULT 0 NOT NULL,
	"outlets" integer NOT NULL,
	"least_bar" double precision NOT NULL,
	"wearing" text DEFAULT 'tight-fitting' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "cylinder" (
	"item_id" uuid PRIMARY KEY NOT NULL,
	"water_volume_l" double precision NOT NULL,
	"rated_bar" integer NOT NULL,
	"maximum_bar" integer NOT NULL,
	"material" text NOT NULL,
	"empty_kg" double precision,
	"thread" text DEFAULT '' NOT NULL,
	"manufactured_on" date NOT NULL,
	"life_ends_on" date,
	"test_years" integer,
	"location" text DEFAULT 'rack' NOT NULL,
	"pressure_bar" double precision,
	"pressure_at" timestamp with time zone,
	"inside_at" timestamp with time zone,
	"empty_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "cylinder_volume" CHECK ("cylinder"."water_volume_l" > 0 and "cylinder"."water_volume_l" <= 500),
	CONSTRAINT "cylinder_rated" CHECK ("cylinder"."rated_bar" between 20 and "cylinder"."maximum_bar"),
	CONSTRAINT "cylinder_pressure" CHECK ("cylinder"."pressure_bar" between 0 and 450),
	CONSTRAINT "cylinder_place" CHECK ("cylinder"."location" in ('rack', 'filling', 'test house'))
);
--> statement-breakpoint
CREATE TABLE "cylinder_fill" (
	"id" uuid PRIMARY KEY NOT NULL,
	"batch_id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"instrument" text NOT NULL,
	"started_by" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"start_bar" double precision NOT NULL,
	"ended_at" timestamp with time zone,
	"end_bar" double precision,
	"end_c" double precision,
	"settled_bar" double precision,
	"outcome" text,
	"banks_bar" jsonb,
	"trace" jsonb,
	CONSTRAINT "cylinder_fill_ended_whole" CHECK (("cylinder_fill"."ended_at" is null) = ("cylinder_fill"."outcome" is null))
);
--> statement-breakpoint
CREATE TABLE "cylinder_test" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"tested_on" date NOT NULL,
	"passed" boolean NOT NULL,
	"stamp" text NOT NULL,
	"noted_by" text NOT NULL,
	"noted_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "fill_batch" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" serial NOT NULL,
	"source_id" uuid NOT NULL,
	"air_test_id" uuid NOT NULL,
	"opened_by" text NOT NULL,
	"opened_at" timestamp with time zone NOT NULL,
	"closed_at" timestamp with time zone,
	CONSTRAINT "fill_batch_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "rig_event" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"done_on" date NOT NULL,
	"passed" boolean DEFAULT true NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"done_by" text NOT NULL,
	"noted_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "entry_alarm" (
	"id" uuid PRIMARY KEY NOT NULL,
	"wearer_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"key" text NOT NULL,
	"due_at" timestamp with time zone NOT NULL,
	"raised_at" timestamp with time zone NOT NULL,
	"seen_by" text,
	"seen_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "entry_reading" (
	"seq" serial PRIMARY KEY NOT NULL,
	"id" uuid NOT NULL,
	"wearer_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"bar" double precision NOT NULL,
	"by" text NOT NULL,
	"corrects" boolean DEFAULT false NOT NULL,
	CONSTRAINT "entry_reading_id_unique" UNIQUE("id")
);
--> statement-breakpoint
CREATE TABLE "entry_team" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" serial NOT NULL,
	"task" text NOT NULL,
	"place_id" uuid,
	"margin_min" integer NOT NULL,
	"opened_by" text NOT NULL,
	"opened_at" timestamp with time zone NOT NULL,
	"turned_at" timestamp with time zone,
	"closed_at" timestamp with time zone,
	CONSTRAINT "entry_team_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "entry_wearer" (
	"id" uuid PRIMARY KEY NOT NULL,
	"team_id" uuid NOT NULL,
	"wearer" text NOT NULL,
	"set_id" uuid,
	"water_volume_l" double precision NOT NULL,
	"start_bar" double precision NOT NULL,
	"warning_bar" double precision NOT NULL,
	"expected_l_per_min" double precision NOT NULL,
	"channel" text,
	"started_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	"end_bar" double precision,
	CONSTRAINT "entry_wearer_ended_whole" CHECK (("entry_wearer"."ended_at" is null) = ("entry_wearer"."end_bar" is null)),
	CONSTRAINT "entry_wearer_falls" CHECK ("entry_wearer"."end_bar" <= "entry_wearer"."start_bar")
);
--> statement-breakpoint
ALTER TABLE "air_test" ADD CONSTRAINT "air_test_source_id_air_source_id_fk" FOREIGN KEY ("source_id") REFERENCES "public"."air_source"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "air_test" ADD CONSTRAINT "air_test_entered_by_user_id_fk" FOREIGN KEY ("entered_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "air_work" ADD CONSTRAINT "air_work_source_id_air_source_id_fk" FOREIGN KEY ("source_id") REFERENCES "public"."air_source"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "air_work" ADD CONSTRAINT "air_work_noted_by_user_id_fk" FOREIGN KEY ("noted_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "airline_rig" ADD CONSTRAINT "airline_rig_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "airline_rig" ADD CONSTRAINT "airline_rig_source_id_air_source_id_fk" FOREIGN KEY ("source_id") REFERENCES "public"."air_source"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cylinder" ADD CONSTRAINT "cylinder_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cylinder_fill" ADD CONSTRAINT "cylinder_fill_batch_id_fill_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."fill_batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cylinder_fill" ADD CONSTRAINT "cylinder_fill_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cylinder_fill" ADD CONSTRAINT "cylinder_fill_started_by_user_id_fk" FOREIGN KEY ("started_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cylinder_test" ADD CONSTRAINT "cylinder_test_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cylinder_test" ADD CONSTRAINT "cylinder_test_noted_by_user_id_fk" FOREIGN KEY ("noted_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fill_batch" ADD CONSTRAINT "fill_batch_source_id_air_source_id_fk" FOREIGN KEY ("source_id") REFERENCES "public"."air_source"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fill_batch" ADD CONSTRAINT "fill_batch_air_test_id_air_test_id_fk" FOREIGN KEY ("air_test_id") REFERENCES "public"."air_test"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fill_batch" ADD CONSTRAINT "fill_batch_opened_by_user_id_fk" FOREIGN KEY ("opened_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rig_event" ADD CONSTRAINT "rig_event_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rig_event" ADD CONSTRAINT "rig_event_done_by_user_id_fk" FOREIGN KEY ("done_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_alarm" ADD CONSTRAINT "entry_alarm_wearer_id_entry_wearer_id_fk" FOREIGN KEY ("wearer_id") REFERENCES "public"."entry_wearer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_alarm" ADD CONSTRAINT "entry_alarm_seen_by_user_id_fk" FOREIGN KEY ("seen_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_reading" ADD CONSTRAINT "entry_reading_wearer_id_entry_wearer_id_fk" FOREIGN KEY ("wearer_id") REFERENCES "public"."entry_wearer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_team" ADD CONSTRAINT "entry_team_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_team" ADD CONSTRAINT "entry_team_opened_by_user_id_fk" FOREIGN KEY ("opened_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_wearer" ADD CONSTRAINT "entry_wearer_team_id_entry_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."entry_team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_wearer" ADD CONSTRAINT "entry_wearer_set_id_item_id_fk" FOREIGN KEY ("set_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "air_test_source" ON "air_test" USING btree ("source_id","taken_at");--> statement-breakpoint
CREATE INDEX "air_work_source" ON "air_work" USING btree ("source_id","done_at");--> statement-breakpoint
CREATE INDEX "cylinder_location" ON "cylinder" USING btree ("location");--> statement-breakpoint
CREATE INDEX "cylinder_fill_item" ON "cylinder_fill" USING btree ("item_id","ended_at");--> statement-breakpoint
CREATE INDEX "cylinder_fill_batch" ON "cylinder_fill" USING btree ("batch_id");--> statement-breakpoint
CREATE UNIQUE INDEX "cylinder_fill_one_open" ON "cylinder_fill" USING btree (("ended_at" is null)) WHERE "cylinder_fill"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "cylinder_test_item" ON "cylinder_test" USING btree ("item_id","tested_on");--> statement-breakpoint
CREATE UNIQUE INDEX "fill_batch_one_open" ON "fill_batch" USING btree ("source_id") WHERE "fill_batch"."closed_at" is null;--> statement-breakpoint
CREATE INDEX "rig_event_item" ON "rig_event" USING btree ("item_id","kind","done_on");--> statement-breakpoint
CREATE UNIQUE INDEX "entry_alarm_once" ON "entry_alarm" USING btree ("wearer_id","key");--> statement-breakpoint
CREATE INDEX "entry_reading_wearer" ON "entry_reading" USING btree ("wearer_id","at");--> statement-breakpoint
CREATE INDEX "entry_team_open" ON "entry_team" USING btree ("opened_at") WHERE "entry_team"."closed_at" is null;--> statement-breakpoint
CREATE INDEX "entry_wearer_team" ON "entry_wearer" USING btree ("team_id");--> statement-breakpoint
CREATE INDEX "entry_wearer_name" ON "entry_wearer" USING btree ("wearer","ended_at");--> statement-breakpoint
CREATE UNIQUE INDEX "entry_wearer_set_once" ON "entry_wearer" USING btree ("set_id") WHERE "entry_wearer"."ended_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "entry_wearer_once" ON "entry_wearer" USING btree ("wearer") WHERE "entry_wearer"."ended_at" is null;