import { and, eq, lt } from "drizzle-orm";
import { submission } from "../schema";
import type { TeamTransaction } from "../team.server";

/** Nobody sends a form again after this long. */
const KEPT_MS = 48 * 3600 * 1000;

/**
 * Claims a key in the running transaction; false where it is taken. A twin that runs at the same
 * time waits here until the first is through.
 */
export async function claimSubmission(tx: TeamTransaction, id: string, at: Date): Promise<boolean> {
  const rows = await tx
    .insert(submission)
    .values({ teamId: tx.teamId, id, madeAt: at })
    .onConflictDoNothing({ target: [submission.teamId, submission.id] })
    .returning({ id: submission.id });
  return rows.length === 1;
}

/** What the form made the first time. */
export async function submissionResult(tx: TeamTransaction, id: string): Promise<unknown> {
  const [row] = await tx
    .select({ result: submission.result })
    .from(submission)
    .where(eq(submission.id, id));
  return row?.result;
}

/** Keeps what was made, and lets go of what is long past. */
export async function keepSubmission(
  tx: TeamTransaction,
  id: string,
  result: unknown,
  at: Date,
): Promise<void> {
  await tx.update(submission).set({ result }).where(eq(submission.id, id));
  await tx
    .delete(submission)
    .where(
      and(
        eq(submission.teamId, tx.teamId),
        lt(submission.madeAt, new Date(at.getTime() - KEPT_MS)),
      ),
    );
}
