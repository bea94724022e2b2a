import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import postgres from "postgres";
import { uuidv7 } from "uuidv7";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import yazl from "yazl";
import { copyDatabase, type DatabaseCopy } from "../fixtures/database-copy";
import { makeSecondTeam, type SecondTeam } from "../fixtures/second-team";
import { writeArchive } from "./archive.server";
import { type Imported, importArchive, openArchive } from "./archive-import.server";
import {
  ARCHIVE_VERSION,
  ArchiveManifest,
  archived,
  dataFile,
  LEFT_OUT,
  schemaFile,
  tableSchema,
} from "./archive-shape";
import { readTables } from "./catalog.server";
import { KeptProblem } from "./problem";
import { ZipReader } from "./zip.server";

const at = new Date("2026-03-10T16:30:00Z");
const folder = mkdtempSync(path.join(tmpdir(), "sprezza-archive-"));
const fixture = (version: number) => `db/fixtures/archives/version-${version}.zip`;

let copy: DatabaseCopy;
let all: postgres.Sql;
let app: postgres.Sql;
let role: postgres.Sql;
let second: SecondTeam;
let skerry: string;
let count = 0;

const open = (url: string) => postgres(url, { max: 1, onnotice: () => {} });
const next = () => path.join(folder, `${++count}.zip`);

async function takeOut(teamId: string): Promise<string> {
  const file = next();
  await writeArchive(app, file, { teamId, by: "Coach", at });
  return file;
}

async function bringIn(
  file: string,
  more: Partial<Parameters<typeof importArchive>[2]> = {},
): Promise<Imported> {
  const archive = await openArchive(file);
  try {
    return await importArchive(role, archive, {
      teamId: uuidv7(),
      name: "Moved",
      importer: undefined,
      by: "Coach",
      at,
      ...more,
    });
  } finally {
    archive.reader.close();
  }
}

/** The files of an archive with their checksums, and what is beside the block of team and date. */
async function contents(file: string) {
  const { reader, manifest } = await openArchive(file);
  reader.close();
  const { team, ...rest } = manifest;
  return { team, rest };
}

async function problemOf(work: Promise<unknown>): Promise<KeptProblem> {
  const error = await work.then(
    () => undefined,
    (reason: unknown) => reason,
  );
  expect(error).toBeInstanceOf(KeptProblem);
  return error as KeptProblem;
}

/** The archive with some of its files written anew. */
async function rewritten(
  file: string,
  change: (name: string, text: string) => string | undefined,
): Promise<string> {
  const reader = await ZipReader.open(file, "archive");
  const zip = new yazl.ZipFile();
  for (const name of reader.entries.keys()) {
    const text = change(name, await reader.text(name, 1e9));
    if (text !== undefined) zip.addBuffer(Buffer.from(text), name);
  }
  reader.close();
  zip.end();
  const pieces: Buffer[] = [];
  for await (const piece of zip.outputStream) pieces.push(Buffer.from(piece));
  const out = next();
  writeFileSync(out, Buffer.concat(pieces));
  return out;
}

const teams = async () => (await all`SELECT count(*)::int AS n FROM team`)[0]?.n as number;

beforeAll(async () => {
  copy = await copyDatabase("sprezza_archive");
  all = open(copy.url("ADMIN"));
  app = open(copy.url("DATABASE_URL"));
  role = open(copy.url("IMPORT_DATABASE_URL"));
  second = await makeSecondTeam(copy.url("OWNER_DATABASE_URL"));
  skerry = (await all`SELECT id FROM team WHERE name = 'Skerry Coast'`)[0]?.id;
});
afterAll(async () => {
  await Promise.all([all.end(), app.end(), role.end()]);
  await copy.drop();
  rmSync(folder, { recursive: true, force: true });
});

