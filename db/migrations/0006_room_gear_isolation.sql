SELECT isolate_team_tables(ARRAY['gear_piece', 'band_inspection', 'lab_answer']);
--> statement-breakpoint
-- What was seen of a band, and what the bench answered, is never changed.
REVOKE UPDATE, DELETE ON band_inspection FROM sprezza_app;
--> statement-breakpoint
REVOKE UPDATE ON lab_answer FROM sprezza_app;
--> statement-breakpoint
-- A name stands once among what is in use.
CREATE UNIQUE INDEX gear_piece_name ON gear_piece (team_id, room_id, kind, lower(name)) WHERE away_on IS NULL;
--> statement-breakpoint
CREATE UNIQUE INDEX bar_name ON bar (team_id, room_id, lower(name)) WHERE away_on IS NULL;
