CREATE TABLE "retention_rule" (
	"kind" text PRIMARY KEY NOT NULL,
	"keep_months" integer,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "retention_rule_kind" CHECK ("retention_rule"."kind" in ('gauge readings', 'drills', 'messages', 'wearers who left')),
	CONSTRAINT "retention_rule_months" CHECK ("retention_rule"."keep_months" between 1 and 600)
);
--> statement-breakpoint
-- What stands beside the record may be let go of, by the function below and by nothing else: the role of the
-- application deletes none of it.
CREATE OR REPLACE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF TG_OP = 'DELETE' AND TG_TABLE_NAME IN ('entry_reading', 'drill_session', 'drill_test')
			AND current_setting('grevan.dropping', true) = TG_TABLE_NAME THEN
		RETURN OLD;
	END IF;
	RAISE EXCEPTION '% is append-only: % refused', TG_TABLE_NAME, TG_OP USING ERRCODE = 'restrict_violation';
END $$;
--> statement-breakpoint
CREATE FUNCTION drop_retained(what text, before timestamptz, most integer) RETURNS integer LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
DECLARE
	gone integer := 0;
	more integer;
BEGIN
	IF before > now() - interval '80 days' THEN
		RAISE EXCEPTION 'too young to be dropped' USING ERRCODE = 'restrict_violation';
	END IF;
	IF what = 'gauge readings' THEN
		PERFORM set_config('grevan.dropping', 'entry_reading', true);
		DELETE FROM entry_reading WHERE seq IN (
			SELECT r.seq FROM entry_reading r JOIN entry_wearer w ON w.id = r.wearer_id WHERE w.ended_at < before LIMIT most);
		GET DIAGNOSTICS gone = ROW_COUNT;
		DELETE FROM entry_alarm WHERE id IN (
			SELECT a.id FROM entry_alarm a JOIN entry_wearer w ON w.id = a.wearer_id WHERE w.ended_at < before LIMIT most);
		GET DIAGNOSTICS more = ROW_COUNT;
		gone := gone + more;
	ELSIF what = 'drills' THEN
		PERFORM set_config('grevan.dropping', 'drill_session', true);
		DELETE FROM drill_session WHERE id IN (
			SELECT id FROM drill_session WHERE ended_at < before AND exam_id IS NULL LIMIT most);
		GET DIAGNOSTICS gone = ROW_COUNT;
		PERFORM set_config('grevan.dropping', 'drill_test', true);
		DELETE FROM drill_test WHERE id IN (SELECT id FROM drill_test WHERE ended_at < before LIMIT most);
		GET DIAGNOSTICS more = ROW_COUNT;
		gone := gone + more;
	ELSIF what = 'messages' THEN
		DELETE FROM notice WHERE id IN (SELECT id FROM notice WHERE made_at < before AND state <> 'waiting' LIMIT most);
		GET DIAGNOSTICS gone = ROW_COUNT;
	ELSE
		RAISE EXCEPTION 'nothing that is dropped: %', what USING ERRCODE = 'restrict_violation';
	END IF;
	PERFORM set_config('grevan.dropping', '', true);
	RETURN gone;
END $$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION drop_retained(text, timestamptz, integer) FROM PUBLIC;
