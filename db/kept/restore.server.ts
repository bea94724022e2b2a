import { pipeline } from "node:stream/promises";
import postgres from "postgres";
import { connect } from "../connection.server";
import { removeSignIns } from "../queries/people.server";
import { openBackup, readErased } from "./backup.server";
import {
  copyOut,
  fullName,
  type KeptTable,
  PLAIN_TEXT,
  quoted,
  quotedTable,
  readTables,
} from "./catalog.server";
import { promptConnection, readCopy, writeCopy } from "./copy.server";
import type { BackupManifest, ErasedPerson } from "./installation-manifest";
import { Measure } from "./measure.server";
import { readAsOwner } from "./owner-reads.server";
import { KeptProblem } from "./problem";
import { migrateTo, migrateToNewest, mustKnow } from "./steps.server";
import type { ZipReader } from "./zip.server";

/** Where a restored installation goes. */
export interface Target {
  /** Somebody who may make and rename databases. */
  adminUrl: string;
  database: string;
  /** The restored database as a role. */
  urlOf: (role: "sprezza_owner" | "sprezza_auth", database: string) => string;
}

export interface Restored {
  rows: number;
  tables: number;
  /** People of the backup whose erasure was asked for after it was made. */
  erasedAgain: number;
  /** The name of the database that was there before, where it held something. */
  keptAs: string | undefined;
  madeAt: string;
}

/** A database of this name is being filled: nobody uses it, and a broken-off one is taken away. */
export const WORKING_NAME = (database: string) => `${database.slice(0, 50)}_restoring`;

/**
 * Brings a backup back. Everything is read and compared first; then a new database is made with the
 * tables that the backup had, filled, compared again, brought up to date and the people erased whom
 * the backup may still know; only then does it take the name. Until then nothing was changed.
 * @param options `replace`: what is there may be put aside; `erased`: people erased since;
 *   `at`: the moment, for the name of what is put aside
 */
export async function restore(
  file: string,
  target: Target,
  options: { replace: boolean; erased: readonly ErasedPerson[]; at: Date },
): Promise<Restored> {
  const { reader, manifest } = await openBackup(file);
  try {
    mustKnow(file, manifest.steps);
    for (const table of manifest.tables) await reader.verify(table.file, table);
    const admin = postgres(target.adminUrl, { max: 1, onnotice: () => {}, connect_timeout: 10 });
    try {
      return await restoreInto(admin, reader, manifest, target, options);
    } finally {
      await admin.end();
    }
  } catch (error) {
    throw serverProblem(error);
  } finally {
    reader.close();
  }
}

/** The server's own refusals as sentences. */
function serverProblem(error: unknown): unknown {
  const code = (error as { code?: string }).code;
  if (code === "53100")
    return new KeptProblem(
      "disk-full",
      "The disk of the database is full: nothing was restored, and what was there is as it was. Make room, then restore again.",
    );
  if (code === "ECONNREFUSED" || code === "CONNECT_TIMEOUT")
    return new KeptProblem(
      "away",
      "The PostgreSQL server does not answer. Start it, then restore.",
    );
  if (code === "42501")
    return new KeptProblem(
      "no-right",
      "This user may not make databases: nothing was restored. Name one in ADMIN_DATABASE_URL who may.",
    );
  return error;
}

async function restoreInto(
  admin: postgres.Sql,
  reader: ZipReader,
  manifest: BackupManifest,
  target: Target,
  options: { replace: boolean; erased: readonly ErasedPerson[]; at: Date },
): Promise<Restored> {
  const { database } = target;
  const before = await lookAt(admin, target);
  if (before.holds && !options.replace) {
    throw new KeptProblem(
      "holds-something",
      `The database ${database} holds ${before.teams} ${before.teams === 1 ? "team" : "teams"} already: nothing was changed. To put it aside (it is kept under another name), restore with -- --replace.`,
    );
  }
  if (before.holds) await mustBeFree(admin, database);
  const working = WORKING_NAME(database);
  await admin.unsafe(`DROP DATABASE IF EXISTS ${quoted(working)} WITH (FORCE)`);
  await admin.unsafe(`CREATE DATABASE ${quoted(working)} OWNER sprezza_owner`);
  try {
    const erased = [...manifest.erased, ...before.erased, ...options.erased];
    const erasedAgain = await fill(reader, manifest, target, working, erased);
    const keptAs = await takeName(admin, target, working, before, options.at);
    return {
      rows: manifest.tables.reduce((sum, table) => sum + table.rows, 0),
      tables: manifest.tables.length,
      erasedAgain,
      keptAs,
      madeAt: manifest.madeAt,
    };
  } catch (error) {
    await admin.unsafe(`DROP DATABASE IF EXISTS ${quoted(working)} WITH (FORCE)`).catch(() => {});
    throw error;
  }
}

