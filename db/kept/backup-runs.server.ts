import type postgres from "postgres";
import { uuidv7 } from "uuidv7";

/**
 * Writes down how a backup went, for the page that says when the last good one was.
 * @returns false where it could not be written (an older database, a role that may not): the
 *   backup itself is as good
 */
export async function noteBackup(
  client: postgres.Sql,
  run: {
    startedAt: Date;
    endedAt: Date;
    file: string;
    bytes: number;
    rows: number;
    /** Why it failed. */
    failed?: string;
  },
): Promise<boolean> {
  try {
    await client`INSERT INTO auth.backup_run (id, started_at, ended_at, good, file, bytes, rows, words)
      VALUES (${uuidv7()}, ${run.startedAt}, ${run.endedAt}, ${run.failed === undefined},
        ${run.file}, ${run.bytes}, ${run.rows}, ${run.failed ?? ""})`;
    return true;
  } catch {
    return false;
  }
}
