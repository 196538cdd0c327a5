CREATE TABLE "attempts" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
CREATE TABLE "cut_acts" (
	"id" serial PRIMARY KEY NOT NULL,
	"cut_id" integer NOT NULL,
	"act" text NOT NULL,
	"who" integer,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "people" (
	"id" serial PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"password" text NOT NULL,
	"pin" text,
	"shown" jsonb,
	"must_change" boolean DEFAULT false NOT NULL,
	"removed_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "secrets" (
	"name" text PRIMARY KEY NOT NULL,
	"value" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"sid" text PRIMARY KEY NOT NULL,
	"sess" jsonb NOT NULL,
	"expire" timestamp (6) NOT NULL
);
--> statement-breakpoint
ALTER TABLE "calibrations" ADD COLUMN "set_up_by" integer;--> statement-breakpoint
ALTER TABLE "calibrations" ADD COLUMN "kept_by" integer;--> statement-breakpoint
ALTER TABLE "recipe_changes" ADD COLUMN "made_by" integer;--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "made_by" integer;--> statement-breakpoint
ALTER TABLE "cut_acts" ADD CONSTRAINT "cut_acts_cut_id_cuts_id_fk" FOREIGN KEY ("cut_id") REFERENCES "public"."cuts"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cut_acts" ADD CONSTRAINT "cut_acts_who_people_id_fk" FOREIGN KEY ("who") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "acts_by_cut" ON "cut_acts" USING btree ("cut_id","id");--> statement-breakpoint
CREATE UNIQUE INDEX "people_one_of_a_name" ON "people" USING btree (lower("name")) WHERE removed_at is null;--> statement-breakpoint
CREATE INDEX "sessions_by_expire" ON "sessions" USING btree ("expire");--> statement-breakpoint
ALTER TABLE "calibrations" ADD CONSTRAINT "calibrations_set_up_by_people_id_fk" FOREIGN KEY ("set_up_by") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calibrations" ADD CONSTRAINT "calibrations_kept_by_people_id_fk" FOREIGN KEY ("kept_by") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recipe_changes" ADD CONSTRAINT "recipe_changes_made_by_people_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "revisions" ADD CONSTRAINT "revisions_made_by_people_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;