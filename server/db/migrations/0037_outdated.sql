ALTER TABLE "cuts" ADD COLUMN "made_from" text;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "is_put_here" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "kept_over" text;