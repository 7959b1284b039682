CREATE INDEX "filter_pair_lot" ON "filter_pair" USING btree ("lot_id");--> statement-breakpoint
CREATE INDEX "item_due_of_kind" ON "item_due" USING btree ("what","due_on","item_id");