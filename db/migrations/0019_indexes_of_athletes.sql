CREATE INDEX "cycle_review_of_athlete" ON "cycle_review" USING btree ("team_id","athlete_id");--> statement-breakpoint
CREATE INDEX "fault_note_of_athlete" ON "fault_note" USING btree ("team_id","athlete_id");--> statement-breakpoint
CREATE INDEX "ladder_mark_of_athlete" ON "ladder_mark" USING btree ("team_id","athlete_id");--> statement-breakpoint
CREATE INDEX "max_record_of_athlete" ON "max_record" USING btree ("team_id","athlete_id");--> statement-breakpoint
CREATE INDEX "profile_point_of_test" ON "profile_point" USING btree ("team_id","test_id");--> statement-breakpoint
CREATE INDEX "working_max_choice_of_athlete" ON "working_max_choice" USING btree ("team_id","athlete_id","variant_id");--> statement-breakpoint
CREATE INDEX "own_single_of_athlete" ON "own_single" USING btree ("team_id","athlete_id");--> statement-breakpoint
CREATE INDEX "physical_result_of_athlete" ON "physical_result" USING btree ("team_id","athlete_id");--> statement-breakpoint
CREATE INDEX "readiness_decision_of_athlete" ON "readiness_decision" USING btree ("team_id","athlete_id");