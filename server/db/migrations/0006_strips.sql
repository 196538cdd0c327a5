ALTER TABLE "cuts" ADD COLUMN "strip" text;--> statement-breakpoint
-- until now a film was one strip
UPDATE "cuts" SET "strip" = "film"->>'id';--> statement-breakpoint
ALTER TABLE "cuts" ALTER COLUMN "strip" SET NOT NULL;
