CREATE TABLE "good_start_ups" (
	"id" uuid PRIMARY KEY NOT NULL,
	"model_id" uuid NOT NULL,
	"unit" text NOT NULL,
	"stages" jsonb NOT NULL,
	"taken_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "routine_models" (
	"routine_id" uuid NOT NULL,
	"model_id" uuid NOT NULL,
	CONSTRAINT "routine_models_routine_id_model_id_pk" PRIMARY KEY("routine_id","model_id")
);
--> statement-breakpoint
CREATE TABLE "routines" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"steps" jsonb NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "good_start_ups" ADD CONSTRAINT "good_start_ups_model_id_board_models_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."board_models"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "routine_models" ADD CONSTRAINT "routine_models_routine_id_routines_id_fk" FOREIGN KEY ("routine_id") REFERENCES "public"."routines"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "routine_models" ADD CONSTRAINT "routine_models_model_id_board_models_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."board_models"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "good_start_ups_model_id_index" ON "good_start_ups" USING btree ("model_id");--> statement-breakpoint
CREATE INDEX "routine_models_model_id_index" ON "routine_models" USING btree ("model_id");