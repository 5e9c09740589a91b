DROP INDEX "tickets_closed_at_number_index";--> statement-breakpoint
CREATE INDEX "tickets_open" ON "tickets" USING btree ("number") WHERE "tickets"."closed_at" is null;--> statement-breakpoint
CREATE INDEX "tickets_closed" ON "tickets" USING btree ("number") WHERE "tickets"."closed_at" is not null;--> statement-breakpoint
CREATE INDEX "tickets_closed_at_index" ON "tickets" USING btree ("closed_at");