-- Several web processes keep what they know of a session for a moment: each hears when its person showed again who
-- they are, or when what is shown of them changes, whichever of them did it.
CREATE FUNCTION tell_session_proven() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('grevan_access', NEW.user_id);
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER session_proven AFTER UPDATE OF proven_at, proven_by ON "session"
	FOR EACH ROW EXECUTE FUNCTION tell_session_proven();
--> statement-breakpoint
DROP TRIGGER account_changed ON "user";
--> statement-breakpoint
CREATE TRIGGER account_changed AFTER UPDATE OF name, initials, role, disabled_at, pin_hash, two_factor_enabled ON "user"
	FOR EACH ROW EXECUTE FUNCTION tell_account_changed();
