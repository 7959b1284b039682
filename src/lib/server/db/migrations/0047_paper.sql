ALTER TABLE "inspection_run" ADD COLUMN "done_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "inspection_run" ADD COLUMN "done_by" text;--> statement-breakpoint
ALTER TABLE "inspection_run" ADD CONSTRAINT "inspection_run_done_by_user_id_fk" FOREIGN KEY ("done_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "inspection_run" ADD CONSTRAINT "inspection_run_paper_whole" CHECK (("inspection_run"."done_at" is null) = ("inspection_run"."done_by" is null));