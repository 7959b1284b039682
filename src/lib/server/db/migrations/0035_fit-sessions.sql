CREATE TABLE "authorisation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"job" text NOT NULL,
	"families" text[] NOT NULL,
	"model_ids" uuid[] NOT NULL,
	"from_day" date NOT NULL,
	"until" date,
	"evidence" text NOT NULL,
	"given_by" text NOT NULL,
	"given_at" timestamp with time zone NOT NULL,
	"ended_on" date,
	"ended_by" text,
	"ended_why" text DEFAULT '' NOT NULL,
	CONSTRAINT "authorisation_job_known" CHECK ("authorisation"."job" in ('inspect', 'wash', 'repair', 'repair of demand valves and reducers', 'fill cylinders', 'fit-test', 'release', 'approve plans')),
	CONSTRAINT "authorisation_days" CHECK ("authorisation"."until" is null or "authorisation"."until" >= "authorisation"."from_day")
);
--> statement-breakpoint
CREATE TABLE "fit_chunk" (
	"session_id" uuid NOT NULL,
	"first" integer NOT NULL,
	"readings" jsonb NOT NULL,
	CONSTRAINT "fit_chunk_session_id_first_pk" PRIMARY KEY("session_id","first")
);
--> statement-breakpoint
CREATE TABLE "fit_session" (
	"id" uuid PRIMARY KEY NOT NULL,
	"wearer_id" uuid NOT NULL,
	"model_id" uuid NOT NULL,
	"size" text NOT NULL,
	"mask" text NOT NULL,
	"item_id" uuid,
	"method" text NOT NULL,
	"rule_set" "rule_set" NOT NULL,
	"protocol" text,
	"agent" text,
	"worn" text DEFAULT '' NOT NULL,
	"before" jsonb NOT NULL,
	"again_after" uuid,
	"counter" integer,
	"instrument" text DEFAULT '' NOT NULL,
	"least_room" integer NOT NULL,
	"started_by" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"begun_at" timestamp with time zone,
	"squeezes" integer,
	"noticed_at" text,
	"ended_at" timestamp with time zone,
	"ended" text,
	CONSTRAINT "fit_session_mask" CHECK ("fit_session"."mask" in ('half', 'full')),
	CONSTRAINT "fit_session_method" CHECK ("fit_session"."method" in ('quantitative', 'qualitative')),
	CONSTRAINT "fit_session_ended" CHECK ("fit_session"."ended" in ('whole', 'noticed', 'stopped', 'lost')),
	CONSTRAINT "fit_session_agent" CHECK ("fit_session"."agent" in ('sweet', 'bitter', 'banana', 'smoke')),
	CONSTRAINT "fit_session_ended_whole" CHECK (("fit_session"."ended_at" is null) = ("fit_session"."ended" is null)),
	CONSTRAINT "fit_session_way" CHECK (("fit_session"."method" = 'quantitative') = ("fit_session"."protocol" is not null) and ("fit_session"."method" = 'qualitative') = ("fit_session"."agent" is not null))
);
--> statement-breakpoint
CREATE TABLE "personal_item" (
	"item_id" uuid PRIMARY KEY NOT NULL,
	"wearer_id" uuid NOT NULL,
	"since" date NOT NULL
);
--> statement-breakpoint
ALTER TABLE "table_import" DROP CONSTRAINT "table_import_kind";--> statement-breakpoint
ALTER TABLE "fit_test" ADD COLUMN "agent" text;--> statement-breakpoint
ALTER TABLE "fit_test" ADD COLUMN "session_id" uuid;--> statement-breakpoint
ALTER TABLE "wearer" ADD COLUMN "import_id" uuid;--> statement-breakpoint
ALTER TABLE "authorisation" ADD CONSTRAINT "authorisation_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "authorisation" ADD CONSTRAINT "authorisation_given_by_user_id_fk" FOREIGN KEY ("given_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "authorisation" ADD CONSTRAINT "authorisation_ended_by_user_id_fk" FOREIGN KEY ("ended_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fit_chunk" ADD CONSTRAINT "fit_chunk_session_id_fit_session_id_fk" FOREIGN KEY ("session_id") REFERENCES "public"."fit_session"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fit_session" ADD CONSTRAINT "fit_session_wearer_id_wearer_id_fk" FOREIGN KEY ("wearer_id") REFERENCES "public"."wearer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fit_session" ADD CONSTRAINT "fit_session_model_id_item_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."item_model"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fit_session" ADD CONSTRAINT "fit_session_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fit_session" ADD CONSTRAINT "fit_session_started_by_user_id_fk" FOREIGN KEY ("started_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "personal_item" ADD CONSTRAINT "personal_item_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "personal_item" ADD CONSTRAINT "personal_item_wearer_id_wearer_id_fk" FOREIGN KEY ("wearer_id") REFERENCES "public"."wearer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "authorisation_job" ON "authorisation" USING btree ("job","user_id");--> statement-breakpoint
CREATE INDEX "authorisation_user" ON "authorisation" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "fit_session_wearer" ON "fit_session" USING btree ("wearer_id","started_at");--> statement-breakpoint
CREATE INDEX "fit_session_open" ON "fit_session" USING btree ("ended_at");--> statement-breakpoint
CREATE UNIQUE INDEX "fit_session_one_per_counter" ON "fit_session" USING btree ("counter") WHERE "fit_session"."ended_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "fit_session_one_per_wearer" ON "fit_session" USING btree ("wearer_id") WHERE "fit_session"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "personal_item_wearer" ON "personal_item" USING btree ("wearer_id");--> statement-breakpoint
ALTER TABLE "fit_test" ADD CONSTRAINT "fit_test_session_id_fit_session_id_fk" FOREIGN KEY ("session_id") REFERENCES "public"."fit_session"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wearer" ADD CONSTRAINT "wearer_import_id_table_import_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."table_import"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "fit_test_session" ON "fit_test" USING btree ("session_id");--> statement-breakpoint
CREATE INDEX "wearer_import" ON "wearer" USING btree ("import_id");--> statement-breakpoint
ALTER TABLE "fit_test" ADD CONSTRAINT "fit_test_agent" CHECK ("fit_test"."agent" in ('sweet', 'bitter', 'banana', 'smoke'));--> statement-breakpoint
ALTER TABLE "table_import" ADD CONSTRAINT "table_import_kind" CHECK ("table_import"."kind" in ('items', 'filters', 'parts', 'wearers'));--> statement-breakpoint
CREATE TRIGGER fit_chunk_append_only BEFORE UPDATE OR DELETE ON "fit_chunk" FOR EACH ROW EXECUTE FUNCTION refuse_change();--> statement-breakpoint
-- A test that was made here and has ended stays as it ended.
CREATE FUNCTION refuse_change_of_ended_fit() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF OLD.ended_at IS NOT NULL THEN
		RAISE EXCEPTION 'this fit test has ended' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER fit_session_ended_stays BEFORE UPDATE ON "fit_session" FOR EACH ROW EXECUTE FUNCTION refuse_change_of_ended_fit();--> statement-breakpoint
-- A table of wearers is taken back too, as long as nothing speaks of any of them.
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
