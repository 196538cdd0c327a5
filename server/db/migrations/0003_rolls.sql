-- a film was one roll; now it has as many as lie on the shelf
UPDATE "films" SET "data" = ("data" - 'rollWidth' - 'lengthLeft') || jsonb_build_object('rolls',
  jsonb_build_array(jsonb_build_object('width', "data"->'rollWidth', 'lengthLeft', "data"->'lengthLeft')))
  WHERE "data" ? 'rollWidth';--> statement-breakpoint
UPDATE "cuts" SET "film" = ("film" - 'rollWidth' - 'lengthLeft') || jsonb_build_object('rolls',
  jsonb_build_array(jsonb_build_object('width', "film"->'rollWidth', 'lengthLeft', "film"->'lengthLeft')))
  WHERE "film" ? 'rollWidth';
