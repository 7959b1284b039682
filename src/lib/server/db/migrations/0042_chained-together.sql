-- What one transaction wrote is chained by one statement, and the end of the chain is moved once for it: a recall of
-- thousands of items is thousands of entries. Sequence, time and hash are still given here and nowhere else.
CREATE OR REPLACE FUNCTION chain_pending_entry() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
BEGIN
	-- Fires once per entry; the first takes all, in their order, and the others find nothing left.
	IF NOT EXISTS (SELECT 1 FROM audit_pending WHERE id = NEW.id) THEN
		RETURN NULL;
	END IF;
	INSERT INTO audit_entry (seq, at, actor_id, action, item_id, subject, payload, prev_hash, hash)
		SELECT 0, p.at, p.actor_id, p.action, p.item_id, p.subject, p.payload, '', '' FROM audit_pending p ORDER BY p.id;
	DELETE FROM audit_pending;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION chain_audit_entry() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
DECLARE
	head audit_head%ROWTYPE;
	ahead record;
BEGIN
	-- The row lock on the head puts writers in order.
	SELECT * INTO head FROM audit_head WHERE id = 1 FOR UPDATE;
	-- What this statement wrote before: the head follows when it ends. Never less than the head, so that entries removed from the end leave a gap that is seen.
	SELECT seq, hash INTO ahead FROM audit_entry WHERE seq > head.seq ORDER BY seq DESC LIMIT 1;
	IF FOUND THEN
		head.seq := ahead.seq;
		head.hash := ahead.hash;
	END IF;
	NEW.seq := head.seq + 1;
	NEW.at := coalesce(NEW.at, date_trunc('milliseconds', clock_timestamp()));
	NEW.prev_hash := head.hash;
	NEW.hash := encode(sha256(convert_to(
		NEW.prev_hash || E'\n' || NEW.seq || E'\n'
		|| to_char(NEW.at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') || E'\n'
		|| coalesce(NEW.actor_id, '') || E'\n' || NEW.action || E'\n'
		|| coalesce(NEW.item_id::text, '') || E'\n' || NEW.subject || E'\n' || NEW.payload, 'UTF8')), 'hex');
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE FUNCTION follow_audit_chain() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
BEGIN
	UPDATE audit_head h SET seq = e.seq, hash = e.hash
		FROM (SELECT seq, hash FROM audit_entry ORDER BY seq DESC LIMIT 1) e WHERE h.id = 1 AND e.seq > h.seq;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER audit_entry_followed AFTER INSERT ON "audit_entry" FOR EACH STATEMENT EXECUTE FUNCTION follow_audit_chain();
