ALTER TABLE "athlete" ADD COLUMN "school_id" uuid;--> statement-breakpoint
ALTER TABLE "athlete" ADD CONSTRAINT "athlete_school_fk" FOREIGN KEY ("team_id","school_id") REFERENCES "public"."team_school"("team_id","id");
