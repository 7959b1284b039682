CREATE TABLE "place_floor" (
	"place_id" uuid NOT NULL,
	"family" text NOT NULL,
	"floor" integer NOT NULL,
	CONSTRAINT "place_floor_place_id_family_pk" PRIMARY KEY("place_id","family"),
	CONSTRAINT "place_floor_size" CHECK ("place_floor"."floor" between 0 and 100000)
);
--> statement-breakpoint
CREATE TABLE "table_import" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"rows" integer NOT NULL,
	"done_by" text NOT NULL,
	"done_at" timestamp with time zone NOT NULL,
	"undone_by" text,
	"undone_at" timestamp with time zone,
	CONSTRAINT "table_import_kind" CHECK ("table_import"."kind" in ('items', 'filters', 'parts')),
	CONSTRAINT "table_import_undone_whole" CHECK (("table_import"."undone_by" is null) = ("table_import"."undone_at" is null))
);
--> statement-breakpoint
CREATE TABLE "test_house" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"takes" text[] NOT NULL,
	"turnaround_days" integer NOT NULL,
	"closed_on" date,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "test_house_name_unique" UNIQUE("name"),
	CONSTRAINT "test_house_days" CHECK ("test_house"."turnaround_days" between 1 and 366)
);
--> statement-breakpoint
ALTER TABLE "filter_lot" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "filter_model" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "installation" ADD COLUMN "set_up_hash" text;--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "use_pattern" text DEFAULT 'shared' NOT NULL;--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "part_lot" ADD COLUMN "location" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "part_lot" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "kind" text DEFAULT 'room' NOT NULL;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "storage" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "responsible" text;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "closed_on" date;--> statement-breakpoint
ALTER TABLE "place" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "code_scheme" text DEFAULT 'en' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "pressure_unit" text DEFAULT 'bar' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "temperature_unit" text DEFAULT '°C' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "seal_ways" text DEFAULT 'both' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "set_school" text DEFAULT 'either' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "work_days" integer[] DEFAULT '{1,2,3,4,5}' NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "bench_minutes" integer DEFAULT 240 NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "holidays" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "set_up_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "place_floor" ADD CONSTRAINT "place_floor_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "table_import" ADD CONSTRAINT "table_import_done_by_user_id_fk" FOREIGN KEY ("done_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "table_import" ADD CONSTRAINT "table_import_undone_by_user_id_fk" FOREIGN KEY ("undone_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "table_import_at" ON "table_import" USING btree ("done_at");--> statement-breakpoint
ALTER TABLE "filter_lot" ADD CONSTRAINT "filter_lot_import_id_table_import_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."table_import"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_model" ADD CONSTRAINT "filter_model_import_id_table_import_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."table_import"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_import_id_table_import_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."table_import"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "part_lot" ADD CONSTRAINT "part_lot_import_id_table_import_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."table_import"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_responsible_user_id_fk" FOREIGN KEY ("responsible") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "item_import" ON "item" USING btree ("import_id");--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_use_pattern" CHECK ("item"."use_pattern" in ('personal', 'shared', 'emergency'));--> statement-breakpoint
ALTER TABLE "place" ADD CONSTRAINT "place_kind" CHECK ("place"."kind" in ('room', 'store', 'vehicle'));--> statement-breakpoint
ALTER TABLE "site" ADD CONSTRAINT "site_code_scheme" CHECK ("site"."code_scheme" in ('en', 'us'));--> statement-breakpoint
ALTER TABLE "site" ADD CONSTRAINT "site_pressure_unit" CHECK ("site"."pressure_unit" in ('bar', 'MPa', 'psi'));--> statement-breakpoint
ALTER TABLE "site" ADD CONSTRAINT "site_temperature_unit" CHECK ("site"."temperature_unit" in ('°C', '°F'));--> statement-breakpoint
ALTER TABLE "site" ADD CONSTRAINT "site_seal_ways" CHECK ("site"."seal_ways" in ('both', 'one'));--> statement-breakpoint
ALTER TABLE "site" ADD CONSTRAINT "site_set_school" CHECK ("site"."set_school" in ('either', 'bench', 'worn'));--> statement-breakpoint
ALTER TABLE "site" ADD CONSTRAINT "site_work_days" CHECK (cardinality("site"."work_days") > 0 and "site"."work_days" <@ array[1, 2, 3, 4, 5, 6, 7]);--> statement-breakpoint
ALTER TABLE "site" ADD CONSTRAINT "site_bench_minutes" CHECK ("site"."bench_minutes" between 1 and 14400);