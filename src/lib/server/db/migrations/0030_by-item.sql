CREATE INDEX "entry_wearer_set" ON "entry_wearer" USING btree ("set_id");--> statement-breakpoint
CREATE INDEX "defect_item" ON "defect" USING btree ("item_id");--> statement-breakpoint
CREATE INDEX "service_job_item" ON "service_job" USING btree ("item_id");--> statement-breakpoint
CREATE INDEX "filter_pair_item" ON "filter_pair" USING btree ("item_id");--> statement-breakpoint
CREATE INDEX "muster_entry_item" ON "muster_entry" USING btree ("item_id");