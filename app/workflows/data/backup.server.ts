import path from "node:path";
import { lastBackups } from "../../../db/queries/backups.server";
import { readTeam } from "../../../db/queries/squads.server";
import { now } from "../../platform/clock.server";
import { databases, inTeam } from "../../platform/database.server";
import { environment } from "../../platform/env.server";
import type { Principal } from "../../platform/rights";

/** A daily backup that is older than this was missed: a day, and two hours for its run. */
export const LATE_HOURS = 26;
const HOUR_MS = 3_600_000;

/** When the last good backup of the installation was, what became of the last try, what is set. */
export async function readBackups(principal: Principal) {
  const { last, good } = await lastBackups(databases().auth.database);
  const { BACKUP_FOLDER: folder, BACKUP_AT: at, BACKUP_KEEP: keep } = environment();
  const zone = await inTeam(principal, async (tx) => (await readTeam(tx))?.zone ?? "UTC");
  const hours = good ? (now().getTime() - good.endedAt.getTime()) / HOUR_MS : undefined;
  return {
    good: good && {
      at: good.endedAt.toISOString(),
      // Where it lies on the machine is the machine's own business.
      file: path.basename(good.file),
      bytes: good.bytes,
      rows: good.rows,
      hours: Math.floor(hours ?? 0),
    },
    /** The last try, where it failed. */
    failed: last && !last.good ? { at: last.endedAt.toISOString(), words: last.words } : undefined,
    daily: folder ? { folder, at, keep } : undefined,
    late: folder !== undefined && (hours === undefined || hours > LATE_HOURS),
    zone,
  };
}
