CREATE INDEX "bench_test_started" ON "bench_test" USING btree ("started_at");--> statement-breakpoint
CREATE INDEX "inspection_run_signed" ON "inspection_run" USING btree ("signed_at");