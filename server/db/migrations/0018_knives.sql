CREATE TABLE "knives" (
	"id" serial PRIMARY KEY NOT NULL,
	"blade" text NOT NULL,
	"cutter_id" text,
	"put_in_at" timestamp with time zone,
	"thrown_at" timestamp with time zone,
	"metres" double precision DEFAULT 0 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "calibrations" ADD COLUMN "knife" jsonb;--> statement-breakpoint
ALTER TABLE "knives" ADD CONSTRAINT "knives_cutter_id_cutters_id_fk" FOREIGN KEY ("cutter_id") REFERENCES "public"."cutters"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "knives_one_in_cutter" ON "knives" USING btree ("cutter_id");