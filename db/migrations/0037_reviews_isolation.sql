SELECT isolate_team_tables(ARRAY['session_sum', 'work_sum', 'review_call', 'note']);
--> statement-breakpoint
-- A decision stands as it was made; that it was taken back is written beside it.
REVOKE UPDATE, DELETE ON review_call FROM sprezza_app;
--> statement-breakpoint
GRANT UPDATE (undone_by, undone_at) ON review_call TO sprezza_app;
--> statement-breakpoint
-- A note is written and taken away, never changed.
REVOKE UPDATE ON note FROM sprezza_app;
--> statement-breakpoint
-- Every session has a sum, which is behind from its start and whenever its log goes on.
-- Whoever may write the session marks its sum: the team is the row's own.
CREATE FUNCTION mark_session_sum() RETURNS trigger
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ DECLARE
  before text := coalesce(current_setting('app.team', true), '');
BEGIN
  PERFORM set_config('app.team', NEW.team_id::text, true);
  IF TG_OP = 'INSERT' THEN
    INSERT INTO session_sum (team_id, session_id, behind) VALUES (NEW.team_id, NEW.id, true)
    ON CONFLICT DO NOTHING;
  ELSE
    UPDATE session_sum SET behind = true
    WHERE team_id = NEW.team_id AND session_id = NEW.id AND NOT behind;
  END IF;
  PERFORM set_config('app.team', before, true);
  RETURN NULL;
END $$;
--> statement-breakpoint
REVOKE EXECUTE ON FUNCTION mark_session_sum FROM PUBLIC;
--> statement-breakpoint
CREATE TRIGGER session_sum_begun AFTER INSERT ON training_session
  FOR EACH ROW EXECUTE FUNCTION mark_session_sum();
--> statement-breakpoint
CREATE TRIGGER session_sum_behind AFTER UPDATE OF last_seq, frozen ON training_session
  FOR EACH ROW WHEN (OLD.last_seq IS DISTINCT FROM NEW.last_seq OR OLD.frozen IS DISTINCT FROM NEW.frozen)
  EXECUTE FUNCTION mark_session_sum();
--> statement-breakpoint
-- Sessions from before: their sums are worked out by whoever reads them first.
ALTER TABLE session_sum NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE training_session NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
INSERT INTO session_sum (team_id, session_id, behind) SELECT team_id, id, true FROM training_session;
--> statement-breakpoint
ALTER TABLE training_session FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE session_sum FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
-- With an athlete go the notes on them, and what was written of why; the sums are of numbers.
CREATE FUNCTION erase_reviews() RETURNS trigger
LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS
$$ BEGIN
  DELETE FROM note WHERE team_id = NEW.team_id AND athlete_id = NEW.id;
  UPDATE review_call SET reason = '(erased)'
  WHERE team_id = NEW.team_id AND athlete_id = NEW.id AND reason <> '';
  RETURN NULL;
END $$;
--> statement-breakpoint
REVOKE EXECUTE ON FUNCTION erase_reviews FROM PUBLIC;
--> statement-breakpoint
CREATE TRIGGER erase_reviews AFTER INSERT ON erasure
  FOR EACH ROW EXECUTE FUNCTION erase_reviews();
