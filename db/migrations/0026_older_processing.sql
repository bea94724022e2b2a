ALTER TABLE "lift_variant" ADD COLUMN "threshold_processing" text;--> statement-breakpoint
ALTER TABLE "coach_value" ADD COLUMN "processing" text;