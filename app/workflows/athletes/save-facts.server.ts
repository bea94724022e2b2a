import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import type { Guarded, ReasonKind } from "../../../core/maxes/limits";
import { readiness, readinessChange } from "../../../core/profile/readiness";
import type { Mass } from "../../../core/units/mass";
import { daysBetween } from "../../../core/units/time";
import { addSingle, listVariants, singlesOf, variantById } from "../../../db/queries/maxes.server";
import {
  addAthlete,
  addCompetition,
  addLimit,
  keepBodyMass,
  keepDayNote,
  keepSetup,
  liftLimit,
  limitsOf,
  readReasons,
  removeCompetition,
  updateAthlete,
} from "../../../db/queries/person.server";
import { addPhysicalResult, physicalTests } from "../../../db/queries/physical.server";
import { addDecision, profileTests } from "../../../db/queries/profiles.server";
import { athleteById } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import type {
  FactsForm,
  LimitForm,
  QuickForm,
  ReadinessForm,
  ResultForm,
  SetupForm,
} from "../../forms/athlete";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import { mayWrite, type Principal } from "../../platform/rights";
import { analyseTest } from "./analyse-test.server";
import { NO_ATHLETE } from "./read-athlete.server";
import { readPlaces } from "./today.server";

const FUTURE = failed("future-date", "This date is still to come. Enter it when it was done.");

type Person = NonNullable<Awaited<ReturnType<typeof athleteById>>>;

/** One change of one athlete, by one person, in one transaction. */
function onAthlete<T>(
  principal: Principal,
  athleteId: string,
  work: (
    tx: TeamTransaction,
    person: Person,
    entered: { enteredBy: string; enteredAt: Date },
    today: string,
  ) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  return inTeam(principal, async (tx) => {
    const person = await athleteById(tx, athleteId);
    if (!person) return NO_ATHLETE;
    const today = (await readPlaces(tx)).todayOf(person);
    return work(tx, person, { enteredBy: principal.name, enteredAt: now() }, today);
  });
}

const isFuture = (today: string, date: string) => daysBetween(today, date) > 0;

export function addPerson(
  principal: Principal,
  facts: z.output<typeof FactsForm>,
): Promise<Outcome<{ athleteId: string }>> {
  return inTeam(principal, async (tx) => {
    const { squads } = await readPlaces(tx);
    if (!squads.some((squad) => squad.id === facts.squadId)) {
      return failed("no-squad", "This squad is not in your team any more.");
    }
    const athleteId = uuidv7();
    await addAthlete(tx, { id: athleteId, ...facts });
    return done({ athleteId });
  });
}

export function saveFacts(
  principal: Principal,
  athleteId: string,
  facts: z.output<typeof FactsForm>,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, _, today) => {
    if (facts.trainingSince && isFuture(today, facts.trainingSince)) return FUTURE;
    await updateAthlete(tx, person.id, facts);
    return done(null);
  });
}

/** A quick field of the squad table. */
export function saveQuick(
  principal: Principal,
  quick: z.output<typeof QuickForm>,
): Promise<Outcome<null>> {
  return onAthlete(principal, quick.athleteId, async (tx, person, entered, today) => {
    if (quick.field === "bodyMass") {
      await keepBodyMass(tx, {
        id: uuidv7(),
        athleteId: person.id,
        date: today,
        mass: quick.value,
        ...entered,
      });
    } else await updateAthlete(tx, person.id, { [quick.field]: quick.value });
    return done(null);
  });
}

export function saveBodyMass(
  principal: Principal,
  athleteId: string,
  input: { mass: Mass; date: string },
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered, today) => {
    if (isFuture(today, input.date)) return FUTURE;
    await keepBodyMass(tx, { id: uuidv7(), athleteId: person.id, ...input, ...entered });
    return done(null);
  });
}

export function saveCompetition(
  principal: Principal,
  athleteId: string,
  input: { name: string; date: string },
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered) => {
    await addCompetition(tx, { id: uuidv7(), athleteId: person.id, ...input, ...entered });
    return done(null);
  });
}

export function dropCompetition(
  principal: Principal,
  athleteId: string,
  id: string,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx) => {
    await removeCompetition(tx, id);
    return done(null);
  });
}

