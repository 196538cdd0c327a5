ALTER TABLE "cuts" ADD COLUMN "reckoned" double precision;--> statement-breakpoint
ALTER TABLE "cuts" ADD COLUMN "took" double precision;