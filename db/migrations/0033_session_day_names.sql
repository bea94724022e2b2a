ALTER TABLE "training_session" DROP COLUMN "kind";--> statement-breakpoint
ALTER TABLE "training_session" DROP COLUMN "lift";