import { readFileSync } from "node:fs";
import { Readable } from "node:stream";
import type postgres from "postgres";
import {
  ARCHIVE_VERSION,
  type ArchiveManifest,
  archived,
  archivedColumns,
  dataFile,
  PEOPLE_FILE,
  schemaFile,
  TeamSettings,
  tableSchema,
} from "./archive-shape";
import {
  type Client,
  fullName,
  type KeptTable,
  keyOrder,
  PLAIN_TEXT,
  quoted,
  quotedTable,
  readTables,
} from "./catalog.server";
import { readCopy } from "./copy.server";
import { KeptProblem } from "./problem";
import { jsonArray } from "./rows.server";
import { type Measured, ZipWriter } from "./zip.server";

export const ARCHIVE_MANIFEST = "manifest.json";

/** JSON holds no bare control character: with two of them as marks a line goes out as it is. */
const AS_LINES = `(FORMAT csv, QUOTE E'\\x01', DELIMITER E'\\x02')`;

/** Of a table's rows in the order of their key, each as one line of JSON. */
function rowsOut(table: KeptTable): string {
  const columns = archivedColumns(table)
    .map((one) => quoted(one.name))
    .join(", ");
  return `COPY (SELECT row_to_json(r)::text FROM (SELECT ${columns} FROM ${quotedTable(table)} WHERE team_id = current_team() ORDER BY ${keyOrder(table)}) r) TO STDOUT ${AS_LINES}`;
}

/** Who belongs to the team, and who is invited: the same people before and after a move. */
const PEOPLE = `SELECT id, name, role, athlete_id FROM membership
  WHERE team_id = current_team() AND removed_at IS NULL AND suspended_at IS NULL
  UNION ALL SELECT id, name, role, athlete_id FROM invitation
  WHERE team_id = current_team() AND used_at IS NULL AND withdrawn_at IS NULL
    AND (token_hash IS NULL OR expires_at > $at$::timestamptz)
  ORDER BY id`;

/** Before invitations came, whoever belonged to the team was all. */
const PEOPLE_BEFORE = `SELECT id, name, role, athlete_id FROM membership
  WHERE team_id = current_team() ORDER BY id`;

export async function rowsOfTable(sql: Client, table: KeptTable): Promise<Readable> {
  return Readable.from(jsonArray(await readCopy(sql, rowsOut(table))), { objectMode: false });
}

export async function rowsOfPeople(
  sql: Client,
  tables: readonly KeptTable[],
  at: Date,
): Promise<Readable> {
  const invited = tables.some((table) => fullName(table) === "public.invitation");
  const question = invited ? PEOPLE.replace("$at$", `'${at.toISOString()}'`) : PEOPLE_BEFORE;
  const lines = await readCopy(
    sql,
    `COPY (SELECT row_to_json(r)::text FROM (${question}) r) TO STDOUT ${AS_LINES}`,
  );
  return Readable.from(jsonArray(lines), { objectMode: false });
}

export interface Archived {
  rows: number;
  bytes: number;
  files: number;
}

/** A table that people open: its name and its text. */
export interface ReadableTable {
  name: string;
  text: string;
}

/**
 * Writes a team's own archive: every table that belongs to the team, found from the database, as it
 * stood at one moment; no other team's rows can be in it, for it reads under isolation.
 * @param options `tables`: CSV for people to open, read at the same moment (`snapshot` names it);
 *   `version`: only for fixtures of databases from before
 */
export async function writeArchive(
  client: postgres.Sql,
  file: string,
  options: {
    teamId: string;
    by: string;
    at: Date;
    readable?: (snapshot: string) => Promise<ReadableTable[]>;
    version?: number;
  },
): Promise<Archived> {
  const writer = await ZipWriter.create(file);
  try {
    const manifest = await client.begin("ISOLATION LEVEL REPEATABLE READ READ ONLY", async (tx) => {
      await tx.unsafe(PLAIN_TEXT);
      await tx`SELECT set_config('app.team', ${options.teamId}, true)`;
      return writeRows(tx, writer, options);
    });
    writer.addText(ARCHIVE_MANIFEST, `${JSON.stringify(manifest, null, 1)}\n`);
    const bytes = await writer.finish(async () => {});
    return {
      bytes,
      files: manifest.files.length,
      rows: manifest.files.reduce(
        (sum, one) => sum + (one.path.startsWith("data/") ? one.rows : 0),
        0,
      ),
    };
  } catch (error) {
    await writer.abandon();
    throw error;
  }
}

async function writeRows(
  tx: postgres.TransactionSql,
  writer: ZipWriter,
  options: Parameters<typeof writeArchive>[2],
): Promise<ArchiveManifest> {
  const tables = await readTables(tx);
  const [team] = await tx.unsafe<Array<{ row: Record<string, unknown> }>>(
    "SELECT row_to_json(team) AS row FROM team WHERE id = current_team()",
  );
  if (!team) throw new KeptProblem("no-team", "There is no such team here.");
  const { id, name, created_at: _, ...settings } = team.row;
  const files: ArchiveManifest["files"] = [];
  const add = async (path: string, rows: Readable, head: number) => {
    const measured: Measured = await writer.add(path, rows);
    // A file of rows has a line before them and one after; an empty one the two alone.
    files.push({ path, ...measured, rows: Math.max(0, measured.rows - head) });
  };
  await add(PEOPLE_FILE, await rowsOfPeople(tx, tables, options.at), 2);
  for (const table of archived(tables)) {
    await add(dataFile(table.name), await rowsOfTable(tx, table), 2);
    await add(
      schemaFile(table.name),
      Readable.from([tableSchema(table)], { objectMode: false }),
      0,
    );
  }
  if (options.readable) {
    const [row] = await tx.unsafe<Array<{ name: string }>>("SELECT pg_export_snapshot() AS name");
    for (const one of await options.readable(row?.name ?? ""))
      await add(`tables/${one.name}`, Readable.from([one.text], { objectMode: false }), 1);
  }
  return {
    format: "sprezza-archive",
    version: options.version ?? ARCHIVE_VERSION,
    team: {
      id: String(id),
      name: String(name),
      madeAt: options.at.toISOString(),
      by: options.by,
      application: JSON.parse(readFileSync("package.json", "utf8")).version,
    },
    settings: TeamSettings.parse(settings),
    files,
  };
}
