-- One log. A session holds slots at stations; the taps of pairings become entries of the log.
SELECT isolate_team_tables(ARRAY['session_change', 'device_clock']);
--> statement-breakpoint
-- Who ended or opened a session is never changed.
REVOKE UPDATE, DELETE ON session_change FROM sprezza_app;
--> statement-breakpoint
REVOKE DELETE ON device_clock FROM sprezza_app;
--> statement-breakpoint
ALTER TABLE training_session NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE log_entry NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE complex_run NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE complex_entry NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE athlete NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE room NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE coach_value NO FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE training_session DISABLE TRIGGER keep_frozen;
--> statement-breakpoint
-- What was one lift over racks is the first slot of a session, its racks are stations.
UPDATE training_session SET frozen =
  (frozen - ARRAY['slotId', 'lift', 'liftName', 'liftStart', 'metric', 'rest', 'stop', 'box',
    'faults', 'velocityLed', 'racks'])
  || jsonb_build_object(
    'stations', (
      SELECT coalesce(jsonb_agg(jsonb_build_object(
        'kind', 'rack', 'id', one->'id', 'name', one->'name', 'gear', one->'gear') ORDER BY at), '[]')
      FROM jsonb_array_elements(frozen->'racks') WITH ORDINALITY AS listed(one, at)),
    'slots', jsonb_build_array(
      jsonb_build_object('kind', 'lift', 'slotId', slot_id)
      || (SELECT coalesce(jsonb_object_agg(key, value), '{}') FROM jsonb_each(frozen)
          WHERE key IN ('slotId', 'lift', 'liftName', 'liftStart', 'metric', 'rest', 'stop', 'box',
            'faults', 'velocityLed'))
      || jsonb_build_object('groups', (
        SELECT coalesce(jsonb_agg(jsonb_build_object(
          'stationId', one->'id', 'lifters', one->'lifters') ORDER BY at), '[]')
        FROM jsonb_array_elements(frozen->'racks') WITH ORDINALITY AS listed(one, at)))))
WHERE frozen ? 'racks';
--> statement-breakpoint
ALTER TABLE training_session ENABLE TRIGGER keep_frozen;
--> statement-breakpoint
CREATE FUNCTION pg_temp.team_number(team uuid, named text, usual double precision)
RETURNS double precision LANGUAGE sql STABLE AS
$$ SELECT coalesce((
  SELECT v.value FROM coach_value v WHERE v.team_id = team AND v.key = named
  ORDER BY v.entered_at DESC, v.id DESC LIMIT 1
), usual) $$;
--> statement-breakpoint
-- A pairing is a session of one slot at one place; its settings were not kept: the team's of now.
INSERT INTO training_session
  (team_id, id, plan_id, week, slot_id, date, room_id, status, frozen, last_seq, started_at, ended_at, started_by)
SELECT r.team_id, r.id, NULL, NULL, 'pairing', r.date, NULL,
  CASE WHEN r.ended_at IS NULL THEN 'running' ELSE 'ended' END,
  jsonb_build_object(
    'coreVersion', 1, 'planVersion', 0, 'title', r.complex->'name', 'date', r.date,
    'zone', coalesce(
      (SELECT o.zone FROM room o WHERE o.team_id = r.team_id ORDER BY o.id LIMIT 1), 'UTC'),
    'roomName', '', 'cautions', '[]'::jsonb,
    'stations', jsonb_build_array(jsonb_build_object('kind', 'place', 'id', r.id, 'name', 'Floor')),
    'slots', jsonb_build_array(jsonb_build_object(
      'kind', 'pairing', 'slotId', 'pairing', 'complex', r.complex,
      'settings', jsonb_build_object(
        'earlyUnderPercent', pg_temp.team_number(r.team_id, 'pairingEarlyPercent', 80),
        'endAtLossPercent', pg_temp.team_number(r.team_id, 'pairingLossPercent', 10),
        'sameWithinPercent', pg_temp.team_number(r.team_id, 'pairingSamePercent', 3)),
      'groups', jsonb_build_array(jsonb_build_object('stationId', r.id, 'athletes', (
        SELECT coalesce(jsonb_agg(
          one || jsonb_build_object(
            'name', coalesce(a.name, 'erased'), 'unit', coalesce(a.unit, 'kg'),
            'loads', (
              SELECT coalesce(jsonb_agg(CASE jsonb_typeof(load)
                WHEN 'string' THEN jsonb_build_object('words', load) ELSE load END ORDER BY n), '[]')
              FROM jsonb_array_elements(one->'loads') WITH ORDINALITY AS loads(load, n)))
          ORDER BY at), '[]')
        FROM jsonb_array_elements(r.athletes) WITH ORDINALITY AS listed(one, at)
        LEFT JOIN athlete a ON a.team_id = r.team_id AND a.id = (one->>'athleteId')::uuid)))))),
  r.last_seq, r.entered_at, r.ended_at, r.entered_by
FROM complex_run r;
--> statement-breakpoint
-- A tap had a moment on the clock of its tablet: that clock stands for the monotonic one.
INSERT INTO log_entry
  (team_id, id, session_id, seq, device_id, boot_id, device_seq, mono_ms, wall_time, received_at,
   supersedes, schema_version, kind, body, author, made_at)
SELECT e.team_id, e.id, e.run_id, e.seq, of.device, of.device, e.seq, of.at_ms,
  to_timestamp(of.at_ms / 1000), e.received_at,
  CASE WHEN e.body->>'kind' = 'void' THEN ARRAY[(e.body->>'of')::uuid] ELSE '{}' END,
  2, of.kind,
  CASE WHEN e.body->>'kind' = 'void' THEN '{"kind": "void"}'::jsonb
    ELSE (e.body - ARRAY['id', 'atMs', 'device', 'kind'])
      || jsonb_build_object('kind', of.kind, 'slotId', 'pairing', 'stationId', e.run_id) END,
  e.entered_by, to_timestamp(of.at_ms / 1000)
FROM complex_entry e
CROSS JOIN LATERAL (SELECT
  coalesce((e.body->>'device')::uuid, e.run_id) AS device,
  -- A tablet's clock may have stood anywhere; the server's then says when.
  CASE WHEN (e.body->>'atMs')::double precision BETWEEN -2208988800000 AND 7258118400000
    THEN (e.body->>'atMs')::double precision
    ELSE extract(epoch FROM e.received_at) * 1000 END AS at_ms,
  CASE e.body->>'kind'
    WHEN 'void' THEN 'void' WHEN 'stop' THEN 'pairing-stop'
    ELSE 'item-' || (e.body->>'kind') END AS kind
) AS of;
--> statement-breakpoint
ALTER TABLE training_session FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE log_entry FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE athlete FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE room FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
ALTER TABLE coach_value FORCE ROW LEVEL SECURITY;
--> statement-breakpoint
-- A tablet that is taken off the team is told to the process that holds its streams.
CREATE FUNCTION tell_revoked() RETURNS trigger LANGUAGE plpgsql AS
$$ BEGIN
  PERFORM pg_notify('sprezza_principal', json_build_object(
    'team', NEW.team_id, 'holder', 'rack:' || NEW.id)::text);
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER tell_revoked AFTER UPDATE OF revoked_at ON rack_device
  FOR EACH ROW WHEN (OLD.revoked_at IS NULL AND NEW.revoked_at IS NOT NULL) EXECUTE FUNCTION tell_revoked();
