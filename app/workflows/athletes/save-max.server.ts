import { uuidv7 } from "uuidv7";
import { type MaxKind, recordWarnings } from "../../../core/maxes/records";
import { formatKg, formatMass, type Mass } from "../../../core/units/mass";
import { formatPercent } from "../../../core/units/percent";
import type { LocalDate } from "../../../core/units/time";
import {
  addRecord,
  chooseWorkingMax,
  recordsOf,
  variantById,
} from "../../../db/queries/maxes.server";
import { athleteById } from "../../../db/queries/squads.server";
import { now } from "../../platform/clock.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";

const GONE = "This athlete or lift is not in your team any more.";

/** Adds a record. A jump over 10 % or a date to come is asked about once. */
export function saveRecord(
  principal: Principal,
  input: {
    athleteId: string;
    variantId: string;
    load: Mass;
    date: LocalDate;
    kind: MaxKind;
    note: string;
    confirmed: boolean;
    /** Percentages stand on it from now on, with its kind's factor. */
    use?: boolean;
  },
): Promise<Outcome<{ recordId: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const person = await athleteById(tx, input.athleteId);
    const variant = await variantById(tx, input.variantId);
    if (!person || !variant) return failed("no-athlete", GONE);
    const history = (await recordsOf(tx, person.id)).filter(
      (record) => record.variantId === variant.id,
    );
    const today = (await readPlaces(tx)).todayOf(person);
    const warnings = recordWarnings(history, input, today);
    if (warnings.some((warning) => warning.code === "future-date")) {
      return failed(
        "future-date",
        "This date is still to come. A record is dated when it was done.",
      );
    }
    const jump = warnings.find((warning) => warning.code === "large-jump");
    if (jump && !input.confirmed) {
      return failed(
        "look-twice",
        `From ${formatKg(jump.fromKg, input.load.unit, 1)} to ${formatMass(input.load)} is ${formatPercent(100 * jump.share, 0)}. Look twice, then save again to keep it.`,
      );
    }
    const recordId = uuidv7();
    await addRecord(tx, {
      id: recordId,
      athleteId: person.id,
      variantId: variant.id,
      load: input.load,
      date: input.date,
      kind: input.kind,
      note: input.note,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    if (input.use)
      await chooseWorkingMax(tx, {
        id: uuidv7(),
        athleteId: person.id,
        variantId: variant.id,
        recordId,
        factor: null,
        chosenBy: principal.name,
        chosenAt: now(),
      });
    return done({ recordId });
  });
}

/** Chooses the record that percentages stand on. */
export function chooseMax(
  principal: Principal,
  input: { athleteId: string; variantId: string; recordId: string; factor: number | undefined },
): Promise<Outcome<null>> {
  return inTeamOnce(principal, async (tx) => {
    const record = (await recordsOf(tx, input.athleteId)).find(
      (one) => one.id === input.recordId && one.variantId === input.variantId,
    );
    if (!record) return failed("no-record", GONE);
    await chooseWorkingMax(tx, {
      id: uuidv7(),
      athleteId: input.athleteId,
      variantId: input.variantId,
      recordId: record.id,
      factor: input.factor ?? null,
      chosenBy: principal.name,
      chosenAt: now(),
    });
    return done(null);
  });
}
