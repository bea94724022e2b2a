SELECT isolate_team_tables(ARRAY['ladder_mark', 'ladder_group', 'box_setup', 'fault_note', 'standard_card', 'card_confirmation', 'team_complex', 'complex_run', 'complex_entry', 'gap_test_day']);
--> statement-breakpoint
-- What was seen, passed, measured or tapped is never changed.
REVOKE UPDATE, DELETE ON ladder_mark, ladder_group, fault_note, standard_card, card_confirmation, complex_entry FROM sprezza_app;
--> statement-breakpoint
REVOKE DELETE ON box_setup, team_complex, complex_run FROM sprezza_app;
