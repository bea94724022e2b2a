import { uuidv7 } from "uuidv7";
import { GUARDED_NAMES, refusals } from "../../../core/maxes/limits";
import { lifetimeBestKg, TRUSTED_TRAINING_YEARS, trainingYears } from "../../../core/maxes/records";
import { competitionMark, describeMark } from "../../../core/maxes/season";
import { usualPowerBand } from "../../../core/profile/power-band";
import { testSteps } from "../../../core/profile/steps";
import { heightsKnown, wayBetween } from "../../../core/resistance/heights";
import { massKg } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import type { VelocityMetric } from "../../../core/units/velocity";
import { addedMassKg, SYSTEM_MASS_NAMES } from "../../../core/velocity/force";
import { earlierLoads } from "../../../db/queries/earlier.server";
import { racksOf } from "../../../db/queries/gear.server";
import { listVariants, recordsOf, singlesOf } from "../../../db/queries/maxes.server";
import { bodyMasses, competitions, limitsOf, setupsOf } from "../../../db/queries/person.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { addProfile, type NewProfile } from "../../../db/queries/profiles.server";
import { simulatedLifters } from "../../../db/queries/sessions.server";
import { athleteById, listAthletes } from "../../../db/queries/squads.server";
import type { SensorSource } from "../../../device/sources";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { thresholdOf } from "../lifters/analyse-test.server";
import { mayKnowReasons, noteWithReason, wordsFor } from "../lifters/public-words.server";
import { readMaxes } from "../lifters/resolve-maxes.server";
import { readPlaces } from "../lifters/today.server";

/** What a profile test starts from: lift, rack, steps, guards; with an athlete or without. */
export function readProfileBench(
  principal: Principal,
  which: {
    athleteId: string | undefined;
    variantId: string | undefined;
    rackId: string | undefined;
  },
) {
  return inTeam(principal, async (tx) => {
    const places = await readPlaces(tx);
    const people = await listAthletes(tx);
    const variants = await listVariants(tx);
    const person = which.athleteId ? await athleteById(tx, which.athleteId) : undefined;
    const variant =
      variants.find((one) => one.id === which.variantId) ??
      variants.find((one) => one.lift === "bench") ??
      variants[0];
    const room = person ? places.roomOf(person) : places.rooms[0];
    const racks = await racksOf(tx);
    const rack =
      racks.find((one) => one.rackId === which.rackId) ??
      racks.find((one) => one.roomId === room?.id) ??
      racks[0];
    if (!variant || !rack) {
      return failed("no-gear", "A profile test needs a lift in the library and a rack with a bar.");
    }
    const today = person ? places.todayOf(person) : places.today;
    const years = person ? trainingYears(person.trainingSince ?? undefined, today) : undefined;
    const found = person && (await readMaxes(tx, () => today, person.id))(person.id).of(variant.id);
    const max = found && "max" in found ? found.max : undefined;
    const trusted = years === undefined || years >= TRUSTED_TRAINING_YEARS;
    const records = person ? await recordsOf(tx, person.id) : [];
    const earlier = person ? await earlierLoads(tx, person.id) : [];
    const bestKg = lifetimeBestKg(
      records.filter((record) => record.variantId === variant.id),
      earlier.filter((one) => one.variantId === variant.id).map((one) => one.load),
    );
    const newestMass = person ? (await bodyMasses(tx, person.id))[0] : undefined;
    const bodyMassKg = newestMass && massKg(newestMass.mass);
    const singles = person ? await singlesOf(tx, person.id) : [];
    const events = person ? await competitions(tx, person) : [];
    const mark = competitionMark(events, today);
    const limits = person ? await limitsOf(tx, person.id) : [];
    const refused = person
      ? refusals({ limits, birthYear: person.birthYear ?? undefined, lift: variant.lift, today })
      : [];
    const [simulated] = person ? await simulatedLifters(tx, variant.id, [person.id]) : [];
    const sensor: SensorSource | undefined = simulated && {
      kind: "simulated",
      lifter: simulated.truth,
      dayShiftMps: 0,
    };
    const setups = person ? await setupsOf(tx, person.id) : [];
    const setup = setups.find((one) => one.variantId === variant.id);
    const heights = person && heightsKnown(setup, variant.lift, person.statureCm);
    const added = addedMassKg(variant.systemMass, bodyMassKg);
    return done({
      today,
      people: people.map(({ id, name }) => ({ id, name })),
      variants: variants.map(({ id, name }) => ({ id, name })),
      racks: racks.map((one) => ({
        id: one.rackId,
        label: `${places.rooms.find((place) => place.id === one.roomId)?.name}, rack ${one.number}: ${one.gear.bar.name}`,
      })),
      person: person && { id: person.id, name: person.name, unit: person.unit },
      variant: {
        id: variant.id,
        name: variant.name,
        lift: variant.lift,
        start: variant.start,
        caution: variant.caution,
      },
      /** The bar's way in this athlete's lift, m: a film is checked by it. */
      way: heights && wayBetween(heights),
      rack: { id: rack.rackId, gear: rack.gear },
      max: max && { kg: max.kg, working: max.working, stale: max.stale },
      trusted,
      bestKg,
      /** Whole names of what is refused by default, with the instruction; never a reason. */
      refused: refused
        .filter((one) => one.guarded === "max-test" || one.guarded === "heavy-single")
        .map((one) => `${GUARDED_NAMES[one.guarded]}: ${wordsFor(principal, one.because)}`),
      /** Whether this reader may set a refusal aside, with a reason. */
      mayOverride: mayKnowReasons(principal),
      cap: limits.find((limit) => limit.capPercent !== undefined)?.capPercent,
      mark: mark && { words: describeMark(mark), refused: mark.testingRefused },
      steps: testSteps({
        maxKg: trusted ? max?.kg : undefined,
        bestKg,
        bodyMassKg,
        gear: rack.gear,
        rounding: trusted ? "nearest" : "down",
      }),
      band: usualPowerBand(variant.lift, await coachValues(tx)),
      thresholds: (["MCV", "MPV", "PV"] as const).map((metric) => ({
        metric,
        threshold: thresholdOf(variant, metric, singles),
      })),
      system: {
        name: SYSTEM_MASS_NAMES[variant.systemMass],
        addedKg: added ?? 0,
        missing: added === undefined,
      },
      sensor,
    });
  });
}

