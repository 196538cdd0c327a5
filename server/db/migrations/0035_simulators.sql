ALTER TABLE "settings" ADD COLUMN "demo_seen_at" timestamp with time zone;--> statement-breakpoint
-- only simulated machines have a panel: they are known by name from now on, wherever they run
UPDATE "cutters" SET "link" = jsonb_build_object('by', 'simulator', 'name', "id") WHERE "link" ? 'panel';--> statement-breakpoint
UPDATE "settings" SET "printer_link" = 'simulator:printer' WHERE "printer_link" ~ '^http://127[.]0[.]0[.]1:[0-9]+/?$';
