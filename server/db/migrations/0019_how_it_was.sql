ALTER TABLE "cuts" ADD COLUMN "how_it_was" text;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "knife" jsonb;