ALTER TABLE "cuts" ADD COLUMN "lines_sent" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "head_from" jsonb;--> statement-breakpoint
-- of several that had a cutter, the oldest keeps it and the others wait again
UPDATE "cuts" SET "state" = CASE WHEN "lines_done" = 0 THEN 'queued' ELSE 'cancelled' END
  WHERE "state" IN ('wants-film', 'checking', 'cutting', 'stopping', 'stopped') AND EXISTS (
    SELECT 1 FROM "cuts" "older" WHERE "older"."cutter_id" = "cuts"."cutter_id" AND "older"."id" < "cuts"."id"
      AND "older"."state" IN ('wants-film', 'checking', 'cutting', 'stopping', 'stopped'));--> statement-breakpoint
CREATE UNIQUE INDEX "cuts_one_active" ON "cuts" USING btree ("cutter_id") WHERE state in ('wants-film', 'checking', 'cutting', 'stopping', 'stopped');