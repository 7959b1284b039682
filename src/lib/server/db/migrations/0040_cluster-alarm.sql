CREATE TABLE "cluster_alarm" (
	"id" uuid PRIMARY KEY NOT NULL,
	"group_key" text NOT NULL,
	"name" text NOT NULL,
	"faults" integer NOT NULL,
	"expected" double precision NOT NULL,
	"raised_at" timestamp with time zone NOT NULL,
	"looked_by" text,
	"looked_at" timestamp with time zone,
	"looked" text,
	CONSTRAINT "cluster_alarm_looked_whole" CHECK (("cluster_alarm"."looked_at" is null) = ("cluster_alarm"."looked_by" is null) and ("cluster_alarm"."looked_at" is null) = ("cluster_alarm"."looked" is null))
);
--> statement-breakpoint
ALTER TABLE "cluster_alarm" ADD CONSTRAINT "cluster_alarm_looked_by_user_id_fk" FOREIGN KEY ("looked_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "cluster_alarm_once" ON "cluster_alarm" USING btree ("group_key");--> statement-breakpoint
CREATE INDEX "cluster_alarm_open" ON "cluster_alarm" USING btree ("raised_at") WHERE "cluster_alarm"."looked_at" is null;