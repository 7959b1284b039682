-- What a record names stays as it was: versions of procedures, pictures, seal checks, closed musters.
CREATE TRIGGER procedure_edition_append_only BEFORE UPDATE OR DELETE ON "procedure_edition" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER procedure_edition_no_truncate BEFORE TRUNCATE ON "procedure_edition" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER photo_append_only BEFORE UPDATE OR DELETE ON "photo" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER photo_no_truncate BEFORE TRUNCATE ON "photo" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER photo_open_run BEFORE INSERT ON "photo" FOR EACH ROW EXECUTE FUNCTION refuse_answer_after_signing();
--> statement-breakpoint
CREATE TRIGGER seal_check_append_only BEFORE UPDATE OR DELETE ON "seal_check" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER seal_check_no_truncate BEFORE TRUNCATE ON "seal_check" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE FUNCTION refuse_closed_muster() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF TG_OP = 'DELETE' OR OLD.closed_at IS NOT NULL THEN
		RAISE EXCEPTION 'a closed muster is never changed' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER muster_closed BEFORE UPDATE OR DELETE ON "muster" FOR EACH ROW EXECUTE FUNCTION refuse_closed_muster();
--> statement-breakpoint
CREATE FUNCTION refuse_entry_of_closed_muster() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF TG_OP = 'DELETE' THEN
		RAISE EXCEPTION 'an item that was presented stays on the sheet' USING ERRCODE = 'restrict_violation';
	END IF;
	PERFORM 1 FROM muster WHERE id = NEW.muster_id AND closed_at IS NULL FOR UPDATE;
	IF NOT FOUND THEN
		RAISE EXCEPTION 'the muster is closed or does not exist' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER muster_entry_open BEFORE INSERT OR UPDATE OR DELETE ON "muster_entry" FOR EACH ROW EXECUTE FUNCTION refuse_entry_of_closed_muster();
--> statement-breakpoint
-- Chunks go when, and only when, the trace of their test stands whole beside its verdict.
CREATE FUNCTION refuse_chunk_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF TG_OP = 'DELETE' AND EXISTS (SELECT 1 FROM bench_test WHERE id = OLD.test_id AND trace IS NOT NULL) THEN
		RETURN OLD;
	END IF;
	RAISE EXCEPTION 'bench_chunk is append-only: % refused', TG_OP USING ERRCODE = 'restrict_violation';
END $$;
--> statement-breakpoint
DROP TRIGGER bench_chunk_append_only ON "bench_chunk";
--> statement-breakpoint
CREATE TRIGGER bench_chunk_append_only BEFORE UPDATE OR DELETE ON "bench_chunk" FOR EACH ROW EXECUTE FUNCTION refuse_chunk_change();
--> statement-breakpoint
-- A set is one level deep: what is a part holds no parts.
CREATE FUNCTION refuse_nested_set() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF NEW.set_id IS NOT NULL AND (
		EXISTS (SELECT 1 FROM item WHERE id = NEW.set_id AND set_id IS NOT NULL)
		OR EXISTS (SELECT 1 FROM item WHERE set_id = NEW.id)
	) THEN
		RAISE EXCEPTION 'a part of a set cannot be a set' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER item_one_level BEFORE INSERT OR UPDATE OF set_id ON "item" FOR EACH ROW WHEN (NEW.set_id IS NOT NULL) EXECUTE FUNCTION refuse_nested_set();
--> statement-breakpoint
-- A listener that was away too long adds nothing to a test that another has closed.
CREATE FUNCTION refuse_chunk_after_end() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM 1 FROM bench_test WHERE id = NEW.test_id AND ended_at IS NULL FOR KEY SHARE;
	IF NOT FOUND THEN
		RAISE EXCEPTION 'the bench test has ended' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER bench_chunk_open_test BEFORE INSERT ON "bench_chunk" FOR EACH ROW EXECUTE FUNCTION refuse_chunk_after_end();
