ALTER TABLE "orders" ADD COLUMN "choices" jsonb;--> statement-breakpoint
UPDATE "orders" SET "choices" = "revisions"."choices" FROM "revisions" WHERE "revisions"."order_id" = "orders"."id" AND "revisions"."n" = "orders"."revision";--> statement-breakpoint
ALTER TABLE "orders" ALTER COLUMN "choices" SET NOT NULL;--> statement-breakpoint
-- until now undo walked a list; its entries keep saying all of it
ALTER TABLE "revisions" ADD COLUMN "parent" integer;--> statement-breakpoint
UPDATE "revisions" SET "parent" = "n" - 1 WHERE "n" > 0;--> statement-breakpoint
ALTER TABLE "revisions" ADD COLUMN "edits" jsonb;--> statement-breakpoint
ALTER TABLE "revisions" ALTER COLUMN "choices" DROP NOT NULL;
