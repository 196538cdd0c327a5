ALTER TABLE "cuts" ADD COLUMN "sheet" jsonb;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "design" "bytea";--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "taken" jsonb;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "reading" jsonb;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "printer_link" text;