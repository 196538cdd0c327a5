CREATE TABLE "calibrations" (
	"id" serial PRIMARY KEY NOT NULL,
	"cutter_id" text NOT NULL,
	"setup" jsonb NOT NULL,
	"state" text NOT NULL,
	"before" jsonb NOT NULL,
	"seen" jsonb,
	"measured" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"says" jsonb,
	"after" jsonb,
	"lines" integer DEFAULT 0 NOT NULL,
	"lines_done" integer DEFAULT 0 NOT NULL,
	"problem" text,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"moved_at" timestamp with time zone DEFAULT now() NOT NULL,
	"kept_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "calibrations" ADD CONSTRAINT "calibrations_cutter_id_cutters_id_fk" FOREIGN KEY ("cutter_id") REFERENCES "public"."cutters"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "calibrations_by_cutter" ON "calibrations" USING btree ("cutter_id","id");--> statement-breakpoint
CREATE UNIQUE INDEX "calibrations_one_at_work" ON "calibrations" USING btree ("cutter_id") WHERE state in ('working', 'stopping');