describe("a team's archive", () => {
  it("goes out, comes in as another team, and goes out the same", async () => {
    const out = await takeOut(skerry);
    const before = await contents(out);
    const archive = await openArchive(out);
    archive.reader.close();
    const owner = archive.people.find((one) => one.role === "owner");
    const imported = await bringIn(out, {
      importer: { userId: "somebody", name: "Somebody Else", personId: owner?.id },
    });
    expect(imported.rows).toBeGreaterThan(15_000);
    expect(imported.invited).toBe(archive.people.length - 1);
    const again = await contents(await takeOut(imported.teamId));
    expect(again.rest).toEqual(before.rest);
    expect(again.team.id).toBe(imported.teamId);

    // The very same rows, ids and all, counted by a role that sees all.
    for (const table of archived(await readTables(all))) {
      const rows = await all.unsafe<Array<{ team: string; n: number }>>(
        `SELECT team_id AS team, count(*)::int AS n FROM ${table.name} WHERE team_id = ANY ($1) GROUP BY 1`,
        [[skerry, imported.teamId]],
      );
      const of = (team: string) => rows.find((row) => row.team === team)?.n ?? 0;
      expect(of(imported.teamId), table.name).toBe(of(skerry));
    }
    const [log] =
      await all`SELECT count(*)::int AS n FROM log_entry a JOIN log_entry b USING (id, seq)
      WHERE a.team_id = ${skerry} AND b.team_id = ${imported.teamId} AND a.body = b.body`;
    expect(log?.n).toBeGreaterThan(15_000);
    // One signs in, the others wait for a link; nobody has one that works.
    const [member, ...more] = await all`
      SELECT user_id, role, id FROM membership WHERE team_id = ${imported.teamId}`;
    expect(member).toEqual({ user_id: "somebody", role: "owner", id: owner?.id });
    expect(more).toEqual([]);
    const [links] = await all`
      SELECT count(token_hash)::int AS n FROM invitation WHERE team_id = ${imported.teamId}`;
    expect(links?.n).toBe(0);
  }, 60_000);

  it("holds no secret and no sign-in, and nothing of another team", async () => {
    const file = await takeOut(skerry);
    const reader = await ZipReader.open(file, "archive");
    let text = "";
    for (const name of reader.entries.keys()) text += await reader.text(name, 1e9);
    reader.close();
    const secrets = await all<Array<{ secret: string | null }>>`
      SELECT unnest(ARRAY[password, access_token]) AS secret FROM auth.account
      UNION ALL SELECT email FROM auth."user" UNION ALL SELECT token_hash FROM rack_device
      UNION ALL SELECT token_hash FROM calendar_feed UNION ALL SELECT secret_hash FROM device_pairing
      UNION ALL SELECT token_hash FROM invitation`;
    const there = secrets.flatMap(({ secret }) => secret ?? []);
    expect(there.length).toBeGreaterThan(5);
    for (const secret of there) expect(text.includes(secret)).toBe(false);
    expect(text).not.toContain(second.teamId);
    expect(text).not.toContain(second.athleteId);
    // Any table or column by whose name a secret could be meant.
    expect(text).not.toMatch(/"[a-z_]*(token|secret|password|hash)[a-z_]*":/);
  });

  it("has every table of a team, or says why one stays", async () => {
    const ofTeam = (await readTables(all)).filter((table) => table.ofTeam);
    const { reader, manifest } = await openArchive(await takeOut(skerry));
    reader.close();
    const files = new Set(manifest.files.map((one) => one.path));
    for (const { name } of ofTeam)
      expect(files.has(dataFile(name)) !== (LEFT_OUT[name] !== undefined), name).toBe(true);
    const names = ofTeam.map((table) => table.name);
    for (const name of Object.keys(LEFT_OUT)) expect(names).toContain(name);
  });

  it("is described by the newest fixture: a change of the tables needs a version, a step, a fixture", async () => {
    const reader = await ZipReader.open(fixture(ARCHIVE_VERSION), "archive");
    const kept: Record<string, unknown> = {};
    for (const name of reader.entries.keys())
      if (name.startsWith("schema/")) kept[name] = JSON.parse(await reader.text(name, 1e6));
    reader.close();
    const now = Object.fromEntries(
      archived(await readTables(all)).map((table) => [
        schemaFile(table.name),
        JSON.parse(tableSchema(table)),
      ]),
    );
    expect(
      now,
      "The tables changed: raise ARCHIVE_VERSION, keep a fixture (db/fixtures/archives/make.ts), add a step to archive-versions.ts",
    ).toEqual(kept);
  });

  it("has rows that its own schema describes", async () => {
    const reader = await ZipReader.open(fixture(ARCHIVE_VERSION), "archive");
    for (const table of archived(await readTables(all))) {
      const schema = JSON.parse(await reader.text(schemaFile(table.name), 1e6)).items;
      const rows = JSON.parse(await reader.text(dataFile(table.name), 1e9));
      for (const row of rows)
        expect(Object.keys(row).sort(), table.name).toEqual([...schema.required].sort());
    }
    reader.close();
  });
});

