import { createHash } from "node:crypto";
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { drizzle } from "drizzle-orm/postgres-js";
import { migrate } from "drizzle-orm/postgres-js/migrator";
import type postgres from "postgres";
import type { Step } from "./installation-manifest";
import { KeptProblem } from "./problem";

const FOLDER = "db/migrations";

interface Journal {
  version: string;
  dialect: string;
  entries: Array<{ idx: number; version: string; when: number; tag: string; breakpoints: boolean }>;
}

const journal = (): Journal =>
  JSON.parse(readFileSync(path.join(FOLDER, "meta/_journal.json"), "utf8"));

/** This version's migrations as a database lists them. */
export function ownSteps(): Step[] {
  return journal().entries.map(({ tag, when }) => ({
    hash: createHash("sha256")
      .update(readFileSync(path.join(FOLDER, `${tag}.sql`)))
      .digest("hex"),
    at: when,
  }));
}

/**
 * How far a database's migrations are along this version's.
 * @returns `behind`: how many are still to come, or why its tables are not of this version's line
 */
export function compareSteps(
  steps: readonly Step[],
  own: readonly Step[] = ownSteps(),
): { behind: number } | { unlike: "newer" | "other" } {
  for (const [i, step] of steps.entries()) {
    const mine = own[i];
    if (!mine) return { unlike: "newer" };
    if (mine.hash !== step.hash || mine.at !== step.at) return { unlike: "other" };
  }
  return { behind: own.length - steps.length };
}

/** Fails where the tables are of a version that this one does not know. */
export function mustKnow(what: string, steps: readonly Step[]): void {
  const compared = compareSteps(steps);
  if (!("unlike" in compared)) return;
  throw compared.unlike === "newer"
    ? new KeptProblem(
        "newer",
        `${what} is of a newer version of Sprezza than this one. Install that version, then go on.`,
      )
    : new KeptProblem(
        "other-line",
        `${what} has tables that no version before this one made. Use the version that made it.`,
      );
}

/** Brings a database up to date: all steps in one transaction, or none. */
export async function migrateToNewest(owner: postgres.Sql): Promise<void> {
  await migrate(drizzle(owner), { migrationsFolder: FOLDER });
  await openToReaders(owner);
}

/** Gives a database the tables that it had after its first `count` migrations. */
export async function migrateTo(owner: postgres.Sql, count: number): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "sprezza-steps-"));
  try {
    const { entries, ...rest } = journal();
    mkdirSync(path.join(folder, "meta"));
    const wanted = entries.slice(0, count);
    for (const { tag } of wanted)
      cpSync(path.join(FOLDER, `${tag}.sql`), path.join(folder, `${tag}.sql`));
    writeFileSync(
      path.join(folder, "meta/_journal.json"),
      JSON.stringify({ ...rest, entries: wanted }),
    );
    await migrate(drizzle(owner), { migrationsFolder: folder });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/**
 * What follows every migration: a start may ask for the list of them, and the roles that keep
 * backups and bring archives in see every table that there is now.
 */
async function openToReaders(owner: postgres.Sql): Promise<void> {
  await owner.unsafe("GRANT USAGE ON SCHEMA drizzle TO sprezza_auth");
  await owner.unsafe("GRANT SELECT ON drizzle.__drizzle_migrations TO sprezza_auth");
  await owner.unsafe("SELECT open_to_readers()");
}
