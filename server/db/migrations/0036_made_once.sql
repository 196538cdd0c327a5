CREATE TABLE "made_once" (
	"key" text PRIMARY KEY NOT NULL,
	"made" jsonb NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
