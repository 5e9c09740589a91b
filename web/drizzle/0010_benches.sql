ALTER TABLE "kit_items" ALTER COLUMN "doc" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "kit_items" ADD COLUMN "spec" jsonb;--> statement-breakpoint
ALTER TABLE "kit_items" ADD COLUMN "out_of_order" boolean DEFAULT false NOT NULL;