ALTER TABLE "training_session" DROP CONSTRAINT "training_session_team_id_plan_id_week_slot_id_unique";--> statement-breakpoint
ALTER TABLE "training_session" ADD COLUMN "own_of" uuid;--> statement-breakpoint
ALTER TABLE "training_session" ADD CONSTRAINT "training_session_team_id_own_of_athlete_team_id_id_fk" FOREIGN KEY ("team_id","own_of") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "training_session_of_squad" ON "training_session" USING btree ("team_id","plan_id","week","slot_id") WHERE own_of IS NULL;--> statement-breakpoint
CREATE UNIQUE INDEX "training_session_alone" ON "training_session" USING btree ("team_id","own_of","plan_id","week","slot_id") WHERE own_of IS NOT NULL;