import { spawnSync } from "node:child_process";
import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { pipeline } from "node:stream/promises";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import yazl from "yazl";
import { type Cluster, startCluster } from "../../scripts/cluster.mjs";
import { makeRoles } from "../../scripts/roles";
import { makeSecondTeam, type SecondTeam } from "../fixtures/second-team";
import { backUp, verifyBackup } from "./backup.server";
import { copyOut, fullName, PLAIN_TEXT, readTables } from "./catalog.server";
import { readCopy } from "./copy.server";
import { erasedBeside, noteErased } from "./erasures.server";
import type { BackupManifest } from "./installation-manifest";
import { Measure } from "./measure.server";
import { KeptProblem } from "./problem";
import { restore, type Target } from "./restore.server";
import { migrateTo, ownSteps } from "./steps.server";
import { upgrade } from "./upgrade.server";
import { ZipReader } from "./zip.server";

/**
 * The drill: the demo team with its sixteen weeks is backed up, and comes back in another cluster
 * exactly as it was. And what must not happen: half a file, a newer one, a role that sees nothing.
 */
const env = (name: string) => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set: run through scripts/with-database.mjs`);
  return value;
};
const at = new Date("2026-03-10T16:30:00Z");
const clusterFolder = mkdtempSync("/var/tmp/sprezza-drill-");
const folder = mkdtempSync(path.join(tmpdir(), "sprezza-kept-"));
const file = path.join(folder, "whole.zip");

let source: postgres.Sql;
let cluster: Cluster;
let second: SecondTeam;

const open = (url: string) => postgres(url, { max: 1, onnotice: () => {} });
const sourceAs = (setting: string) => open(env(setting));
const target = (database: string): Target => ({
  adminUrl: cluster.url("postgres", "postgres"),
  database,
  urlOf: (role, name) => cluster.url(role, name),
});
const there = (role: string, database: string) => open(cluster.url(role, database));

/** Rows and checksum of every table, as a role sees them that sees all. */
async function everything(sql: postgres.Sql) {
  return sql.begin("READ ONLY", async (tx) => {
    await tx.unsafe(PLAIN_TEXT);
    const out: Record<string, { rows: number; sha256: string }> = {};
    for (const table of await readTables(tx)) {
      const measure = new Measure();
      measure.resume();
      await pipeline(await readCopy(tx, copyOut(table)), measure);
      out[fullName(table)] = { rows: measure.lines, sha256: measure.sha256 };
    }
    return out;
  });
}

async function problemOf(work: Promise<unknown>): Promise<KeptProblem> {
  const error = await work.then(
    () => undefined,
    (reason: unknown) => reason,
  );
  expect(error).toBeInstanceOf(KeptProblem);
  return error as KeptProblem;
}

beforeAll(async () => {
  source = open(env("ADMIN_DATABASE_URL").replace(/\/postgres$/, "/sprezza_test"));
  second = await makeSecondTeam(env("OWNER_DATABASE_URL"));
  cluster = await startCluster(clusterFolder, 54_960);
  const admin = there("postgres", "postgres");
  await makeRoles(admin, cluster.roles, "known");
  await admin.end();
}, 60_000);

afterAll(async () => {
  await source.end();
  cluster.stop();
  rmSync(clusterFolder, { recursive: true, force: true });
  rmSync(folder, { recursive: true, force: true });
});

/** Drills of a minute or more in all: in the long run, `LONG=1`, before an issue is closed. */
const drill = process.env.LONG ? it : it.skip;

describe("the restore drill", () => {
  let before: Awaited<ReturnType<typeof everything>>;

  it("keeps every row of every table, by a role that may change nothing", async () => {
    before = await everything(source);
    const reader = sourceAs("BACKUP_DATABASE_URL");
    const kept = await backUp(reader, file, { madeAt: at });
    expect(kept.tables).toBe(Object.keys(before).length);
    expect(kept.rows).toBe(Object.values(before).reduce((sum, table) => sum + table.rows, 0));
    expect(kept.rows).toBeGreaterThan(15_000);
    // Everybody's data: nobody else on the machine reads it.
    expect(statSync(file).mode & 0o077).toBe(0);
    expect(existsSync(`${file}.part`)).toBe(false);
    for (const statement of [
      "DELETE FROM athlete",
      "UPDATE athlete SET name = 'x'",
      "INSERT INTO team (id, name) VALUES (gen_random_uuid(), 'x')",
      "UPDATE auth.account SET password = 'x'",
    ])
      await expect(reader.unsafe(statement)).rejects.toMatchObject({ code: "42501" });
    await reader.end();
  });

  it("brings back every table, equal, into another cluster", async () => {
    const done = await restore(file, target("drill"), { replace: false, erased: [], at });
    expect(done).toMatchObject({ erasedAgain: 0, keptAs: undefined });
    const all = there("postgres", "drill");
    const after = await everything(all);
    expect(after).toEqual(before);
    for (const name of ["public.athlete", "public.log_entry", "public.plan", "auth.account"])
      expect(after[name]?.rows, name).toBeGreaterThan(3);
    await all.end();
  });

  it("has isolation forced, every reference and rule, and the same migrations", async () => {
    const all = there("postgres", "drill");
    for (const question of [
      `SELECT relname, relrowsecurity, relforcerowsecurity FROM pg_class
        WHERE relnamespace = 'public'::regnamespace AND relkind = 'r' ORDER BY 1`,
      `SELECT conrelid::regclass::text AS t, conname, pg_get_constraintdef(oid) AS rule, convalidated
        FROM pg_constraint WHERE connamespace IN ('public'::regnamespace, 'auth'::regnamespace) ORDER BY 1, 2`,
      `SELECT tgrelid::regclass::text AS t, tgname, tgenabled FROM pg_trigger WHERE NOT tgisinternal ORDER BY 1, 2`,
      `SELECT tablename, policyname, roles::text, cmd, qual FROM pg_policies ORDER BY 1, 2`,
      `SELECT hash, created_at::text FROM drizzle.__drizzle_migrations ORDER BY 2`,
      `SELECT table_schema, table_name, grantee, privilege_type FROM information_schema.role_table_grants
        WHERE grantee LIKE 'sprezza%' ORDER BY 1, 2, 3, 4`,
    ])
      expect([...(await all.unsafe(question))], question).toEqual([
        ...(await source.unsafe(question)),
      ]);
    const app = there("sprezza_app", "drill");
    const [nobody] = await app`SELECT count(*)::int AS n FROM athlete`;
    expect(nobody?.n).toBe(0);
    await app.end();
    const owner = there("sprezza_owner", "drill");
    const [alsoNobody] = await owner`SELECT count(*)::int AS n FROM athlete`;
    expect(alsoNobody?.n).toBe(0);
    await owner.end();
    await all.end();
  });

  drill(
    "leaves a team that is there alone, and puts it aside only when told to",
    async () => {
      const problem = await problemOf(
        restore(file, target("drill"), { replace: false, erased: [], at }),
      );
      expect(problem.code).toBe("holds-something");
      // As many as there were when the backup was made: other tests make teams beside this one.
      const everything = there("postgres", "drill");
      const [teams] = await everything`SELECT count(*)::int AS n FROM team`;
      await everything.end();
      expect(teams?.n).toBeGreaterThanOrEqual(2);
      expect(problem.message).toContain(`${teams?.n} teams already: nothing was changed`);
      const inUse = there("sprezza_app", "drill");
      await inUse`SELECT 1`;
      expect(
        (await problemOf(restore(file, target("drill"), { replace: true, erased: [], at }))).code,
      ).toBe("in-use");
      await inUse.end();
      const done = await restore(file, target("drill"), { replace: true, erased: [], at });
      expect(done.keptAs).toBe("drill_before_20260310163000");
      const aside = there("postgres", done.keptAs ?? "");
      expect((await aside`SELECT count(*)::int AS n FROM athlete`)[0]?.n).toBeGreaterThan(20);
      await aside.end();
      const names = there("postgres", "postgres");
      const databases =
        await names`SELECT datname FROM pg_database WHERE datname LIKE '%restoring%'`;
      expect([...databases]).toEqual([]);
      await names.end();
    },
    60_000,
  );
});

describe("an erased person stays erased", () => {
  drill(
    "by the list beside the backups, by another backup, and by what is being replaced",
    async () => {
      const [person] = await source`SELECT id, name FROM athlete WHERE team_id = ${second.teamId}`;
      const lists = mkdtempSync(path.join(folder, "lists-"));
      copyFileSync(file, path.join(lists, "sprezza-20260310-163000.zip"));
      const erased = {
        teamId: second.teamId,
        athleteId: person?.id,
        by: "Owner",
        at: at.toISOString(),
      };
      noteErased(lists, erased);
      const backup = path.join(lists, "sprezza-20260310-163000.zip");
      expect(await erasedBeside(backup, [])).toEqual([erased]);
      const done = await restore(backup, target("erased"), {
        replace: false,
        erased: await erasedBeside(backup, []),
        at,
      });
      expect(done.erasedAgain).toBe(1);
      const all = there("postgres", "erased");
      const [row] = await all`SELECT name, erased_at FROM athlete WHERE id = ${person?.id}`;
      expect(row?.name).toBe("Erased athlete");
      expect(row?.erased_at).not.toBeNull();
      const [listed] = await all`SELECT entered_by FROM erasure WHERE id = ${person?.id}`;
      expect(listed?.entered_by).toBe("Owner");
      await all.end();

      // The database that is being put aside knows too, without any list.
      const again = await restore(file, target("erased"), { replace: true, erased: [], at });
      expect(again.erasedAgain).toBe(1);
      // And a later backup beside an older one.
      const later = path.join(lists, "sprezza-20260311-163000.zip");
      const reader = there("sprezza_backup", "erased");
      await backUp(reader, later, { madeAt: at });
      await reader.end();
      rmSync(path.join(lists, "erasures.jsonl"));
      const known = await erasedBeside(backup, []);
      expect(known.map((one) => one.athleteId)).toContain(person?.id);
    },
    60_000,
  );

  it("names the line of a list that is none", async () => {
    const bad = path.join(folder, "bad.jsonl");
    writeFileSync(bad, '{"teamId":"x"}\n{}\n');
    expect((await problemOf(erasedBeside(file, [bad]))).message).toContain("Line 1 of");
    expect((await problemOf(erasedBeside(file, [`${bad}.none`]))).code).toBe("no-list");
  });
});

describe("nothing half-done", () => {
  const spoilt = (name: string, change: (bytes: Buffer) => Buffer) => {
    const other = path.join(folder, name);
    writeFileSync(other, change(readFileSync(file)));
    return other;
  };
  /** Tried as a restore; nothing may be there afterwards. */
  async function refused(broken: string) {
    const problem = await problemOf(
      restore(broken, target("nothing"), { replace: false, erased: [], at }),
    );
    const names = there("postgres", "postgres");
    const rows = await names`SELECT datname FROM pg_database WHERE datname LIKE 'nothing%'`;
    expect([...rows]).toEqual([]);
    await names.end();
    return problem;
  }

  it("a backup that is cut in half, or one byte off, is refused before anything is made", async () => {
    const half = await refused(spoilt("half.zip", (bytes) => bytes.subarray(0, bytes.length / 2)));
    expect(half.message).toContain("is not whole");
    for (const where of [0.2, 0.5, 0.8]) {
      const off = spoilt("off.zip", (bytes) => {
        const copy = Buffer.from(bytes);
        const i = Math.floor(copy.length * where);
        copy[i] = (copy[i] ?? 0) ^ 0x10;
        return copy;
      });
      expect((await refused(off)).code).toBe("broken");
    }
    expect((await refused(path.join(folder, "none.zip"))).code).toBe("no-file");
    writeFileSync(path.join(folder, "text.zip"), "not a zip");
    expect((await refused(path.join(folder, "text.zip"))).message).toContain(
      "no backup of Sprezza",
    );
  });

  /** The same file with another manifest, as a later version would have written it. */
  async function withManifest(change: (manifest: BackupManifest) => unknown): Promise<string> {
    const reader = await ZipReader.open(file, "backup");
    const zip = new yazl.ZipFile();
    for (const name of reader.entries.keys()) {
      const text = await reader.text(name, 1e9);
      const changed =
        name === "manifest.json"
          ? JSON.stringify(change(JSON.parse(text) as BackupManifest))
          : text;
      zip.addBuffer(Buffer.from(changed), name);
    }
    reader.close();
    zip.end();
    const pieces: Buffer[] = [];
    for await (const piece of zip.outputStream) pieces.push(Buffer.from(piece));
    const other = path.join(folder, "manifest.zip");
    writeFileSync(other, Buffer.concat(pieces));
    return other;
  }

  drill("a backup of a newer version, or of another line, is refused", async () => {
    const later = await withManifest((manifest) => ({ ...manifest, version: 99, more: true }));
    expect((await refused(later)).message).toContain(
      "made by a newer version of Sprezza (format 99",
    );
    const step = { hash: "f".repeat(64), at: Date.now() };
    const further = await withManifest((manifest) => ({
      ...manifest,
      steps: [...manifest.steps, step],
    }));
    expect((await refused(further)).message).toContain("is of a newer version of Sprezza");
    const other = await withManifest((manifest) => ({
      ...manifest,
      steps: manifest.steps.map((one, i) => (i === 3 ? { ...one, hash: "0" } : one)),
    }));
    expect((await refused(other)).code).toBe("other-line");
    const archive = await withManifest((manifest) => ({ ...manifest, format: "sprezza-archive" }));
    expect((await refused(archive)).message).toContain("a team's archive, not a backup");
    const fewer = await withManifest((manifest) => ({
      ...manifest,
      tables: manifest.tables.map((table) =>
        table.name === "athlete" ? { ...table, sha256: "0".repeat(64) } : table,
      ),
    }));
    expect((await refused(fewer)).code).toBe("broken");
  });

  it("a role that sees nothing keeps nothing: the application's, the sign-in's, the owner's", async () => {
    for (const setting of [
      "DATABASE_URL",
      "AUTH_DATABASE_URL",
      "OWNER_DATABASE_URL",
      "JOBS_DATABASE_URL",
    ]) {
      const blind = sourceAs(setting);
      const empty = path.join(folder, "empty.zip");
      const problem = await problemOf(backUp(blind, empty, { madeAt: at }));
      expect(problem.code).toBe("sees-nothing");
      expect(existsSync(empty) || existsSync(`${empty}.part`)).toBe(false);
      await blind.end();
    }
  });

  it("a file that is there is never written over; a full disk leaves nothing", async () => {
    const reader = sourceAs("BACKUP_DATABASE_URL");
    const size = statSync(file).size;
    expect((await problemOf(backUp(reader, file, { madeAt: at }))).code).toBe("there");
    expect(statSync(file).size).toBe(size);
    const nowhere = path.join(folder, "no-such-folder", "x.zip");
    expect((await problemOf(backUp(reader, nowhere, { madeAt: at }))).code).toBe("no-folder");
    await reader.end();
    // A shell's own limit stands for the disk: the file may not grow past 400 kB.
    const full = path.join(folder, "full.zip");
    const run = spawnSync(
      "bash",
      [
        "-c",
        `trap '' XFSZ; ulimit -f 400; exec node_modules/.bin/tsx scripts/backup-database.ts ${full}`,
      ],
      { encoding: "utf8", env: process.env, timeout: 60_000 },
    );
    expect(run.status).toBe(1);
    expect(run.stderr).toContain("is full: nothing was kept");
    expect(existsSync(full) || existsSync(`${full}.part`)).toBe(false);
    const [noted] = await source`
      SELECT good, words FROM auth.backup_run WHERE file = ${full}`;
    expect(noted).toMatchObject({ good: false, words: run.stderr.trim() });
  }, 60_000);
});

describe("the database of an earlier version", () => {
  const old = "db/fixtures/installations/step-16.zip";

  drill(
    "comes back with its tables as they were, then as they are now",
    async () => {
      const manifest = await verifyBackup(old);
      expect(manifest.steps).toHaveLength(16);
      const done = await restore(old, target("older"), { replace: false, erased: [], at });
      expect(done.rows).toBeGreaterThan(15_000);
      const all = there("postgres", "older");
      const rows = Object.fromEntries(manifest.tables.map((table) => [table.name, table.rows]));
      const [now] = await all`SELECT (SELECT count(*)::int FROM athlete) AS athletes,
      (SELECT count(*)::int FROM max_record) AS records, (SELECT count(*)::int FROM plan) AS plans`;
      expect(now).toEqual({ athletes: rows.athlete, records: rows.max_record, plans: rows.plan });
      // Pairings had a log of their own; every tap is in the one log now.
      const [log] = await all`SELECT count(*)::int AS n FROM log_entry`;
      expect(log?.n).toBe((rows.log_entry ?? 0) + (rows.complex_entry ?? 0));
      await all.end();
    },
    60_000,
  );

  it("is brought up to date with a backup first; all of it or nothing", async () => {
    const admin = there("postgres", "postgres");
    await admin.unsafe("CREATE DATABASE upgraded OWNER sprezza_owner");
    await admin.end();
    const owner = there("sprezza_owner", "upgraded");
    await migrateTo(owner, 16);
    const kept = path.join(folder, "upgrades");
    // A server that still runs on it.
    const app = there("sprezza_app", "upgraded");
    await app`SELECT 1`;
    expect((await problemOf(upgrade(owner, { folder: kept, at }))).code).toBe("in-use");
    await app.end();
    const TEAM = "0198c0de-0000-7000-8000-0000000000aa";
    const all = there("postgres", "upgraded");
    await all`INSERT INTO team (id, name) VALUES (${TEAM}, 'Before')`;
    // Nothing can be kept: then nothing is changed.
    writeFileSync(path.join(folder, "no-folder"), "");
    await expect(
      upgrade(owner, { folder: path.join(folder, "no-folder", "x"), at }),
    ).rejects.toThrow();
    expect((await owner`SELECT count(*)::int AS n FROM drizzle.__drizzle_migrations`)[0]?.n).toBe(
      16,
    );
    // A step that fails takes all of them back.
    await all`CREATE TABLE device_clock (x int)`;
    await expect(upgrade(owner, { folder: undefined, at })).rejects.toThrow();
    expect((await owner`SELECT count(*)::int AS n FROM drizzle.__drizzle_migrations`)[0]?.n).toBe(
      16,
    );
    await all`DROP TABLE device_clock`;

    const { steps, backup } = await upgrade(owner, { folder: kept, at });
    expect(steps).toBe(ownSteps().length - 16);
    expect(backup?.rows).toBe(1);
    const before = await verifyBackup(backup?.file ?? "");
    expect(before.steps).toHaveLength(16);
    expect((await all`SELECT name FROM team`)[0]?.name).toBe("Before");
    const again = await upgrade(owner, { folder: kept, at });
    expect(again).toEqual({ steps: 0, backup: undefined });
    await all.end();
    await owner.end();
  }, 60_000);
});
