CREATE INDEX "audit_entry_at" ON "audit_entry" USING btree ("at");--> statement-breakpoint
CREATE INDEX "audit_entry_actor" ON "audit_entry" USING btree ("actor_id","seq");--> statement-breakpoint
CREATE INDEX "audit_entry_hash" ON "audit_entry" USING btree ("hash");