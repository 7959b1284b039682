CREATE TABLE "filter_layer" (
	"id" uuid PRIMARY KEY NOT NULL,
	"pair_id" uuid NOT NULL,
	"lot_id" uuid NOT NULL,
	"quantity" integer NOT NULL,
	"fitted_on" date NOT NULL,
	"fitted_by" text NOT NULL,
	"removed_at" timestamp with time zone,
	"removed_by" text,
	CONSTRAINT "filter_layer_quantity" CHECK ("filter_layer"."quantity" between 1 and 4),
	CONSTRAINT "filter_layer_removed_whole" CHECK (("filter_layer"."removed_at" is null) = ("filter_layer"."removed_by" is null))
);
--> statement-breakpoint
ALTER TABLE "filter_model" DROP CONSTRAINT "filter_model_coded";--> statement-breakpoint
ALTER TABLE "filter_model" ADD COLUMN "role" text DEFAULT 'filter' NOT NULL;--> statement-breakpoint
ALTER TABLE "filter_pair" ADD COLUMN "sealed_until" date;--> statement-breakpoint
ALTER TABLE "filter_layer" ADD CONSTRAINT "filter_layer_pair_id_filter_pair_id_fk" FOREIGN KEY ("pair_id") REFERENCES "public"."filter_pair"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_layer" ADD CONSTRAINT "filter_layer_lot_id_filter_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."filter_lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_layer" ADD CONSTRAINT "filter_layer_fitted_by_user_id_fk" FOREIGN KEY ("fitted_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_layer" ADD CONSTRAINT "filter_layer_removed_by_user_id_fk" FOREIGN KEY ("removed_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "filter_layer_pair" ON "filter_layer" USING btree ("pair_id");--> statement-breakpoint
CREATE INDEX "filter_layer_lot" ON "filter_layer" USING btree ("lot_id");--> statement-breakpoint
ALTER TABLE "filter_model" ADD CONSTRAINT "filter_model_role" CHECK ("filter_model"."role" in ('filter', 'pre-filter', 'retainer', 'adapter'));--> statement-breakpoint
ALTER TABLE "filter_model" ADD CONSTRAINT "filter_model_coded" CHECK ("filter_model"."code_en" is not null or "filter_model"."code_us" is not null or "filter_model"."role" in ('retainer', 'adapter'));