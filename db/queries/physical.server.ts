import { asc, eq } from "drizzle-orm";
import { physicalResult, physicalTest } from "../schema";
import type { TeamTransaction } from "../team.server";

export type PhysicalTest = typeof physicalTest.$inferSelect;
export type PhysicalResult = typeof physicalResult.$inferSelect;

export async function physicalTests(tx: TeamTransaction): Promise<PhysicalTest[]> {
  return tx.select().from(physicalTest).orderBy(asc(physicalTest.family), asc(physicalTest.name));
}

/** Results of one athlete or of all, in order of date. */
export async function physicalResults(
  tx: TeamTransaction,
  athleteId?: string,
): Promise<PhysicalResult[]> {
  return tx
    .select()
    .from(physicalResult)
    .where(athleteId ? eq(physicalResult.athleteId, athleteId) : undefined)
    .orderBy(asc(physicalResult.date), asc(physicalResult.enteredAt));
}

/** Keeps a result; false where the test was entered for that day already. */
export async function addPhysicalResult(
  tx: TeamTransaction,
  row: Omit<typeof physicalResult.$inferInsert, "teamId">,
): Promise<boolean> {
  const kept = await tx
    .insert(physicalResult)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoNothing()
    .returning({ id: physicalResult.id });
  return kept.length === 1;
}
