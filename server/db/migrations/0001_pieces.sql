CREATE TABLE "fonts" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"lightest" integer NOT NULL,
	"heaviest" integer NOT NULL,
	"bytes" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "readings" (
	"key" text PRIMARY KEY NOT NULL,
	"data" "bytea" NOT NULL
);
--> statement-breakpoint
ALTER TABLE "orders" ALTER COLUMN "file_hash" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "orders" ADD COLUMN "thumbnail" "bytea";