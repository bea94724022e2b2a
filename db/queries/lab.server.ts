import { and, desc, eq } from "drizzle-orm";
import { labAnswer } from "../schema";
import type { TeamTransaction } from "../team.server";

/** The bench's answers that were sent to an athlete or to a plan, newest first. */
export function labAnswersOf(tx: TeamTransaction, of: { athleteId: string } | { planId: string }) {
  return tx
    .select()
    .from(labAnswer)
    .where(
      "athleteId" in of ? eq(labAnswer.athleteId, of.athleteId) : eq(labAnswer.planId, of.planId),
    )
    .orderBy(desc(labAnswer.enteredAt));
}

export async function addLabAnswer(
  tx: TeamTransaction,
  row: Omit<typeof labAnswer.$inferInsert, "teamId">,
) {
  await tx.insert(labAnswer).values({ teamId: tx.teamId, ...row });
}

export async function dropLabAnswer(tx: TeamTransaction, id: string) {
  await tx.delete(labAnswer).where(and(eq(labAnswer.teamId, tx.teamId), eq(labAnswer.id, id)));
}
