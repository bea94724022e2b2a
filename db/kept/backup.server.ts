import { readFileSync } from "node:fs";
import type postgres from "postgres";
import {
  type Client,
  copyOut,
  fullName,
  type KeptTable,
  PLAIN_TEXT,
  readTables,
  tablesNotReadWhole,
} from "./catalog.server";
import { readCopy } from "./copy.server";
import {
  BACKUP_FORMAT,
  BackupManifest,
  type ErasedPerson,
  type Step,
} from "./installation-manifest";
import { readAsOwner } from "./owner-reads.server";
import { KeptProblem } from "./problem";
import { ZipReader, ZipWriter } from "./zip.server";

const MANIFEST = "manifest.json";
const MOST_MANIFEST_BYTES = 16 * 1024 * 1024;

export interface BackedUp {
  file: string;
  bytes: number;
  rows: number;
  tables: number;
}

/** The migrations that a database had; empty for one that has none. */
export async function readSteps(sql: Client): Promise<Step[]> {
  const [there] = await sql.unsafe<Array<{ there: boolean }>>(
    "SELECT to_regclass('drizzle.__drizzle_migrations') IS NOT NULL AS there",
  );
  if (!there?.there) return [];
  const rows = await sql.unsafe<Array<{ hash: string; at: string }>>(
    "SELECT hash, created_at::text AS at FROM drizzle.__drizzle_migrations ORDER BY created_at",
  );
  return rows.map((row) => ({ hash: row.hash, at: Number(row.at) }));
}

/** Whoever was erased here, by ids; none in a database from before people could be. */
export async function readErased(
  sql: Client,
  tables: readonly KeptTable[],
): Promise<ErasedPerson[]> {
  if (!tables.some((table) => fullName(table) === "public.erasure")) return [];
  const rows = await sql.unsafe<Array<{ team: string; id: string; at: Date; by: string }>>(
    "SELECT team_id AS team, id, entered_at AS at, entered_by AS by FROM erasure ORDER BY 1, 2",
  );
  return rows.map((row) => ({
    teamId: row.team,
    athleteId: row.id,
    at: row.at.toISOString(),
    by: row.by,
  }));
}

async function kindOf(sql: Client, tables: readonly KeptTable[]): Promise<string> {
  if (!tables.some((table) => fullName(table) === "auth.installation")) return "unknown";
  const [row] = await sql.unsafe<Array<{ kind: string }>>("SELECT kind FROM auth.installation");
  return row?.kind ?? "empty";
}

/** Nobody may keep an empty file and think it a backup. */
async function mayReadAll(sql: Client, tables: readonly KeptTable[]): Promise<void> {
  if (tables.length === 0)
    throw new KeptProblem(
      "nothing",
      "This database holds no tables of Sprezza. Check its address.",
    );
  const hidden = await tablesNotReadWhole(sql, tables);
  if (hidden.length === 0) return;
  const [who] = await sql.unsafe<Array<{ name: string }>>("SELECT current_user AS name");
  throw new KeptProblem(
    "sees-nothing",
    `The role ${who?.name} does not see every row (${hidden.length} of ${tables.length} tables): nothing was kept. Let BACKUP_DATABASE_URL name the role sprezza_backup, which \`npm run database:prepare\` makes.`,
  );
}

/**
 * Keeps a whole installation in one file: every table as it stood at one moment, with its rows
 * counted and its checksum.
 * @param client a role that sees every row, or the owner with `liftForce`
 * @param options `liftForce`: the owner reads under row security too; it is lifted inside the
 *   transaction that reads, which is then taken back. It locks every table: for a server that is down
 * @throws KeptProblem where the role sees less than everything, the file is there, the disk is full
 */
export async function backUp(
  client: postgres.Sql,
  file: string,
  options: { madeAt: Date; liftForce?: boolean },
): Promise<BackedUp> {
  const writer = await ZipWriter.create(file);
  const work = async (tx: postgres.TransactionSql, tables: readonly KeptTable[]) => {
    await tx.unsafe(PLAIN_TEXT);
    await mayReadAll(tx, tables);
    return write(tx, writer, tables, options.madeAt);
  };
  try {
    const whole = options.liftForce
      ? await readAsOwner(client, work)
      : await client.begin("ISOLATION LEVEL REPEATABLE READ READ ONLY", async (tx) =>
          work(tx, await readTables(tx)),
        );
    whole.bytes = await writer.finish(async (part) => {
      await verifyBackup(part);
    });
    return whole;
  } catch (error) {
    await writer.abandon();
    throw error;
  }
}

async function write(
  tx: postgres.TransactionSql,
  writer: ZipWriter,
  tables: readonly KeptTable[],
  madeAt: Date,
): Promise<BackedUp> {
  const manifest: BackupManifest = {
    format: "sprezza-backup",
    version: BACKUP_FORMAT,
    application: JSON.parse(readFileSync("package.json", "utf8")).version,
    madeAt: madeAt.toISOString(),
    installation: await kindOf(tx, tables),
    steps: await readSteps(tx),
    erased: await readErased(tx, tables),
    tables: [],
  };
  let rows = 0;
  for (const table of tables) {
    const name = `tables/${fullName(table)}.copy`;
    const measured = await writer.add(name, await readCopy(tx, copyOut(table)));
    rows += measured.rows;
    manifest.tables.push({
      schema: table.schema,
      name: table.name,
      columns: table.columns.map((one) => one.name),
      file: name,
      ...measured,
    });
  }
  writer.addText(MANIFEST, `${JSON.stringify(manifest, null, 1)}\n`);
  return { file: writer.file, bytes: 0, rows, tables: tables.length };
}

/** Opens a backup and reads what it says of itself. */
export async function openBackup(
  file: string,
): Promise<{ reader: ZipReader; manifest: BackupManifest }> {
  const reader = await ZipReader.open(file, "backup of Sprezza");
  try {
    const text = await reader.text(MANIFEST, MOST_MANIFEST_BYTES);
    const json: unknown = JSON.parse(text);
    const version = (json as { version?: unknown }).version;
    const format = (json as { format?: unknown }).format;
    if (format === "sprezza-archive")
      throw new KeptProblem(
        "archive",
        `${file} is a team's archive, not a backup. Bring it in with npm run team:import.`,
      );
    if (format === "sprezza-backup" && typeof version === "number" && version > BACKUP_FORMAT)
      throw new KeptProblem(
        "newer",
        `${file} was made by a newer version of Sprezza (format ${version}; this one reads up to ${BACKUP_FORMAT}). Install that version, then restore.`,
      );
    return { reader, manifest: BackupManifest.parse(json) };
  } catch (error) {
    reader.close();
    if (error instanceof KeptProblem) throw error;
    throw new KeptProblem("broken", `${file} is no backup of Sprezza. Check its name.`);
  }
}

/** Reads a backup from end to end: every table with its rows and checksum. */
export async function verifyBackup(file: string): Promise<BackupManifest> {
  const { reader, manifest } = await openBackup(file);
  try {
    for (const table of manifest.tables) await reader.verify(table.file, table);
    return manifest;
  } finally {
    reader.close();
  }
}
