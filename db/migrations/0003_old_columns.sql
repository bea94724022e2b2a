UPDATE "profile_point" SET "excluded_reason" = 'left out before reasons were kept',
  "excluded_by" = 'not known', "excluded_at" = now() WHERE "excluded";--> statement-breakpoint
INSERT INTO "athlete_limit" (team_id, id, athlete_id, instruction, refuses, entered_by, entered_at)
SELECT team_id, gen_random_uuid(), id, instruction, '{}', 'not known', now()
FROM "athlete" WHERE instruction IS NOT NULL AND instruction <> '';--> statement-breakpoint
ALTER TABLE "profile_point" DROP COLUMN "excluded";--> statement-breakpoint
ALTER TABLE "athlete" DROP COLUMN "instruction";