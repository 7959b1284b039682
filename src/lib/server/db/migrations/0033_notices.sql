CREATE TABLE "notice" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"user_id" text NOT NULL,
	"address" text NOT NULL,
	"subject" text NOT NULL,
	"body" text NOT NULL,
	"day" date NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"next_try_at" timestamp with time zone,
	"last_error" text DEFAULT '' NOT NULL,
	"sent_at" timestamp with time zone,
	CONSTRAINT "notice_kind" CHECK ("notice"."kind" in ('digest', 'urgent')),
	CONSTRAINT "notice_state" CHECK ("notice"."state" in ('waiting', 'sent', 'given up')),
	CONSTRAINT "notice_sent_whole" CHECK (("notice"."state" = 'sent') = ("notice"."sent_at" is not null))
);
--> statement-breakpoint
CREATE TABLE "notice_choice" (
	"user_id" text PRIMARY KEY NOT NULL,
	"digest" boolean DEFAULT true NOT NULL,
	"urgent" boolean DEFAULT true NOT NULL
);
--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "digest_hour" integer DEFAULT 6 NOT NULL;--> statement-breakpoint
ALTER TABLE "notice" ADD CONSTRAINT "notice_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notice_choice" ADD CONSTRAINT "notice_choice_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "notice_digest_once" ON "notice" USING btree ("user_id","day") WHERE "notice"."kind" = 'digest';--> statement-breakpoint
CREATE INDEX "notice_next" ON "notice" USING btree ("next_try_at") WHERE "notice"."state" = 'waiting';--> statement-breakpoint
CREATE INDEX "notice_user" ON "notice" USING btree ("user_id","made_at");--> statement-breakpoint
ALTER TABLE "site" ADD CONSTRAINT "site_digest_hour" CHECK ("site"."digest_hour" between 0 and 23);