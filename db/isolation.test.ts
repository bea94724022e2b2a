import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeSecondTeam, type SecondTeam } from "./fixtures/second-team";

/**
 * Signs in at the database as another team and tries every table. The list below is compared
 * with the database: a table that is added uncovered fails here.
 */
const TEAM_TABLES = [
  "athlete",
  "athlete_limit",
  "athlete_setup",
  "athlete_squad",
  "band_inspection",
  "bar",
  "body_mass",
  "box_setup",
  "calendar_feed",
  "card_confirmation",
  "coach_value",
  "competition",
  "cycle_review",
  "day_note",
  "device_clock",
  "device_pairing",
  "earlier_set",
  "entry_words",
  "erasure",
  "exercise",
  "exercise_easier",
  "fault_note",
  "gap_test_day",
  "gear_piece",
  "import_batch",
  "import_mapping",
  "invitation",
  "lab_answer",
  "ladder_group",
  "ladder_mark",
  "lift_variant",
  "limit_reason",
  "log_entry",
  "max_record",
  "membership",
  "membership_change",
  "note",
  "own_single",
  "physical_result",
  "physical_test",
  "plan",
  "plan_edit",
  "plan_version",
  "profile_point",
  "profile_test",
  "rack",
  "rack_device",
  "readiness_decision",
  "reason_read",
  "review_call",
  "room",
  "session_change",
  "session_person",
  "session_sum",
  "simulated_lifter",
  "squad",
  "standard_card",
  "submission",
  "team",
  "team_complex",
  "team_recipe",
  "team_school",
  "training_session",
  "work_sum",
  "working_max_choice",
];

