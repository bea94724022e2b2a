-- What shows a person leaves the frozen sessions and the log, so that somebody can be erased.
SELECT isolate_team_tables(ARRAY['session_person', 'entry_words', 'erasure']);
--> statement-breakpoint
-- Written once; only erasing a person takes anything away, and only that function erases.
REVOKE UPDATE, DELETE ON session_person, entry_words FROM sprezza_app;
--> statement-breakpoint
REVOKE INSERT, UPDATE, DELETE ON erasure FROM sprezza_app;
--> statement-breakpoint
ALTER TABLE training_session NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE log_entry NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE athlete NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE session_person NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE entry_words NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE training_session DISABLE TRIGGER keep_frozen;
--> statement-breakpoint
ALTER TABLE log_entry DISABLE TRIGGER append_only;
--> statement-breakpoint
INSERT INTO session_person (team_id, session_id, athlete_id, name, instructions, setup)
SELECT DISTINCT ON (s.team_id, s.id, a.id) s.team_id, s.id, a.id,
  coalesce(one->>'name', a.name),
  ARRAY(SELECT jsonb_array_elements_text(coalesce(one->'instructions', '[]'))),
  CASE WHEN jsonb_typeof(one->'setup') = 'array'
    THEN ARRAY(SELECT jsonb_array_elements_text(one->'setup')) END
FROM training_session s
CROSS JOIN LATERAL jsonb_array_elements(coalesce(s.frozen->'slots', '[]')) AS slot
CROSS JOIN LATERAL jsonb_array_elements(coalesce(slot->'groups', '[]')) AS part
CROSS JOIN LATERAL jsonb_array_elements(
  coalesce(part->'lifters', '[]') || coalesce(part->'athletes', '[]')) AS one
JOIN athlete a ON a.team_id = s.team_id AND a.id::text = one->>'athleteId'
ORDER BY s.team_id, s.id, a.id, (one ? 'instructions') DESC;
--> statement-breakpoint
UPDATE training_session SET frozen = jsonb_set(frozen, '{slots}', (
  SELECT coalesce(jsonb_agg(slot || jsonb_build_object('groups', (
    SELECT coalesce(jsonb_agg(
      CASE WHEN part ? 'lifters' THEN part || jsonb_build_object('lifters', (
        SELECT coalesce(jsonb_agg((one - 'setup') || '{"name": "", "instructions": []}' ORDER BY n), '[]')
        FROM jsonb_array_elements(part->'lifters') WITH ORDINALITY AS lifters(one, n)))
      ELSE part || jsonb_build_object('athletes', (
        SELECT coalesce(jsonb_agg(one || '{"name": ""}' ORDER BY n), '[]')
        FROM jsonb_array_elements(coalesce(part->'athletes', '[]')) WITH ORDINALITY AS people(one, n)))
      END ORDER BY at), '[]')
    FROM jsonb_array_elements(coalesce(slot->'groups', '[]')) WITH ORDINALITY AS parts(part, at)))
    ORDER BY place), '[]')
  FROM jsonb_array_elements(frozen->'slots') WITH ORDINALITY AS slots(slot, place)))
WHERE frozen ? 'slots';
--> statement-breakpoint
INSERT INTO entry_words (team_id, id, why, reason)
SELECT team_id, id, body->>'why',
  CASE WHEN kind IN ('call', 'pairing-stop') THEN nullif(body->>'reason', '') END
FROM log_entry
WHERE body ? 'why' OR (kind IN ('call', 'pairing-stop') AND body->>'reason' <> '');
--> statement-breakpoint
UPDATE log_entry SET body = CASE WHEN kind IN ('call', 'pairing-stop')
  THEN body - ARRAY['why', 'reason'] ELSE body - 'why' END
WHERE body ? 'why' OR (kind IN ('call', 'pairing-stop') AND body ? 'reason');
--> statement-breakpoint
ALTER TABLE training_session ENABLE TRIGGER keep_frozen;
--> statement-breakpoint
ALTER TABLE log_entry ENABLE TRIGGER append_only;
--> statement-breakpoint
ALTER TABLE training_session FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE log_entry FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE athlete FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE session_person FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE entry_words FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
-- A frozen session stays frozen; only erasing, which runs as the owner, takes a name out of it.
CREATE OR REPLACE FUNCTION keep_frozen() RETURNS trigger LANGUAGE plpgsql AS
$$ BEGIN
  IF (NEW.frozen IS DISTINCT FROM OLD.frozen OR NEW.plan_id IS DISTINCT FROM OLD.plan_id)
    AND current_user <> (SELECT pg_get_userbyid(relowner) FROM pg_class WHERE oid = TG_RELID) THEN
    RAISE EXCEPTION 'a started session is frozen' USING ERRCODE = 'restrict_violation';
  END IF;
  IF NEW.last_seq < OLD.last_seq THEN
    RAISE EXCEPTION 'sequence numbers do not go back' USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$;
--> statement-breakpoint
-- Erases a person of the current team: names, notes and reasons go, the log and its numbers stay.
-- Gives the sign-ins that were theirs; null where there is nobody to erase.
CREATE FUNCTION erase_athlete(who uuid, by_whom text, at timestamptz) RETURNS text[]
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
REVOKE EXECUTE ON FUNCTION erase_athlete FROM PUBLIC;
--> statement-breakpoint
GRANT EXECUTE ON FUNCTION erase_athlete TO sprezza_app;
--> statement-breakpoint
-- Whose role changes, who leaves the team, and whoever signs out or is signed out: told to the
-- process that holds their streams.
CREATE FUNCTION tell_membership() RETURNS trigger LANGUAGE plpgsql AS
$$ BEGIN
  PERFORM pg_notify('sprezza_principal', json_build_object(
    'team', OLD.team_id, 'holder', 'person:' || OLD.user_id)::text);
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER tell_role AFTER UPDATE OF role, athlete_id, user_id ON membership
  FOR EACH ROW WHEN (OLD IS DISTINCT FROM NEW) EXECUTE FUNCTION tell_membership();
--> statement-breakpoint
CREATE TRIGGER tell_leave AFTER DELETE ON membership
  FOR EACH ROW EXECUTE FUNCTION tell_membership();
--> statement-breakpoint
CREATE FUNCTION auth.tell_sign_out() RETURNS trigger LANGUAGE plpgsql AS
$$ BEGIN
  PERFORM pg_notify('sprezza_principal', json_build_object(
    'holder', 'person:' || OLD.user_id)::text);
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER tell_sign_out AFTER DELETE ON auth.session
  FOR EACH ROW EXECUTE FUNCTION auth.tell_sign_out();
