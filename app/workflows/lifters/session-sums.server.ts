import { reduceFloor } from "../../../core/floor/state";
import { factsOf } from "../../../core/review/session-facts";
import { sumSession } from "../../../core/review/session-sum";
import { entriesAfter, frozenOf } from "../../../db/queries/sessions.server";
import { behindSums, keepSum } from "../../../db/queries/sums.server";
import type { TeamTransaction } from "../../../db/team.server";
import { now } from "../../platform/clock.server";
import { inTeam, isDatabaseAway } from "../../platform/database.server";
import { log } from "../../platform/log.server";
import type { Principal } from "../../platform/rights";

/**
 * Sums of sessions, kept beside their logs: trends and reviews read these and no log. The database
 * marks a session whose log goes on; whoever reads next works it out anew, in a transaction of its own,
 * so that no log waits for a page.
 */

/** A running session's sum may be so old, ms. */
export const RUNNING_SUM_MS = 10_000;
/** Sessions that one reader works out before it answers: the rest is the next reader's. */
const MOST_AT_ONCE = 40;

/**
 * A page over the team's sums, brought up to date before it where some are behind.
 * @param work gets whether more sessions wait to be summed than one reader works out
 */
export async function overSums<T>(
  principal: Pick<Principal, "teamId">,
  work: (tx: TeamTransaction, moreBehind: boolean) => Promise<T>,
): Promise<T> {
  // Mostly none is: then the page is read in the transaction that asked.
  const first = await inTeam(principal, async (tx) => {
    const behind = await behindNow(tx, 1);
    return behind.length > 0 ? undefined : { page: await work(tx, false) };
  });
  if (first) return first.page;
  const brought = await bringUpSums(principal);
  return inTeam(principal, (tx) => work(tx, brought >= MOST_AT_ONCE));
}

const behindNow = (tx: TeamTransaction, most: number) =>
  behindSums(tx, { most, runningBefore: new Date(now().getTime() - RUNNING_SUM_MS) });

/** Brings sums up to date; how many were behind. */
export async function bringUpSums(principal: Pick<Principal, "teamId">): Promise<number> {
  const behind = await inTeam(principal, (tx) => behindNow(tx, MOST_AT_ONCE));
  for (const sessionId of behind) {
    try {
      await sumOne(principal, sessionId);
    } catch (error) {
      if (isDatabaseAway(error)) throw error;
      // One session that cannot be summed takes no page from the others; it stays marked.
      log.error({ err: error, sessionId }, "a session could not be summed");
    }
  }
  return behind.length;
}

/** Works out one session's sum and keeps it. */
export async function sumOne(
  principal: Pick<Principal, "teamId">,
  sessionId: string,
): Promise<void> {
  const read = await inTeam(principal, async (tx) => {
    const row = await frozenOf(tx, sessionId);
    return row && { row, entries: await entriesAfter(tx, sessionId, 0) };
  });
  if (!read) return;
  const { row, entries } = read;
  const floor = reduceFloor(row.frozen, entries);
  const sum = sumSession(row.frozen, floor);
  await inTeam(principal, (tx) =>
    keepSum(tx, {
      sessionId,
      date: row.date,
      seq: entries.at(-1)?.seq ?? 0,
      at: now(),
      facts: factsOf(row.frozen, floor, sum),
      sum,
      plan:
        row.planId !== null && row.week !== null
          ? { planId: row.planId, week: row.week }
          : undefined,
    }),
  );
}
