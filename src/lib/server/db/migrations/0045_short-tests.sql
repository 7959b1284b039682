CREATE TABLE "drill_test" (
	"id" uuid PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"test" text NOT NULL,
	"seed" integer NOT NULL,
	"chosen" jsonb NOT NULL,
	"right_answers" integer NOT NULL,
	"asked" integer NOT NULL,
	"ended_at" timestamp with time zone NOT NULL,
	CONSTRAINT "drill_test_known" CHECK ("drill_test"."test" in ('seal-check', 'mistakes', 'equipment', 'filter', 'turn-back', 'donning'))
);
--> statement-breakpoint
ALTER TABLE "drill_test" ADD CONSTRAINT "drill_test_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "drill_test_user" ON "drill_test" USING btree ("user_id","ended_at");--> statement-breakpoint
CREATE TRIGGER drill_test_append_only BEFORE UPDATE OR DELETE ON "drill_test" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER drill_test_no_truncate BEFORE TRUNCATE ON "drill_test" EXECUTE FUNCTION refuse_change();
