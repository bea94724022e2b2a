import type postgres from "postgres";
import { z } from "zod";
import { ARCHIVE_MANIFEST, rowsOfTable } from "./archive.server";
import {
  ARCHIVE_VERSION,
  ArchiveManifest,
  ArchivePerson,
  archived,
  ColumnsOfSchema,
  dataFile,
  PEOPLE_FILE,
  schemaFile,
} from "./archive-shape";
import { changesOf, type Row } from "./archive-versions";
import { type KeptTable, PLAIN_TEXT, quoted, quotedTable, readTables } from "./catalog.server";
import { Measure } from "./measure.server";
import { KeptProblem } from "./problem";
import { jsonBatches } from "./rows.server";
import { ZipReader } from "./zip.server";

const MOST_MANIFEST_BYTES = 1024 * 1024;
const MOST_PEOPLE_BYTES = 16 * 1024 * 1024;
const BATCH_CHARACTERS = 1_000_000;
/** All files of an archive together, unpacked: a guard against a small file that unpacks for ever. */
const MOST_BYTES = 8 * 1024 ** 3;

export interface OpenArchive {
  reader: ZipReader;
  manifest: ArchiveManifest;
  people: ArchivePerson[];
}

/** Whoever brings it in: they own the new team, in the place of a person of the archive or besides. */
export interface Importer {
  userId: string;
  name: string;
  /** A person of the archive who is this one. */
  personId: string | undefined;
}

export interface Imported {
  teamId: string;
  name: string;
  rows: number;
  /** People who wait for a link of their own. */
  invited: number;
  /** People of the archive who were erased in this installation: erased here too. */
  erased: number;
}

/** Opens an archive and compares every file of it with what was written. */
export async function openArchive(file: string): Promise<OpenArchive> {
  const reader = await ZipReader.open(file, "archive of a team");
  try {
    const manifest = readManifest(file, await reader.text(ARCHIVE_MANIFEST, MOST_MANIFEST_BYTES));
    if (manifest.files.reduce((sum, one) => sum + one.bytes, 0) > MOST_BYTES)
      throw new KeptProblem(
        "too-large",
        `${file} would unpack to more than 8 GB: it is no archive.`,
      );
    for (const one of manifest.files) {
      // A file that unpacks to more than it says is broken off before it is read.
      const size = reader.entries.get(one.path)?.uncompressedSize;
      if (size !== one.bytes) {
        throw new KeptProblem(
          "changed",
          `${one.path} in the archive is not as it was written: it is missing, or was changed. Take the archive from Sprezza again.`,
        );
      }
      await reader.verify(one.path, one).catch(() => {
        throw new KeptProblem(
          "changed",
          `${one.path} in the archive is not as it was written: a part of it was changed. Take the archive from Sprezza again.`,
        );
      });
    }
    const people = z
      .array(ArchivePerson)
      .parse(JSON.parse(await reader.text(PEOPLE_FILE, MOST_PEOPLE_BYTES)));
    return { reader, manifest, people };
  } catch (error) {
    reader.close();
    if (error instanceof KeptProblem) throw error;
    throw new KeptProblem("broken", "This is no archive of a team from Sprezza. Check the file.");
  }
}

function readManifest(file: string, text: string): ArchiveManifest {
  const json = JSON.parse(text) as { format?: unknown; version?: unknown };
  if (json.format === "sprezza-backup")
    throw new KeptProblem(
      "backup",
      "This is a backup of a whole installation, not a team's archive. Whoever runs the server restores it with npm run restore.",
    );
  if (typeof json.version === "number" && json.version > ARCHIVE_VERSION)
    throw new KeptProblem(
      "newer",
      `This archive is of a newer version of Sprezza (${json.version}; this one reads up to ${ARCHIVE_VERSION}). Bring this server up to date, then bring the archive in.`,
    );
  const parsed = ArchiveManifest.safeParse(json);
  if (!parsed.success)
    throw new KeptProblem(
      "broken",
      `${file} is no archive of a team from Sprezza. Check the file.`,
    );
  return parsed.data;
}

