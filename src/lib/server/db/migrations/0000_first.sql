CREATE TYPE "public"."role" AS ENUM('viewer', 'technician', 'supervisor', 'admin');--> statement-breakpoint
CREATE TYPE "public"."severity" AS ENUM('stop', 'repair', 'watch', 'note');--> statement-breakpoint
CREATE TYPE "public"."answer_value" AS ENUM('good', 'reject', 'not fitted', 'cleared');--> statement-breakpoint
CREATE TYPE "public"."rule_set" AS ENUM('us', 'uk');--> statement-breakpoint
CREATE TABLE "account" (
	"id" text PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"user_id" text NOT NULL,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"password" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "api_key" (
	"hash" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"user_id" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"revoked_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "rate_limit" (
	"id" text PRIMARY KEY NOT NULL,
	"key" text NOT NULL,
	"count" integer NOT NULL,
	"last_request" bigint NOT NULL,
	CONSTRAINT "rate_limit_key_unique" UNIQUE("key")
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" text PRIMARY KEY NOT NULL,
	"token" text NOT NULL,
	"user_id" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "session_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "user" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"role" "role" DEFAULT 'viewer' NOT NULL,
	"initials" text DEFAULT '' NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "user_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "verification" (
	"id" text PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "audit_entry" (
	"seq" bigint PRIMARY KEY NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"actor_id" text,
	"action" text NOT NULL,
	"item_id" uuid,
	"subject" text NOT NULL,
	"payload" text NOT NULL,
	"prev_hash" text NOT NULL,
	"hash" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "audit_head" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"seq" bigint NOT NULL,
	"hash" text NOT NULL,
	CONSTRAINT "audit_head_single" CHECK ("audit_head"."id" = 1)
);
--> statement-breakpoint
CREATE TABLE "defect" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"station" text NOT NULL,
	"code" text NOT NULL,
	"severity" "severity" NOT NULL,
	"step" text,
	"run_id" uuid,
	"note" text,
	"reports" integer DEFAULT 1 NOT NULL,
	"reported_by" text NOT NULL,
	"reported_at" timestamp with time zone NOT NULL,
	"closed_at" timestamp with time zone,
	"closed_how" text,
	CONSTRAINT "defect_closed_whole" CHECK (("defect"."closed_at" is null) = ("defect"."closed_how" is null))
);
--> statement-breakpoint
CREATE TABLE "service_job" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"repair" text NOT NULL,
	"started_by" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"proof" jsonb NOT NULL,
	"done_by" text,
	"done_at" timestamp with time zone,
	"released_by" text,
	"released_at" timestamp with time zone,
	"superseded_at" timestamp with time zone,
	"note" text,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "service_job_done_whole" CHECK (("service_job"."done_at" is null) = ("service_job"."done_by" is null)),
	CONSTRAINT "service_job_release_after_done" CHECK ("service_job"."released_at" is null or ("service_job"."done_at" is not null and "service_job"."released_by" is not null))
);
--> statement-breakpoint
CREATE TABLE "service_job_defect" (
	"job_id" uuid NOT NULL,
	"defect_id" uuid NOT NULL,
	CONSTRAINT "service_job_defect_job_id_defect_id_pk" PRIMARY KEY("job_id","defect_id")
);
--> statement-breakpoint
CREATE TABLE "service_part" (
	"job_id" uuid NOT NULL,
	"lot_id" uuid NOT NULL,
	"quantity" integer NOT NULL,
	CONSTRAINT "service_part_job_id_lot_id_pk" PRIMARY KEY("job_id","lot_id"),
	CONSTRAINT "service_part_some" CHECK ("service_part"."quantity" > 0)
);
--> statement-breakpoint
CREATE TABLE "filter_lot" (
	"id" uuid PRIMARY KEY NOT NULL,
	"model_id" uuid NOT NULL,
	"lot" text NOT NULL,
	"use_by" date NOT NULL,
	"sealed_quantity" integer NOT NULL,
	"location" text DEFAULT '' NOT NULL,
	CONSTRAINT "filter_lot_not_below_zero" CHECK ("filter_lot"."sealed_quantity" >= 0)
);
--> statement-breakpoint
CREATE TABLE "filter_model" (
	"id" uuid PRIMARY KEY NOT NULL,
	"maker" text NOT NULL,
	"name" text NOT NULL,
	"mount" text NOT NULL,
	"code_en" text,
	"code_us" text,
	"mass_g" integer NOT NULL,
	"bed" jsonb,
	"opened_months" integer,
	CONSTRAINT "filter_model_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "filter_pair" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" integer GENERATED ALWAYS AS IDENTITY (sequence name "filter_pair_number_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"lot_id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"plan_id" uuid,
	"filters" integer NOT NULL,
	"opened_on" date NOT NULL,
	"initials" text NOT NULL,
	"opened_by" text NOT NULL,
	"change_after_min" integer,
	"exposure_min" integer,
	"single_use" boolean DEFAULT false NOT NULL,
	"discarded_at" timestamp with time zone,
	"discard_reason" text,
	CONSTRAINT "filter_pair_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "hazard_plan" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" integer GENERATED ALWAYS AS IDENTITY (sequence name "hazard_plan_number_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"task" text NOT NULL,
	"place_id" uuid NOT NULL,
	"facts" jsonb NOT NULL,
	"created_by" text NOT NULL,
	"changed_by" text NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "hazard_plan_number_unique" UNIQUE("number"),
	CONSTRAINT "hazard_plan_named" CHECK (length(trim("hazard_plan"."task")) > 0)
);
--> statement-breakpoint
CREATE TABLE "inspection_answer" (
	"id" uuid PRIMARY KEY NOT NULL,
	"run_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"step" text NOT NULL,
	"value" "answer_value" NOT NULL,
	"code" text,
	"note" text,
	"answered_by" text NOT NULL,
	"answered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "inspection_answer_code" CHECK (("inspection_answer"."value" = 'reject') = ("inspection_answer"."code" is not null))
);
--> statement-breakpoint
CREATE TABLE "inspection_run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"item_id" uuid NOT NULL,
	"procedure" text NOT NULL,
	"procedure_version" integer NOT NULL,
	"service_job_id" uuid,
	"started_by" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"signed_by" text,
	"signed_at" timestamp with time zone,
	"outcome" text,
	"reasons" jsonb,
	CONSTRAINT "inspection_run_signed_whole" CHECK (("inspection_run"."signed_at" is null) = ("inspection_run"."signed_by" is null) and ("inspection_run"."signed_at" is null) = ("inspection_run"."outcome" is null))
);
--> statement-breakpoint
CREATE TABLE "item" (
	"id" uuid PRIMARY KEY NOT NULL,
	"tag" text NOT NULL,
	"family" text NOT NULL,
	"model_id" uuid NOT NULL,
	"size" text NOT NULL,
	"serial" text DEFAULT '' NOT NULL,
	"place_id" uuid NOT NULL,
	"in_use_since" date NOT NULL,
	"retired_on" date,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "item_tag_form" CHECK ("item"."tag" ~ '^[A-Z0-9][A-Z0-9-]{1,19}$')
);
--> statement-breakpoint
CREATE TABLE "item_model" (
	"id" uuid PRIMARY KEY NOT NULL,
	"family" text NOT NULL,
	"maker" text NOT NULL,
	"name" text NOT NULL,
	"mount" text NOT NULL,
	"filter_count" integer DEFAULT 2 NOT NULL,
	"maker_lines" jsonb DEFAULT '[]'::jsonb NOT NULL,
	CONSTRAINT "item_model_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "item_state" (
	"item_id" uuid PRIMARY KEY NOT NULL,
	"blocked" text,
	"due_from" date NOT NULL,
	"due_on" date NOT NULL,
	"due_what" text NOT NULL,
	"last_inspection_on" date
);
--> statement-breakpoint
CREATE TABLE "part_lot" (
	"id" uuid PRIMARY KEY NOT NULL,
	"part" text NOT NULL,
	"lot" text NOT NULL,
	"quantity" integer NOT NULL,
	"use_by" date,
	CONSTRAINT "part_lot_not_below_zero" CHECK ("part_lot"."quantity" >= 0)
);
--> statement-breakpoint
CREATE TABLE "place" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"floor" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "place_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "site" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"name" text NOT NULL,
	"rule_set" "rule_set" DEFAULT 'uk' NOT NULL,
	"time_zone" text DEFAULT 'Europe/London' NOT NULL,
	CONSTRAINT "site_single" CHECK ("site"."id" = 1)
);
--> statement-breakpoint
ALTER TABLE "account" ADD CONSTRAINT "account_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "api_key" ADD CONSTRAINT "api_key_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "defect" ADD CONSTRAINT "defect_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "defect" ADD CONSTRAINT "defect_run_id_inspection_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."inspection_run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "defect" ADD CONSTRAINT "defect_reported_by_user_id_fk" FOREIGN KEY ("reported_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_job" ADD CONSTRAINT "service_job_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_job" ADD CONSTRAINT "service_job_started_by_user_id_fk" FOREIGN KEY ("started_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_job" ADD CONSTRAINT "service_job_done_by_user_id_fk" FOREIGN KEY ("done_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_job" ADD CONSTRAINT "service_job_released_by_user_id_fk" FOREIGN KEY ("released_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_job_defect" ADD CONSTRAINT "service_job_defect_job_id_service_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."service_job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_job_defect" ADD CONSTRAINT "service_job_defect_defect_id_defect_id_fk" FOREIGN KEY ("defect_id") REFERENCES "public"."defect"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_part" ADD CONSTRAINT "service_part_job_id_service_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."service_job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_part" ADD CONSTRAINT "service_part_lot_id_part_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."part_lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_lot" ADD CONSTRAINT "filter_lot_model_id_filter_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."filter_model"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_pair" ADD CONSTRAINT "filter_pair_lot_id_filter_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."filter_lot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_pair" ADD CONSTRAINT "filter_pair_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_pair" ADD CONSTRAINT "filter_pair_plan_id_hazard_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."hazard_plan"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "filter_pair" ADD CONSTRAINT "filter_pair_opened_by_user_id_fk" FOREIGN KEY ("opened_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hazard_plan" ADD CONSTRAINT "hazard_plan_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hazard_plan" ADD CONSTRAINT "hazard_plan_created_by_user_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "hazard_plan" ADD CONSTRAINT "hazard_plan_changed_by_user_id_fk" FOREIGN KEY ("changed_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "inspection_answer" ADD CONSTRAINT "inspection_answer_run_id_inspection_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."inspection_run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "inspection_answer" ADD CONSTRAINT "inspection_answer_answered_by_user_id_fk" FOREIGN KEY ("answered_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "inspection_run" ADD CONSTRAINT "inspection_run_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "inspection_run" ADD CONSTRAINT "inspection_run_started_by_user_id_fk" FOREIGN KEY ("started_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "inspection_run" ADD CONSTRAINT "inspection_run_signed_by_user_id_fk" FOREIGN KEY ("signed_by") REFERENCES "public"."user"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_model_id_item_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."item_model"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_place_id_place_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."place"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_state" ADD CONSTRAINT "item_state_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "audit_entry_item" ON "audit_entry" USING btree ("item_id","seq");--> statement-breakpoint
CREATE INDEX "audit_entry_subject" ON "audit_entry" USING btree ("subject");--> statement-breakpoint
CREATE UNIQUE INDEX "defect_open_once" ON "defect" USING btree ("item_id","station","code") WHERE "defect"."closed_at" is null;--> statement-breakpoint
CREATE INDEX "defect_open" ON "defect" USING btree ("closed_at");--> statement-breakpoint
CREATE UNIQUE INDEX "service_job_one_open" ON "service_job" USING btree ("item_id") WHERE "service_job"."released_at" is null and "service_job"."superseded_at" is null;--> statement-breakpoint
CREATE UNIQUE INDEX "filter_lot_once" ON "filter_lot" USING btree ("model_id","lot");--> statement-breakpoint
CREATE UNIQUE INDEX "filter_pair_one_on_item" ON "filter_pair" USING btree ("item_id") WHERE "filter_pair"."discarded_at" is null;--> statement-breakpoint
CREATE INDEX "filter_pair_open" ON "filter_pair" USING btree ("discarded_at");--> statement-breakpoint
CREATE UNIQUE INDEX "inspection_answer_order" ON "inspection_answer" USING btree ("run_id","position");--> statement-breakpoint
CREATE UNIQUE INDEX "inspection_run_one_open" ON "inspection_run" USING btree ("item_id") WHERE "inspection_run"."signed_at" is null;--> statement-breakpoint
CREATE INDEX "inspection_run_item" ON "inspection_run" USING btree ("item_id","signed_at");--> statement-breakpoint
CREATE UNIQUE INDEX "item_tag" ON "item" USING btree ("tag");--> statement-breakpoint
CREATE INDEX "item_place" ON "item" USING btree ("place_id");--> statement-breakpoint
CREATE INDEX "item_state_due" ON "item_state" USING btree ("due_on") WHERE "item_state"."blocked" is null;--> statement-breakpoint
CREATE INDEX "item_state_blocked" ON "item_state" USING btree ("blocked") WHERE "item_state"."blocked" is not null;--> statement-breakpoint
CREATE UNIQUE INDEX "part_lot_once" ON "part_lot" USING btree ("part","lot");