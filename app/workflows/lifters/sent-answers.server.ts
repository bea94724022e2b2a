import { labAnswersOf } from "../../../db/queries/lab.server";
import type { TeamTransaction } from "../../../db/team.server";
import { teamDay } from "./today.server";

/** What stands on an athlete's page or on a plan from the bench. */
export async function readAnswers(
  tx: TeamTransaction,
  of: { athleteId: string } | { planId: string },
) {
  const answers = await labAnswersOf(tx, of);
  if (answers.length === 0) return [];
  const dayOf = await teamDay(tx);
  return answers.map(({ id, tool, state, answer, enteredBy, enteredAt }) => ({
    id,
    address: `/lab?tool=${tool}${state ? `&${state}` : ""}`,
    answer,
    by: enteredBy,
    on: dayOf(enteredAt),
  }));
}

export type SentAnswer = Awaited<ReturnType<typeof readAnswers>>[number];
