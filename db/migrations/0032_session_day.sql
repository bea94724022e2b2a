ALTER TABLE "session_person" ADD COLUMN "setups" jsonb;--> statement-breakpoint
ALTER TABLE "training_session" ADD COLUMN "parts" jsonb GENERATED ALWAYS AS (jsonb_path_query_array(frozen, '$.slots[*].from')) STORED;--> statement-breakpoint
ALTER TABLE "training_session" ADD COLUMN "lifts" jsonb GENERATED ALWAYS AS (jsonb_path_query_array(frozen, '$.slots[*].lift')) STORED;