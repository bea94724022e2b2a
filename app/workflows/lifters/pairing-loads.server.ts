import type { LoadingGear } from "../../../core/barload/loading-gear";
import type { Complex } from "../../../core/contrast/complex";
import { type ItemNumber, itemNumber } from "../../../core/contrast/item-load";
import { TRUSTED_TRAINING_YEARS } from "../../../core/maxes/records";
import { atLift, basisFacts, type Lifter } from "../../../core/prescribe/lifter";
import type { BasisFacts } from "../../../core/recipe/basis";
import type { LocalDate } from "../../../core/units/time";
import { racksOf } from "../../../db/queries/gear.server";
import { listVariants } from "../../../db/queries/maxes.server";
import { type Group, listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { mainVariant } from "./plan-lifters.server";
import { readLifters } from "./read-lifters.server";
import { readPlaces } from "./today.server";

/** One athlete with what the items of a pairing are loaded from. */
export interface PairingLifter {
  lifter: Lifter;
  today: LocalDate;
  /** The bar of the room that the squad trains in: its first rack stands for all, as in a plan. */
  gear: LoadingGear | undefined;
  squatPerBody: number | undefined;
  /** By the lift that an item names; its main variant stands for it. */
  factsOf: (lift: string | undefined) => BasisFacts;
}

/** What a squad, or one athlete of it, brings to some complexes. */
export async function pairingLifters(
  tx: TeamTransaction,
  group: Group | undefined,
  complexes: readonly Complex[],
  athleteId?: string,
): Promise<PairingLifter[]> {
  if (!group) return [];
  const [squad, places, variants] = await Promise.all([
    listAthletes(tx, group),
    readPlaces(tx),
    listVariants(tx),
  ]);
  const alone = squad.find((one) => one.id === group.athleteId);
  const roomId = places.roomOf(alone ?? { squadId: group.squadId, roomId: null })?.id;
  const gear = roomId ? (await racksOf(tx, roomId))[0]?.gear : undefined;
  const people = squad.filter((one) => athleteId === undefined || one.id === athleteId);
  const days = new Map(people.map((one) => [one.id, places.todayOf(one)]));
  const todayOf = (id: string) => days.get(id) ?? places.today;
  const items = complexes.flatMap((complex) => complex.items);
  const lifts = new Set(["squat", ...items.flatMap((item) => item.of ?? [])]);
  const main = new Map([...lifts].map((lift) => [lift, mainVariant(variants, lift)?.id]));
  const peaked = items.filter(({ load }) => load.by === "peak-power" || load.by === "peak-force");
  const known = (ids: Iterable<string | undefined>) =>
    [...new Set(ids)].filter((id) => id !== undefined);
  const lifters = await readLifters(tx, {
    people,
    todayOf,
    forToday: false,
    variants,
    variantIds: known(main.values()),
    peaksOf: known(peaked.map((item) => main.get(item.of ?? ""))),
  });
  return lifters.map((lifter) => {
    const squatKg = lifter.byVariant[main.get("squat") ?? ""]?.workingMax?.kg;
    return {
      lifter,
      today: todayOf(lifter.id),
      gear,
      squatPerBody:
        squatKg !== undefined && lifter.bodyKg !== undefined ? squatKg / lifter.bodyKg : undefined,
      factsOf: (lift) => {
        const variantId = main.get(lift ?? "") ?? "";
        return basisFacts(atLift(lifter, variantId), variantId, undefined);
      },
    };
  });
}

/** The loads of a complex's items for one athlete in a week of its block, on the room's bar. */
export function loadsOf(complex: Complex, week: number, one: PairingLifter): ItemNumber[] {
  return complex.items.map((item) =>
    itemNumber({
      complex,
      item,
      week,
      facts: one.factsOf(item.of),
      gear: one.gear,
      mode:
        (one.lifter.trainingYears ?? TRUSTED_TRAINING_YEARS) < TRUSTED_TRAINING_YEARS
          ? "down"
          : "nearest",
      unit: one.lifter.unit ?? "kg",
    }),
  );
}
