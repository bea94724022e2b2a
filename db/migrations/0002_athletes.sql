CREATE TABLE "import_batch" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"file_name" text NOT NULL,
	"tests" integer NOT NULL,
	"reps" integer NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "import_batch_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "import_mapping" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"header" text NOT NULL,
	"mapping" jsonb NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "import_mapping_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "import_mapping_team_id_header_unique" UNIQUE("team_id","header")
);
--> statement-breakpoint
CREATE TABLE "exercise" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"pattern" text NOT NULL,
	"speed_class" text NOT NULL,
	"main" text[] NOT NULL,
	"assisting" text[] NOT NULL,
	"sides" text NOT NULL,
	"gear" text[] NOT NULL,
	"excludes" text[] NOT NULL,
	"changed_by" text DEFAULT '' NOT NULL,
	"changed_at" timestamp with time zone,
	"put_away_at" timestamp with time zone,
	CONSTRAINT "exercise_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "exercise_team_id_name_unique" UNIQUE("team_id","name")
);
--> statement-breakpoint
CREATE TABLE "exercise_easier" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"exercise_id" uuid NOT NULL,
	"easier_id" uuid NOT NULL,
	CONSTRAINT "exercise_easier_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "exercise_easier_team_id_exercise_id_easier_id_unique" UNIQUE("team_id","exercise_id","easier_id")
);
--> statement-breakpoint
CREATE TABLE "athlete_limit" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"instruction" text NOT NULL,
	"refuses" text[] NOT NULL,
	"lift" text,
	"cap_percent" double precision,
	"until" date,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	"lifted_on" date,
	"lifted_by" text,
	CONSTRAINT "athlete_limit_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "athlete_setup" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"hook" text DEFAULT '' NOT NULL,
	"safety" text DEFAULT '' NOT NULL,
	"grip" text DEFAULT '' NOT NULL,
	"stance" text DEFAULT '' NOT NULL,
	"start_height_cm" double precision,
	"note" text DEFAULT '' NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "athlete_setup_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "athlete_setup_team_id_athlete_id_variant_id_unique" UNIQUE("team_id","athlete_id","variant_id")
);
--> statement-breakpoint
CREATE TABLE "body_mass" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"date" date NOT NULL,
	"mass" jsonb NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "body_mass_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "body_mass_team_id_athlete_id_date_unique" UNIQUE("team_id","athlete_id","date")
);
--> statement-breakpoint
CREATE TABLE "competition" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid,
	"squad_id" uuid,
	"name" text NOT NULL,
	"date" date NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "competition_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "competition_of_one" CHECK ((athlete_id IS NULL) <> (squad_id IS NULL))
);
--> statement-breakpoint
CREATE TABLE "day_note" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"date" date NOT NULL,
	"sleep_h" double precision,
	"eating" integer,
	"soreness" integer,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "day_note_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "day_note_team_id_athlete_id_date_unique" UNIQUE("team_id","athlete_id","date")
);
--> statement-breakpoint
CREATE TABLE "limit_reason" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"limit_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"reason" text NOT NULL,
	"guardian_consent" boolean DEFAULT false NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "limit_reason_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "reason_read" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"limit_id" uuid NOT NULL,
	"read_by" text NOT NULL,
	"read_at" timestamp with time zone NOT NULL,
	CONSTRAINT "reason_read_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "own_single" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"date" date NOT NULL,
	"load" jsonb NOT NULL,
	"velocity_mps" double precision NOT NULL,
	"metric" text NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "own_single_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "physical_result" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"test_id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"date" date NOT NULL,
	"side" text DEFAULT '' NOT NULL,
	"approach" boolean DEFAULT false NOT NULL,
	"load_kg" double precision DEFAULT 0 NOT NULL,
	"trials" jsonb NOT NULL,
	"splits" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"at_least" boolean DEFAULT false NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "physical_result_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "physical_result_team_id_test_id_athlete_id_date_side_approach_load_kg_unique" UNIQUE("team_id","test_id","athlete_id","date","side","approach","load_kg")
);
--> statement-breakpoint
CREATE TABLE "physical_test" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"family" text NOT NULL,
	"unit" text NOT NULL,
	"higher_is_better" boolean NOT NULL,
	"sides" boolean DEFAULT false NOT NULL,
	"distance_m" double precision,
	"split_m" double precision,
	"take" text NOT NULL,
	CONSTRAINT "physical_test_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "physical_test_team_id_name_unique" UNIQUE("team_id","name")
);
--> statement-breakpoint
CREATE TABLE "readiness_decision" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"test_id" uuid NOT NULL,
	"date" date NOT NULL,
	"readings" jsonb NOT NULL,
	"target_mps" double precision NOT NULL,
	"planned_kg" double precision NOT NULL,
	"proposed_kg" double precision NOT NULL,
	"low_kg" double precision NOT NULL,
	"high_kg" double precision NOT NULL,
	"decision" text NOT NULL,
	"decided_kg" double precision NOT NULL,
	"reason" text DEFAULT '' NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "readiness_decision_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
