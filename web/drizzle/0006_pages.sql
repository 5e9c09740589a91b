DROP INDEX "tickets_closed_at_number_index";--> statement-breakpoint
CREATE INDEX "job_events_handed_over" ON "job_events" USING btree ("ticket_id") WHERE "job_events"."body" ->> 'type' = 'handed-over';--> statement-breakpoint
CREATE INDEX "tickets_open" ON "tickets" USING btree ("number") WHERE "tickets"."closed_at" is null;--> statement-breakpoint
CREATE INDEX "tickets_closed" ON "tickets" USING btree ("number") WHERE "tickets"."closed_at" is not null;--> statement-breakpoint
CREATE INDEX "tickets_closed_at_index" ON "tickets" USING btree ("closed_at");