const inUse = (database: string) =>
  new KeptProblem(
    "in-use",
    `The database ${database} is in use: nothing was changed. Stop the server, then restore again.`,
  );

/** Before any work: a database that somebody uses keeps its name. */
async function mustBeFree(admin: postgres.Sql, database: string): Promise<void> {
  const [used] = await admin<Array<{ n: number }>>`
    SELECT count(*)::int AS n FROM pg_stat_activity
    WHERE datname = ${database} AND usename IN ('sprezza_app', 'sprezza_auth')`;
  if ((used?.n ?? 0) > 0) throw inUse(database);
}

interface Before {
  exists: boolean;
  holds: boolean;
  teams: number;
  erased: ErasedPerson[];
}

/** What stands under the name now: whether it holds a team, and whom it knows to be erased. */
async function lookAt(admin: postgres.Sql, target: Target): Promise<Before> {
  const { database } = target;
  const [there] = await admin`SELECT 1 FROM pg_database WHERE datname = ${database}`;
  if (!there) return { exists: false, holds: false, teams: 0, erased: [] };
  const owner = postgres(target.urlOf("sprezza_owner", database), {
    max: 1,
    onnotice: () => {},
  });
  try {
    return await readAsOwner(owner, async (tx, tables) => {
      if (!tables.some((table) => fullName(table) === "public.team"))
        return { exists: true, holds: false, teams: 0, erased: [] };
      const [row] = await tx.unsafe<Array<{ n: number }>>("SELECT count(*)::int AS n FROM team");
      const teams = row?.n ?? 0;
      return { exists: true, holds: teams > 0, teams, erased: await readErased(tx, tables) };
    });
  } finally {
    await owner.end();
  }
}

/** Makes the tables as they were, fills them, brings them up to date. */
async function fill(
  reader: ZipReader,
  manifest: BackupManifest,
  target: Target,
  working: string,
  erased: readonly ErasedPerson[],
): Promise<number> {
  const owner = promptConnection(target.urlOf("sprezza_owner", working));
  try {
    await migrateTo(owner, manifest.steps.length);
    await owner.begin((tx) => load(tx, reader, manifest));
    await migrateToNewest(owner);
    const users = await eraseAgain(owner, erased);
    if (users.count > 0) {
      const signIn = connect(target.urlOf("sprezza_auth", working), 1);
      await removeSignIns(signIn.database, users.ids).finally(() => signIn.close());
    }
    return users.count;
  } finally {
    await owner.end();
  }
}

/**
 * Rows go in as they were: the tables' own rules are put aside while they are filled and hold again
 * at the end of the same transaction, which proves every reference.
 */
