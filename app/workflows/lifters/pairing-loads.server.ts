import type { LoadingGear } from "../../../core/barload/loading-gear";
import type { Complex } from "../../../core/contrast/complex";
import { type ItemNumber, itemNumber } from "../../../core/contrast/item-load";
import { TRUSTED_TRAINING_YEARS } from "../../../core/maxes/records";
import type { BasisFacts } from "../../../core/recipe/basis";
import { type MassUnit, massKg } from "../../../core/units/mass";
import { racksOf } from "../../../db/queries/gear.server";
import { listVariants, singlesOf, type VariantRow } from "../../../db/queries/maxes.server";
import { newestMasses } from "../../../db/queries/person.server";
import { profileTests } from "../../../db/queries/profiles.server";
import { listAthletes, listSquads } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { analyseTest } from "./analyse-test.server";
import { trainingYears } from "./plan-athletes.server";
import { readMaxes } from "./resolve-maxes.server";
import { readPlaces } from "./today.server";

/** One athlete's part of it. */
export interface PairingFacts {
  factsOf: (lift: string | undefined) => BasisFacts;
  gear: LoadingGear | undefined;
  trainingYears: number | undefined;
  person: { unit: MassUnit | null };
}

/** Bases that read a profile test. */
const FROM_A_TEST = ["peak-power", "peak-force", "speed"];

/**
 * What a squad brings to some complexes: each one's bases by lift, and the bar of the room that
 * the squad trains in.
 */
export async function pairingFacts(
  tx: TeamTransaction,
  squadId: string,
  complexes: readonly Complex[],
  /** One athlete of it alone. */
  athleteId?: string,
) {
  const people = (await listAthletes(tx, squadId)).filter(
    (one) => athleteId === undefined || one.id === athleteId,
  );
  const squad = (await listSquads(tx)).find((one) => one.id === squadId);
  // As in a plan, the room's first rack stands for all.
  const gear = squad?.roomId ? (await racksOf(tx, squad.roomId))[0]?.gear : undefined;
  const ids = people.map((one) => one.id);
  const places = await readPlaces(tx);
  const days = new Map(people.map((one) => [one.id, places.todayOf(one)]));
  const todayOf = (id: string) => days.get(id) ?? places.today;
  const variants = await listVariants(tx);
  const maxes = await readMaxes(tx, todayOf, ids);
  const masses = new Map((await newestMasses(tx, ids)).map((one) => [one.athleteId, one.mass]));
  const wantsTest = complexes.some((complex) =>
    complex.items.some((item) => FROM_A_TEST.includes(item.load.by)),
  );
  const tests = wantsTest ? await profileTests(tx, { athleteIds: ids }) : [];
  const singles = wantsTest ? await singlesOf(tx) : [];
  const squat = mainVariant(variants, "squat");
  return people.map((person) => {
    const own = maxes(person.id);
    const mass = masses.get(person.id);
    const bodyKg = mass && massKg(mass);
    const maxOf = (variant: VariantRow | undefined) => {
      const found = variant && own.of(variant.id);
      return found && "max" in found ? found.max.kg : undefined;
    };
    const squatKg = maxOf(squat);
    const factsOf = (lift: string | undefined): BasisFacts => {
      const variant = lift === undefined ? undefined : mainVariant(variants, lift);
      const test = tests.find(
        (one) => one.athleteId === person.id && one.variantId === variant?.id,
      );
      const tested =
        test && variant
          ? analyseTest(
              test,
              variant,
              singles.filter((one) => one.athleteId === person.id),
            )
          : undefined;
      return {
        maxKg: maxOf(variant),
        line: tested?.result.ok ? tested.result.line : undefined,
        peakForceMps: tested?.power?.peakForce?.velocityMps,
        peakPowerKg: tested?.power?.peakPower.loadKg,
        bodyKg,
      };
    };
    return {
      person,
      gear,
      today: todayOf(person.id),
      squatPerBody: squatKg !== undefined && bodyKg !== undefined ? squatKg / bodyKg : undefined,
      trainingYears: trainingYears(person.trainingSince, todayOf(person.id)),
      factsOf,
    };
  });
}

/** The variant that stands for a lift: one with a max of its own, the plain bar first. */
function mainVariant(variants: readonly VariantRow[], lift: string): VariantRow | undefined {
  const of = variants.filter((one) => one.lift === lift);
  return of.find((one) => one.baseKind === "own") ?? of[0];
}

/** The loads of a complex's items for one athlete in a week of its block, on the room's bar. */
export function loadsOf(complex: Complex, week: number, one: PairingFacts): ItemNumber[] {
  return complex.items.map((item) =>
    itemNumber({
      complex,
      item,
      week,
      facts: one.factsOf(item.of),
      gear: one.gear,
      mode:
        (one.trainingYears ?? TRUSTED_TRAINING_YEARS) < TRUSTED_TRAINING_YEARS ? "down" : "nearest",
      unit: one.person.unit ?? "kg",
    }),
  );
}
