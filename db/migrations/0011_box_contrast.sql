CREATE TABLE "box_setup" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"style_id" text NOT NULL,
	"contact" text NOT NULL,
	"distance_cm" double precision,
	"cues" text DEFAULT '' NOT NULL,
	"style_note" text DEFAULT '' NOT NULL,
	"free_squat_signed" boolean DEFAULT false NOT NULL,
	"rehearsed_on" date,
	"rehearsed_by" text,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "box_setup_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "card_confirmation" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"card_id" uuid NOT NULL,
	"user_id" text NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "card_confirmation_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "card_confirmation_team_id_card_id_user_id_unique" UNIQUE("team_id","card_id","user_id")
);
--> statement-breakpoint
CREATE TABLE "fault_note" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"fault" text NOT NULL,
	"date" date NOT NULL,
	"percent" double precision,
	"action" text DEFAULT 'cue' NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "fault_note_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "ladder_group" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"squad_id" uuid NOT NULL,
	"started_on" date NOT NULL,
	"early" boolean DEFAULT false NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "ladder_group_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "ladder_mark" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"rung_id" text NOT NULL,
	"outcome" text NOT NULL,
	"date" date NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "ladder_mark_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "standard_card" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"version" integer NOT NULL,
	"cues" text[] NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "standard_card_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "standard_card_team_id_version_unique" UNIQUE("team_id","version")
);
--> statement-breakpoint
CREATE TABLE "complex_entry" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"run_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"body" jsonb NOT NULL,
	"received_at" timestamp with time zone NOT NULL,
	"entered_by" text NOT NULL,
	CONSTRAINT "complex_entry_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "complex_entry_team_id_run_id_seq_unique" UNIQUE("team_id","run_id","seq")
);
--> statement-breakpoint
CREATE TABLE "complex_run" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"complex" jsonb NOT NULL,
	"athletes" jsonb NOT NULL,
	"date" date NOT NULL,
	"ended_at" timestamp with time zone,
	"last_seq" integer DEFAULT 0 NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "complex_run_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "gap_test_day" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"date" date NOT NULL,
	"trial" text NOT NULL,
	"output" text NOT NULL,
	"heavy_set" text NOT NULL,
	"baseline" double precision[] NOT NULL,
	"trials" jsonb NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "gap_test_day_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "gap_test_day_team_id_athlete_id_trial_date_unique" UNIQUE("team_id","athlete_id","trial","date")
);
--> statement-breakpoint
CREATE TABLE "team_complex" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"lineage_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"complex" jsonb NOT NULL,
	"away_on" date,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "team_complex_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "team_complex_team_id_lineage_id_version_unique" UNIQUE("team_id","lineage_id","version")
);
--> statement-breakpoint
ALTER TABLE "box_setup" ADD CONSTRAINT "box_setup_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "box_setup" ADD CONSTRAINT "box_setup_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "box_setup" ADD CONSTRAINT "box_setup_team_id_variant_id_lift_variant_team_id_id_fk" FOREIGN KEY ("team_id","variant_id") REFERENCES "public"."lift_variant"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "card_confirmation" ADD CONSTRAINT "card_confirmation_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "card_confirmation" ADD CONSTRAINT "card_confirmation_team_id_card_id_standard_card_team_id_id_fk" FOREIGN KEY ("team_id","card_id") REFERENCES "public"."standard_card"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fault_note" ADD CONSTRAINT "fault_note_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fault_note" ADD CONSTRAINT "fault_note_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ladder_group" ADD CONSTRAINT "ladder_group_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ladder_group" ADD CONSTRAINT "ladder_group_team_id_squad_id_squad_team_id_id_fk" FOREIGN KEY ("team_id","squad_id") REFERENCES "public"."squad"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ladder_mark" ADD CONSTRAINT "ladder_mark_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ladder_mark" ADD CONSTRAINT "ladder_mark_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "standard_card" ADD CONSTRAINT "standard_card_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "complex_entry" ADD CONSTRAINT "complex_entry_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "complex_entry" ADD CONSTRAINT "complex_entry_team_id_run_id_complex_run_team_id_id_fk" FOREIGN KEY ("team_id","run_id") REFERENCES "public"."complex_run"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "complex_run" ADD CONSTRAINT "complex_run_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gap_test_day" ADD CONSTRAINT "gap_test_day_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gap_test_day" ADD CONSTRAINT "gap_test_day_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "team_complex" ADD CONSTRAINT "team_complex_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;