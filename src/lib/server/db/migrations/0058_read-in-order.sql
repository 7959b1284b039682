CREATE INDEX "bench_test_started" ON "bench_test" USING btree ("started_at");--> statement-breakpoint
CREATE INDEX "inspection_run_signed" ON "inspection_run" USING btree ("signed_at");--> statement-breakpoint
CREATE INDEX "inspection_run_job" ON "inspection_run" USING btree ("service_job_id") WHERE "inspection_run"."service_job_id" is not null;--> statement-breakpoint
CREATE INDEX "item_state_by_due" ON "item_state" USING btree ("due_on","item_id");--> statement-breakpoint
CREATE INDEX "item_state_by_inspection" ON "item_state" USING btree ("last_inspection_on","item_id");