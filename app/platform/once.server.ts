import {
  claimSubmission,
  keepSubmission,
  submissionResult,
} from "../../db/queries/submissions.server";
import type { TeamTransaction } from "../../db/team.server";
import { now } from "./clock.server";
import { inTeam } from "./database.server";
import type { Failure, Outcome } from "./outcome";
import type { Principal } from "./rights";
import { submissionKey } from "./submission.server";

/** Takes the transaction back, with what the workflow said. */
class Undone extends Error {
  constructor(readonly outcome: Outcome<unknown>) {
    super("undone");
  }
}

/**
 * One transaction that makes something, once for what was sent: the same form sent again (a
 * second press, a link that broke before the answer came) is answered with what it made the first
 * time. The key is claimed in the transaction that makes the thing, so that both are there or
 * neither. A failure makes nothing and leaves the key free.
 *
 * What is given back must be plain data (it is kept as JSON).
 * @param shownOnce where what is given back may be shown once only and is kept nowhere: the answer
 *   to the same form sent again
 */
export async function inTeamOnce<T>(
  principal: Pick<Principal, "teamId">,
  work: (tx: TeamTransaction) => Promise<Outcome<T>>,
  shownOnce?: Failure,
): Promise<Outcome<T>> {
  const key = submissionKey();
  if (key === undefined) return inTeam(principal, work);
  const at = now();
  try {
    return await inTeam(principal, async (tx) => {
      if (!(await claimSubmission(tx, key, at))) {
        return (await submissionResult(tx, key)) as Outcome<T>;
      }
      const outcome = await work(tx);
      if (!outcome.ok) throw new Undone(outcome);
      await keepSubmission(tx, key, shownOnce ?? outcome, at);
      return outcome;
    });
  } catch (error) {
    if (error instanceof Undone) return error.outcome as Outcome<T>;
    throw error;
  }
}
