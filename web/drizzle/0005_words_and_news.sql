CREATE EXTENSION IF NOT EXISTS pg_trgm;--> statement-breakpoint
CREATE INDEX "boards_model_id_index" ON "boards" USING btree ("model_id");--> statement-breakpoint
CREATE INDEX "customers_name_index" ON "customers" USING btree ("name");--> statement-breakpoint
CREATE INDEX "customers_words" ON "customers" USING gin ("name" gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "photos_ticket_id_index" ON "photos" USING btree ("ticket_id");--> statement-breakpoint
CREATE INDEX "photos_model_id_index" ON "photos" USING btree ("model_id");--> statement-breakpoint
CREATE INDEX "tickets_reopens_id_index" ON "tickets" USING btree ("reopens_id");--> statement-breakpoint
CREATE INDEX "tickets_board_id_index" ON "tickets" USING btree ("board_id");--> statement-breakpoint
CREATE INDEX "tickets_board_version_id_index" ON "tickets" USING btree ("board_version_id");--> statement-breakpoint
CREATE INDEX "tickets_customer_id_index" ON "tickets" USING btree ("customer_id");--> statement-breakpoint
CREATE INDEX "tickets_words" ON "tickets" USING gin (("device" || ' ' || "complaint") gin_trgm_ops);--> statement-breakpoint
CREATE FUNCTION "tell_of_row"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('orthos_job', NEW.ticket_id || ' ' || NEW.id);
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION "tell_of_ticket"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('orthos_job', NEW.id || ' ' || NEW.version);
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "job_events_told" AFTER INSERT ON "job_events" FOR EACH ROW EXECUTE FUNCTION "tell_of_row"();--> statement-breakpoint
CREATE TRIGGER "plans_told" AFTER INSERT ON "plans" FOR EACH ROW EXECUTE FUNCTION "tell_of_row"();--> statement-breakpoint
CREATE TRIGGER "photos_told" AFTER INSERT ON "photos" FOR EACH ROW WHEN (NEW."ticket_id" IS NOT NULL) EXECUTE FUNCTION "tell_of_row"();--> statement-breakpoint
CREATE TRIGGER "tickets_told" AFTER UPDATE ON "tickets" FOR EACH ROW EXECUTE FUNCTION "tell_of_ticket"();
