CREATE TABLE "entry_count" (
	"quarter" timestamp with time zone NOT NULL,
	"action" text NOT NULL,
	"entries" integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX "entry_count_quarter" ON "entry_count" USING btree ("quarter");
--> statement-breakpoint
CREATE FUNCTION count_entries() RETURNS trigger LANGUAGE plpgsql SET search_path = public, pg_temp AS $$
BEGIN
	INSERT INTO entry_count (quarter, action, entries)
	SELECT date_bin('15 minutes', at, 'epoch'), action, count(*) FROM after GROUP BY 1, 2;
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER audit_entry_counted AFTER INSERT ON "audit_entry"
	REFERENCING NEW TABLE AS after
	FOR EACH STATEMENT EXECUTE FUNCTION count_entries();
--> statement-breakpoint
-- Everything counted anew, while nobody writes or draws together.
CREATE FUNCTION recount_entries() RETURNS void LANGUAGE plpgsql SET search_path = public, pg_temp AS $$
BEGIN
	LOCK TABLE entry_count IN SHARE ROW EXCLUSIVE MODE;
	DELETE FROM entry_count;
	INSERT INTO entry_count (quarter, action, entries)
	SELECT date_bin('15 minutes', at, 'epoch'), action, count(*) FROM audit_entry GROUP BY 1, 2;
END $$;
--> statement-breakpoint
SELECT recount_entries();
