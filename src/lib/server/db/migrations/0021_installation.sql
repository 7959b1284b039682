CREATE TABLE "installation" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"secret_mark" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	CONSTRAINT "installation_single" CHECK ("installation"."id" = 1)
);
--> statement-breakpoint
CREATE TABLE "steady_clock" (
	"boot" text PRIMARY KEY NOT NULL,
	"base_ms" double precision NOT NULL,
	"database_ahead_ms" double precision DEFAULT 0 NOT NULL,
	"said_ms" double precision DEFAULT 0 NOT NULL,
	"changed_at" timestamp with time zone NOT NULL
);
