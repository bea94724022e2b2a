SELECT isolate_team_tables(ARRAY['cycle_review']);
--> statement-breakpoint
-- A decision stands as it was made; a later one stands beside it.
REVOKE UPDATE, DELETE ON cycle_review FROM sprezza_app;