/**
 * Brings an archive in as a new team, in one transaction: all of it, or nothing. Where the archive
 * is of this version, what came in is compared with what was in the file.
 * @param client the role that adds rows to one team and changes none
 */
export async function importArchive(
  client: postgres.Sql,
  { reader, manifest, people }: OpenArchive,
  options: { teamId: string; name: string; importer: Importer | undefined; by: string; at: Date },
): Promise<Imported> {
  let at = "the archive";
  try {
    return await client.begin(async (tx) => {
      await tx.unsafe(PLAIN_TEXT);
      await tx`SELECT set_config('app.team', ${options.teamId}, true)`;
      await makeTeam(tx, manifest, options);
      const tables = archived(await readTables(tx));
      const known = new Set(tables.map((table) => dataFile(table.name)));
      const unknown = manifest.files.find(
        (one) => one.path.startsWith("data/") && !known.has(one.path),
      );
      if (unknown) throw strange(unknown.path);
      let rows = 0;
      for (const table of tables) {
        at = dataFile(table.name);
        rows += await takeTable(tx, reader, manifest, table);
      }
      at = "the manifest";
      if (manifest.settings.zone === undefined)
        await tx`UPDATE team SET zone = coalesce((SELECT zone FROM room ORDER BY name LIMIT 1), 'UTC')`;
      if (manifest.settings.school_id)
        await tx`UPDATE team SET school_id = ${manifest.settings.school_id}`;
      at = PEOPLE_FILE;
      const invited = await takePeople(tx, people, options);
      const erased = await eraseKnown(tx, options);
      if (manifest.version === ARCHIVE_VERSION && erased === 0) await compare(tx, manifest, tables);
      return { teamId: options.teamId, name: options.name, rows, invited, erased };
    });
  } catch (error) {
    throw rowProblem(error, at);
  }
}

const strange = (file: string) =>
  new KeptProblem(
    "strange",
    `The archive has ${file}, which this version does not know. Nothing was brought in. Bring this server up to date, or take the archive again.`,
  );

/** The database's refusal of a row, in words; nothing of the archive is in then. */
function rowProblem(error: unknown, file: string): unknown {
  if (error instanceof KeptProblem) return error;
  const { code = "", message = "" } = error as { code?: string; message?: string };
  if (/^(22|23)/.test(code)) {
    return new KeptProblem(
      "bad-row",
      `${file} has a row that does not fit (${message}). Nothing was brought in. Take the archive from Sprezza again.`,
    );
  }
  if (code === "53100")
    return new KeptProblem(
      "disk-full",
      "The disk of the database is full: nothing was brought in.",
    );
  return error;
}

async function makeTeam(
  tx: postgres.TransactionSql,
  { settings }: ArchiveManifest,
  options: { teamId: string; name: string },
): Promise<void> {
  const { teamId, name } = options;
  // An archive from before teams had a zone: it is the first room's, which is not in yet.
  const zone = settings.zone ?? "UTC";
  const firstHour = JSON.stringify(settings.first_hour ?? { over: true });
  await tx`INSERT INTO team (id, name, unit, zone, first_hour)
    VALUES (${teamId}, ${name}, ${settings.unit}, ${zone}, ${firstHour}::text::jsonb)`;
}

