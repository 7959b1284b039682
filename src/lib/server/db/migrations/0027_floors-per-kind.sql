INSERT INTO "place_floor" ("place_id", "family", "floor")
	SELECT "id", 'half-mask', "floor" FROM "place" WHERE "floor" > 0;
--> statement-breakpoint
ALTER TABLE "place" DROP COLUMN "floor";
--> statement-breakpoint
-- Sites that are there have been set up.
UPDATE "site" SET "set_up_at" = now(), "code_scheme" = CASE WHEN "rule_set" = 'us' THEN 'us' ELSE 'en' END;
--> statement-breakpoint
-- Nothing of the record is ever deleted, but for a table taken in by mistake, whose rows nothing speaks of yet: whatever
-- was worked with since refuses by its keys.
CREATE FUNCTION undo_table_import(given uuid, most integer) RETURNS integer LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
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
	RETURN gone + removed;
END $$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION undo_table_import(uuid, integer) FROM PUBLIC;
