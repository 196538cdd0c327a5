-- cuts of earlier versions are written as their recipes say
UPDATE "cuts" SET "written_with" = jsonb_build_object('kiss', jsonb_build_object('force', "recipe"->'force', 'speed', "recipe"->'speed')) WHERE "written_with" IS NULL;--> statement-breakpoint
ALTER TABLE "cuts" ALTER COLUMN "written_with" SET NOT NULL;