/** A table's rows, in batches; columns that came later have their usual value. */
async function takeTable(
  tx: postgres.TransactionSql,
  reader: ZipReader,
  manifest: ArchiveManifest,
  table: KeptTable,
): Promise<number> {
  const path = dataFile(table.name);
  const file = manifest.files.find((one) => one.path === path);
  if (!file || file.rows === 0) return 0;
  const schema = ColumnsOfSchema.safeParse(
    JSON.parse(await reader.text(schemaFile(table.name), MOST_MANIFEST_BYTES)),
  );
  if (!schema.success) throw strange(schemaFile(table.name));
  const columns = new Set(Object.keys(schema.data.items.properties));
  const own = new Set(table.columns.map((one) => one.name));
  const later = [...columns].find((name) => !own.has(name));
  if (later) throw strange(`${path} › ${later}`);
  const changes = changesOf(manifest.version, table.name, ARCHIVE_VERSION);
  const insert = async (json: string, names: readonly string[]) => {
    const list = names.map(quoted).join(", ");
    await tx.unsafe(
      `INSERT INTO ${quotedTable(table)} (team_id, ${list})
       SELECT current_team(), ${list} FROM json_populate_recordset(NULL::${quotedTable(table)}, $1::text::json)`,
      [json],
    );
  };
  const stream = await reader.stream(path, file);
  if (changes.length === 0) {
    for await (const batch of jsonBatches(stream, BATCH_CHARACTERS))
      await insert(batch, [...columns]);
    return file.rows;
  }
  // Few tables are changed by a version, and they are small: held whole.
  let all: Row[] = [];
  for await (const batch of jsonBatches(stream, BATCH_CHARACTERS))
    all.push(...(JSON.parse(batch) as Row[]));
  for (const change of changes) all = change(all);
  if (all[0]) await insert(JSON.stringify(all), Object.keys(all[0]));
  return all.length;
}

/** People become invitations that wait for a link; whoever brings the archive in is its owner. */
async function takePeople(
  tx: postgres.TransactionSql,
  people: readonly ArchivePerson[],
  { importer, by, at }: { importer: Importer | undefined; by: string; at: Date },
): Promise<number> {
  const self = people.find((one) => one.id === importer?.personId && one.role === "owner");
  if (importer?.personId && !self)
    throw new KeptProblem("no-owner", "Choose yourself among the archive's owners, or nobody.");
  if (importer) {
    await tx`INSERT INTO membership (team_id, id, user_id, name, role)
      VALUES (current_team(), ${self ? self.id : tx`gen_random_uuid()`}, ${importer.userId},
        ${self?.name ?? importer.name}, 'owner')`;
  }
  const waiting = people.filter((one) => one.id !== self?.id);
  if (waiting.length > 0) {
    await tx.unsafe(
      `INSERT INTO invitation (team_id, id, name, role, athlete_id, expires_at, entered_by, entered_at)
       SELECT current_team(), id, name, role, athlete_id, $2, $3, $2
       FROM json_populate_recordset(NULL::invitation, $1::text::json)`,
      [JSON.stringify(waiting), at.toISOString(), by],
    );
  }
  return waiting.length;
}

/** Whoever was erased in any team here is not brought back by an archive from before. */
async function eraseKnown(
  tx: postgres.TransactionSql,
  { by, at }: { by: string; at: Date },
): Promise<number> {
  const rows = await tx<Array<{ id: string }>>`
    SELECT DISTINCT e.id FROM erasure e JOIN athlete a ON a.id = e.id
    WHERE a.team_id = current_team() AND a.erased_at IS NULL`;
  for (const { id } of rows)
    await tx`SELECT erase_athlete(${id}::uuid, ${by}, ${at.toISOString()}::timestamptz)`;
  return rows.length;
}

/** What is in the new team now, written as it would go out, is what the file says. */
async function compare(
  tx: postgres.TransactionSql,
  manifest: ArchiveManifest,
  tables: readonly KeptTable[],
): Promise<void> {
  for (const table of tables) {
    const measure = new Measure();
    measure.resume();
    for await (const piece of await rowsOfTable(tx, table)) measure.write(piece);
    await new Promise((resolve) => measure.end(resolve));
    const path = dataFile(table.name);
    const file = manifest.files.find((one) => one.path === path);
    if (file?.sha256 === measure.sha256) continue;
    throw new KeptProblem(
      "unlike",
      `${path} came in unlike it is in the archive: nothing was brought in. Please report this.`,
    );
  }
}
