/**
 * A year of a team of 60, backed up and restored, taken out as an archive and brought in: how long,
 * how large. The demo's sessions again and again until SOAK_SETS sets (120,000) stand in the log.
 * Part of `npm run soak`; what comes back is compared row by row by the programs themselves.
 */
import { mkdtempSync, rmSync, statSync } from "node:fs";
import path from "node:path";
import postgres from "postgres";
import { ensurePackages, orSentence } from "./install.mjs";
import { run } from "./run.mjs";
import { testDatabase } from "./with-database.mjs";

const SETS = Number(process.env.SOAK_SETS ?? 120_000);
const ATHLETES = 60;

/** A fixed piece of work, ms: what this machine is like now. */
function baseline() {
  const startedAt = performance.now();
  let sum = 0;
  for (let i = 0; i < 2e7; i++) sum = (sum + i * 31) % 1000003;
  return Math.round(performance.now() - startedAt) + (sum < 0 ? 1 : 0);
}

/** Copies the team's sessions with everything that hangs on them, each under ids of its own. */
async function enlarge(url) {
  const sql = postgres(url, { max: 1, onnotice: () => {} });
  const [team] = await sql`SELECT id FROM team WHERE name = 'Skerry Coast'`;
  await sql`
    INSERT INTO athlete (team_id, id, name, squad_id)
    SELECT team_id, gen_random_uuid(), 'Year ' || row_number() OVER (), squad_id
    FROM athlete, generate_series(1, 3) WHERE team_id = ${team.id}
    LIMIT ${ATHLETES} - (SELECT count(*) FROM athlete WHERE team_id = ${team.id})`;
  const [{ sets }] = await sql`
    SELECT count(*)::int AS sets FROM log_entry WHERE team_id = ${team.id} AND kind = 'set-done'`;
  const copies = Math.ceil(SETS / sets) - 1;
  const other = (column) => `md5(${column}::text || n)::uuid`;
  const columns = async (tx, table) =>
    (
      await tx`SELECT column_name AS name FROM information_schema.columns
        WHERE table_schema = 'public' AND table_name = ${table} AND is_generated = 'NEVER'
        ORDER BY ordinal_position`
    ).map((one) => one.name);
  const changed = {
    training_session: {
      id: other("id"),
      date: "date - n * 7",
      week: "week + 1000 * n",
      status: "'ended'",
      ended_at: "coalesce(ended_at, started_at)",
    },
    session_person: { session_id: other("session_id") },
    log_entry: {
      id: other("id"),
      session_id: other("session_id"),
      supersedes: `ARRAY(SELECT md5(one::text || n)::uuid FROM unnest(supersedes) AS one)`,
    },
    entry_words: { id: other("id") },
  };
  await sql.begin(async (tx) => {
    await tx.unsafe("SET LOCAL session_replication_role = replica");
    for (const [table, change] of Object.entries(changed)) {
      const names = await columns(tx, table);
      await tx.unsafe(
        `INSERT INTO ${table} (${names.map((name) => `"${name}"`).join(", ")})
         SELECT ${names.map((name) => change[name] ?? `"${name}"`).join(", ")}
         FROM ${table}, generate_series(1, ${copies}) AS n WHERE team_id = '${team.id}'`,
      );
    }
  });
  await sql`ANALYZE`;
  const [size] = await sql`
    SELECT count(*)::int AS entries, count(*) FILTER (WHERE kind = 'set-done')::int AS sets,
      pg_size_pretty(pg_database_size(current_database())) AS database FROM log_entry`;
  await sql.end();
  return size;
}

await orSentence(async () => {
  ensurePackages();
  const { env, stop } = await testDatabase("sprezza_year", "soak");
  const folder = mkdtempSync("/var/tmp/sprezza-year-");
  let failures = 0;
  try {
    const admin = env.ADMIN_DATABASE_URL.replace(/\/postgres$/, "/sprezza_year");
    const size = await enlarge(admin);
    console.log(
      `${size.sets} sets, ${size.entries} entries, ${size.database} in the database; baseline ${baseline()} ms`,
    );
    const timed = (what, script, args, more = {}) => {
      const startedAt = performance.now();
      if (run("tsx", [script, ...args], { ...env, ...more }) !== 0) failures++;
      console.log(`${what}: ${((performance.now() - startedAt) / 1000).toFixed(1)} s`);
    };
    const megabytes = (file) => `${(statSync(file).size / 1024 / 1024).toFixed(1)} MB`;
    const backup = path.join(folder, "year.zip");
    timed("backup", "scripts/backup-database.ts", [backup]);
    console.log(`backup: ${megabytes(backup)}`);
    const roles = Object.fromEntries(
      Object.entries({
        sprezza_owner: env.OWNER_DATABASE_URL,
        sprezza_app: env.DATABASE_URL,
        sprezza_auth: env.AUTH_DATABASE_URL,
        sprezza_jobs: env.JOBS_DATABASE_URL,
        sprezza_backup: env.BACKUP_DATABASE_URL,
        sprezza_import: env.IMPORT_DATABASE_URL,
      }).map(([role, url]) => [role, decodeURIComponent(new URL(url).password)]),
    );
    const restored = {
      ROLES: JSON.stringify(roles),
      ROLES_ARE: "known",
      DATABASE_NAME: "sprezza_year_back",
    };
    timed("restore", "scripts/restore-database.ts", [backup, "--replace"], restored);
    const archive = path.join(folder, "team.zip");
    timed("archive out", "scripts/team-archive.ts", ["export", "Skerry Coast", archive]);
    console.log(`archive: ${megabytes(archive)}`);
    timed("archive in", "scripts/team-archive.ts", ["import", archive]);
    console.log(`baseline ${baseline()} ms`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
    stop();
  }
  console.log(failures === 0 ? "1 passed, 0 failed" : `0 passed, ${failures} failed`);
  process.exit(failures === 0 ? 0 : 1);
});
