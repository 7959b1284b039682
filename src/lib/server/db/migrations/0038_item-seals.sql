CREATE TABLE "item_seal" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"number" text NOT NULL,
	"sealed_by" text NOT NULL,
	"sealed_at" timestamp with time zone NOT NULL,
	"broken_by" text,
	"broken_at" timestamp with time zone,
	"broken_why" text,
	CONSTRAINT "item_seal_broken_whole" CHECK (("item_seal"."broken_at" is null) = ("item_seal"."broken_by" is null) and ("item_seal"."broken_at" is null) = ("item_seal"."broken_why" is null))
);
--> statement-breakpoint
ALTER TABLE "item_seal" ADD CONSTRAINT "item_seal_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_seal" ADD CONSTRAINT "item_seal_sealed_by_user_id_fk" FOREIGN KEY ("sealed_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_seal" ADD CONSTRAINT "item_seal_broken_by_user_id_fk" FOREIGN KEY ("broken_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "item_seal_one_open" ON "item_seal" USING btree ("item_id") WHERE "item_seal"."broken_at" is null;--> statement-breakpoint
CREATE INDEX "item_seal_item" ON "item_seal" USING btree ("item_id","sealed_at");--> statement-breakpoint
CREATE FUNCTION refuse_change_of_seal() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF OLD.broken_at IS NOT NULL OR (NEW.item_id, NEW.number, NEW.sealed_by, NEW.sealed_at) IS DISTINCT FROM (OLD.item_id, OLD.number, OLD.sealed_by, OLD.sealed_at) THEN
		RAISE EXCEPTION 'a seal is broken once and never changed otherwise' USING ERRCODE = 'restrict_violation';
	END IF;
	RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER item_seal_only_broken BEFORE UPDATE ON "item_seal" FOR EACH ROW EXECUTE FUNCTION refuse_change_of_seal();
