ALTER TABLE "cuts" ADD COLUMN "slip" jsonb;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "is_reckoned" boolean DEFAULT false NOT NULL;