ALTER TABLE "athlete" ALTER COLUMN "birth_year" SET DATA TYPE integer USING NULLIF(birth_year, '')::integer;--> statement-breakpoint
ALTER TABLE "athlete" ALTER COLUMN "training_since" SET DATA TYPE date USING NULLIF(training_since, '')::date;--> statement-breakpoint
ALTER TABLE "lift_variant" ADD COLUMN "grip" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "lift_variant" ADD COLUMN "stance" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "lift_variant" ADD COLUMN "box_style" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "lift_variant" ADD COLUMN "resistance" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "lift_variant" ADD COLUMN "base_kind" text DEFAULT 'own' NOT NULL;--> statement-breakpoint
ALTER TABLE "lift_variant" ADD COLUMN "base_id" uuid;--> statement-breakpoint
ALTER TABLE "lift_variant" ADD COLUMN "ratio" double precision;--> statement-breakpoint
ALTER TABLE "lift_variant" ADD COLUMN "system_mass" text DEFAULT 'bar' NOT NULL;--> statement-breakpoint
ALTER TABLE "lift_variant" ADD COLUMN "threshold_mps" double precision;--> statement-breakpoint
-- Rows that exist are filled below; the owner is under row security like everybody else.
ALTER TABLE "athlete" NO FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "profile_test" NO FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "profile_point" NO FORCE ROW LEVEL SECURITY;--> statement-breakpoint
ALTER TABLE "profile_point" ADD COLUMN "rep" integer;--> statement-breakpoint
UPDATE "profile_point" p SET "rep" = o.rep FROM (
  SELECT team_id, id, row_number() OVER (PARTITION BY team_id, test_id ORDER BY load_kg, id) AS rep
  FROM "profile_point") o WHERE (o.team_id, o.id) = (p.team_id, p.id);--> statement-breakpoint
