ALTER TABLE "bench_test" ADD COLUMN "begun_at" timestamp with time zone;--> statement-breakpoint
-- Tests that run while the database is brought up to date have begun.
UPDATE "bench_test" SET "begun_at" = "started_at" WHERE "ended_at" IS NULL AND "bench" IS NOT NULL;
