import { labAnswersOf } from "../../../db/queries/lab.server";
import type { TeamTransaction } from "../../../db/team.server";

/** What stands on an athlete's page or on a plan from the bench. */
export async function readAnswers(
  tx: TeamTransaction,
  of: { athleteId: string } | { planId: string },
) {
  return (await labAnswersOf(tx, of)).map(({ id, tool, state, answer, enteredBy, enteredAt }) => ({
    id,
    address: `/lab?tool=${tool}${state ? `&${state}` : ""}`,
    answer,
    by: enteredBy,
    on: enteredAt.toISOString().slice(0, 10),
  }));
}

export type SentAnswer = Awaited<ReturnType<typeof readAnswers>>[number];
