CREATE TABLE "circuits" (
	"id" uuid PRIMARY KEY NOT NULL,
	"model_id" uuid NOT NULL,
	"name" text NOT NULL,
	"netlist" jsonb NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "good_readings" (
	"id" uuid PRIMARY KEY NOT NULL,
	"model_id" uuid NOT NULL,
	"unit" text NOT NULL,
	"type" text NOT NULL,
	"red" text NOT NULL,
	"black" text NOT NULL,
	"state" text DEFAULT '' NOT NULL,
	"value" jsonb NOT NULL,
	"taken_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "meters" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"bench" text DEFAULT '' NOT NULL,
	"simulated" boolean DEFAULT false NOT NULL,
	"host" text DEFAULT '' NOT NULL,
	"port" integer DEFAULT 5025 NOT NULL,
	"ohm_percent" double precision DEFAULT 0.8 NOT NULL,
	"volt_percent" double precision DEFAULT 0.5 NOT NULL,
	"leads_ohm" double precision DEFAULT 0.2 NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "circuits" ADD CONSTRAINT "circuits_model_id_board_models_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."board_models"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "good_readings" ADD CONSTRAINT "good_readings_model_id_board_models_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."board_models"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "circuits_model_id_name_index" ON "circuits" USING btree ("model_id","name");--> statement-breakpoint
CREATE INDEX "good_readings_model_id_index" ON "good_readings" USING btree ("model_id");