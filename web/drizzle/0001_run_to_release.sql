ALTER TABLE "photos" ADD COLUMN "taken" text DEFAULT 'before' NOT NULL;--> statement-breakpoint
ALTER TABLE "tickets" ADD COLUMN "reopens_id" uuid;--> statement-breakpoint
ALTER TABLE "tickets" ADD CONSTRAINT "tickets_reopens_id_tickets_id_fk" FOREIGN KEY ("reopens_id") REFERENCES "public"."tickets"("id") ON DELETE no action ON UPDATE no action;