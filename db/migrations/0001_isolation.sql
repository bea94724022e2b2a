-- Isolation of teams, and the rights of the application's roles.
--
-- Roles (made with the cluster, see scripts/cluster.mjs): sprezza_owner owns everything and runs
-- the migrations; sprezza_app is the application and owns nothing; sprezza_auth signs people and
-- tablets in; sprezza_jobs does background work. None of the last three may bypass row security.

CREATE FUNCTION current_team() RETURNS uuid LANGUAGE sql STABLE AS
$$ SELECT NULLIF(current_setting('app.team', true), '')::uuid $$;
--> statement-breakpoint
GRANT USAGE ON SCHEMA public TO sprezza_app, sprezza_auth, sprezza_jobs;
--> statement-breakpoint
DO $$
DECLARE t record;
BEGIN
  FOR t IN
    SELECT c.relname, EXISTS (
      SELECT 1 FROM pg_attribute a
      WHERE a.attrelid = c.oid AND a.attname = 'team_id' AND NOT a.attisdropped
    ) AS has_team
    FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
    WHERE n.nspname = 'public' AND c.relkind = 'r'
  LOOP
    EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', t.relname);
    EXECUTE format('ALTER TABLE %I FORCE ROW LEVEL SECURITY', t.relname);
    EXECUTE format(
      'CREATE POLICY own_team ON %I USING (%I = current_team()) WITH CHECK (%I = current_team())',
      t.relname,
      CASE WHEN t.has_team THEN 'team_id' ELSE 'id' END,
      CASE WHEN t.has_team THEN 'team_id' ELSE 'id' END);
    EXECUTE format('GRANT SELECT, INSERT, UPDATE, DELETE ON %I TO sprezza_app', t.relname);
  END LOOP;
END $$;
--> statement-breakpoint
-- A team is made by its owner role only; the application reads it and may rename it.
REVOKE INSERT, DELETE ON team FROM sprezza_app;
--> statement-breakpoint
-- What happened is never changed: the application may add to these, and that is all.
REVOKE UPDATE, DELETE ON log_entry, max_record, working_max_choice FROM sprezza_app;
--> statement-breakpoint
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS
$$ BEGIN RAISE EXCEPTION '% is append-only', TG_TABLE_NAME USING ERRCODE = 'restrict_violation'; END $$;
--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON log_entry
  FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
-- A frozen session stays frozen.
CREATE FUNCTION keep_frozen() RETURNS trigger LANGUAGE plpgsql AS
$$ BEGIN
  IF NEW.frozen IS DISTINCT FROM OLD.frozen OR NEW.plan_id IS DISTINCT FROM OLD.plan_id THEN
    RAISE EXCEPTION 'a started session is frozen' USING ERRCODE = 'restrict_violation';
  END IF;
  IF NEW.last_seq < OLD.last_seq THEN
    RAISE EXCEPTION 'sequence numbers do not go back' USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER keep_frozen BEFORE UPDATE ON training_session
  FOR EACH ROW EXECUTE FUNCTION keep_frozen();
--> statement-breakpoint
-- NOTIFY sees through isolation and holds 8 kB: it carries identifiers and a number, no content.
CREATE FUNCTION tell_log() RETURNS trigger LANGUAGE plpgsql AS
$$ BEGIN
  PERFORM pg_notify('sprezza_log', json_build_object(
    'team', NEW.team_id, 'session', NEW.session_id, 'seq', NEW.seq)::text);
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER tell_log AFTER INSERT ON log_entry
  FOR EACH ROW EXECUTE FUNCTION tell_log();
--> statement-breakpoint
CREATE FUNCTION tell_end() RETURNS trigger LANGUAGE plpgsql AS
$$ BEGIN
  PERFORM pg_notify('sprezza_log', json_build_object(
    'team', NEW.team_id, 'session', NEW.id, 'seq', NEW.last_seq)::text);
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER tell_end AFTER UPDATE OF status ON training_session
  FOR EACH ROW WHEN (OLD.status IS DISTINCT FROM NEW.status) EXECUTE FUNCTION tell_end();
--> statement-breakpoint
-- Sign-in: its own schema, and just enough of the teams to know who somebody is.
GRANT USAGE ON SCHEMA auth TO sprezza_auth;
--> statement-breakpoint
GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA auth TO sprezza_auth;
--> statement-breakpoint
GRANT SELECT ON membership, rack_device, device_pairing TO sprezza_auth;
--> statement-breakpoint
GRANT UPDATE (tries_left) ON device_pairing TO sprezza_auth;
--> statement-breakpoint
CREATE POLICY sign_in ON membership FOR SELECT TO sprezza_auth USING (true);
--> statement-breakpoint
CREATE POLICY sign_in ON rack_device FOR SELECT TO sprezza_auth USING (true);
--> statement-breakpoint
CREATE POLICY sign_in ON device_pairing FOR SELECT TO sprezza_auth USING (true);
--> statement-breakpoint
CREATE POLICY count_tries ON device_pairing FOR UPDATE TO sprezza_auth USING (true);
