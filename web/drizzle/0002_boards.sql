CREATE TABLE "board_drawings" (
	"hash" text PRIMARY KEY NOT NULL,
	"doc" "bytea" NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "own_packages" (
	"id" uuid PRIMARY KEY NOT NULL,
	"label" text NOT NULL,
	"designation" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "own_packages_label_unique" UNIQUE("label")
);
--> statement-breakpoint
ALTER TABLE "photos" ALTER COLUMN "ticket_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "board_models" ADD COLUMN "origin" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "model_id" uuid;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_model_id_board_models_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."board_models"("id") ON DELETE no action ON UPDATE no action;