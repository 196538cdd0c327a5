ALTER TABLE "cut_acts" ADD COLUMN "what" text;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "again_of" integer;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "written_with" jsonb;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "nudges" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "nudges_kept" boolean;--> statement-breakpoint
CREATE INDEX "cuts_by_state" ON "cuts" USING btree ("state");