import { lifetimeBestKg, plainMax, trainingYears } from "../../../core/maxes/records";
import type { Lifter, LiftFacts } from "../../../core/prescribe/lifter";
import { heightsKnown } from "../../../core/resistance/heights";
import { type Mass, massKg } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import { foundWeights } from "../../../db/queries/box.server";
import { earlierLoads } from "../../../db/queries/earlier.server";
import { liftedRecords, singlesOf, type VariantRow } from "../../../db/queries/maxes.server";
import { instructionsOn, newestMasses, setupsOf } from "../../../db/queries/person.server";
import { decidedToday, newestProfiles, profileTests } from "../../../db/queries/profiles.server";
import { type listAthletes, readTeam } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { analyseTest } from "./analyse-test.server";
import { readMaxes } from "./resolve-maxes.server";

export type AthleteRow = Awaited<ReturnType<typeof listAthletes>>[number];

/**
 * What some athletes bring to some lifts: the one assembly that plans, cards, papers, sessions
 * and pairings are worked out from. Eleven readings, twelve for today, whatever the number of people, and two more
 * where peaks are asked for.
 */
export async function readLifters(
  tx: TeamTransaction,
  asked: {
    people: readonly AthleteRow[];
    /** The day where an athlete trains: squads of two rooms may be in two zones. */
    todayOf: (athleteId: string) => LocalDate;
    /** The team's lifts. */
    variants: readonly VariantRow[];
    /** The lifts asked for. */
    variantIds: readonly string[];
    /** Those of them whose peak force and power a basis asks for: whole tests are read. */
    peaksOf: readonly string[];
    /** What was decided on today's form counts: for a session that starts, and today's card. */
    forToday: boolean;
  },
): Promise<Lifter[]> {
  const { people, todayOf, variants, variantIds } = asked;
  const of = people.map((one) => one.id);
  const [
    maxes,
    instructions,
    profiles,
    masses,
    setups,
    founds,
    lifted,
    earlier,
    team,
    decided,
    peaks,
  ] = await Promise.all([
    readMaxes(tx, todayOf, of, variantIds, variants),
    instructionsOn(tx, todayOf, of),
    newestProfiles(tx, { of, variantIds }),
    newestMasses(tx, of),
    setupsOf(tx, of),
    foundWeights(tx, of),
    liftedRecords(tx, of, variantIds),
    earlierLoads(tx, of),
    readTeam(tx),
    asked.forToday ? decidedToday(tx, { of, todayOf }) : [],
    readPeaks(tx, of, variants, asked.peaksOf),
  ]);
  const profileOf = new Map(profiles.map((one) => [`${one.athleteId}/${one.variantId}`, one]));
  const massOf = new Map(masses.map((one) => [one.athleteId, one.mass]));
  const setupOf = new Map(setups.map((one) => [`${one.athleteId}/${one.variantId}`, one]));
  const foundOf = new Map(founds.map((one) => [`${one.athleteId}/${one.variantId}`, one]));
  const decidedOf = new Map(decided.map((one) => [`${one.athleteId}/${one.variantId}`, one]));
  const earlierOf = new Map(
    earlier.map((one): [string, Mass[]] => [`${one.athleteId}/${one.variantId}`, [one.load]]),
  );
  const liftedOf = new Map<string, typeof lifted>();
  for (const one of lifted) {
    const key = `${one.athleteId}/${one.variantId}`;
    liftedOf.set(key, [...(liftedOf.get(key) ?? []), one]);
  }
  const liftOf = new Map(variants.map((one) => [one.id, one.lift]));
  return people.map((person) => {
    const known = maxes(person.id);
    const mass = massOf.get(person.id);
    return {
      id: person.id,
      name: person.name,
      unit: person.unit ?? team?.unit ?? "kg",
      instructions: instructions.get(person.id) ?? [],
      trainingYears: trainingYears(person.trainingSince ?? undefined, todayOf(person.id)),
      bodyKg: mass && massKg(mass),
      byVariant: Object.fromEntries(
        variantIds.map((variantId): [string, LiftFacts] => {
          const key = `${person.id}/${variantId}`;
          const resolved = known.of(variantId);
          const profile = profileOf.get(key);
          const found = foundOf.get(key);
          const form = decidedOf.get(key);
          return [
            variantId,
            {
              workingMax: "max" in resolved ? plainMax(resolved.max) : undefined,
              profile: profile && {
                line: profile.line,
                variantId,
                testedOn: profile.testedOn,
                source: profile.source,
              },
              profileReps: profile?.points ?? [],
              peakForceMps: peaks.get(key)?.peakForceMps,
              peakPowerKg: peaks.get(key)?.peakPowerKg,
              peakForceReached: peaks.get(key)?.peakForceReached,
              peakPowerReached: peaks.get(key)?.peakPowerReached,
              lifetimeBestKg: lifetimeBestKg(liftedOf.get(key) ?? [], earlierOf.get(key)),
              today:
                form && form.plannedKg > 0 && form.decidedKg !== form.plannedKg
                  ? { share: form.decidedKg / form.plannedKg, by: form.by }
                  : undefined,
              found: found && { kg: massKg(found.load), on: found.date },
              heights: heightsKnown(setupOf.get(key), liftOf.get(variantId), person.statureCm),
            },
          ];
        }),
      ),
    };
  });
}

type Peaks = Pick<
  LiftFacts,
  "peakForceMps" | "peakPowerKg" | "peakForceReached" | "peakPowerReached"
>;

/** Peak force and power of the newest test that has them, by "athlete id/variant id". */
async function readPeaks(
  tx: TeamTransaction,
  of: readonly string[],
  variants: readonly VariantRow[],
  variantIds: readonly string[],
) {
  const peaks = new Map<string, Peaks>();
  if (variantIds.length === 0) return peaks;
  const singles = await singlesOf(tx, of);
  for (const test of await profileTests(tx, { of, variantIds })) {
    const key = `${test.athleteId}/${test.variantId}`;
    const variant = variants.find((one) => one.id === test.variantId);
    if (!variant || peaks.has(key)) continue;
    const { power } = analyseTest(
      test,
      variant,
      singles.filter((one) => one.athleteId === test.athleteId),
    );
    if (!power) continue;
    peaks.set(key, {
      peakForceMps: power.peakForce?.velocityMps,
      peakPowerKg: power.peakPower.loadKg,
      peakForceReached: power.peakForce?.reached,
      peakPowerReached: power.peakPower.reached,
    });
  }
  return peaks;
}
