CREATE TABLE "record_hash" (
	"kind" text NOT NULL,
	"record_id" text NOT NULL,
	"hash" text NOT NULL,
	CONSTRAINT "record_hash_kind_record_id_pk" PRIMARY KEY("kind","record_id"),
	CONSTRAINT "record_hash_kind" CHECK ("record_hash"."kind" in ('inspection', 'repair', 'plan edition', 'bench test'))
);
--> statement-breakpoint
CREATE TRIGGER record_hash_append_only BEFORE UPDATE OR DELETE ON "record_hash" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER record_hash_no_truncate BEFORE TRUNCATE ON "record_hash" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
-- The chain is written by its owner only: whoever writes entries may put them in line, and reach no further.
ALTER FUNCTION chain_pending_entry() SECURITY DEFINER SET search_path = public, pg_temp;
--> statement-breakpoint
ALTER FUNCTION chain_audit_entry() SECURITY DEFINER SET search_path = public, pg_temp;
