CREATE TABLE "audit_pending" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "audit_pending_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"at" timestamp (3) with time zone,
	"actor_id" text,
	"action" text NOT NULL,
	"item_id" uuid,
	"subject" text NOT NULL,
	"payload" text NOT NULL
);
--> statement-breakpoint
-- Never holds anything outside a transaction, so nothing of it needs to outlive a crash.
ALTER TABLE "audit_pending" SET UNLOGGED;
--> statement-breakpoint
CREATE FUNCTION chain_pending_entry() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO audit_entry (seq, at, actor_id, action, item_id, subject, payload, prev_hash, hash)
		VALUES (0, NEW.at, NEW.actor_id, NEW.action, NEW.item_id, NEW.subject, NEW.payload, '', '');
	DELETE FROM audit_pending WHERE id = NEW.id;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER audit_pending_chain AFTER INSERT ON "audit_pending"
	DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION chain_pending_entry();
