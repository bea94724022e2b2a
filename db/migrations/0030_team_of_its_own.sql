CREATE TABLE "auth"."installation" (
	"only" boolean PRIMARY KEY DEFAULT true NOT NULL,
	"kind" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "auth"."password_reset" (
	"id" uuid PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"token_hash" text NOT NULL,
	"by" text NOT NULL,
	"team_id" uuid,
	"given_by" text DEFAULT '' NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	CONSTRAINT "password_reset_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "earlier_set" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"variant_id" uuid NOT NULL,
	"date" date NOT NULL,
	"sets" integer NOT NULL,
	"reps" integer NOT NULL,
	"load" jsonb NOT NULL,
	"velocity_mps" double precision,
	"batch_id" uuid NOT NULL,
	"line" text NOT NULL,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "earlier_set_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "earlier_set_team_id_athlete_id_line_unique" UNIQUE("team_id","athlete_id","line")
);
--> statement-breakpoint
CREATE TABLE "invitation" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"athlete_id" uuid,
	"email" text DEFAULT '' NOT NULL,
	"token_hash" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	"withdrawn_at" timestamp with time zone,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "invitation_team_id_id_pk" PRIMARY KEY("team_id","id"),
	CONSTRAINT "invitation_token_hash_unique" UNIQUE("token_hash"),
	CONSTRAINT "invitation_of_athlete" CHECK ((role = 'athlete') = (athlete_id IS NOT NULL))
);
--> statement-breakpoint
CREATE TABLE "membership_change" (
	"team_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"detail" text DEFAULT '' NOT NULL,
	"athlete_id" uuid,
	"entered_by" text NOT NULL,
	"entered_at" timestamp with time zone NOT NULL,
	CONSTRAINT "membership_change_team_id_id_pk" PRIMARY KEY("team_id","id")
);
--> statement-breakpoint
CREATE TABLE "athlete_squad" (
	"team_id" uuid NOT NULL,
	"athlete_id" uuid NOT NULL,
	"squad_id" uuid NOT NULL,
	CONSTRAINT "athlete_squad_team_id_athlete_id_squad_id_pk" PRIMARY KEY("team_id","athlete_id","squad_id")
);
--> statement-breakpoint
ALTER TABLE "plan" ALTER COLUMN "squad_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "athlete" ALTER COLUMN "squad_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "athlete_id" uuid;--> statement-breakpoint
ALTER TABLE "membership" ADD COLUMN "suspended_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "membership" ADD COLUMN "removed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "squad" ADD COLUMN "position" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "squad" ADD COLUMN "archived_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "team" ADD COLUMN "zone" text DEFAULT 'UTC' NOT NULL;--> statement-breakpoint
ALTER TABLE "team" ADD COLUMN "school_id" uuid;--> statement-breakpoint
ALTER TABLE "team" ADD COLUMN "first_hour" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "auth"."password_reset" ADD CONSTRAINT "password_reset_user_id_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "auth"."user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "earlier_set" ADD CONSTRAINT "earlier_set_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "earlier_set" ADD CONSTRAINT "earlier_set_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "earlier_set" ADD CONSTRAINT "earlier_set_team_id_variant_id_lift_variant_team_id_id_fk" FOREIGN KEY ("team_id","variant_id") REFERENCES "public"."lift_variant"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "earlier_set" ADD CONSTRAINT "earlier_set_team_id_batch_id_import_batch_team_id_id_fk" FOREIGN KEY ("team_id","batch_id") REFERENCES "public"."import_batch"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "membership_change" ADD CONSTRAINT "membership_change_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "membership_change" ADD CONSTRAINT "membership_change_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "athlete_squad" ADD CONSTRAINT "athlete_squad_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "athlete_squad" ADD CONSTRAINT "athlete_squad_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "athlete_squad" ADD CONSTRAINT "athlete_squad_team_id_squad_id_squad_team_id_id_fk" FOREIGN KEY ("team_id","squad_id") REFERENCES "public"."squad"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "earlier_set_variant" ON "earlier_set" USING btree ("team_id","variant_id");--> statement-breakpoint
CREATE INDEX "invitation_athlete" ON "invitation" USING btree ("team_id","athlete_id");--> statement-breakpoint
CREATE INDEX "membership_change_at" ON "membership_change" USING btree ("team_id","entered_at");--> statement-breakpoint
CREATE INDEX "membership_change_athlete" ON "membership_change" USING btree ("team_id","athlete_id");--> statement-breakpoint
CREATE INDEX "athlete_squad_squad" ON "athlete_squad" USING btree ("team_id","squad_id");--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_team_id_athlete_id_athlete_team_id_id_fk" FOREIGN KEY ("team_id","athlete_id") REFERENCES "public"."athlete"("team_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "plan_athlete" ON "plan" USING btree ("team_id","athlete_id");--> statement-breakpoint
CREATE UNIQUE INDEX "membership_athlete" ON "membership" USING btree ("team_id","athlete_id") WHERE athlete_id IS NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_for_one" CHECK ((squad_id IS NULL) <> (athlete_id IS NULL));
--> statement-breakpoint
SELECT isolate_team_tables(ARRAY['earlier_set', 'invitation', 'membership_change', 'athlete_squad']);
--> statement-breakpoint
-- What happened is never changed.
REVOKE UPDATE, DELETE ON earlier_set, membership_change FROM sprezza_app;
--> statement-breakpoint
REVOKE DELETE ON invitation FROM sprezza_app;
--> statement-breakpoint
-- Owners make teams from the screens: the policy holds a new one to its own id.
GRANT INSERT ON team TO sprezza_app;
--> statement-breakpoint
-- Sign-in: links by their hash, the names of the teams that somebody chooses between.
GRANT SELECT ON invitation TO sprezza_auth;
--> statement-breakpoint
GRANT SELECT (id, name, zone, unit) ON team TO sprezza_auth;
--> statement-breakpoint
CREATE POLICY sign_in ON invitation FOR SELECT TO sprezza_auth USING (true);
--> statement-breakpoint
CREATE POLICY sign_in ON team FOR SELECT TO sprezza_auth USING (true);
--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON auth.password_reset TO sprezza_auth;
--> statement-breakpoint
GRANT SELECT, INSERT ON auth.installation TO sprezza_auth;
--> statement-breakpoint
-- A team that somebody owns is never left without an owner who may sign in. Two who leave at once
-- wait for each other at the team's row.
CREATE FUNCTION keep_an_owner() RETURNS trigger LANGUAGE plpgsql AS
$$ BEGIN
  PERFORM 1 FROM team WHERE id = OLD.team_id FOR UPDATE;
  IF FOUND AND NOT EXISTS (
    SELECT 1 FROM membership
    WHERE team_id = OLD.team_id AND role = 'owner' AND suspended_at IS NULL
      AND removed_at IS NULL
  ) THEN
    RAISE EXCEPTION 'a team keeps an owner' USING ERRCODE = 'restrict_violation',
      CONSTRAINT = 'membership_owner';
  END IF;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER keep_an_owner AFTER UPDATE OR DELETE ON membership
  FOR EACH ROW WHEN (OLD.role = 'owner' AND OLD.suspended_at IS NULL AND OLD.removed_at IS NULL)
  EXECUTE FUNCTION keep_an_owner();
