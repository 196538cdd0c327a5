ALTER TABLE "cuts" ADD COLUMN "rank" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "asked" jsonb;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "paused" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "needs_second_tool" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "settings" ADD COLUMN "paused" boolean DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE "cuts" SET "rank" = "id";