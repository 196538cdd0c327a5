CREATE TABLE "strip_files" (
	"key" text NOT NULL,
	"strip" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "strip_files_key_strip_pk" PRIMARY KEY("key","strip")
);
--> statement-breakpoint
CREATE INDEX "strip_files_made_at" ON "strip_files" USING btree ("made_at");