--> statement-breakpoint
CREATE TRIGGER tell_suspended AFTER UPDATE OF suspended_at, removed_at ON membership
  FOR EACH ROW WHEN (OLD IS DISTINCT FROM NEW)
  EXECUTE FUNCTION tell_membership();
--> statement-breakpoint
CREATE OR REPLACE FUNCTION erase_athlete(who uuid, by_whom text, at timestamptz) RETURNS text[]
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ DECLARE
  nobody CONSTANT text := 'Erased athlete';
  team uuid := current_team();
  old text;
  names text[];
  users text[];
  place record;
  needle text;
BEGIN
  SELECT name INTO old FROM athlete
  WHERE team_id = team AND id = who AND erased_at IS NULL FOR UPDATE;
  IF old IS NULL THEN RETURN NULL; END IF;
  SELECT coalesce(array_agg(user_id), '{}'), array_agg(name) || old INTO users, names
  FROM membership WHERE team_id = team AND athlete_id = who;

  DELETE FROM reason_read WHERE team_id = team AND limit_id IN
    (SELECT id FROM athlete_limit WHERE team_id = team AND athlete_id = who);
  DELETE FROM limit_reason WHERE team_id = team AND limit_id IN
    (SELECT id FROM athlete_limit WHERE team_id = team AND athlete_id = who);
  DELETE FROM athlete_limit WHERE team_id = team AND athlete_id = who;
  DELETE FROM day_note WHERE team_id = team AND athlete_id = who;
  DELETE FROM body_mass WHERE team_id = team AND athlete_id = who;
  DELETE FROM competition WHERE team_id = team AND athlete_id = who;
  DELETE FROM athlete_setup WHERE team_id = team AND athlete_id = who;
  DELETE FROM lab_answer WHERE team_id = team AND athlete_id = who;
  DELETE FROM simulated_lifter WHERE team_id = team AND athlete_id = who;
  DELETE FROM membership WHERE team_id = team AND athlete_id = who;
  DELETE FROM invitation WHERE team_id = team AND athlete_id = who;
  UPDATE membership_change SET name = nobody, detail = '' WHERE team_id = team AND athlete_id = who;
  DELETE FROM session_person WHERE team_id = team AND athlete_id = who;
  DELETE FROM entry_words w USING log_entry e
  WHERE w.team_id = team AND e.team_id = team AND e.id = w.id AND (e.athlete_id = who OR EXISTS (
    SELECT 1 FROM log_entry of WHERE of.team_id = team AND of.session_id = e.session_id
      AND of.athlete_id = who
      AND (of.id = ANY (e.supersedes) OR coalesce(e.body->'of', '[]') ? of.id::text)));
  UPDATE box_setup SET cues = '', style_note = '' WHERE team_id = team AND athlete_id = who;
  UPDATE ladder_mark SET note = '' WHERE team_id = team AND athlete_id = who;
  UPDATE cycle_review SET note = '' WHERE team_id = team AND athlete_id = who;
  UPDATE max_record SET note = '' WHERE team_id = team AND athlete_id = who;
  UPDATE profile_test SET note = '' WHERE team_id = team AND athlete_id = who;
  UPDATE profile_point SET excluded_reason = '(erased)'
  WHERE team_id = team AND excluded_reason IS NOT NULL
    AND test_id IN (SELECT id FROM profile_test WHERE team_id = team AND athlete_id = who);
  UPDATE readiness_decision SET reason = '' WHERE team_id = team AND athlete_id = who;
  UPDATE physical_result SET note = '' WHERE team_id = team AND athlete_id = who;
  UPDATE athlete SET name = nobody, birth_year = NULL, training_since = NULL, goal = NULL,
    season_phase = NULL, sport = NULL, stature_cm = NULL, note = '', erased_at = at,
    archived_at = coalesce(archived_at, at)
  WHERE team_id = team AND id = who;
  INSERT INTO erasure (team_id, id, entered_by, entered_at) VALUES (team, who, by_whom, at);

  -- The whole name goes from every other text of the team (a plan's name, what an edit said),
  -- where it is a name of nobody else and of more than one word: one word may be any word.
  FOREACH old IN ARRAY names LOOP
    CONTINUE WHEN old IS NULL OR position(' ' IN trim(old)) = 0
      OR EXISTS (SELECT 1 FROM athlete WHERE team_id = team AND name = old)
      OR EXISTS (SELECT 1 FROM membership WHERE team_id = team AND name = old);
    FOR place IN
      SELECT c.table_name, c.column_name,
        CASE WHEN c.data_type = 'ARRAY' THEN 'text[]' ELSE c.data_type END AS type
      FROM information_schema.columns c
      JOIN information_schema.tables t USING (table_schema, table_name)
      WHERE c.table_schema = 'public' AND t.table_type = 'BASE TABLE' AND c.is_generated = 'NEVER'
        AND c.table_name NOT IN ('log_entry', 'team')
        AND (c.data_type IN ('text', 'jsonb') OR c.udt_name = '_text')
        AND EXISTS (SELECT 1 FROM information_schema.columns k WHERE k.table_schema = 'public'
          AND k.table_name = c.table_name AND k.column_name = 'team_id')
    LOOP
      needle := CASE WHEN place.type = 'jsonb'
        THEN substr(to_json(old)::text, 2, length(to_json(old)::text) - 2) ELSE old END;
      EXECUTE format(
        'UPDATE %1$I SET %2$I = replace(%2$I::text, $1, $2)::%3$s WHERE team_id = $3 AND strpos(%2$I::text, $1) > 0',
        place.table_name, place.column_name, place.type) USING needle, nobody, team;
    END LOOP;
  END LOOP;
  RETURN users;
END $$;
--> statement-breakpoint
-- Databases from before: the team's zone is its first room's, squads stand by name, and a database
-- with people is the demo's or a team's own.
ALTER TABLE team NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE room NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE squad NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
UPDATE team SET first_hour = '{"over": true}', zone = coalesce(
  (SELECT zone FROM room WHERE room.team_id = team.id ORDER BY name LIMIT 1), 'UTC');
--> statement-breakpoint
UPDATE squad SET position = stands.at FROM (
  SELECT team_id, id, row_number() OVER (PARTITION BY team_id ORDER BY name) AS at FROM squad
) AS stands WHERE stands.team_id = squad.team_id AND stands.id = squad.id;
--> statement-breakpoint
ALTER TABLE team ADD CONSTRAINT team_school FOREIGN KEY (id, school_id)
  REFERENCES team_school (team_id, id);
--> statement-breakpoint
ALTER TABLE team FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE room FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE squad FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
INSERT INTO auth.installation (kind, made_at)
SELECT CASE WHEN bool_or(email LIKE '%@skerry.example') THEN 'demo' ELSE 'own' END, now()
FROM auth."user" HAVING count(*) > 0;