export function saveLimit(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof LimitForm>,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered) => {
    const { reasonKind, reason, guardianConsent, refuses, until, capPercent, ...limit } = input;
    await addLimit(
      tx,
      {
        id: uuidv7(),
        athleteId: person.id,
        ...limit,
        refuses: refuses as Guarded[],
        capPercent: capPercent ?? null,
        until: until ?? null,
        ...entered,
      },
      reasonKind || reason
        ? {
            id: uuidv7(),
            kind: (reasonKind ?? "other") as ReasonKind,
            reason,
            guardianConsent: guardianConsent === "yes",
            ...entered,
          }
        : undefined,
    );
    return done(null);
  });
}

export function endLimit(
  principal: Principal,
  athleteId: string,
  limitId: string,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, _, today) => {
    const own = (await limitsOf(tx, person.id)).some((limit) => limit.id === limitId);
    const lifted = own && (await liftLimit(tx, limitId, { on: today, by: principal.name }));
    return lifted ? done(null) : failed("no-limit", "This limit was lifted already.");
  });
}

export interface ShownReason {
  limitId: string;
  kind: ReasonKind;
  reason: string;
  guardianConsent: boolean;
  by: string;
}

/**
 * The reasons of an athlete's limits: for owner and coaches, and for that athlete. Each reading
 * is recorded with the reader's name.
 */
export function showReasons(
  principal: Principal,
  athleteId: string,
): Promise<Outcome<ShownReason[]>> {
  const own = principal.kind === "person" && principal.athleteId === athleteId;
  if (!own && !mayWrite(principal, "/athletes/:athleteId")) {
    return Promise.resolve(
      failed("not-yours", "Reasons are shown to the owner, the coaches and the athlete."),
    );
  }
  return onAthlete(principal, athleteId, async (tx, person) => {
    const limits = await limitsOf(tx, person.id);
    const rows = await readReasons(
      tx,
      limits.map((limit) => limit.id),
      { by: principal.name, at: now() },
    );
    return done(
      rows.map((row) => ({
        limitId: row.limitId,
        kind: row.kind,
        reason: row.reason,
        guardianConsent: row.guardianConsent,
        by: row.enteredBy,
      })),
    );
  });
}

export function saveDayNote(
  principal: Principal,
  athleteId: string,
  input: {
    date: string;
    sleepH: number | undefined;
    eating: number | undefined;
    soreness: number | undefined;
  },
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered, today) => {
    if (isFuture(today, input.date)) return FUTURE;
    await keepDayNote(tx, {
      id: uuidv7(),
      athleteId: person.id,
      date: input.date,
      sleepH: input.sleepH ?? null,
      eating: input.eating ?? null,
      soreness: input.soreness ?? null,
      ...entered,
    });
    return done(null);
  });
}

export function saveSetup(
  principal: Principal,
  athleteId: string,
  input: z.output<typeof SetupForm>,
): Promise<Outcome<null>> {
  return onAthlete(principal, athleteId, async (tx, person, entered) => {
    if (!(await variantById(tx, input.variantId))) return NO_ATHLETE;
    await keepSetup(tx, {
      id: uuidv7(),
      athleteId: person.id,
      ...input,
      startHeightCm: input.startHeightCm ?? null,
      bottomM: input.bottomM ?? null,
      lockoutM: input.lockoutM ?? null,
      boxSeatCm: input.boxSeatCm ?? null,
      boxCreaseCm: input.boxCreaseCm ?? null,
      ...entered,
    });
    return done(null);
  });
}

/** A coach confirms a maximal single with its speed: the own threshold moves towards it. */
export function confirmSingle(
  principal: Principal,
  athleteId: string,
  input: { variantId: string; load: Mass; velocity: number; date: string },
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
    const [test] = await profileTests(tx, { athleteId: person.id, testId: input.testId });
    const variant = (await listVariants(tx)).find((one) => one.id === test?.variantId);
    if (!test || !variant) return NO_ATHLETE;
    const { result, threshold } = analyseTest(test, variant, await singlesOf(tx, person.id));
    if (!result.ok) return failed("no-line", "This test gives no line any more.");
    const found = readiness({
      fit: result.fit,
      today: input.readings,
      thresholdMps: threshold?.mps ?? 0.2,
      targetMps: input.targetMps,
    });
    if (!found.ok) return failed(found.reason, "Today's form cannot be judged from these speeds.");
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
