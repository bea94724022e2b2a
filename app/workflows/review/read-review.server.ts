import { liftsOf } from "../../../core/floor/frozen";
import { reduceFloor } from "../../../core/floor/state";
import { heavyBests } from "../../../core/review/heavy";
import { reviewSession } from "../../../core/review/session-review";
import { recordsOf } from "../../../db/queries/maxes.server";
import { entriesAfter, frozenOf, listSessions } from "../../../db/queries/sessions.server";
import { listEverybody } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { inTeam } from "../../platform/database.server";
import { done, failed } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { heavyNote } from "./keep-heavy.server";

export function readReviews(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const people = new Map((await listEverybody(tx)).map((one) => [one.id, one.name]));
    return (await listSessions(tx, 60)).map((session) => ({
      ...session,
      alone: session.ownOf === null ? undefined : (people.get(session.ownOf) ?? "somebody"),
    }));
  });
}

/** Heavy slots' best sets, each with whether a coach has made it a record. */
async function heavyOf(
  tx: TeamTransaction,
  sessionId: string,
  bests: ReturnType<typeof heavyBests>,
) {
  if (bests.length === 0) return [];
  const records = await recordsOf(
    tx,
    bests.map((one) => one.athleteId),
  );
  const note = heavyNote(sessionId);
  return bests.map((one) => ({
    ...one,
    kept: records.some(
      (record) =>
        record.athleteId === one.athleteId &&
        record.variantId === one.variantId &&
        record.note.startsWith(note),
    ),
  }));
}

export function readReview(principal: Principal, sessionId: string) {
  return inTeam(principal, async (tx) => {
    const row = await frozenOf(tx, sessionId);
    // A pairing by itself is read on its own page.
    if (!row || row.planId === null)
      return failed("no-session", "This session is not in your team. Open the list.");
    const floor = reduceFloor(row.frozen, await entriesAfter(tx, sessionId, 0));
    return done({
      session: {
        id: row.id,
        title: row.title,
        date: row.date,
        status: row.status,
        roomName: row.frozen.roomName,
        planId: row.planId,
        planVersion: row.frozen.planVersion,
        metrics: [...new Set(liftsOf(row.frozen).map((lift) => lift.metric))],
      },
      review: reviewSession(row.frozen, floor),
      heavy: await heavyOf(tx, sessionId, heavyBests(row.frozen, floor)),
      decided: floor.decided,
      conflicts: floor.conflicts,
      setAside: floor.setAside,
    });
  });
}
