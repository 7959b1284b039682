-- Approved plans, wear and corrections are records: added to, never rewritten.
CREATE TRIGGER filter_wear_append_only BEFORE UPDATE OR DELETE ON "filter_wear" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER filter_wear_no_truncate BEFORE TRUNCATE ON "filter_wear" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER hazard_edition_append_only BEFORE UPDATE OR DELETE ON "hazard_edition" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER hazard_edition_no_truncate BEFORE TRUNCATE ON "hazard_edition" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER substance_change_append_only BEFORE UPDATE OR DELETE ON "substance_change" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER substance_change_no_truncate BEFORE TRUNCATE ON "substance_change" EXECUTE FUNCTION refuse_change();
