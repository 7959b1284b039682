CREATE TABLE "backup" (
	"id" uuid PRIMARY KEY NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"file" text NOT NULL,
	"bytes" bigint NOT NULL,
	"sha256" text NOT NULL,
	"encrypted" boolean NOT NULL,
	"seconds" double precision NOT NULL,
	"entries" integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX "backup_taken" ON "backup" USING btree ("taken_at");--> statement-breakpoint
CREATE TRIGGER backup_append_only BEFORE UPDATE OR DELETE ON "backup" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER backup_no_truncate BEFORE TRUNCATE ON "backup" EXECUTE FUNCTION refuse_change();
