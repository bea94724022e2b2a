import { mkdirSync } from "node:fs";
import path from "node:path";
import type postgres from "postgres";
import { type BackedUp, backUp, readSteps } from "./backup.server";
import { KeptProblem } from "./problem";
import { migrateToNewest, mustKnow, ownSteps } from "./steps.server";

export interface Upgraded {
  /** How many migrations were applied. */
  steps: number;
  /** What was kept before; undefined where there was nothing to keep or nothing to do. */
  backup: BackedUp | undefined;
}

/**
 * Brings a database up to date, with a backup first where it holds anything: all migrations are
 * applied in one transaction, or none.
 * @param folder where the backup is kept; undefined keeps none
 * @throws KeptProblem where a server still runs on it, it is of a newer version, or nothing can be
 *   kept; then the database is as it was
 */
export async function upgrade(
  owner: postgres.Sql,
  options: { folder: string | undefined; at: Date },
): Promise<Upgraded> {
  const steps = await readSteps(owner);
  mustKnow("This database", steps);
  const behind = ownSteps().length - steps.length;
  if (behind === 0 || steps.length === 0) {
    await migrateToNewest(owner);
    return { steps: behind, backup: undefined };
  }
  const [running] = await owner<Array<{ n: number }>>`
    SELECT count(*)::int AS n FROM pg_stat_activity
    WHERE datname = current_database() AND usename IN ('sprezza_app', 'sprezza_auth')`;
  if ((running?.n ?? 0) > 0) {
    throw new KeptProblem(
      "in-use",
      "A server still runs on this database: nothing was changed. Stop it (or wait a minute for its connections to end), then bring the database up to date.",
    );
  }
  let backup: BackedUp | undefined;
  if (options.folder !== undefined) {
    mkdirSync(options.folder, { recursive: true });
    const stamp = options.at.toISOString().replace(/\D/g, "").slice(0, 14);
    const file = path.join(options.folder, `sprezza-before-step-${steps.length + 1}-${stamp}.zip`);
    backup = await backUp(owner, file, { madeAt: options.at, liftForce: true });
  }
  await migrateToNewest(owner);
  return { steps: behind, backup };
}
