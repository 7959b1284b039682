-- What air was tested, worked on, filled and breathed stays as it was written.
CREATE TRIGGER air_work_append_only BEFORE UPDATE OR DELETE ON "air_work" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER air_work_no_truncate BEFORE TRUNCATE ON "air_work" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER air_test_append_only BEFORE UPDATE OR DELETE ON "air_test" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER air_test_no_truncate BEFORE TRUNCATE ON "air_test" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER cylinder_test_append_only BEFORE UPDATE OR DELETE ON "cylinder_test" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER cylinder_test_no_truncate BEFORE TRUNCATE ON "cylinder_test" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER rig_event_append_only BEFORE UPDATE OR DELETE ON "rig_event" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER rig_event_no_truncate BEFORE TRUNCATE ON "rig_event" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER entry_reading_append_only BEFORE UPDATE OR DELETE ON "entry_reading" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER entry_reading_no_truncate BEFORE TRUNCATE ON "entry_reading" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE FUNCTION refuse_change_once_ended() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF TG_OP = 'DELETE' OR OLD.ended_at IS NOT NULL THEN
		RAISE EXCEPTION '% that has ended is never changed', TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER cylinder_fill_ended BEFORE UPDATE OR DELETE ON "cylinder_fill" FOR EACH ROW EXECUTE FUNCTION refuse_change_once_ended();
--> statement-breakpoint
CREATE TRIGGER entry_wearer_ended BEFORE UPDATE OR DELETE ON "entry_wearer" FOR EACH ROW EXECUTE FUNCTION refuse_change_once_ended();
--> statement-breakpoint
-- A pressure is told of somebody who is in.
CREATE FUNCTION refuse_reading_after_exit() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM 1 FROM entry_wearer WHERE id = NEW.wearer_id AND ended_at IS NULL FOR KEY SHARE;
	IF NOT FOUND THEN
		RAISE EXCEPTION 'the wearer is out' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER entry_reading_inside BEFORE INSERT ON "entry_reading" FOR EACH ROW EXECUTE FUNCTION refuse_reading_after_exit();
--> statement-breakpoint
-- An alarm is seen once; nothing else of it changes.
CREATE FUNCTION refuse_alarm_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF TG_OP = 'DELETE' OR OLD.seen_at IS NOT NULL
		OR (NEW.id, NEW.wearer_id, NEW.kind, NEW.key, NEW.due_at, NEW.raised_at)
			IS DISTINCT FROM (OLD.id, OLD.wearer_id, OLD.kind, OLD.key, OLD.due_at, OLD.raised_at) THEN
		RAISE EXCEPTION 'an alarm is kept as it was raised' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER entry_alarm_kept BEFORE UPDATE OR DELETE ON "entry_alarm" FOR EACH ROW EXECUTE FUNCTION refuse_alarm_change();
--> statement-breakpoint
-- A cylinder on a set is on the rack of nobody: it is neither filled nor at the test house.
CREATE FUNCTION refuse_cylinder_elsewhere() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF NEW.set_id IS NOT NULL AND EXISTS (SELECT 1 FROM cylinder WHERE item_id = NEW.id AND location <> 'rack') THEN
		RAISE EXCEPTION 'the cylinder is being filled or at the test house' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER item_cylinder_at_hand BEFORE UPDATE OF set_id ON "item" FOR EACH ROW WHEN (NEW.set_id IS NOT NULL) EXECUTE FUNCTION refuse_cylinder_elsewhere();
