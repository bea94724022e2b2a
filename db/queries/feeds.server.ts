import { desc, eq } from "drizzle-orm";
import type { Database } from "../connection.server";
import { calendarFeed } from "../schema";
import type { TeamTransaction } from "../team.server";

export async function addFeed(
  tx: TeamTransaction,
  row: Omit<typeof calendarFeed.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(calendarFeed).values({ teamId: tx.teamId, ...row });
}

export function feedsOf(tx: TeamTransaction, planId: string) {
  return tx
    .select()
    .from(calendarFeed)
    .where(eq(calendarFeed.planId, planId))
    .orderBy(desc(calendarFeed.enteredAt));
}

export async function revokeFeed(tx: TeamTransaction, id: string, at: Date): Promise<void> {
  await tx.update(calendarFeed).set({ revokedAt: at }).where(eq(calendarFeed.id, id));
}

/** Finds a feed before anybody knows the team. Runs as the sign-in role. */
export async function feedByToken(signIn: Database, tokenHash: string) {
  const [row] = await signIn
    .select()
    .from(calendarFeed)
    .where(eq(calendarFeed.tokenHash, tokenHash));
  return row;
}