async function load(
  tx: postgres.TransactionSql,
  reader: ZipReader,
  manifest: BackupManifest,
): Promise<void> {
  await tx.unsafe(PLAIN_TEXT);
  const tables = new Map((await readTables(tx)).map((table) => [fullName(table), table]));
  const filled = manifest.tables.map((kept) => {
    const table = tables.get(fullName(kept));
    const known = new Set(table?.columns.map((one) => one.name));
    if (!table || kept.columns.some((name) => !known.has(name))) {
      throw new KeptProblem(
        "other-tables",
        `${reader.file} has a table ${fullName(kept)} that its own version does not have. Take another copy of it.`,
      );
    }
    return { kept, table };
  });
  const references = await tx.unsafe<Array<{ on: string; name: string; rule: string }>>(
    `SELECT conrelid::regclass::text AS on, conname AS name, pg_get_constraintdef(oid) AS rule
    FROM pg_constraint WHERE contype = 'f' AND connamespace IN ('public'::regnamespace, 'auth'::regnamespace)`,
  );
  for (const { on, name } of references)
    await tx.unsafe(`ALTER TABLE ${on} DROP CONSTRAINT ${quoted(name)}`);
  for (const { kept, table } of filled) {
    const into = quotedTable(table);
    if (table.ofTeam) await tx.unsafe(`ALTER TABLE ${into} NO FORCE ROW LEVEL SECURITY`);
    await tx.unsafe(`ALTER TABLE ${into} DISABLE TRIGGER USER`);
    await tx.unsafe(`DELETE FROM ${into}`);
    if (kept.rows === 0) continue;
    const columns = kept.columns.map(quoted).join(", ");
    const sink = await writeCopy(tx, `COPY ${into} (${columns}) FROM STDIN`);
    await pipeline(await reader.stream(kept.file, kept), sink);
  }
  for (const { kept, table } of filled) await compare(tx, reader.file, kept, table);
  for (const { on, name, rule } of references)
    await tx.unsafe(`ALTER TABLE ${on} ADD CONSTRAINT ${quoted(name)} ${rule}`);
  for (const { table } of filled) {
    const into = quotedTable(table);
    await tx.unsafe(`ALTER TABLE ${into} ENABLE TRIGGER USER`);
    if (table.ofTeam) await tx.unsafe(`ALTER TABLE ${into} FORCE ROW LEVEL SECURITY`);
  }
}

/** What is in the table now is what the file says was in it. */
async function compare(
  tx: postgres.TransactionSql,
  file: string,
  kept: BackupManifest["tables"][number],
  table: KeptTable,
): Promise<void> {
  const measure = new Measure();
  measure.resume();
  await pipeline(await readCopy(tx, copyOut(table, kept.columns)), measure);
  if (measure.sha256 === kept.sha256 && measure.lines === kept.rows) return;
  throw new KeptProblem(
    "unlike",
    `${fullName(kept)} came back unlike it was in ${file} (${measure.lines} of ${kept.rows} rows). Nothing was changed. Please report this.`,
  );
}

/** Erases again whoever was erased after the backup was made. */
async function eraseAgain(
  owner: postgres.Sql,
  erased: readonly ErasedPerson[],
): Promise<{ count: number; ids: string[] }> {
  const people = new Map(erased.map((one) => [`${one.teamId} ${one.athleteId}`, one]));
  let count = 0;
  const ids: string[] = [];
  for (const { teamId, athleteId, by, at } of people.values()) {
    await owner.begin(async (tx) => {
      await tx`SELECT set_config('app.team', ${teamId}, true)`;
      const [row] = await tx<Array<{ users: string[] | null }>>`
        SELECT erase_athlete(${athleteId}::uuid, ${by}, ${at}::timestamptz) AS users`;
      if (!row?.users) return;
      count++;
      ids.push(...row.users);
    });
  }
  return { count, ids };
}

const stamp = (at: Date) => at.toISOString().replace(/\D/g, "").slice(0, 14);

/** Gives the filled database its name; what was there is kept under another, or was empty. */
async function takeName(
  admin: postgres.Sql,
  { database }: Target,
  working: string,
  before: Before,
  at: Date,
): Promise<string | undefined> {
  let keptAs: string | undefined;
  try {
    if (before.exists && before.holds) {
      keptAs = `${database.slice(0, 40)}_before_${stamp(at)}`;
      await admin.unsafe(`ALTER DATABASE ${quoted(database)} RENAME TO ${quoted(keptAs)}`);
    } else if (before.exists) await admin.unsafe(`DROP DATABASE ${quoted(database)}`);
  } catch (error) {
    if ((error as { code?: string }).code !== "55006") throw error;
    throw inUse(database);
  }
  await admin.unsafe(`ALTER DATABASE ${quoted(working)} RENAME TO ${quoted(database)}`);
  return keptAs;
}
