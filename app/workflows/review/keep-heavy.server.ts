import { uuidv7 } from "uuidv7";
import { reduceFloor } from "../../../core/floor/state";
import { heavyBests } from "../../../core/review/heavy";
import { formatKg } from "../../../core/units/mass";
import { addRecord, addSingle, recordsOf } from "../../../db/queries/maxes.server";
import { entriesAfter, frozenOf } from "../../../db/queries/sessions.server";
import { now } from "../../platform/clock.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

/** How a record says that it came from a session; with it, it is found again. */
export const heavyNote = (sessionId: string): string => `Best set of a heavy slot (${sessionId})`;

/**
 * The coach's word that the best set of a heavy slot is the variant's record: read anew from the
 * log, so that what is kept is what was lifted.
 */
export function keepHeavy(
  principal: Principal,
  input: {
    sessionId: string;
    slotId: string;
    athleteId: string;
    /** The coach says that the single was all there was: its speed goes to the own threshold. */
    wasAll: boolean;
  },
): Promise<Outcome<null>> {
  return inTeamOnce(principal, async (tx) => {
    const row = await frozenOf(tx, input.sessionId);
    if (!row) return failed("no-session", "This session is not in your team. Open the list.");
    const floor = reduceFloor(row.frozen, await entriesAfter(tx, input.sessionId, 0));
    const best = heavyBests(row.frozen, floor).find(
      (one) => one.slotId === input.slotId && one.athleteId === input.athleteId,
    );
    if (!best) return failed("no-set", "This athlete has no finished set in that slot.");
    const note = heavyNote(input.sessionId);
    const kept = (await recordsOf(tx, best.athleteId)).some(
      (record) => record.variantId === best.variantId && record.note.startsWith(note),
    );
    if (kept) return failed("kept", "This set is a record already.");
    await addRecord(tx, {
      id: uuidv7(),
      athleteId: best.athleteId,
      variantId: best.variantId,
      load: { amount: Math.round(100 * best.recordKg) / 100, unit: "kg" },
      date: row.date,
      kind: best.kind,
      note: best.reps === 1 ? note : `${note}: ${formatKg(best.loadKg, "kg", 2)} × ${best.reps}`,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    if (input.wasAll && best.singleMps !== undefined)
      await addSingle(tx, {
        id: uuidv7(),
        athleteId: best.athleteId,
        variantId: best.variantId,
        date: row.date,
        load: { amount: best.loadKg, unit: "kg" },
        velocityMps: best.singleMps,
        metric: "MCV",
        enteredBy: principal.name,
        enteredAt: now(),
      });
    return done(null);
  });
}
