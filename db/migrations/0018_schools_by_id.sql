-- A block named its school: a renamed school put its plans under another one. Now by its id.
ALTER TABLE plan NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE plan_version NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE plan_edit NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE team_school NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
CREATE FUNCTION pg_temp.school_id(team uuid, name text) RETURNS text LANGUAGE sql STABLE AS
$$ SELECT coalesce((
  SELECT s.id::text FROM team_school s WHERE s.team_id = team AND s.school->>'name' = name LIMIT 1
), '') $$;
--> statement-breakpoint
-- Edits are taken back later: what they set must fit the block as it is written now.
CREATE FUNCTION pg_temp.by_id(team uuid, edit jsonb) RETURNS jsonb LANGUAGE sql STABLE AS
$$ SELECT jsonb_set(edit, '{sets}', (
  SELECT jsonb_agg(
    CASE WHEN one->'path' = '["school"]'::jsonb
      THEN jsonb_build_object('path', '["schoolId"]'::jsonb, 'value', pg_temp.school_id(team, one->>'value'))
      ELSE one END
    ORDER BY at)
  FROM jsonb_array_elements(edit->'sets') WITH ORDINALITY AS listed(one, at))) $$;
--> statement-breakpoint
UPDATE plan SET block = (block - 'school')
  || jsonb_build_object('schoolId', pg_temp.school_id(team_id, block->>'school'))
WHERE block ? 'school';
--> statement-breakpoint
UPDATE plan_version SET block = (block - 'school')
  || jsonb_build_object('schoolId', pg_temp.school_id(team_id, block->>'school'))
WHERE block ? 'school';
--> statement-breakpoint
UPDATE plan_edit SET edit = pg_temp.by_id(team_id, edit), inverse = pg_temp.by_id(team_id, inverse)
WHERE edit->'sets' @> '[{"path": ["school"]}]' OR inverse->'sets' @> '[{"path": ["school"]}]';
--> statement-breakpoint
ALTER TABLE plan FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE plan_version FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE plan_edit FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE team_school FORCE ROW LEVEL SECURITY;
