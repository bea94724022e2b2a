import { ERASED_NAME } from "../../../core/floor/display-copy";
import type { SessionFacts } from "../../../core/review/session-facts";
import { reviewOf } from "../../../core/review/session-review";
import { recordsOf } from "../../../db/queries/maxes.server";
import { notesWith } from "../../../db/queries/notes.server";
import { namesInSession, reasonsOf, sessionHead } from "../../../db/queries/sessions.server";
import { sumOfSession } from "../../../db/queries/sums.server";
import type { TeamTransaction } from "../../../db/team.server";
import { inTeam } from "../../platform/database.server";
import { done, failed } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { sumOne } from "../lifters/session-sums.server";
import { heavyNote } from "./keep-heavy.server";

/** Heavy slots' best sets, each with whether a coach has made it a record. */
async function heavyOf(
  tx: TeamTransaction,
  sessionId: string,
  bests: SessionFacts["heavy"],
  names: ReadonlyMap<string, string>,
) {
  if (bests.length === 0) return [];
  const records = await recordsOf(
    tx,
    bests.map((one) => one.athleteId),
  );
  const note = heavyNote(sessionId);
  return bests.map((one) => ({
    ...one,
    name: names.get(one.athleteId) ?? ERASED_NAME,
    kept: records.some(
      (record) =>
        record.athleteId === one.athleteId &&
        record.variantId === one.variantId &&
        record.note.startsWith(note),
    ),
  }));
}

/** Notes that a session's review shows. */
const MOST_NOTES = 20;

const NO_SESSION = failed("no-session", "This session is not in your team. Open the list.");

/** A session's review, from its kept sum: however long its log is, it is not read. */
export async function readReview(principal: Principal, sessionId: string) {
  const there = await inTeam(principal, (tx) => sumOfSession(tx, sessionId));
  if (!there || there.behind) await sumOne(principal, sessionId);
  return inTeam(principal, async (tx) => {
    const head = await sessionHead(tx, sessionId);
    // A pairing by itself is read on its own page.
    if (!head || head.planId === null) return NO_SESSION;
    const sum = there && !there.behind ? there : await sumOfSession(tx, sessionId);
    if (!sum) return NO_SESSION;
    const { facts } = sum;
    const names = await namesInSession(tx, sessionId);
    const reasons = await reasonsOf(
      tx,
      facts.decided.map((one) => one.entryId),
    );
    return done({
      session: {
        id: head.id,
        title: head.title,
        date: head.date,
        status: head.status,
        roomName: facts.roomName,
        planId: head.planId,
        planVersion: facts.planVersion,
        metrics: [
          ...new Set(facts.slots.flatMap((slot) => (slot.kind === "lift" ? [slot.metric] : []))),
        ],
      },
      review: reviewOf({ ...facts, lines: sum.lines }, names),
      heavy: await heavyOf(tx, sessionId, facts.heavy, names),
      decided: facts.decided.map((one) => ({ ...one, reason: reasons.get(one.entryId) ?? "" })),
      conflicts: facts.conflicts,
      setAside: facts.setAside,
      notes: (await notesWith(tx, { words: "", aboutIds: [sessionId], most: MOST_NOTES })).map(
        ({ id, date, words, enteredBy }) => ({ id, date, words, by: enteredBy }),
      ),
    });
  });
}
