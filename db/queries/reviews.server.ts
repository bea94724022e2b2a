import { and, desc, eq, gte, isNull } from "drizzle-orm";
import type { LocalDate } from "../../core/units/time";
import { reviewCall } from "../schema";
import type { TeamTransaction } from "../team.server";

export type StoredCall = typeof reviewCall.$inferSelect;

/** Decided calls since a day, the newest first. */
export function decidedCalls(tx: TeamTransaction, since: LocalDate): Promise<StoredCall[]> {
  return tx
    .select()
    .from(reviewCall)
    .where(gte(reviewCall.date, since))
    .orderBy(desc(reviewCall.enteredAt), desc(reviewCall.id));
}

/** The decision that stands on a call; undefined where it waits. */
export async function decisionOn(
  tx: TeamTransaction,
  about: string,
): Promise<StoredCall | undefined> {
  const [row] = await tx
    .select()
    .from(reviewCall)
    .where(and(eq(reviewCall.about, about), isNull(reviewCall.undoneAt)))
    .limit(1);
  return row;
}

export async function callById(tx: TeamTransaction, id: string): Promise<StoredCall | undefined> {
  const [row] = await tx.select().from(reviewCall).where(eq(reviewCall.id, id)).for("update");
  return row;
}

/** Keeps a decision; false where one stands on the call already. */
export async function addCall(
  tx: TeamTransaction,
  row: Omit<typeof reviewCall.$inferInsert, "teamId">,
): Promise<boolean> {
  const rows = await tx
    .insert(reviewCall)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoNothing()
    .returning({ id: reviewCall.id });
  return rows.length === 1;
}

/** Writes that a decision was taken back; false where it was already. */
export async function takeBackCall(
  tx: TeamTransaction,
  id: string,
  by: { undoneBy: string; undoneAt: Date },
): Promise<boolean> {
  const rows = await tx
    .update(reviewCall)
    .set(by)
    .where(and(eq(reviewCall.id, id), isNull(reviewCall.undoneAt)))
    .returning({ id: reviewCall.id });
  return rows.length === 1;
}
