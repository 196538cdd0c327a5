CREATE TABLE "cutter_times" (
	"id" serial PRIMARY KEY NOT NULL,
	"cutter_id" text NOT NULL,
	"doing" text NOT NULL,
	"cut_id" integer,
	"calibration_id" integer,
	"began" timestamp with time zone NOT NULL,
	"ended" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "film_bookings" (
	"id" serial PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"kind" text NOT NULL,
	"film_id" text,
	"cutter_id" text,
	"cut_id" integer,
	"calibration_id" integer,
	"width" double precision NOT NULL,
	"off" double precision NOT NULL,
	"back" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"used" double precision NOT NULL,
	"kept" double precision DEFAULT 0 NOT NULL,
	"price" double precision,
	"booked_for" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"who" integer
);
--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "art" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "cutters" ADD COLUMN "loaded" jsonb;--> statement-breakpoint
UPDATE "cutters" SET "loaded" = (SELECT jsonb_build_object('film', c.film->'id', 'name', c.film->'name', 'colour', c.film->'colour', 'width', c.roll_width, 'blade', c.recipe->'blade') FROM "cuts" c WHERE c.cutter_id = "cutters".id AND c.lines_sent > 0 ORDER BY c.moved_at DESC LIMIT 1);--> statement-breakpoint
ALTER TABLE "film_bookings" ADD CONSTRAINT "film_bookings_who_people_id_fk" FOREIGN KEY ("who") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "times_by_start" ON "cutter_times" USING btree ("began");--> statement-breakpoint
CREATE INDEX "times_under_way" ON "cutter_times" USING btree ("cut_id","calibration_id") WHERE ended is null;--> statement-breakpoint
CREATE INDEX "bookings_by_time" ON "film_bookings" USING btree ("at");--> statement-breakpoint
-- a cutter's times are written with the state itself, whoever changes it and whichever server goes away then
CREATE FUNCTION note_cut_times() RETURNS trigger AS $$
DECLARE doing text := CASE NEW.state
  WHEN 'wants-film' THEN 'waiting'
  WHEN 'checking' THEN CASE WHEN NEW.sheet IS NULL THEN 'cutting' ELSE 'reading' END
  WHEN 'cutting' THEN 'cutting'
  WHEN 'stopping' THEN 'cutting'
  WHEN 'stopped' THEN 'stopped' END;
BEGIN
  IF TG_OP = 'UPDATE' AND NEW.state = OLD.state AND NEW.cutter_id = OLD.cutter_id THEN RETURN NULL; END IF;
  UPDATE cutter_times SET ended = clock_timestamp() WHERE cut_id = NEW.id AND calibration_id IS NULL AND ended IS NULL;
  IF doing IS NOT NULL THEN
    INSERT INTO cutter_times (cutter_id, doing, cut_id, began) VALUES (NEW.cutter_id, doing, NEW.id, clock_timestamp());
  END IF;
  RETURN NULL;
END $$ LANGUAGE plpgsql;--> statement-breakpoint
CREATE TRIGGER cut_times AFTER INSERT OR UPDATE OF state, cutter_id ON cuts FOR EACH ROW EXECUTE FUNCTION note_cut_times();--> statement-breakpoint
CREATE FUNCTION note_calibration_times() RETURNS trigger AS $$
BEGIN
  IF TG_OP = 'UPDATE' AND NEW.state = OLD.state THEN RETURN NULL; END IF;
  IF NEW.state = 'stopping' THEN RETURN NULL; END IF;
  UPDATE cutter_times SET ended = clock_timestamp() WHERE cut_id IS NULL AND calibration_id = NEW.id AND ended IS NULL;
  IF NEW.state = 'working' THEN
    INSERT INTO cutter_times (cutter_id, doing, calibration_id, began) VALUES (NEW.cutter_id, 'calibrating', NEW.id, clock_timestamp());
  END IF;
  RETURN NULL;
END $$ LANGUAGE plpgsql;--> statement-breakpoint
CREATE TRIGGER calibration_times AFTER INSERT OR UPDATE OF state ON calibrations FOR EACH ROW EXECUTE FUNCTION note_calibration_times();
