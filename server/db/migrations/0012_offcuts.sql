CREATE SEQUENCE "public"."offcut_numbers" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1;--> statement-breakpoint
CREATE TABLE "settings" (
	"id" text PRIMARY KEY NOT NULL,
	"least_offcut" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "roll" jsonb;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "beside" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "offcuts" jsonb DEFAULT '[]'::jsonb NOT NULL;