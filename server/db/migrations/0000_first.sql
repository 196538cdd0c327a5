CREATE TABLE "artworks" (
	"hash" text PRIMARY KEY NOT NULL,
	"data" "bytea" NOT NULL,
	"thumbnail" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "cuts" (
	"id" serial PRIMARY KEY NOT NULL,
	"order_id" integer NOT NULL,
	"revision" integer NOT NULL,
	"cutter_id" text NOT NULL,
	"position" integer NOT NULL,
	"of" integer NOT NULL,
	"state" text NOT NULL,
	"film" jsonb NOT NULL,
	"recipe" jsonb NOT NULL,
	"mirrored" boolean NOT NULL,
	"copies" integer NOT NULL,
	"roll_width" double precision NOT NULL,
	"cuttable" double precision NOT NULL,
	"roller_margin" double precision NOT NULL,
	"length" double precision NOT NULL,
	"cut_length" double precision NOT NULL,
	"seconds" double precision NOT NULL,
	"program" "bytea" NOT NULL,
	"drawing" "bytea" NOT NULL,
	"lines" integer NOT NULL,
	"lines_done" integer DEFAULT 0 NOT NULL,
	"seconds_done" double precision DEFAULT 0 NOT NULL,
	"problem" text,
	"record" "bytea",
	"deviation" double precision,
	"deviation_at" jsonb,
	"queued_at" timestamp with time zone DEFAULT now() NOT NULL,
	"moved_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "cutters" (
	"id" text PRIMARY KEY NOT NULL,
	"data" jsonb NOT NULL,
	"link" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "files" (
	"hash" text PRIMARY KEY NOT NULL,
	"bytes" "bytea" NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "films" (
	"id" text PRIMARY KEY NOT NULL,
	"data" jsonb NOT NULL,
	"position" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "leases" (
	"cutter_id" text PRIMARY KEY NOT NULL,
	"holder" text NOT NULL,
	"expires_at" bigint NOT NULL
);
--> statement-breakpoint
CREATE TABLE "orders" (
	"id" serial PRIMARY KEY NOT NULL,
	"number" integer NOT NULL,
	"name" text NOT NULL,
	"due" date,
	"file_name" text NOT NULL,
	"file_hash" text NOT NULL,
	"revision" integer DEFAULT 0 NOT NULL,
	"summary" jsonb NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "orders_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "recipes" (
	"cutter_id" text NOT NULL,
	"film_id" text NOT NULL,
	"data" jsonb NOT NULL,
	CONSTRAINT "recipes_cutter_id_film_id_pk" PRIMARY KEY("cutter_id","film_id")
);
--> statement-breakpoint
CREATE TABLE "revisions" (
	"order_id" integer NOT NULL,
	"n" integer NOT NULL,
	"choices" jsonb NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "revisions_order_id_n_pk" PRIMARY KEY("order_id","n")
);
--> statement-breakpoint
ALTER TABLE "artworks" ADD CONSTRAINT "artworks_hash_files_hash_fk" FOREIGN KEY ("hash") REFERENCES "public"."files"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cuts" ADD CONSTRAINT "cuts_order_id_orders_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."orders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cuts" ADD CONSTRAINT "cuts_cutter_id_cutters_id_fk" FOREIGN KEY ("cutter_id") REFERENCES "public"."cutters"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "orders" ADD CONSTRAINT "orders_file_hash_files_hash_fk" FOREIGN KEY ("file_hash") REFERENCES "public"."files"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recipes" ADD CONSTRAINT "recipes_cutter_id_cutters_id_fk" FOREIGN KEY ("cutter_id") REFERENCES "public"."cutters"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "revisions" ADD CONSTRAINT "revisions_order_id_orders_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."orders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "cuts_by_cutter" ON "cuts" USING btree ("cutter_id","state");--> statement-breakpoint
CREATE INDEX "cuts_by_order" ON "cuts" USING btree ("order_id");