ALTER TABLE "profile_point" ALTER COLUMN "rep" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "profile_point" ADD COLUMN "force_n" double precision;--> statement-breakpoint
ALTER TABLE "profile_point" ADD COLUMN "power_w" double precision;--> statement-breakpoint
ALTER TABLE "profile_point" ADD COLUMN "excluded_reason" text;--> statement-breakpoint
ALTER TABLE "profile_point" ADD COLUMN "excluded_by" text;--> statement-breakpoint
ALTER TABLE "profile_point" ADD COLUMN "excluded_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "profile_test" ADD COLUMN "added_kg" double precision DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "profile_test" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "profile_test" ADD COLUMN "fingerprint" text;--> statement-breakpoint
ALTER TABLE "profile_test" ADD COLUMN "entered_by" text;--> statement-breakpoint
ALTER TABLE "profile_test" ADD COLUMN "entered_at" timestamp with time zone;--> statement-breakpoint
UPDATE "profile_test" SET "fingerprint" = id::text, "entered_by" = 'not known', "entered_at" = date::timestamptz;--> statement-breakpoint
ALTER TABLE "profile_test" ALTER COLUMN "fingerprint" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "profile_test" ALTER COLUMN "entered_by" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "profile_test" ALTER COLUMN "entered_at" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "athlete" ADD COLUMN "goal" text;--> statement-breakpoint
ALTER TABLE "athlete" ADD COLUMN "season_phase" text;--> statement-breakpoint
ALTER TABLE "athlete" ADD COLUMN "sport" text;--> statement-breakpoint
ALTER TABLE "athlete" ADD COLUMN "room_id" uuid;--> statement-breakpoint
ALTER TABLE "athlete" ADD COLUMN "stature_cm" double precision;--> statement-breakpoint
ALTER TABLE "athlete" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "import_batch" ADD CONSTRAINT "import_batch_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "import_mapping" ADD CONSTRAINT "import_mapping_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exercise" ADD CONSTRAINT "exercise_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exercise_easier" ADD CONSTRAINT "exercise_easier_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exercise_easier" ADD CONSTRAINT "exercise_easier_team_id_exercise_id_exercise_team_id_id_fk" FOREIGN KEY ("team_id","exercise_id") REFERENCES "public"."exercise"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exercise_easier" ADD CONSTRAINT "exercise_easier_team_id_easier_id_exercise_team_id_id_fk" FOREIGN KEY ("team_id","easier_id") REFERENCES "public"."exercise"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "athlete_limit" ADD CONSTRAINT "athlete_limit_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "athlete_limit" ADD CONSTRAINT "athlete_limit_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "athlete_setup" ADD CONSTRAINT "athlete_setup_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "athlete_setup" ADD CONSTRAINT "athlete_setup_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "athlete_setup" ADD CONSTRAINT "athlete_setup_team_id_variant_id_lift_variant_team_id_id_fk" FOREIGN KEY ("team_id","variant_id") REFERENCES "public"."lift_variant"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "body_mass" ADD CONSTRAINT "body_mass_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "body_mass" ADD CONSTRAINT "body_mass_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "competition" ADD CONSTRAINT "competition_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "competition" ADD CONSTRAINT "competition_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "competition" ADD CONSTRAINT "competition_team_id_squad_id_squad_team_id_id_fk" FOREIGN KEY ("team_id","squad_id") REFERENCES "public"."squad"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "day_note" ADD CONSTRAINT "day_note_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "day_note" ADD CONSTRAINT "day_note_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "limit_reason" ADD CONSTRAINT "limit_reason_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "limit_reason" ADD CONSTRAINT "limit_reason_team_id_limit_id_athlete_limit_team_id_id_fk" FOREIGN KEY ("team_id","limit_id") REFERENCES "public"."athlete_limit"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reason_read" ADD CONSTRAINT "reason_read_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reason_read" ADD CONSTRAINT "reason_read_team_id_limit_id_athlete_limit_team_id_id_fk" FOREIGN KEY ("team_id","limit_id") REFERENCES "public"."athlete_limit"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "own_single" ADD CONSTRAINT "own_single_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "own_single" ADD CONSTRAINT "own_single_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "own_single" ADD CONSTRAINT "own_single_team_id_variant_id_lift_variant_team_id_id_fk" FOREIGN KEY ("team_id","variant_id") REFERENCES "public"."lift_variant"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "physical_result" ADD CONSTRAINT "physical_result_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "physical_result" ADD CONSTRAINT "physical_result_team_id_test_id_physical_test_team_id_id_fk" FOREIGN KEY ("team_id","test_id") REFERENCES "public"."physical_test"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "physical_result" ADD CONSTRAINT "physical_result_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "physical_test" ADD CONSTRAINT "physical_test_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readiness_decision" ADD CONSTRAINT "readiness_decision_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readiness_decision" ADD CONSTRAINT "readiness_decision_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readiness_decision" ADD CONSTRAINT "readiness_decision_team_id_test_id_profile_test_team_id_id_fk" FOREIGN KEY ("team_id","test_id") REFERENCES "public"."profile_test"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lift_variant" ADD CONSTRAINT "lift_variant_team_id_base_id_lift_variant_team_id_id_fk" FOREIGN KEY ("team_id","base_id") REFERENCES "public"."lift_variant"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "athlete" ADD CONSTRAINT "athlete_team_id_room_id_room_team_id_id_fk" FOREIGN KEY ("team_id","room_id") REFERENCES "public"."room"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "profile_test" ADD CONSTRAINT "profile_test_team_id_athlete_id_variant_id_date_metric_fingerprint_unique" UNIQUE("team_id","athlete_id","variant_id","date","metric","fingerprint");