describe("archives of every version", () => {
  // Every day the oldest and the newest; all of them in the long run.
  const versions = Array.from({ length: ARCHIVE_VERSION }, (_, i) => i + 1);
  it.each(process.env.LONG ? versions : [1, ARCHIVE_VERSION])(
    "version %i comes in and goes out as of today",
    async (version) => {
      const { manifest } = await openArchive(fixture(version)).then((one) => {
        one.reader.close();
        return one;
      });
      expect(manifest.version).toBe(version);
      const imported = await bringIn(fixture(version), { name: `From ${version}` });
      expect(imported.rows).toBeGreaterThan(1500);
      const [team] = await all`SELECT name, unit, zone FROM team WHERE id = ${imported.teamId}`;
      expect(team).toEqual({ name: `From ${version}`, unit: "kg", zone: "Europe/Oslo" });
      const squads = await all`
        SELECT name, position FROM squad WHERE team_id = ${imported.teamId} ORDER BY position`;
      // Squads had no order of their own in the first version: they stood by name.
      const order = [
        [1, 2, 3],
        [0, 0, 0],
        [0, 0, 0],
        [0, 0, 0, 4],
        [0, 0, 0, 4],
      ][version - 1];
      expect(squads.map((one) => one.position)).toEqual(order);
      if (version === 1)
        expect(squads.map((one) => one.name)).toEqual(squads.map((one) => one.name).sort());
      const out = await contents(await takeOut(imported.teamId));
      expect(out.rest.version).toBe(ARCHIVE_VERSION);
      const was = new Map(manifest.files.map((one) => [one.path, one]));
      for (const one of out.rest.files) {
        if (!one.path.startsWith("data/") || !was.has(one.path)) continue;
        expect(one.rows, one.path).toBe(was.get(one.path)?.rows);
      }
      // And once more, equal.
      const second = await bringIn(await takeOut(imported.teamId));
      expect((await contents(await takeOut(second.teamId))).rest).toEqual(out.rest);
    },
    60_000,
  );
});

describe("an erased person stays erased", () => {
  it("also where an archive from before comes into another team", async () => {
    const file = await takeOut(second.teamId);
    const [person] =
      await all`SELECT name FROM athlete WHERE team_id = ${second.teamId} AND id = ${second.athleteId}`;
    await app.begin(async (tx) => {
      await tx`SELECT set_config('app.team', ${second.teamId}, true)`;
      await tx`SELECT erase_athlete(${second.athleteId}, 'Owner', now())`;
    });
    const imported = await bringIn(file);
    expect(imported.erased).toBe(1);
    const [row] = await all`
      SELECT name, erased_at FROM athlete WHERE team_id = ${imported.teamId} AND id = ${second.athleteId}`;
    expect(row?.name).toBe("Erased athlete");
    expect(row?.erased_at).not.toBeNull();
    const out = await ZipReader.open(await takeOut(imported.teamId), "archive");
    let text = "";
    for (const name of out.entries.keys()) text += await out.text(name, 1e9);
    out.close();
    expect(text).not.toContain(person?.name);
  });
});

