import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import postgres from "postgres";
import { uuidv7 } from "uuidv7";
import { afterAll, beforeAll, expect, it } from "vitest";
import { copyDatabase, type DatabaseCopy } from "../../../db/fixtures/database-copy";
import { writeArchive } from "../../../db/kept/archive.server";
import { importArchive, openArchive } from "../../../db/kept/archive-import.server";
import { rowsOf } from "../../forms/delimited";
import { RecordsForm } from "../../forms/records";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { archiveOut } from "./archive.server";
import { readBackups } from "./backup.server";
import { exportCsv } from "./export.server";
import { checkRecords, keepRecords } from "./records.server";

/** records.csv comes back in as it went out: into the same team, and into one that lost them. */
const folder = mkdtempSync(path.join(tmpdir(), "sprezza-records-"));
let database: DatabaseCopy;
let admin: postgres.Sql;
let skerry: string;
let copy: string;

const coach = (teamId: string): Principal => ({
  kind: "person",
  userId: "u",
  teamId,
  role: "owner",
  name: "Coach",
  athleteId: undefined,
});
const form = (text: string, intent = "keep") =>
  RecordsForm.parse({ intent, text, unit: "kg", kind: "tested", mapping: "", lifts: "{}" });

beforeAll(async () => {
  database = await copyDatabase("sprezza_records");
  admin = postgres(database.url("ADMIN"), { max: 1 });
  skerry = (await admin`SELECT id FROM team WHERE name = 'Skerry Coast'`)[0]?.id;
  // A note that a spreadsheet would run, a load with many digits, the same record twice.
  const [one] = await admin`SELECT * FROM max_record WHERE team_id = ${skerry} LIMIT 1`;
  const load = admin.json({ amount: 101.234567, unit: "lb" });
  const note = '=1+1, "quoted", -5 kg; Ström';
  const made = [uuidv7(), uuidv7(), uuidv7()];
  for (const id of made)
    await admin`INSERT INTO max_record (team_id, id, athlete_id, variant_id, load, date, kind, note, entered_by, entered_at)
      VALUES (${skerry}, ${id}, ${one?.athlete_id}, ${one?.variant_id}, ${load}, '2025-11-02', 'coach', ${note}, 'C', now())`;
  const file = path.join(folder, "copy.zip");
  const app = postgres(database.url("DATABASE_URL"), { max: 1 });
  await writeArchive(app, file, { teamId: skerry, by: "C", at: new Date() });
  await app.end();
  const role = postgres(database.url("IMPORT_DATABASE_URL"), { max: 1 });
  const archive = await openArchive(file);
  copy = uuidv7();
  await importArchive(role, archive, {
    teamId: copy,
    name: "Copy",
    importer: undefined,
    by: "C",
    at: new Date(),
  });
  archive.reader.close();
  await role.end();
  await admin.unsafe(`DELETE FROM working_max_choice WHERE team_id = '${copy}'`);
  await admin.unsafe(`DELETE FROM max_record WHERE team_id = '${copy}'`);
}, 60_000);
afterAll(async () => {
  await admin.end();
  await closeDatabases();
  await database.drop();
  rmSync(folder, { recursive: true, force: true });
});

it("comes back whole where it was lost, and is known where it is", async () => {
  const out = await exportCsv(coach(skerry), "records");
  const lines = rowsOf(out).length - 1;
  expect(lines).toBeGreaterThan(100);
  expect(out).toContain("'=1+1");

  const checked = await checkRecords(coach(copy), form(out, "check"));
  expect(checked).toMatchObject({ problems: [], lifts: [], bad: 0, good: lines });
  const kept = await keepRecords(coach(copy), form(out));
  expect(kept).toEqual({ ok: true, value: { kept: lines, known: 0, left: 0 } });
  expect(await exportCsv(coach(copy), "records")).toBe(out);

  // Again, and at home: nothing new.
  expect(await keepRecords(coach(copy), form(out))).toEqual({
    ok: true,
    value: { kept: 0, known: lines, left: 0 },
  });
  expect(await keepRecords(coach(skerry), form(out))).toMatchObject({ value: { kept: 0 } });
  expect(await exportCsv(coach(skerry), "records")).toBe(out);
});

it("keeps nothing of a sheet with a fault, unless the good lines are wanted", async () => {
  const sheet =
    "athlete,lift,date,load\nNobody Known,Back squat,2026-01-01,100\nNobody Else,Back squat,2026-01-01,100";
  expect(await keepRecords(coach(copy), form(sheet))).toMatchObject({ ok: false, code: "faults" });
  expect(await keepRecords(coach(copy), form(sheet, "keep-good"))).toMatchObject({
    ok: false,
    code: "faults",
  });
});

it("a sheet of logged sets agrees with the log, and the archive holds it as it is now", async () => {
  const sets = rowsOf(await exportCsv(coach(skerry), "sets"));
  const [done] = await admin`SELECT count(*)::int AS n FROM log_entry
    WHERE team_id = ${skerry} AND kind = 'set-done'`;
  expect(sets.length - 1).toBeGreaterThan(500);
  expect(sets.length - 1).toBeLessThanOrEqual(done?.n);
  const { stream, bytes, name } = await archiveOut(coach(skerry));
  expect(name).toMatch(/^sprezza-skerry-coast-\d{4}-\d{2}-\d{2}\.zip$/);
  const file = path.join(folder, "out.zip");
  const { writeFileSync } = await import("node:fs");
  const pieces: Uint8Array[] = [];
  for await (const piece of stream as unknown as AsyncIterable<Uint8Array>) pieces.push(piece);
  writeFileSync(file, Buffer.concat(pieces));
  expect(Buffer.concat(pieces).length).toBe(bytes);
  const { reader, manifest } = await openArchive(file);
  const text = await reader.text("tables/records.csv", 1e8);
  const before = JSON.parse(await reader.text("data/reason_read.json", 1e8));
  reader.close();
  expect(text).toBe(await exportCsv(coach(skerry), "records"));
  expect(manifest.files.map((one) => one.path)).toContain("tables/sets.csv");
  // Every reason left with it: written down as read.
  const reads = await admin`SELECT r.read_by, l.id IS NOT NULL AS reason FROM reason_read r
    LEFT JOIN limit_reason l ON l.team_id = r.team_id AND l.limit_id = r.limit_id
    WHERE r.team_id = ${skerry}`;
  expect(reads).toHaveLength(before.length + 2);
  expect(reads.filter((row) => row.read_by === "Coach, in an archive")).toHaveLength(2);
}, 60_000);

it("says when the last good backup was, and that a later one failed", async () => {
  await admin.unsafe("DELETE FROM auth.backup_run");
  expect(await readBackups(coach(skerry))).toMatchObject({ good: undefined, failed: undefined });
  const at = (hours: number) => new Date(Date.parse("2026-03-10T16:30:00Z") - hours * 3_600_000);
  const add = (hours: number, good: boolean) =>
    admin`INSERT INTO auth.backup_run (id, started_at, ended_at, good, file, bytes, rows, words)
      VALUES (${uuidv7()}, ${at(hours)}, ${at(hours)}, ${good}, '/backups/x.zip', 2048, 10, ${good ? "" : "The disk is full."})`;
  await add(30, true);
  await add(6, false);
  expect(await readBackups(coach(skerry))).toMatchObject({
    good: { hours: 30, file: "x.zip", rows: 10 },
    failed: { words: "The disk is full." },
  });
  await add(1, true);
  expect(await readBackups(coach(skerry))).toMatchObject({ good: { hours: 1 }, failed: undefined });
});