const env = (name: string) => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set: run through scripts/with-database.mjs`);
  return value;
};

let owner: postgres.Sql;
let app: postgres.Sql;
let auth: postgres.Sql;
let jobs: postgres.Sql;
let second: SecondTeam;
let skerry: string;

/** Columns that the database works out by itself take no value. */
const generatedColumns = (table: string) =>
  owner<Array<{ name: string }>>`
    SELECT column_name AS name FROM information_schema.columns
    WHERE table_name = ${table} AND is_generated = 'ALWAYS'`;

/** Runs one statement as the application within a team ("" for none). */
function inTeam<T>(team: string, work: (sql: postgres.TransactionSql) => Promise<T>) {
  return app.begin(async (sql) => {
    await sql`SELECT set_config('app.team', ${team}, true)`;
    return work(sql);
  });
}

beforeAll(async () => {
  owner = postgres(env("ADMIN_DATABASE_URL").replace(/\/postgres$/, "/sprezza_test"), { max: 1 });
  app = postgres(env("DATABASE_URL"), { max: 2 });
  auth = postgres(env("AUTH_DATABASE_URL"), { max: 1 });
  jobs = postgres(env("JOBS_DATABASE_URL"), { max: 1 });
  second = await makeSecondTeam(env("OWNER_DATABASE_URL"));
  const [row] = await owner`SELECT id FROM team WHERE name = 'Skerry Coast'`;
  skerry = row?.id;
});

afterAll(async () => {
  await Promise.all([owner.end(), app.end(), auth.end(), jobs.end()]);
});

describe("every table", () => {
  it("is on the list", async () => {
    const rows = await owner`
      SELECT c.relname AS name FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
      WHERE n.nspname = 'public' AND c.relkind IN ('r', 'v', 'm', 'p') ORDER BY 1`;
    expect(rows.map((row) => row.name)).toEqual(TEAM_TABLES);
  });

  it.each(TEAM_TABLES)("%s: row security is on and forced", async (table) => {
    const [row] = await owner`
      SELECT relrowsecurity, relforcerowsecurity FROM pg_class WHERE oid = ${table}::regclass`;
    expect(row).toEqual({ relrowsecurity: true, relforcerowsecurity: true });
  });

  it.each(TEAM_TABLES)("%s: another team sees, changes and deletes nothing", async (table) => {
    const key = table === "team" ? "id" : "team_id";
    const seen = await inTeam(
      second.teamId,
      (sql) => sql`SELECT count(*)::int AS n FROM ${sql(table)} WHERE ${sql(key)} = ${skerry}`,
    );
    expect(seen[0]?.n).toBe(0);
    const none = await inTeam("", (sql) => sql`SELECT count(*)::int AS n FROM ${sql(table)}`);
    expect(none[0]?.n).toBe(0);

    const before = await owner`SELECT count(*)::int AS n FROM ${owner(table)}`;
    for (const verb of ["UPDATE", "DELETE"]) {
      await inTeam(second.teamId, (sql) =>
        verb === "DELETE"
          ? sql`DELETE FROM ${sql(table)} WHERE ${sql(key)} = ${skerry}`
          : sql`UPDATE ${sql(table)} SET ${sql(key)} = ${second.teamId} WHERE ${sql(key)} = ${skerry}`,
      ).then(
        (result) => expect(result.count).toBe(0),
        // Refused outright is as good: the right itself is missing.
        (error: postgres.PostgresError) => expect(error.code).toBe("42501"),
      );
    }
    const after = await owner`SELECT count(*)::int AS n FROM ${owner(table)}`;
    expect(after[0]?.n).toBe(before[0]?.n);
  });

  it.each(TEAM_TABLES.filter((table) => table !== "team"))(
    "%s: a row cannot be put into another team",
    async (table) => {
      const copied = await owner`SELECT * FROM ${owner(table)} WHERE team_id = ${skerry} LIMIT 1`;
      // Pairs of the team's own ids are the only rows without a key of their own.
      const own = second.athleteId;
      const pairs: Record<string, Record<string, string>> = {
        athlete_squad: { athlete_id: own, squad_id: own },
        session_sum: { session_id: own },
        work_sum: { session_id: own, athlete_id: own, slot_id: "main" },
      };
      const bare = { team_id: skerry, ...(pairs[table] ?? { id: own }) };
      const row: Record<string, unknown> = { ...(copied[0] ?? bare) };
      for (const { name } of await generatedColumns(table)) delete row[name];
      await expect(
        inTeam(second.teamId, (sql) => sql`INSERT INTO ${sql(table)} ${sql(row)}`),
      ).rejects.toMatchObject({ code: "42501" });
    },
  );

  it("keys and foreign keys carry the team", async () => {
    const rows = await owner`
      SELECT conrelid::regclass::text AS name, contype, pg_get_constraintdef(oid) AS definition
      FROM pg_constraint WHERE connamespace = 'public'::regnamespace AND contype IN ('p', 'f')
      AND conrelid::regclass::text <> 'team'`;
    for (const row of rows) {
      if (/REFERENCES team\(/.test(row.definition)) continue;
      expect(row.definition, row.name).toMatch(/^(PRIMARY KEY|FOREIGN KEY) \(team_id, /);
    }
    expect(rows.length).toBeGreaterThan(30);
  });

  it("the same id in two teams makes two rows, and no insert vanishes", async () => {
    const [rows] = await owner`SELECT * FROM room WHERE team_id = ${skerry} LIMIT 1`;
    await inTeam(
      second.teamId,
      (sql) =>
        sql`INSERT INTO room (team_id, id, name, zone) VALUES (${second.teamId}, ${rows?.id}, 'Twin', 'UTC')`,
    );
    const both = await owner`SELECT team_id FROM room WHERE id = ${rows?.id}`;
    expect(both).toHaveLength(2);
  });

  it("a pooled connection keeps no team afterwards", async () => {
    const one = postgres(env("DATABASE_URL"), { max: 1 });
    await one.begin(async (sql) => {
      await sql`SELECT set_config('app.team', ${skerry}, true)`;
      const [row] = await sql`SELECT count(*)::int AS n FROM athlete`;
      expect(row?.n).toBe(28);
    });
    const [row] = await one`SELECT count(*)::int AS n FROM athlete`;
    expect(row?.n).toBe(0);
    await one.end();
  });
});

describe("roles", () => {
  it("none of the application's may bypass row security or owns anything", async () => {
    const roles = await owner`
      SELECT rolname, rolsuper, rolbypassrls, rolcreaterole, rolcreatedb FROM pg_roles
      WHERE rolname IN ('sprezza_app', 'sprezza_auth', 'sprezza_jobs', 'sprezza_owner',
        'sprezza_backup', 'sprezza_import')`;
    expect(roles).toHaveLength(6);
    for (const role of roles) {
      const { rolname, ...powers } = role;
      expect(Object.values(powers), rolname).toEqual([false, false, false, false]);
    }
    const owned = await owner`
      SELECT count(*)::int AS n FROM pg_class c JOIN pg_roles r ON r.oid = c.relowner
      WHERE r.rolname LIKE 'sprezza%' AND r.rolname <> 'sprezza_owner'`;
    expect(owned[0]?.n).toBe(0);
  });

  it("the one that keeps backups reads every row and writes down how it went, no more", async () => {
    const rights = await owner`
      SELECT DISTINCT privilege_type AS may FROM information_schema.role_table_grants
      WHERE grantee = 'sprezza_backup' AND table_name <> 'backup_run'`;
    expect(rights.map((row) => row.may)).toEqual(["SELECT"]);
    const unread = await owner`
      SELECT c.relname FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
      WHERE n.nspname IN ('public', 'auth') AND c.relkind = 'r'
        AND NOT has_table_privilege('sprezza_backup', c.oid, 'SELECT')`;
    expect([...unread]).toEqual([]);
  });

  it("the one that brings archives in adds rows, and changes none but a team's own facts", async () => {
    const rights = await owner`
      SELECT DISTINCT privilege_type AS may FROM information_schema.role_table_grants
      WHERE grantee = 'sprezza_import' ORDER BY 1`;
    expect(rights.map((row) => row.may)).toEqual(["INSERT", "SELECT"]);
    const columns = await owner`
      SELECT table_name || '.' || column_name AS name FROM information_schema.column_privileges
      WHERE grantee = 'sprezza_import' AND privilege_type = 'UPDATE' ORDER BY 1`;
    expect(columns.map((row) => row.name)).toEqual(["team.school_id", "team.zone"]);
    const elsewhere = await owner`
      SELECT table_name FROM information_schema.role_table_grants
      WHERE grantee = 'sprezza_import' AND table_schema <> 'public'`;
    expect([...elsewhere]).toEqual([]);
  });

  it("the application cannot read sign-ins", async () => {
    await expect(app`SELECT * FROM auth.account`).rejects.toMatchObject({ code: "42501" });
  });

  it.each(["athlete", "log_entry", "max_record", "training_session", "plan"])(
    "sign-in and jobs cannot read %s",
    async (table) => {
      await expect(auth`SELECT * FROM ${auth(table)}`).rejects.toMatchObject({ code: "42501" });
      await expect(jobs`SELECT * FROM ${jobs(table)}`).rejects.toMatchObject({ code: "42501" });
    },
  );

  it("sign-in may look up memberships and tablets, and change neither", async () => {
    const [row] = await auth`SELECT count(*)::int AS n FROM membership`;
    expect(row?.n).toBeGreaterThan(3);
    await expect(auth`UPDATE membership SET role = 'owner'`).rejects.toMatchObject({
      code: "42501",
    });
    await expect(auth`DELETE FROM rack_device`).rejects.toMatchObject({ code: "42501" });
  });

  it("the application cannot make or remove a team", async () => {
    await expect(
      inTeam(second.teamId, (sql) => sql`DELETE FROM team WHERE id = ${second.teamId}`),
    ).rejects.toMatchObject({ code: "42501" });
  });
});

describe("what happened stays", () => {
  it("nobody changes or deletes a log entry, not even the owner of the tables", async () => {
    await expect(owner`UPDATE log_entry SET kind = 'void'`).rejects.toThrow(/append-only/);
    await expect(owner`DELETE FROM log_entry`).rejects.toThrow(/append-only/);
    for (const verb of ["log_entry", "max_record", "working_max_choice"]) {
      await expect(inTeam(skerry, (sql) => sql`DELETE FROM ${sql(verb)}`)).rejects.toMatchObject({
        code: "42501",
      });
    }
  });

  it("a started session is frozen, and its numbers never go back", async () => {
    await expect(
      inTeam(second.teamId, (sql) => sql`UPDATE training_session SET frozen = '{}'`),
    ).rejects.toThrow(/frozen/);
    await expect(
      inTeam(skerry, (sql) => sql`UPDATE training_session SET last_seq = -1`),
    ).rejects.toThrow(/do not go back/);
    await expect(
      inTeam(second.teamId, (sql) => sql`UPDATE training_session SET status = 'ended'`),
    ).rejects.toMatchObject({ code: "23514" });
  });
});
