ALTER TABLE "inspection_run" DROP CONSTRAINT "inspection_run_purpose";--> statement-breakpoint
ALTER TABLE "procedure_edition" DROP CONSTRAINT "procedure_edition_purpose";--> statement-breakpoint
ALTER TABLE "inspection_run" ADD CONSTRAINT "inspection_run_purpose" CHECK ("inspection_run"."purpose" in ('inspection', 'donning', 'look', 'closing', 'change'));--> statement-breakpoint
ALTER TABLE "procedure_edition" ADD CONSTRAINT "procedure_edition_purpose" CHECK ("procedure_edition"."purpose" in ('inspection', 'donning', 'look', 'closing', 'change'));