CREATE TABLE "note" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"about" text NOT NULL,
	"about_id" uuid NOT NULL,
	"athlete_id" uuid,
	"kind" text NOT NULL,
	"date" date NOT NULL,
	"words" text NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "note_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "review_call" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"about" text NOT NULL,
	"athlete_id" uuid,
	"squad_id" uuid,
	"plan_id" uuid,
	"slot_id" text,
	"variant_id" uuid,
	"date" date NOT NULL,
	"proposal" jsonb NOT NULL,
	"evidence" jsonb NOT NULL,
	"decision" text NOT NULL,
	"reason" text DEFAULT '' NOT NULL,
	"effect" jsonb NOT NULL,
	"undone_by" text,
	"undone_at" timestamp with time zone,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "review_call_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "declined_has_a_reason" CHECK (decision <> 'declined' OR length(reason) > 0)
);
--> statement-breakpoint
CREATE TABLE "session_sum" (
	"team_id" uuid NOT NULL,
	"session_id" uuid NOT NULL,
	"behind" boolean NOT NULL,
	"seq" bigint,
	"summed_at" timestamp with time zone,
	"facts" jsonb,
	CONSTRAINT "session_sum_team_id_session_id_pk" PRIMARY KEY("team_id","session_id")
);
--> statement-breakpoint
CREATE TABLE "work_sum" (
	"team_id" uuid NOT NULL,
	"session_id" uuid NOT NULL,
	"slot_id" text NOT NULL,
	"athlete_id" uuid NOT NULL,
	"date" date NOT NULL,
	"kind" text NOT NULL,
	"plan_id" uuid,
	"plan_slot_id" text,
	"week" integer,
	"variant_id" uuid,
	"exercise_id" uuid,
	"sum" jsonb NOT NULL,
	"points" jsonb,
	CONSTRAINT "work_sum_team_id_session_id_slot_id_athlete_id_pk" PRIMARY KEY("team_id","session_id","slot_id","athlete_id")
);
--> statement-breakpoint
ALTER TABLE "note" ADD CONSTRAINT "note_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "note" ADD CONSTRAINT "note_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "review_call" ADD CONSTRAINT "review_call_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "review_call" ADD CONSTRAINT "review_call_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "review_call" ADD CONSTRAINT "review_call_team_id_squad_id_squad_team_id_id_fk" FOREIGN KEY ("team_id","squad_id") REFERENCES "public"."squad"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "review_call" ADD CONSTRAINT "review_call_team_id_plan_id_plan_team_id_id_fk" FOREIGN KEY ("team_id","plan_id") REFERENCES "public"."plan"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session_sum" ADD CONSTRAINT "session_sum_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session_sum" ADD CONSTRAINT "session_sum_team_id_session_id_training_session_team_id_id_fk" FOREIGN KEY ("team_id","session_id") REFERENCES "public"."training_session"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_sum" ADD CONSTRAINT "work_sum_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_sum" ADD CONSTRAINT "work_sum_team_id_session_id_training_session_team_id_id_fk" FOREIGN KEY ("team_id","session_id") REFERENCES "public"."training_session"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "work_sum" ADD CONSTRAINT "work_sum_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "note_about" ON "note" USING btree ("team_id","about_id");--> statement-breakpoint
CREATE INDEX "note_by_date" ON "note" USING btree ("team_id","date");--> statement-breakpoint
CREATE UNIQUE INDEX "review_call_stands" ON "review_call" USING btree ("team_id","about") WHERE undone_at IS NULL;--> statement-breakpoint
CREATE INDEX "review_call_by_date" ON "review_call" USING btree ("team_id","date");--> statement-breakpoint
CREATE INDEX "review_call_of_athlete" ON "review_call" USING btree ("team_id","athlete_id");--> statement-breakpoint
CREATE INDEX "session_sum_behind" ON "session_sum" USING btree ("team_id") WHERE behind;--> statement-breakpoint
CREATE INDEX "work_sum_of_athlete" ON "work_sum" USING btree ("team_id","athlete_id","date");--> statement-breakpoint
CREATE INDEX "work_sum_of_plan" ON "work_sum" USING btree ("team_id","plan_id","plan_slot_id");--> statement-breakpoint
CREATE INDEX "work_sum_by_date" ON "work_sum" USING btree ("team_id","date");