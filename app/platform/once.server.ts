import {
  claimSubmission,
  keepSubmission,
  submissionResult,
} from "../../db/queries/submissions.server";
import type { TeamTransaction } from "../../db/team.server";
import { now } from "./clock.server";
import { inTeam, refersToNothing } from "./database.server";
import { type Failure, failed, type Outcome } from "./outcome";
import type { Principal } from "./rights";
import { submissionKey } from "./submission.server";

/** Takes the transaction back, with what the workflow said. */
class Undone extends Error {
  constructor(readonly outcome: Outcome<unknown>) {
    super("undone");
  }
}

const GONE = failed(
  "gone",
  "Something that this refers to is not in your team any more. Load the page again.",
);

/** One transaction that does all of its work or, where the work comes to a failure, none of it. */
export async function inTeamWhole<T>(
  principal: Pick<Principal, "teamId">,
  work: (tx: TeamTransaction) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  try {
    return await inTeam(principal, async (tx) => {
      const outcome = await work(tx);
      if (!outcome.ok) throw new Undone(outcome);
      return outcome;
    });
  } catch (error) {
    if (error instanceof Undone) return error.outcome as Outcome<T>;
    throw error;
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
  const at = now();
  try {
    if (key === undefined) return await inTeamWhole(principal, work);
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
    // The database's own rule, which no look beforehand can replace: another may take it away
    // between the look and the writing.
    if (refersToNothing(error)) return GONE;
    throw error;
  }
}
