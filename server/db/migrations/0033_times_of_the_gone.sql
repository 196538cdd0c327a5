-- what a cutter did ended when the lease ran out of whoever had it, not when somebody noticed
CREATE FUNCTION was_left_at(of_cutter text) RETURNS timestamptz AS $$
  SELECT least(clock_timestamp(), (SELECT to_timestamp(expires_at / 1000.0) FROM leases WHERE cutter_id = of_cutter));
$$ LANGUAGE sql VOLATILE;--> statement-breakpoint
CREATE OR REPLACE FUNCTION note_cut_times() RETURNS trigger AS $$
DECLARE doing text := CASE NEW.state
  WHEN 'wants-film' THEN 'waiting'
  WHEN 'checking' THEN CASE WHEN NEW.sheet IS NULL THEN 'cutting' ELSE 'reading' END
  WHEN 'cutting' THEN 'cutting'
  WHEN 'stopping' THEN 'cutting'
  WHEN 'stopped' THEN 'stopped' END;
  moment timestamptz := clock_timestamp();
BEGIN
  IF TG_OP = 'UPDATE' AND NEW.state = OLD.state AND NEW.cutter_id = OLD.cutter_id THEN RETURN NULL; END IF;
  IF TG_OP = 'UPDATE' AND OLD.state IN ('checking', 'cutting', 'stopping') THEN moment := was_left_at(OLD.cutter_id); END IF;
  -- one that was taken up after that lease had run out was left at once
  SELECT greatest(moment, max(began)) INTO moment FROM cutter_times WHERE cut_id = NEW.id AND calibration_id IS NULL AND ended IS NULL;
  UPDATE cutter_times SET ended = moment WHERE cut_id = NEW.id AND calibration_id IS NULL AND ended IS NULL;
  IF doing IS NOT NULL THEN
    INSERT INTO cutter_times (cutter_id, doing, cut_id, began) VALUES (NEW.cutter_id, doing, NEW.id, moment);
  END IF;
  RETURN NULL;
END $$ LANGUAGE plpgsql;--> statement-breakpoint
CREATE OR REPLACE FUNCTION note_calibration_times() RETURNS trigger AS $$
BEGIN
  IF TG_OP = 'UPDATE' AND NEW.state = OLD.state THEN RETURN NULL; END IF;
  IF NEW.state = 'stopping' THEN RETURN NULL; END IF;
  UPDATE cutter_times SET ended = greatest(began, was_left_at(NEW.cutter_id)) WHERE cut_id IS NULL AND calibration_id = NEW.id AND ended IS NULL;
  IF NEW.state = 'working' THEN
    INSERT INTO cutter_times (cutter_id, doing, calibration_id, began) VALUES (NEW.cutter_id, 'calibrating', NEW.id, clock_timestamp());
  END IF;
  RETURN NULL;
END $$ LANGUAGE plpgsql;
