-- Readings are kept as they came; a verdict that was given is never changed.
CREATE TRIGGER bench_chunk_append_only BEFORE UPDATE OR DELETE ON "bench_chunk" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER bench_chunk_no_truncate BEFORE TRUNCATE ON "bench_chunk" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE FUNCTION refuse_ended_test() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF TG_OP = 'DELETE' OR OLD.ended_at IS NOT NULL THEN
		RAISE EXCEPTION 'an ended bench test is never changed' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER bench_test_ended BEFORE UPDATE OR DELETE ON "bench_test" FOR EACH ROW EXECUTE FUNCTION refuse_ended_test();
