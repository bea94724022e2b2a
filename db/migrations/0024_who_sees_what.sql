CREATE TABLE "erasure" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "erasure_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "entry_words" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"why" text,
	"reason" text,
	CONSTRAINT "entry_words_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "session_person" (
	"team_id" uuid NOT NULL,
	"session_id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"name" text NOT NULL,
	"instructions" text[] NOT NULL,
	"setup" text[],
	CONSTRAINT "session_person_team_id_session_id_athlete_id_pk" PRIMARY KEY("team_id","session_id","athlete_id")
);
--> statement-breakpoint
ALTER TABLE "athlete" ADD COLUMN "archived_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "athlete" ADD COLUMN "erased_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "erasure" ADD CONSTRAINT "erasure_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "erasure" ADD CONSTRAINT "erasure_team_id_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_words" ADD CONSTRAINT "entry_words_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "entry_words" ADD CONSTRAINT "entry_words_team_id_id_log_entry_team_id_id_fk" FOREIGN KEY ("team_id","id") REFERENCES "public"."log_entry"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session_person" ADD CONSTRAINT "session_person_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session_person" ADD CONSTRAINT "session_person_team_id_session_id_training_session_team_id_id_fk" FOREIGN KEY ("team_id","session_id") REFERENCES "public"."training_session"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session_person" ADD CONSTRAINT "session_person_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "session_person_of_athlete" ON "session_person" USING btree ("team_id","athlete_id");