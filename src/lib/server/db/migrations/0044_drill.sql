CREATE TABLE "drill_exam" (
	"id" uuid PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"supervisor_id" text NOT NULL,
	"procedure" text NOT NULL,
	"procedure_version" integer NOT NULL,
	"level" integer NOT NULL,
	"seed" integer NOT NULL,
	"started_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "drill_kind" (
	"kind" text PRIMARY KEY NOT NULL,
	"rating" double precision NOT NULL,
	"met" integer NOT NULL,
	"found" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "drill_memory" (
	"user_id" text NOT NULL,
	"kind" text NOT NULL,
	"memory" jsonb NOT NULL,
	"due_at" timestamp with time zone NOT NULL,
	"met" integer NOT NULL,
	"found" integer NOT NULL,
	CONSTRAINT "drill_memory_user_id_kind_pk" PRIMARY KEY("user_id","kind")
);
--> statement-breakpoint
CREATE TABLE "drill_person" (
	"user_id" text NOT NULL,
	"family" text NOT NULL,
	"rating" double precision NOT NULL,
	"sessions" integer NOT NULL,
	"hits" integer NOT NULL,
	"misses" integer NOT NULL,
	"false_alarms" integer NOT NULL,
	"correct_rejections" integer NOT NULL,
	CONSTRAINT "drill_person_user_id_family_pk" PRIMARY KEY("user_id","family")
);
--> statement-breakpoint
CREATE TABLE "drill_session" (
	"id" uuid PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"mode" text NOT NULL,
	"exam_id" uuid,
	"family" text NOT NULL,
	"procedure" text NOT NULL,
	"procedure_version" integer NOT NULL,
	"handed" jsonb NOT NULL,
	"answers" jsonb NOT NULL,
	"score" jsonb NOT NULL,
	"points" integer NOT NULL,
	"passed" boolean,
	"ended_at" timestamp with time zone NOT NULL,
	CONSTRAINT "drill_session_mode" CHECK ("drill_session"."mode" in ('learn', 'drill', 'exam'))
);
--> statement-breakpoint
ALTER TABLE "drill_exam" ADD CONSTRAINT "drill_exam_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "drill_exam" ADD CONSTRAINT "drill_exam_supervisor_id_user_id_fk" FOREIGN KEY ("supervisor_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "drill_memory" ADD CONSTRAINT "drill_memory_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "drill_person" ADD CONSTRAINT "drill_person_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "drill_session" ADD CONSTRAINT "drill_session_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "drill_session" ADD CONSTRAINT "drill_session_exam_id_drill_exam_id_fk" FOREIGN KEY ("exam_id") REFERENCES "public"."drill_exam"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "drill_exam_user" ON "drill_exam" USING btree ("user_id","started_at");--> statement-breakpoint
CREATE INDEX "drill_memory_due" ON "drill_memory" USING btree ("due_at");--> statement-breakpoint
CREATE INDEX "drill_session_user" ON "drill_session" USING btree ("user_id","ended_at");--> statement-breakpoint
CREATE UNIQUE INDEX "drill_session_exam" ON "drill_session" USING btree ("exam_id");--> statement-breakpoint
CREATE TRIGGER drill_exam_append_only BEFORE UPDATE OR DELETE ON "drill_exam" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER drill_exam_no_truncate BEFORE TRUNCATE ON "drill_exam" EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER drill_session_append_only BEFORE UPDATE OR DELETE ON "drill_session" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER drill_session_no_truncate BEFORE TRUNCATE ON "drill_session" EXECUTE FUNCTION refuse_change();
