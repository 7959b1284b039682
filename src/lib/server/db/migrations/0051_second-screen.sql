CREATE TABLE "second_screen" (
	"id" uuid PRIMARY KEY NOT NULL,
	"code_hash" text NOT NULL,
	"code_until" timestamp with time zone NOT NULL,
	"token_hash" text,
	"user_id" text NOT NULL,
	"shows" jsonb NOT NULL,
	"until" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "second_screen_code_hash_unique" UNIQUE("code_hash"),
	CONSTRAINT "second_screen_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
ALTER TABLE "second_screen" ADD CONSTRAINT "second_screen_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;