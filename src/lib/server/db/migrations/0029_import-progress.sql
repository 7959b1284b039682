CREATE TABLE "import_progress" (
	"id" uuid PRIMARY KEY NOT NULL,
	"done" integer DEFAULT 0 NOT NULL,
	"total" integer NOT NULL,
	"cancelled" boolean DEFAULT false NOT NULL,
	"at" timestamp with time zone NOT NULL
);
