CREATE TABLE "defect_photo" (
	"id" uuid PRIMARY KEY NOT NULL,
	"defect_id" uuid NOT NULL,
	"jpeg" "bytea" NOT NULL,
	"sha256" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"taken_by" text NOT NULL,
	"taken_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "defect_photo" ADD CONSTRAINT "defect_photo_defect_id_defect_id_fk" FOREIGN KEY ("defect_id") REFERENCES "public"."defect"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "defect_photo" ADD CONSTRAINT "defect_photo_taken_by_user_id_fk" FOREIGN KEY ("taken_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "defect_photo_defect" ON "defect_photo" USING btree ("defect_id");--> statement-breakpoint
CREATE TRIGGER defect_photo_append_only BEFORE UPDATE OR DELETE ON "defect_photo" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER defect_photo_no_truncate BEFORE TRUNCATE ON "defect_photo" EXECUTE FUNCTION refuse_change();
