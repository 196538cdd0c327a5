CREATE TABLE "cut_shares" (
	"cut_id" integer NOT NULL,
	"order_id" integer NOT NULL,
	"revision" integer NOT NULL,
	"copies" integer NOT NULL,
	"share" double precision NOT NULL,
	CONSTRAINT "cut_shares_cut_id_order_id_pk" PRIMARY KEY("cut_id","order_id")
);
--> statement-breakpoint
ALTER TABLE "cut_shares" ADD CONSTRAINT "cut_shares_cut_id_cuts_id_fk" FOREIGN KEY ("cut_id") REFERENCES "public"."cuts"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cut_shares" ADD CONSTRAINT "cut_shares_order_id_orders_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."orders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "shares_by_order" ON "cut_shares" USING btree ("order_id");--> statement-breakpoint
CREATE INDEX "orders_with_guests" ON "orders" USING btree ("id") WHERE coalesce(choices#>'{layout,guests}', '{}') <> '{}';--> statement-breakpoint
INSERT INTO "cut_shares" ("cut_id", "order_id", "revision", "copies", "share") SELECT "id", "order_id", "revision", "copies", 1 FROM "cuts";
