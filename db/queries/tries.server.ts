import { eq, lt, or, sql } from "drizzle-orm";
import type { Database } from "../connection.server";
import { rateLimit } from "../schema";

/**
 * Takes one try under a key; gives the number taken in the window that runs. Counted in the
 * database, so that a restarted process or a second one forgets nothing. Runs as the sign-in role.
 */
export async function takeTryUnder(
  signIn: Database,
  key: string,
  windowMs: number,
  atMs: number,
): Promise<number> {
  const over = sql`${rateLimit.lastRequest} < ${atMs - windowMs}`;
  const [row] = await signIn
    .insert(rateLimit)
    .values({ id: key, key, count: 1, lastRequest: atMs })
    .onConflictDoUpdate({
      target: rateLimit.key,
      set: {
        count: sql`CASE WHEN ${over} THEN 1 ELSE ${rateLimit.count} + 1 END`,
        // The window's start, not the last try's moment: waiting helps.
        lastRequest: sql`CASE WHEN ${over} THEN ${atMs} ELSE ${rateLimit.lastRequest} END`,
      },
    })
    .returning({ count: rateLimit.count });
  return row?.count ?? 1;
}

/** Forgets what was counted under a key, and windows long past. */
export async function forgetTries(signIn: Database, key: string, beforeMs: number): Promise<void> {
  await signIn
    .delete(rateLimit)
    .where(or(eq(rateLimit.key, key), lt(rateLimit.lastRequest, beforeMs)));
}
