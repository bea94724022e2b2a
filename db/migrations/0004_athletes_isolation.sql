-- Isolation and rights of every team table that came since 0001: the same block, kept as a
-- function so that a later migration is one call.
CREATE FUNCTION isolate_team_tables(names text[]) RETURNS void LANGUAGE plpgsql AS
$$ DECLARE name text;
BEGIN
  FOREACH name IN ARRAY names LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', name);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', name);
    EXECUTE format(
      'CREATE POLICY own_team ON %I USING (team_id = current_team()) WITH CHECK (team_id = current_team())', name);
    EXECUTE format('GRANT SELECT, INSERT, UPDATE, DELETE ON %I TO sprezza_app', name);
  END LOOP;
END $$;
--> statement-breakpoint
REVOKE EXECUTE ON FUNCTION isolate_team_tables FROM PUBLIC;
--> statement-breakpoint
SELECT isolate_team_tables(ARRAY[
  'body_mass', 'competition', 'athlete_limit', 'limit_reason', 'reason_read', 'day_note',
  'athlete_setup', 'own_single', 'readiness_decision', 'physical_test', 'physical_result',
  'exercise', 'exercise_easier', 'import_mapping', 'import_batch']);
--> statement-breakpoint
ALTER TABLE athlete FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE profile_test FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE profile_point FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
-- What happened is never changed: reads of reasons, confirmed singles, decisions, imports.
REVOKE UPDATE, DELETE ON reason_read, own_single, readiness_decision, import_batch FROM sprezza_app;
--> statement-breakpoint
-- A reason or a limit is added and lifted, never deleted.
REVOKE DELETE ON athlete_limit, limit_reason FROM sprezza_app;
--> statement-breakpoint
REVOKE UPDATE ON limit_reason FROM sprezza_app;
