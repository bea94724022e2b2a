CREATE TABLE "cycle_review" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"plan_id" uuid NOT NULL,
	"slot_id" text NOT NULL,
	"week" integer NOT NULL,
	"decision" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"evidence" text[] NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "cycle_review_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
ALTER TABLE "cycle_review" ADD CONSTRAINT "cycle_review_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cycle_review" ADD CONSTRAINT "cycle_review_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "cycle_review" ADD CONSTRAINT "cycle_review_team_id_plan_id_plan_team_id_id_fk" FOREIGN KEY ("team_id","plan_id") REFERENCES "public"."plan"("team_id","id") ON DELETE no action ON UPDATE no action;