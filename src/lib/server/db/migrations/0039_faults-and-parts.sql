CREATE TABLE "defect_report" (
	"id" uuid PRIMARY KEY NOT NULL,
	"defect_id" uuid NOT NULL,
	"reported_by" text NOT NULL,
	"reported_at" timestamp with time zone NOT NULL,
	"note" text,
	"step" text,
	"run_id" uuid,
	"withdrawn_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "part_fitting" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"station" text NOT NULL,
	"part" text NOT NULL,
	"lot_id" uuid NOT NULL,
	"quantity" integer NOT NULL,
	"fitted_at" timestamp with time zone NOT NULL,
	"job_id" uuid,
	"removed_at" timestamp with time zone,
	"removed_how" text,
	CONSTRAINT "part_fitting_removed_how" CHECK ("part_fitting"."removed_how" in ('failed', 'changed', 'retired')),
	CONSTRAINT "part_fitting_some" CHECK ("part_fitting"."quantity" > 0),
	CONSTRAINT "part_fitting_whole" CHECK (("part_fitting"."removed_at" is null) = ("part_fitting"."removed_how" is null))
);
--> statement-breakpoint
CREATE TABLE "recall" (
	"id" uuid PRIMARY KEY NOT NULL,
	"lot_id" uuid NOT NULL,
	"why" text NOT NULL,
	"from_store" integer NOT NULL,
	"called_by" text NOT NULL,
	"called_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "recall_item" (
	"recall_id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"defect_id" uuid,
	"looked_by" text,
	"looked_at" timestamp with time zone,
	"looked" text,
	CONSTRAINT "recall_item_recall_id_item_id_pk" PRIMARY KEY("recall_id","item_id"),
	CONSTRAINT "recall_item_looked_whole" CHECK (("recall_item"."looked_at" is null) = ("recall_item"."looked_by" is null) and ("recall_item"."looked_at" is null) = ("recall_item"."looked" is null))
);
--> statement-breakpoint
ALTER TABLE "defect" DROP CONSTRAINT "defect_closed_how";--> statement-breakpoint
ALTER TABLE "defect" ADD COLUMN "closed_by" text;--> statement-breakpoint
ALTER TABLE "defect" ADD COLUMN "closed_why" text;--> statement-breakpoint
ALTER TABLE "service_job" ADD COLUMN "minutes" integer;--> statement-breakpoint
ALTER TABLE "part_lot" ADD COLUMN "cost_each" double precision;--> statement-breakpoint
ALTER TABLE "defect_report" ADD CONSTRAINT "defect_report_defect_id_defect_id_fk" FOREIGN KEY ("defect_id") REFERENCES "public"."defect"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "defect_report" ADD CONSTRAINT "defect_report_reported_by_user_id_fk" FOREIGN KEY ("reported_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "defect_report" ADD CONSTRAINT "defect_report_run_id_inspection_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."inspection_run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "part_fitting" ADD CONSTRAINT "part_fitting_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "part_fitting" ADD CONSTRAINT "part_fitting_lot_id_part_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."part_lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "part_fitting" ADD CONSTRAINT "part_fitting_job_id_service_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."service_job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recall" ADD CONSTRAINT "recall_lot_id_part_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."part_lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recall" ADD CONSTRAINT "recall_called_by_user_id_fk" FOREIGN KEY ("called_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recall_item" ADD CONSTRAINT "recall_item_recall_id_recall_id_fk" FOREIGN KEY ("recall_id") REFERENCES "public"."recall"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recall_item" ADD CONSTRAINT "recall_item_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recall_item" ADD CONSTRAINT "recall_item_defect_id_defect_id_fk" FOREIGN KEY ("defect_id") REFERENCES "public"."defect"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recall_item" ADD CONSTRAINT "recall_item_looked_by_user_id_fk" FOREIGN KEY ("looked_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "defect_report_defect" ON "defect_report" USING btree ("defect_id");--> statement-breakpoint
CREATE INDEX "defect_report_run" ON "defect_report" USING btree ("run_id");--> statement-breakpoint
CREATE INDEX "part_fitting_item" ON "part_fitting" USING btree ("item_id","station");--> statement-breakpoint
CREATE INDEX "part_fitting_lot" ON "part_fitting" USING btree ("lot_id");--> statement-breakpoint
CREATE UNIQUE INDEX "recall_once" ON "recall" USING btree ("lot_id");--> statement-breakpoint
CREATE INDEX "recall_item_item" ON "recall_item" USING btree ("item_id");--> statement-breakpoint
ALTER TABLE "defect" ADD CONSTRAINT "defect_closed_by_user_id_fk" FOREIGN KEY ("closed_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "defect_reported" ON "defect" USING btree ("reported_at");--> statement-breakpoint
-- The first report of each fault, then those after it as the log has them; one that was taken back is the last of its reporter before that.
INSERT INTO "defect_report" ("id", "defect_id", "reported_by", "reported_at", "note", "step", "run_id", "withdrawn_at")
	SELECT d.id, d.id, d.reported_by, d.reported_at, d.note, d.step, d.run_id, CASE WHEN d.closed_how = 'withdrawn' THEN d.closed_at END FROM "defect" d;--> statement-breakpoint
INSERT INTO "defect_report" ("id", "defect_id", "reported_by", "reported_at", "note")
	SELECT gen_random_uuid(), d.id, a.actor_id, a.at, a.payload::jsonb ->> 'note'
	FROM "audit_entry" a JOIN "defect" d ON a.subject = 'defect:' || d.id JOIN "user" u ON u.id = a.actor_id
	WHERE a.action = 'defect.reported-again';--> statement-breakpoint
UPDATE "defect_report" r SET "withdrawn_at" = a.at FROM "audit_entry" a
	WHERE a.action = 'defect.report-withdrawn' AND r.id = (
		SELECT l.id FROM "defect_report" l WHERE 'defect:' || l.defect_id = a.subject AND l.id <> l.defect_id
			AND l.reported_by = a.actor_id AND l.reported_at <= a.at ORDER BY l.reported_at DESC LIMIT 1);--> statement-breakpoint
ALTER TABLE "defect" DROP COLUMN "reports";--> statement-breakpoint
ALTER TABLE "defect" ADD CONSTRAINT "defect_not_confirmed_why" CHECK ("defect"."closed_how" <> 'not-confirmed' or ("defect"."closed_why" is not null and "defect"."closed_by" is not null));--> statement-breakpoint
ALTER TABLE "defect" ADD CONSTRAINT "defect_closed_how" CHECK ("defect"."closed_how" in ('released', 'withdrawn', 'retired', 'not-confirmed'));--> statement-breakpoint
ALTER TABLE "service_job" ADD CONSTRAINT "service_job_minutes" CHECK ("service_job"."minutes" between 0 and 1440);--> statement-breakpoint
ALTER TABLE "part_lot" ADD CONSTRAINT "part_lot_cost" CHECK ("part_lot"."cost_each" >= 0);--> statement-breakpoint
-- Parts that repairs used sit where the first fault of the repair was, until the next repair of the same place took one.
INSERT INTO "part_fitting" ("id", "item_id", "station", "part", "lot_id", "quantity", "fitted_at", "job_id", "removed_at", "removed_how")
	SELECT gen_random_uuid(), w.item_id, w.station, w.part, w.lot_id, w.quantity, w.done_at, w.job_id, w.next_at, CASE WHEN w.next_at IS NOT NULL THEN 'failed' END
	FROM (SELECT u.*, min(u.done_at) OVER (
			PARTITION BY u.item_id, u.station, u.part ORDER BY u.done_at GROUPS BETWEEN 1 FOLLOWING AND 1 FOLLOWING) AS next_at
		FROM (SELECT j.item_id, l.part, p.lot_id, p.quantity, j.done_at, j.id AS job_id,
				(SELECT d.station FROM "service_job_defect" s JOIN "defect" d ON d.id = s.defect_id WHERE s.job_id = j.id ORDER BY d.reported_at, d.id LIMIT 1) AS station
			FROM "service_part" p JOIN "service_job" j ON j.id = p.job_id JOIN "part_lot" l ON l.id = p.lot_id
			WHERE j.done_at IS NOT NULL) u
		WHERE u.station IS NOT NULL) w;--> statement-breakpoint
CREATE FUNCTION refuse_change_of_fitting() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF OLD.removed_at IS NOT NULL OR (NEW.id, NEW.item_id, NEW.station, NEW.part, NEW.lot_id, NEW.quantity, NEW.fitted_at, NEW.job_id)
		IS DISTINCT FROM (OLD.id, OLD.item_id, OLD.station, OLD.part, OLD.lot_id, OLD.quantity, OLD.fitted_at, OLD.job_id) THEN
		RAISE EXCEPTION 'what was fitted is ended once and never changed otherwise' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER part_fitting_only_ended BEFORE UPDATE ON "part_fitting" FOR EACH ROW EXECUTE FUNCTION refuse_change_of_fitting();--> statement-breakpoint
CREATE FUNCTION refuse_change_of_report() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF OLD.withdrawn_at IS NOT NULL OR (NEW.id, NEW.defect_id, NEW.reported_by, NEW.reported_at, NEW.note, NEW.step, NEW.run_id)
		IS DISTINCT FROM (OLD.id, OLD.defect_id, OLD.reported_by, OLD.reported_at, OLD.note, OLD.step, OLD.run_id) THEN
		RAISE EXCEPTION 'a report is taken back once and never changed otherwise' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER defect_report_only_withdrawn BEFORE UPDATE ON "defect_report" FOR EACH ROW EXECUTE FUNCTION refuse_change_of_report();
