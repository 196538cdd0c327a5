CREATE TABLE "recipe_changes" (
	"id" serial PRIMARY KEY NOT NULL,
	"cutter_id" text NOT NULL,
	"film_id" text NOT NULL,
	"kind" text NOT NULL,
	"data" jsonb,
	"why" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "recipe_changes" ADD CONSTRAINT "recipe_changes_cutter_id_cutters_id_fk" FOREIGN KEY ("cutter_id") REFERENCES "public"."cutters"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "changes_by_recipe" ON "recipe_changes" USING btree ("cutter_id","film_id","kind","id");