export interface TestToSave {
  athleteId: string;
  variantId: string;
  date: LocalDate;
  metric: VelocityMetric;
  source: string;
  processing: string;
  addedKg: number;
  note: string;
  /** Written where a guard was overridden: a refusal, a first-time load. */
  override: string;
  reps: Array<{
    loadKg: number;
    velocityMps: number;
    forceN?: number | undefined;
    powerW?: number | undefined;
    excluded?: string | undefined;
  }>;
}

/** Keeps a test with every rep, those left out too. The same test is not kept twice. */
export function saveProfileTest(
  principal: Principal,
  input: TestToSave,
): Promise<Outcome<{ testId: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const person = await athleteById(tx, input.athleteId);
    const variant = (await listVariants(tx)).find((one) => one.id === input.variantId);
    if (!person || !variant) {
      return failed("no-athlete", "This athlete or lift is not in your team any more.");
    }
    const today = (await readPlaces(tx)).todayOf(person);
    if (input.date > today) {
      return failed("future-date", "This date is still to come. A test is dated when it was done.");
    }
    const guards = refusals({
      limits: await limitsOf(tx, person.id),
      birthYear: person.birthYear ?? undefined,
      lift: variant.lift,
      today,
    }).filter((one) => one.guarded === "max-test" || one.guarded === "heavy-single");
    const events = await competitions(tx, person);
    const refusedToday = competitionMark(events, input.date)?.testingRefused === true;
    const refused = guards.length > 0 || refusedToday;
    if (refused && !mayKnowReasons(principal)) {
      return failed(
        "coach-decides",
        "Testing is refused by default for this athlete. Only a coach or the owner sets that aside, with a reason. Nothing was kept.",
      );
    }
    if (refused && input.override.trim() === "") {
      return failed(
        "refused",
        "Testing is refused by default for this athlete. Write why it was done all the same.",
      );
    }
    const at = now();
    const testId = uuidv7();
    const test: NewProfile = {
      id: testId,
      athleteId: person.id,
      variantId: variant.id,
      date: input.date,
      metric: input.metric,
      source: input.source,
      processing: input.processing,
      addedKg: input.addedKg,
      note: noteWithReason(input.note, refused ? input.override.trim() : ""),
      enteredBy: principal.name,
      enteredAt: at,
      reps: input.reps.map(({ excluded, ...rep }) => ({
        id: uuidv7(),
        ...rep,
        ...(excluded === undefined
          ? {}
          : { excludedReason: excluded, excludedBy: principal.name, excludedAt: at }),
      })),
    };
    return (await addProfile(tx, test))
      ? done({ testId })
      : failed("duplicate", "The very same test of this day is kept already. Nothing was added.");
  });
}
