SELECT isolate_team_tables(ARRAY[
  'plan_edit', 'plan_version', 'team_recipe', 'team_school', 'coach_value', 'calendar_feed']);
--> statement-breakpoint
-- Edits, published versions and what a coach once set are never changed; undo adds an edit.
REVOKE UPDATE, DELETE ON plan_edit, plan_version, coach_value FROM sprezza_app;
--> statement-breakpoint
REVOKE DELETE ON calendar_feed, team_recipe FROM sprezza_app;
--> statement-breakpoint
-- A followed calendar is found by its token, before anybody knows the team.
GRANT SELECT ON calendar_feed TO sprezza_auth;
--> statement-breakpoint
CREATE POLICY sign_in ON calendar_feed FOR SELECT TO sprezza_auth USING (true);
--> statement-breakpoint
ALTER TABLE plan NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE plan_override NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
-- A plan of one recipe becomes a block with one slot, its overrides with it.
UPDATE plan p SET block = jsonb_build_object(
  'name', p.name,
  'startDate', p.start_date::text,
  'weeks', jsonb_array_length(p.recipe -> 'weeks'),
  'school', p.recipe ->> 'school',
  'template', 'power-first',
  'days', '{"d1": {"name": "Day 1", "offset": 0}}'::jsonb,
  'slots', jsonb_build_object('main', jsonb_build_object(
    'dayId', 'd1',
    'section', 'main',
    'order', 1,
    'work', jsonb_build_object('kind', 'lift', 'variantId', p.variant_id::text),
    'recipe', replace(replace(replace(p.recipe::text, '"startPercent":', '"start":'),
      '"addPoints":', '"add":'), '"percent":', '"at":')::jsonb || '{"basis": "percent"}'::jsonb,
    'fromWeek', 1,
    'repeat', false,
    'session', 1,
    'group', '')),
  'marks', '{}'::jsonb,
  'overrides', (
    SELECT coalesce(jsonb_object_agg(o.athlete_id || '/main/' || o.set_key,
      jsonb_build_object('loadKg', o.load_kg, 'by', o.set_by)), '{}'::jsonb)
    FROM plan_override o WHERE o.team_id = p.team_id AND o.plan_id = p.id),
  'away', '{}'::jsonb,
  'apart', '{}'::jsonb,
  'answered', '{}'::jsonb);
--> statement-breakpoint
ALTER TABLE plan FORCE ROW LEVEL SECURITY;
