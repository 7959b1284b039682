CREATE TABLE "device" (
	"id" uuid PRIMARY KEY NOT NULL,
	"hash" text NOT NULL,
	"name" text DEFAULT '' NOT NULL,
	"shared" boolean DEFAULT false NOT NULL,
	"trusted_until" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "device_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "invite" (
	"hash" text PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"purpose" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "invite_purpose" CHECK ("invite"."purpose" in ('invite', 'reset'))
);
--> statement-breakpoint
CREATE TABLE "sign_in_failure" (
	"key" text PRIMARY KEY NOT NULL,
	"failures" integer NOT NULL,
	"last_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "two_factor" (
	"id" text PRIMARY KEY NOT NULL,
	"secret" text NOT NULL,
	"backup_codes" text NOT NULL,
	"user_id" text NOT NULL,
	"verified" boolean DEFAULT true NOT NULL,
	"failed_verification_count" integer DEFAULT 0 NOT NULL,
	"locked_until" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "api_key" ADD COLUMN "id" uuid DEFAULT gen_random_uuid() NOT NULL;--> statement-breakpoint
ALTER TABLE "api_key" ADD COLUMN "start" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "api_key" ADD COLUMN "scope" text DEFAULT 'calc' NOT NULL;--> statement-breakpoint
ALTER TABLE "api_key" ADD COLUMN "expires_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "api_key" ADD COLUMN "last_used_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "device_id" uuid;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "shared" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "way" text DEFAULT 'password' NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "seen_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "proven_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "proven_by" text DEFAULT 'password' NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "failures_before" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "user" ADD COLUMN "card" text;--> statement-breakpoint
ALTER TABLE "user" ADD COLUMN "pin_hash" text;--> statement-breakpoint
ALTER TABLE "user" ADD COLUMN "disabled_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "user" ADD COLUMN "two_factor_enabled" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "idle_minutes" integer DEFAULT 30 NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "whole_hours" integer DEFAULT 12 NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "proof_minutes" integer DEFAULT 10 NOT NULL;--> statement-breakpoint
ALTER TABLE "site" ADD COLUMN "two_step_roles" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "invite" ADD CONSTRAINT "invite_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "two_factor" ADD CONSTRAINT "two_factor_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "two_factor_user" ON "two_factor" USING btree ("user_id");--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_device_id_device_id_fk" FOREIGN KEY ("device_id") REFERENCES "public"."device"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "session_user" ON "session" USING btree ("user_id");--> statement-breakpoint
ALTER TABLE "api_key" ADD CONSTRAINT "api_key_id_unique" UNIQUE("id");--> statement-breakpoint
ALTER TABLE "user" ADD CONSTRAINT "user_card_unique" UNIQUE("card");--> statement-breakpoint
ALTER TABLE "api_key" ADD CONSTRAINT "api_key_scope" CHECK ("api_key"."scope" in ('calc', 'read', 'write'));--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_way" CHECK ("session"."way" in ('password', 'pin'));--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_proven_by" CHECK ("session"."proven_by" in ('password', 'pin'));--> statement-breakpoint
ALTER TABLE "site" ADD CONSTRAINT "site_access" CHECK ("site"."idle_minutes" between 1 and 720 and "site"."whole_hours" between 1 and 168 and "site"."proof_minutes" between 1 and 120);--> statement-breakpoint
-- Whoever keeps an answer about a session for a moment hears at once when it does not hold any more.
CREATE FUNCTION tell_session_ended() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('grevan_access', OLD.user_id);
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER session_ended AFTER DELETE ON "session" FOR EACH ROW EXECUTE FUNCTION tell_session_ended();
--> statement-breakpoint
CREATE FUNCTION tell_account_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('grevan_access', NEW.id);
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER account_changed AFTER UPDATE OF role, disabled_at, two_factor_enabled ON "user"
	FOR EACH ROW EXECUTE FUNCTION tell_account_changed();
--> statement-breakpoint
CREATE FUNCTION tell_site_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('grevan_access', '');
	RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER site_changed AFTER UPDATE ON "site" FOR EACH ROW EXECUTE FUNCTION tell_site_changed();
