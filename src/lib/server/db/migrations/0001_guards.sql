-- The record cannot be rewritten: what follows holds whatever the application does.

CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	RAISE EXCEPTION '% is append-only: % refused', TG_TABLE_NAME, TG_OP USING ERRCODE = 'restrict_violation';
END $$;
--> statement-breakpoint
CREATE TRIGGER audit_entry_append_only BEFORE UPDATE OR DELETE ON "audit_entry" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER audit_entry_no_truncate BEFORE TRUNCATE ON "audit_entry" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER inspection_answer_append_only BEFORE UPDATE OR DELETE ON "inspection_answer" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER inspection_answer_no_truncate BEFORE TRUNCATE ON "inspection_answer" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
INSERT INTO "audit_head" (id, seq, hash) VALUES (1, 0, repeat('0', 64));
--> statement-breakpoint
-- Sequence, time and hash are given here and nowhere else. The row lock on the head puts writers in order.
CREATE FUNCTION chain_audit_entry() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	head audit_head%ROWTYPE;
BEGIN
	SELECT * INTO head FROM audit_head WHERE id = 1 FOR UPDATE;
	NEW.seq := head.seq + 1;
	NEW.at := coalesce(NEW.at, date_trunc('milliseconds', clock_timestamp()));
	NEW.prev_hash := head.hash;
	NEW.hash := encode(sha256(convert_to(
		NEW.prev_hash || E'\n' || NEW.seq || E'\n'
		|| to_char(NEW.at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') || E'\n'
		|| coalesce(NEW.actor_id, '') || E'\n' || NEW.action || E'\n'
		|| coalesce(NEW.item_id::text, '') || E'\n' || NEW.subject || E'\n' || NEW.payload, 'UTF8')), 'hex');
	UPDATE audit_head SET seq = NEW.seq, hash = NEW.hash WHERE id = 1;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER audit_entry_chain BEFORE INSERT ON "audit_entry" FOR EACH ROW EXECUTE FUNCTION chain_audit_entry();
--> statement-breakpoint
CREATE FUNCTION refuse_signed_run() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF TG_OP = 'DELETE' OR OLD.signed_at IS NOT NULL THEN
		RAISE EXCEPTION 'a signed inspection is never changed' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER inspection_run_signed BEFORE UPDATE OR DELETE ON "inspection_run" FOR EACH ROW EXECUTE FUNCTION refuse_signed_run();
--> statement-breakpoint
CREATE FUNCTION refuse_answer_after_signing() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	-- The lock makes an answer and a signature on the same run wait for each other.
	PERFORM 1 FROM inspection_run WHERE id = NEW.run_id AND signed_at IS NULL FOR UPDATE;
	IF NOT FOUND THEN
		RAISE EXCEPTION 'the inspection is signed or does not exist' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER inspection_answer_open_run BEFORE INSERT ON "inspection_answer" FOR EACH ROW EXECUTE FUNCTION refuse_answer_after_signing();
--> statement-breakpoint
CREATE FUNCTION refuse_change_after_release() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF TG_OP = 'DELETE' OR OLD.released_at IS NOT NULL THEN
		RAISE EXCEPTION 'a released repair is never changed' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER service_job_released BEFORE UPDATE OR DELETE ON "service_job" FOR EACH ROW EXECUTE FUNCTION refuse_change_after_release();
--> statement-breakpoint
ALTER TABLE "inspection_run" ADD CONSTRAINT "inspection_run_service_job" FOREIGN KEY ("service_job_id") REFERENCES "service_job" ("id");
