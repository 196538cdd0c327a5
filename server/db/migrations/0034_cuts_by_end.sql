DROP INDEX "cuts_by_cutter";--> statement-breakpoint
CREATE INDEX "cuts_by_cutter" ON "cuts" USING btree ("cutter_id","state","ended_at");