describe("bad archives", () => {
  it("a changed row is refused, whatever it is", async () => {
    const before = await teams();
    const changed = await rewritten(fixture(ARCHIVE_VERSION), (name, text) =>
      name === "data/max_record.json" ? text.replace(/"amount": \d/, '"amount": 9') : text,
    );
    const problem = await problemOf(bringIn(changed));
    expect(problem.code).toBe("changed");
    expect(problem.message).toContain(
      "data/max_record.json in the archive is not as it was written",
    );
    const missing = await rewritten(fixture(ARCHIVE_VERSION), (name, text) =>
      name === "data/athlete.json" ? undefined : text,
    );
    expect((await problemOf(bringIn(missing))).message).toContain("data/athlete.json");
    expect(await teams()).toBe(before);
  });

  /** The same archive with a file changed and its checksum made to fit, as somebody might by hand. */
  async function forged(file: string, of: string, change: (text: string) => string) {
    const { createHash } = await import("node:crypto");
    let text = "";
    const first = await rewritten(file, (name, old) => {
      if (name === of) text = change(old);
      return name === of ? text : old;
    });
    return rewritten(first, (name, old) => {
      if (name !== "manifest.json") return old;
      const manifest = ArchiveManifest.parse(JSON.parse(old));
      for (const one of manifest.files) {
        if (one.path !== of) continue;
        one.bytes = Buffer.byteLength(text);
        one.sha256 = createHash("sha256").update(text).digest("hex");
      }
      return JSON.stringify(manifest);
    });
  }

  it("a row that no rule allows takes everything back", async () => {
    const before = await teams();
    const current = fixture(ARCHIVE_VERSION);
    for (const [of, change] of [
      // An athlete of a squad that is not there, a word for a number, half a row, a person of no card.
      [
        "data/athlete.json",
        (t: string) => t.replace(/"squad_id":"[0-9a-f]{8}/, '"squad_id":"00000000'),
      ],
      ["data/squad.json", (t: string) => t.replace(/"position":\d/, '"position":"first"')],
      ["data/room.json", (t: string) => t.replace(/"zone":"[^"]*"/, '"zone":null')],
      ["people.json", (t: string) => t.replace(/"role":"coach"/, '"role":"athlete"')],
    ] as const) {
      const problem = await problemOf(bringIn(await forged(current, of, change)));
      expect(problem.code, of).toBe("bad-row");
      expect(problem.message).toContain(of);
      expect(problem.message).toContain("Nothing was brought in");
    }
    const strange = await forged(current, "schema/squad.schema.json", (t) =>
      t.replace('"name"', '"nickname"'),
    );
    expect((await problemOf(bringIn(strange))).code).toBe("strange");
    expect(await teams()).toBe(before);
  }, 60_000);

  it("of a newer version, of a whole installation, or no archive at all", async () => {
    const newer = await rewritten(fixture(ARCHIVE_VERSION), (name, text) =>
      name === "manifest.json" ? text.replace(/"version": \d+/, '"version": 99') : text,
    );
    expect((await problemOf(bringIn(newer))).message).toContain("newer version of Sprezza (99");
    const backup = "db/fixtures/installations/step-16.zip";
    expect((await problemOf(bringIn(backup))).code).toBe("backup");
    const half = next();
    writeFileSync(half, readFileSync(fixture(2)).subarray(0, 70_000));
    expect((await problemOf(bringIn(half))).code).toBe("broken");
    const odd = await rewritten(fixture(2), (name, text) =>
      name === "manifest.json" ? "{}" : text,
    );
    expect((await problemOf(bringIn(odd))).code).toBe("broken");
  });

  it("the role that brings in adds to one team only, and changes nothing that is there", async () => {
    await role.begin(async (tx) => {
      await tx`SELECT set_config('app.team', ${second.teamId}, true)`;
      const [seen] = await tx`SELECT count(*)::int AS n FROM athlete WHERE team_id = ${skerry}`;
      expect(seen?.n).toBe(0);
      await expect(
        tx.savepoint(
          (sp) =>
            sp`INSERT INTO room (team_id, id, name, zone) VALUES (${skerry}, ${uuidv7()}, 'x', 'UTC')`,
        ),
      ).rejects.toMatchObject({ code: "42501" });
      for (const statement of [
        "DELETE FROM room",
        "UPDATE athlete SET name = 'x'",
        "DELETE FROM erasure",
      ])
        await expect(tx.savepoint((sp) => sp.unsafe(statement))).rejects.toMatchObject({
          code: "42501",
        });
    });
    await expect(role`SELECT * FROM auth.account`).rejects.toMatchObject({ code: "42501" });
  });
});
