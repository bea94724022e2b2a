CREATE TABLE "auth"."backup_run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone NOT NULL,
	"good" boolean NOT NULL,
	"file" text NOT NULL,
	"bytes" bigint DEFAULT 0 NOT NULL,
	"rows" bigint DEFAULT 0 NOT NULL,
	"words" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
ALTER TABLE "invitation" ALTER COLUMN "token_hash" DROP NOT NULL;--> statement-breakpoint
CREATE INDEX "backup_run_newest" ON "auth"."backup_run" USING btree ("good","ended_at");
--> statement-breakpoint
GRANT SELECT ON auth.backup_run TO sprezza_auth;
--> statement-breakpoint
-- Roles that see more than one team, and change nothing that is there: sprezza_backup reads every
-- row of every table and writes down how its backup went; sprezza_import adds rows to the one team
-- of its transaction. Called after every migration, so that a new table is never forgotten. Gives
-- the roles that this server does not have yet.
CREATE FUNCTION open_to_readers() RETURNS text[] LANGUAGE plpgsql AS
$$ DECLARE
  absent text[];
  t record;
BEGIN
  SELECT coalesce(array_agg(role), '{}') INTO absent
  FROM unnest(ARRAY['sprezza_backup', 'sprezza_import']) AS role
  WHERE NOT EXISTS (SELECT 1 FROM pg_roles WHERE rolname = role);
  IF NOT 'sprezza_backup' = ANY (absent) THEN
    GRANT USAGE ON SCHEMA public, auth, drizzle TO sprezza_backup;
    GRANT SELECT ON ALL TABLES IN SCHEMA public, auth, drizzle TO sprezza_backup;
    GRANT INSERT ON auth.backup_run TO sprezza_backup;
  END IF;
  IF NOT 'sprezza_import' = ANY (absent) THEN
    GRANT USAGE ON SCHEMA public TO sprezza_import;
    GRANT SELECT, INSERT ON ALL TABLES IN SCHEMA public TO sprezza_import;
    GRANT UPDATE (school_id, zone) ON team TO sprezza_import;
    GRANT EXECUTE ON FUNCTION erase_athlete TO sprezza_import;
  END IF;
  FOR t IN
    SELECT c.oid, c.relname FROM pg_class c
    WHERE c.relnamespace = 'public'::regnamespace AND c.relkind IN ('r', 'p') AND c.relrowsecurity
  LOOP
    IF NOT 'sprezza_backup' = ANY (absent) AND NOT EXISTS (
      SELECT 1 FROM pg_policy WHERE polrelid = t.oid AND polname = 'backup') THEN
      EXECUTE format('CREATE POLICY backup ON %I FOR SELECT TO sprezza_backup USING (true)', t.relname);
    END IF;
  END LOOP;
  -- Whoever was erased in one team is not brought back into another.
  IF NOT 'sprezza_import' = ANY (absent) AND NOT EXISTS (
    SELECT 1 FROM pg_policy WHERE polrelid = 'erasure'::regclass AND polname = 'erased_anywhere') THEN
    CREATE POLICY erased_anywhere ON erasure FOR SELECT TO sprezza_import USING (true);
  END IF;
  RETURN absent;
END $$;
--> statement-breakpoint
REVOKE EXECUTE ON FUNCTION open_to_readers FROM PUBLIC;
