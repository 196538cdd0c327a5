-- a kind of line may have a recipe of its own
ALTER TABLE "recipes" ADD COLUMN "kind" text DEFAULT 'kiss' NOT NULL;--> statement-breakpoint
ALTER TABLE "recipes" DROP CONSTRAINT "recipes_cutter_id_film_id_pk";--> statement-breakpoint
ALTER TABLE "recipes" ADD CONSTRAINT "recipes_cutter_id_film_id_kind_pk" PRIMARY KEY("cutter_id","film_id","kind");--> statement-breakpoint
-- until now both edges were alike
ALTER TABLE "cuts" ADD COLUMN "edges" jsonb;--> statement-breakpoint
UPDATE "cuts" SET "edges" = jsonb_build_object('far', "roller_margin", 'near', "roller_margin");--> statement-breakpoint
ALTER TABLE "cuts" ALTER COLUMN "edges" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "cuts" DROP COLUMN "roller_margin";--> statement-breakpoint
UPDATE "cutters" SET "data" = ("data" - 'widestRoll' - 'narrowestRoll' - 'rollerMargin' - 'leadMargin') || jsonb_build_object(
  'widest', "data"->'widestRoll',
  'narrowest', "data"->'narrowestRoll',
  'margins', jsonb_build_object('far', "data"->'rollerMargin', 'near', "data"->'rollerMargin', 'lead', "data"->'leadMargin', 'tail', 5),
  'force', jsonb_build_object('least', 5, 'most', 600),
  'speed', jsonb_build_object('least', 5, 'most', 150),
  'ownSpeed', 30,
  'device', "data"->'device' || jsonb_build_object('pointsInDown', 50)
) WHERE "data" ? 'widestRoll';
