import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import { READINESS_WORDS, readiness } from "../../../core/profile/readiness";
import { readinessChange } from "../../../core/profile/todays-form";
import type { Mass } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import { addSingle, listVariants, singlesOf, variantById } from "../../../db/queries/maxes.server";
import { addPhysicalResult, physicalTests } from "../../../db/queries/physical.server";
import { addDecision, profileTests } from "../../../db/queries/profiles.server";
import type { ReadinessForm, ResultForm } from "../../forms/athlete";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { analyseTest } from "../lifters/analyse-test.server";
import { FUTURE, isFuture, onAthlete } from "./on-athlete.server";
import { NO_ATHLETE } from "./read-athlete.server";

/** A coach confirms a maximal single with its speed: the own threshold moves towards it. */
export function confirmSingle(
  principal: Principal,
  athleteId: string,
  input: { variantId: string; load: Mass; velocity: number; date: LocalDate },
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered, today) => {
    if (isFuture(today, input.date)) return FUTURE;
    if (!(await variantById(tx, input.variantId))) return NO_ATHLETE;
    const { velocity, ...single } = input;
    await addSingle(tx, {
      id: uuidv7(),
      athleteId: person.id,
      ...single,
      velocityMps: velocity,
      metric: "MCV",
      ...entered,
    });
    return done(null);
  });
}

export function saveResult(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof ResultForm>,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered, today) => {
    if (isFuture(today, input.date)) return FUTURE;
    const test = (await physicalTests(tx)).find((one) => one.id === input.testId);
    if (!test) return NO_ATHLETE;
    if (test.sides && input.side === "") {
      return failed("no-side", `${test.name} is done left and right. Choose the side.`);
    }
    if (input.trials.some((trial) => trial <= 0)) {
      return failed("not-positive", "A trial is over 0.");
    }
    const kept = await addPhysicalResult(tx, {
      id: uuidv7(),
      athleteId: person.id,
      testId: test.id,
      date: input.date,
      side: test.sides ? input.side : "",
      approach: input.approach === "yes",
      loadKg: input.loadKg,
      trials: input.trials,
      splits: input.splits,
      atLeast: input.atLeast === "yes",
      ...entered,
    });
    return kept
      ? done(null)
      : failed("duplicate", `${test.name} of ${input.date} is there already. Nothing was changed.`);
  });
}

/** Writes down what a coach made of today's form. The figures are computed again here. */
export function decideReadiness(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof ReadinessForm>,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered, today) => {
    const [test] = await profileTests(tx, { of: person.id, testId: input.testId });
    const variant = (await listVariants(tx)).find((one) => one.id === test?.variantId);
    if (!test || !variant) return NO_ATHLETE;
    const { result, threshold } = analyseTest(test, variant, await singlesOf(tx, person.id));
    if (!result.ok) return failed("no-line", "This test gives no line any more.");
    const found = readiness({
      profile: test.reps.filter((rep) => rep.excluded === undefined),
      today: input.readings,
      thresholdMps: threshold?.mps,
      targetMps: input.targetMps,
    });
    if (!found.ok) return failed(found.reason, READINESS_WORDS[found.reason]);
    const change = readinessChange({
      plannedKg: input.plannedKg,
      targetLoadKg: found.targetLoad.estimate,
      targetSdKg: found.targetSdKg,
      stepKg: input.stepKg,
    });
    if (input.decision === "decline" && input.reason === "") {
      return failed("no-reason", "Declining takes a reason, in a word or two.");
    }
    if (input.decision === "change" && input.decidedKg === undefined) {
      return failed("no-load", "Write the load to take instead.");
    }
    await addDecision(tx, {
      id: uuidv7(),
      athleteId: person.id,
      testId: test.id,
      date: today,
      readings: input.readings,
      targetMps: input.targetMps,
      plannedKg: input.plannedKg,
      proposedKg: change.loadKg,
      lowKg: found.targetLoad.low,
      highKg: found.targetLoad.high,
      decision: input.decision,
      decidedKg:
        input.decision === "take"
          ? change.loadKg
          : input.decision === "change"
            ? (input.decidedKg ?? input.plannedKg)
            : input.plannedKg,
      reason: input.reason,
      ...entered,
    });
    return done(null);
  });
}
