CREATE TABLE "submission" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"result" jsonb,
	CONSTRAINT "submission_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
ALTER TABLE "submission" ADD CONSTRAINT "submission_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "submission_by_age" ON "submission" USING btree ("team_id","made_at");