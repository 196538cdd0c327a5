-- what a shop keeps in hand of a cutter's width: half an inch to begin with, as every order had it before
UPDATE "cutters" SET "data" = jsonb_set("data", '{reserve}', '12.7') WHERE NOT "data" ? 'reserve';
