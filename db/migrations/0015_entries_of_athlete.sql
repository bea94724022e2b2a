ALTER TABLE "log_entry" ADD COLUMN "athlete_id" uuid GENERATED ALWAYS AS (CASE WHEN body->>'athleteId' ~ '^[0-9a-f-]{36}$' THEN (body->>'athleteId')::uuid END) STORED;--> statement-breakpoint
ALTER TABLE "training_session" ADD COLUMN "title" text GENERATED ALWAYS AS (frozen->>'title') STORED;--> statement-breakpoint
ALTER TABLE "training_session" ADD COLUMN "zone" text GENERATED ALWAYS AS (frozen->>'zone') STORED;--> statement-breakpoint
ALTER TABLE "training_session" ADD COLUMN "lift" text GENERATED ALWAYS AS (frozen->>'lift') STORED;--> statement-breakpoint
CREATE INDEX "log_entry_corrections" ON "log_entry" USING btree ("team_id","session_id") WHERE supersedes <> '{}';--> statement-breakpoint
CREATE INDEX "log_entry_sets_of_athlete" ON "log_entry" USING btree ("team_id","athlete_id") WHERE kind IN ('set-done', 'fault');