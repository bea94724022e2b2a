SELECT isolate_team_tables(ARRAY['submission']);
