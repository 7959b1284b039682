CREATE TABLE "care_look" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"batch_id" uuid,
	"looked" text[] NOT NULL,
	"good" boolean NOT NULL,
	"looked_by" text NOT NULL,
	"looked_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "item_wipe" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"wiped_by" text NOT NULL,
	"wiped_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "stock_container" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"agent" text NOT NULL,
	"percent" double precision,
	"opened_on" date NOT NULL,
	"half_life_days" double precision,
	"expires_on" date,
	"left_ml" double precision NOT NULL,
	"label_min" integer,
	"closed_on" date,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "stock_container_agent" CHECK ("stock_container"."agent" in ('chlorine', 'iodine', 'quaternary ammonium')),
	CONSTRAINT "stock_container_left" CHECK ("stock_container"."left_ml" between 0 and 1000000),
	CONSTRAINT "stock_container_percent" CHECK ("stock_container"."percent" > 0 and "stock_container"."percent" <= 100),
	CONSTRAINT "stock_container_half_life" CHECK ("stock_container"."half_life_days" > 0)
);
--> statement-breakpoint
CREATE TABLE "wash_batch" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" serial NOT NULL,
	"step" text DEFAULT 'load' NOT NULL,
	"cleaner" text DEFAULT 'neutral' NOT NULL,
	"only_for" text,
	"started_by" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"washed_at" timestamp with time zone,
	"container_id" uuid,
	"agent" text,
	"volume_l" double precision,
	"stock_ml" double precision,
	"dose_ppm" double precision,
	"contact_min" integer,
	"dosed_at" timestamp with time zone,
	"rinsed_at" timestamp with time zone,
	"rinsed" boolean,
	"dried_by" text,
	"cabinet_c" double precision,
	"dry_at" timestamp with time zone,
	"ended_at" timestamp with time zone,
	"ended_by" text,
	"outcome" text,
	"reasons" jsonb,
	"decision" text,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "wash_batch_number_unique" UNIQUE("number"),
	CONSTRAINT "wash_batch_step" CHECK ("wash_batch"."step" in ('load', 'wash', 'disinfect', 'rinse', 'dry', 'ended')),
	CONSTRAINT "wash_batch_cleaner" CHECK ("wash_batch"."cleaner" in ('neutral', 'acid', 'ammonia')),
	CONSTRAINT "wash_batch_agent" CHECK ("wash_batch"."agent" in ('chlorine', 'iodine', 'quaternary ammonium')),
	CONSTRAINT "wash_batch_dried" CHECK ("wash_batch"."dried_by" in ('air', 'cabinet', 'direct heat')),
	CONSTRAINT "wash_batch_outcome" CHECK ("wash_batch"."outcome" in ('pass', 'fail', 'given up')),
	CONSTRAINT "wash_batch_decision" CHECK ("wash_batch"."decision" in ('again', 'inspect discs', 'hold')),
	CONSTRAINT "wash_batch_never_mixed" CHECK ("wash_batch"."cleaner" = 'neutral' or "wash_batch"."agent" is distinct from 'chlorine'),
	CONSTRAINT "wash_batch_ended_whole" CHECK (("wash_batch"."ended_at" is null) = ("wash_batch"."outcome" is null))
);
--> statement-breakpoint
CREATE TABLE "wash_batch_item" (
	"id" uuid PRIMARY KEY NOT NULL,
	"batch_id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"added_at" timestamp with time zone NOT NULL,
	"taken_out_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "wash_reading" (
	"id" uuid PRIMARY KEY NOT NULL,
	"batch_id" uuid NOT NULL,
	"celsius" double precision NOT NULL,
	"measured" boolean NOT NULL,
	"taken_by" text NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	CONSTRAINT "wash_reading_range" CHECK ("wash_reading"."celsius" between 0 and 100)
);
--> statement-breakpoint
CREATE TABLE "custody" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"item_id" uuid NOT NULL,
	"where_it_is" text NOT NULL,
	"place_id" uuid,
	"wearer_id" uuid,
	"hand_out_id" uuid,
	"batch_id" uuid,
	"test_house_id" uuid,
	"note" text DEFAULT '' NOT NULL,
	"since" timestamp with time zone NOT NULL,
	"moved_by" text,
	"until" timestamp with time zone,
	CONSTRAINT "custody_where" CHECK ("custody"."where_it_is" in ('shelf', 'issued', 'returned', 'wash', 'drying', 'bench', 'filling', 'service', 'test house', 'quarantine')),
	CONSTRAINT "custody_issued_to" CHECK (("custody"."where_it_is" = 'issued') = ("custody"."wearer_id" is not null)),
	CONSTRAINT "custody_in_batch" CHECK ("custody"."where_it_is" <> 'wash' or "custody"."batch_id" is not null),
	CONSTRAINT "custody_in_order" CHECK ("custody"."until" >= "custody"."since")
);
--> statement-breakpoint
CREATE TABLE "hand_out" (
	"id" uuid PRIMARY KEY NOT NULL,
	"wearer_id" uuid NOT NULL,
	"plan_id" uuid,
	"minutes" integer,
	"outcome" text NOT NULL,
	"reasons" jsonb NOT NULL,
	"override_reason" text,
	"offline" boolean DEFAULT false NOT NULL,
	"due_back_at" timestamp with time zone,
	"handed_by" text NOT NULL,
	"handed_at" timestamp with time zone NOT NULL,
	CONSTRAINT "hand_out_outcome" CHECK ("hand_out"."outcome" in ('hand out', 'with conditions', 'do not')),
	CONSTRAINT "hand_out_against_the_gate_with_a_reason" CHECK ("hand_out"."outcome" <> 'do not' or length(trim(coalesce("hand_out"."override_reason", ''))) > 0),
	CONSTRAINT "hand_out_minutes" CHECK ("hand_out"."minutes" between 1 and 1440)
);
--> statement-breakpoint
CREATE TABLE "item_return" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"hand_out_id" uuid,
	"wearer_id" uuid,
	"plan_id" uuid,
	"used" boolean NOT NULL,
	"minutes" integer,
	"bar" double precision,
	"noticed" text[] DEFAULT '{}' NOT NULL,
	"contaminated_with" text[] DEFAULT '{}' NOT NULL,
	"own_bath" boolean DEFAULT false NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"because" text DEFAULT '' NOT NULL,
	"counted_elsewhere" boolean DEFAULT false NOT NULL,
	"offline" boolean DEFAULT false NOT NULL,
	"returned_by" text NOT NULL,
	"returned_at" timestamp with time zone NOT NULL,
	CONSTRAINT "item_return_minutes" CHECK ("item_return"."minutes" between 0 and 1440),
	CONSTRAINT "item_return_bar" CHECK ("item_return"."bar" between 0 and 450)
);
--> statement-breakpoint
ALTER TABLE "item_state" DROP CONSTRAINT "item_state_blocked_word";--> statement-breakpoint
ALTER TABLE "care_look" ADD CONSTRAINT "care_look_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "care_look" ADD CONSTRAINT "care_look_batch_id_wash_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."wash_batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "care_look" ADD CONSTRAINT "care_look_looked_by_user_id_fk" FOREIGN KEY ("looked_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_wipe" ADD CONSTRAINT "item_wipe_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_wipe" ADD CONSTRAINT "item_wipe_wiped_by_user_id_fk" FOREIGN KEY ("wiped_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wash_batch" ADD CONSTRAINT "wash_batch_started_by_user_id_fk" FOREIGN KEY ("started_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wash_batch" ADD CONSTRAINT "wash_batch_container_id_stock_container_id_fk" FOREIGN KEY ("container_id") REFERENCES "public"."stock_container"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wash_batch_item" ADD CONSTRAINT "wash_batch_item_batch_id_wash_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."wash_batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wash_batch_item" ADD CONSTRAINT "wash_batch_item_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wash_reading" ADD CONSTRAINT "wash_reading_batch_id_wash_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."wash_batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wash_reading" ADD CONSTRAINT "wash_reading_taken_by_user_id_fk" FOREIGN KEY ("taken_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "custody" ADD CONSTRAINT "custody_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "custody" ADD CONSTRAINT "custody_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "custody" ADD CONSTRAINT "custody_wearer_id_wearer_id_fk" FOREIGN KEY ("wearer_id") REFERENCES "public"."wearer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "custody" ADD CONSTRAINT "custody_hand_out_id_hand_out_id_fk" FOREIGN KEY ("hand_out_id") REFERENCES "public"."hand_out"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "custody" ADD CONSTRAINT "custody_batch_id_wash_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."wash_batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "custody" ADD CONSTRAINT "custody_test_house_id_test_house_id_fk" FOREIGN KEY ("test_house_id") REFERENCES "public"."test_house"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hand_out" ADD CONSTRAINT "hand_out_wearer_id_wearer_id_fk" FOREIGN KEY ("wearer_id") REFERENCES "public"."wearer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hand_out" ADD CONSTRAINT "hand_out_plan_id_hazard_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."hazard_plan"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hand_out" ADD CONSTRAINT "hand_out_handed_by_user_id_fk" FOREIGN KEY ("handed_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_return" ADD CONSTRAINT "item_return_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_return" ADD CONSTRAINT "item_return_hand_out_id_hand_out_id_fk" FOREIGN KEY ("hand_out_id") REFERENCES "public"."hand_out"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_return" ADD CONSTRAINT "item_return_wearer_id_wearer_id_fk" FOREIGN KEY ("wearer_id") REFERENCES "public"."wearer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_return" ADD CONSTRAINT "item_return_plan_id_hazard_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."hazard_plan"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_return" ADD CONSTRAINT "item_return_returned_by_user_id_fk" FOREIGN KEY ("returned_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "care_look_item" ON "care_look" USING btree ("item_id","looked_at");--> statement-breakpoint
CREATE INDEX "item_wipe_item" ON "item_wipe" USING btree ("item_id","wiped_at");--> statement-breakpoint
CREATE UNIQUE INDEX "stock_container_name" ON "stock_container" USING btree (lower("name"));--> statement-breakpoint
CREATE INDEX "wash_batch_open" ON "wash_batch" USING btree ("started_at") WHERE "wash_batch"."ended_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "wash_batch_item_once" ON "wash_batch_item" USING btree ("batch_id","item_id") WHERE "wash_batch_item"."taken_out_at" is null;--> statement-breakpoint
CREATE INDEX "wash_batch_item_item" ON "wash_batch_item" USING btree ("item_id","added_at");--> statement-breakpoint
CREATE INDEX "wash_reading_batch" ON "wash_reading" USING btree ("batch_id","taken_at");--> statement-breakpoint
CREATE UNIQUE INDEX "custody_open_once" ON "custody" USING btree ("item_id") WHERE "custody"."until" is null;--> statement-breakpoint
CREATE INDEX "custody_item" ON "custody" USING btree ("item_id","since");--> statement-breakpoint
CREATE INDEX "custody_open_where" ON "custody" USING btree ("where_it_is","since") WHERE "custody"."until" is null and "custody"."where_it_is" <> 'shelf';--> statement-breakpoint
CREATE INDEX "custody_wearer" ON "custody" USING btree ("wearer_id") WHERE "custody"."wearer_id" is not null;--> statement-breakpoint
CREATE INDEX "custody_hand_out" ON "custody" USING btree ("hand_out_id");--> statement-breakpoint
CREATE INDEX "custody_batch" ON "custody" USING btree ("batch_id");--> statement-breakpoint
CREATE INDEX "hand_out_wearer" ON "hand_out" USING btree ("wearer_id","handed_at");--> statement-breakpoint
CREATE INDEX "hand_out_at" ON "hand_out" USING btree ("handed_at");--> statement-breakpoint
CREATE INDEX "item_return_item" ON "item_return" USING btree ("item_id","returned_at");--> statement-breakpoint
CREATE INDEX "item_return_wearer" ON "item_return" USING btree ("wearer_id","returned_at");--> statement-breakpoint
ALTER TABLE "item_state" ADD CONSTRAINT "item_state_blocked_word" CHECK ("item_state"."blocked" in ('retired', 'in service', 'held', 'in wash', 'issued'));--> statement-breakpoint
CREATE TRIGGER hand_out_append_only BEFORE UPDATE OR DELETE ON "hand_out" FOR EACH ROW EXECUTE FUNCTION refuse_change();--> statement-breakpoint
CREATE TRIGGER item_return_append_only BEFORE UPDATE OR DELETE ON "item_return" FOR EACH ROW EXECUTE FUNCTION refuse_change();--> statement-breakpoint
CREATE TRIGGER wash_reading_append_only BEFORE UPDATE OR DELETE ON "wash_reading" FOR EACH ROW EXECUTE FUNCTION refuse_change();--> statement-breakpoint
CREATE TRIGGER item_wipe_append_only BEFORE UPDATE OR DELETE ON "item_wipe" FOR EACH ROW EXECUTE FUNCTION refuse_change();--> statement-breakpoint
CREATE TRIGGER care_look_append_only BEFORE UPDATE OR DELETE ON "care_look" FOR EACH ROW EXECUTE FUNCTION refuse_change();--> statement-breakpoint
-- Where something was is past: a row is ended once and nothing else of it changes.
CREATE FUNCTION refuse_change_of_custody() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF OLD.until IS NOT NULL OR NEW.until IS NULL
		OR (to_jsonb(NEW) - 'until') IS DISTINCT FROM (to_jsonb(OLD) - 'until') THEN
		RAISE EXCEPTION 'where something was is never changed, only ended' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER custody_only_ended BEFORE UPDATE ON "custody" FOR EACH ROW EXECUTE FUNCTION refuse_change_of_custody();--> statement-breakpoint
CREATE FUNCTION refuse_change_of_ended_batch() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF OLD.ended_at IS NOT NULL THEN
		RAISE EXCEPTION 'this batch has ended' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER wash_batch_ended_stays BEFORE UPDATE ON "wash_batch" FOR EACH ROW EXECUTE FUNCTION refuse_change_of_ended_batch();--> statement-breakpoint
-- Every item is somewhere from its first moment on: on the shelf of its place, whoever takes it in.
CREATE FUNCTION begin_custody() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO custody (item_id, where_it_is, place_id, since) VALUES (NEW.id, 'shelf', NEW.place_id, least(NEW.in_use_since::timestamptz, now()));
	RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER item_is_somewhere AFTER INSERT ON "item" FOR EACH ROW EXECUTE FUNCTION begin_custody();--> statement-breakpoint
INSERT INTO custody (item_id, where_it_is, place_id, since)
SELECT i.id,
	CASE c.location WHEN 'filling' THEN 'filling' WHEN 'test house' THEN 'test house' ELSE 'shelf' END,
	i.place_id, least(i.in_use_since::timestamptz, now())
FROM item i LEFT JOIN cylinder c ON c.item_id = i.id;--> statement-breakpoint
-- What was taken in with a table and lies on its shelf since goes with its custody when the table is taken back.
CREATE OR REPLACE FUNCTION undo_table_import(given uuid, most integer) RETURNS integer LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
DECLARE
	gone integer := 0;
	removed integer;
	batch uuid[];
BEGIN
	PERFORM 1 FROM table_import WHERE id = given AND undone_at IS NULL;
	IF NOT FOUND THEN
		RAISE EXCEPTION 'this table was not taken in, or was taken back' USING ERRCODE = 'restrict_violation';
	END IF;
	-- Some at a time: the caller comes again until nothing is left.
	batch := ARRAY(SELECT id FROM item WHERE import_id = given LIMIT most);
	DELETE FROM item_due WHERE item_id = ANY (batch);
	DELETE FROM item_state WHERE item_id = ANY (batch);
	-- Only the row that came with the item: one that was ever moved keeps the table from being taken back.
	DELETE FROM custody WHERE item_id = ANY (batch) AND moved_by IS NULL AND until IS NULL;
	UPDATE item SET set_id = NULL WHERE import_id = given AND set_id = ANY (batch);
	DELETE FROM item WHERE id = ANY (batch);
	GET DIAGNOSTICS removed = ROW_COUNT;
	gone := gone + removed;
	DELETE FROM filter_lot WHERE import_id = given;
	GET DIAGNOSTICS removed = ROW_COUNT;
	gone := gone + removed;
	DELETE FROM filter_model WHERE import_id = given;
	GET DIAGNOSTICS removed = ROW_COUNT;
	gone := gone + removed;
	DELETE FROM part_lot WHERE import_id = given;
	GET DIAGNOSTICS removed = ROW_COUNT;
	gone := gone + removed;
	batch := ARRAY(SELECT id FROM wearer WHERE import_id = given LIMIT most);
	DELETE FROM wearer_place WHERE wearer_id = ANY (batch);
	DELETE FROM wearer WHERE id = ANY (batch);
	GET DIAGNOSTICS removed = ROW_COUNT;
	RETURN gone + removed;
END $$;
