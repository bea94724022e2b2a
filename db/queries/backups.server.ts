import { desc, eq } from "drizzle-orm";
import type { Database } from "../connection.server";
import { backupRun } from "../schema/auth";

/** The last backup that was kept, and the last that was tried. Runs as the sign-in role. */
export async function lastBackups(signIn: Database) {
  const newest = signIn.select().from(backupRun).orderBy(desc(backupRun.endedAt)).limit(1);
  const good = signIn
    .select()
    .from(backupRun)
    .where(eq(backupRun.good, true))
    .orderBy(desc(backupRun.endedAt))
    .limit(1);
  return { last: (await newest)[0], good: (await good)[0] };
}
