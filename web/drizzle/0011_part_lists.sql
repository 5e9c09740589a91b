CREATE TABLE "part_lists" (
	"id" uuid PRIMARY KEY NOT NULL,
	"model_id" uuid NOT NULL,
	"name" text NOT NULL,
	"items" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "part_lists_modelId_name_unique" UNIQUE("model_id","name")
);
--> statement-breakpoint
ALTER TABLE "part_lists" ADD CONSTRAINT "part_lists_model_id_board_models_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."board_models"("id") ON DELETE no action ON UPDATE no action;