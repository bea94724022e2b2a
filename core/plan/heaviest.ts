import { isFirstTime } from "../maxes/records";
import { atLift, basisFacts, type Lifter } from "../prescribe/lifter";
import { isPeakOpen } from "../prescribe/own-words";
import { loadOfSet } from "../prescribe/prescribe";
import { riggingOf } from "../prescribe/rigging";
import { BASIS_REFUSALS, basisLoad } from "../recipe/basis";
import type { WaveSet, WaveWeek } from "../recipe/recipe";
import { type Block, overrideKey, type Slot, slotWeek } from "./block";
import { type BlockRoom, rackFor, variantIn } from "./block-loads";

/** The heaviest set that a slot asks of one athlete, or why a set of it has no load. */
export interface HeaviestSet {
  /** Of the set with that load; of the first set without one where none has. */
  week: number;
  kg: number | undefined;
  /** Asked of the bar before rounding, with the mean of what hangs on it, of the working max, %. */
  percent: number | undefined;
  /** Why the first set without a load has none. */
  reason: string | undefined;
  /** The best ever lifted, where the load is over it, kg. */
  overBestKg: number | undefined;
  /** The basis stands on a peak that the test did not reach. */
  peakOpen: boolean;
}

/**
 * By athlete, the heaviest set of a lift's slot over the whole block, of any basis: what the
 * guards on maxes, limits and lifetime bests look at. Sets are compared before rounding, and only
 * the heaviest is built; loads a coach wrote by hand are all looked at.
 */
export function heaviestSets(input: {
  block: Block;
  slotId: string;
  slot: Slot;
  athletes: readonly Lifter[];
  room: BlockRoom;
  liftName: string;
}): Record<string, HeaviestSet> {
  const { block, slotId, slot, room } = input;
  const asked = distinctSets(block, slot, room);
  const found: Record<string, HeaviestSet> = {};
  for (const athlete of input.athletes) {
    let heaviest: { week: WaveWeek; set: WaveSet; kg: number; variantId: string } | undefined;
    let none: { week: number; reason: string } | undefined;
    for (const { week, set } of asked) {
      const variantId = variantIn(slot, week);
      if (variantId === undefined) continue;
      const own = block.overrides[overrideKey(athlete.id, slotId, set.key)]?.loadKg;
      const facts = basisFacts(atLift(athlete, variantId), variantId, room.metric);
      const load = basisLoad(set.basis, facts, set.reps);
      const kg = own ?? (load.ok && set.factor !== undefined ? load.kg * set.factor : undefined);
      if (kg === undefined) {
        // By eye there is none on purpose; an unset deload is said for the whole plan.
        if (!load.ok && load.reason !== "by-eye")
          none ??= { week: week.number, reason: BASIS_REFUSALS[load.reason] };
        continue;
      }
      if (!heaviest || kg > heaviest.kg) heaviest = { week, set, kg, variantId };
    }
    if (heaviest) {
      const built = builtHeaviest(input, athlete, heaviest);
      found[athlete.id] = { ...built, reason: built.reason ?? none?.reason };
    } else if (none) {
      found[athlete.id] = {
        week: none.week,
        kg: undefined,
        percent: undefined,
        reason: none.reason,
        overBestKg: undefined,
        peakOpen: false,
      };
    }
  }
  return found;
}

/** The sets of a slot that differ in what they ask, with those that somebody has an own load for. */
function distinctSets(block: Block, slot: Slot, room: BlockRoom) {
  const seen = new Set<string>();
  const written = new Set(
    Object.keys(block.overrides).map((key) => key.split("/").slice(2).join("/")),
  );
  return Array.from({ length: block.weeks }, (_, i) => i + 1).flatMap((number) => {
    const week = slotWeek(block, slot, number, room.settings);
    return (week?.sets ?? []).flatMap((set) => {
      const key = `${JSON.stringify(set.basis)}/${set.factor}/${set.reps}/${week?.method?.variantId}`;
      const again = seen.has(key) && !written.has(set.key);
      seen.add(key);
      return again || !week ? [] : [{ week, set }];
    });
  });
}

function builtHeaviest(
  input: Parameters<typeof heaviestSets>[0],
  athlete: Lifter,
  at: { week: WaveWeek; set: WaveSet; variantId: string },
): HeaviestSet {
  const { block, slotId, slot, room } = input;
  const lift = atLift(athlete, at.variantId);
  const facts = basisFacts(lift, at.variantId, room.metric);
  const none = {
    week: at.week.number,
    kg: undefined,
    percent: undefined,
    overBestKg: undefined,
    peakOpen: false,
  };
  const rack = rackFor(room, at.variantId);
  if (!rack.ok) return { ...none, reason: undefined };
  const rigging = riggingOf({
    recipe: slot.recipe,
    week: at.week,
    facts,
    heights: lift.heights,
    stock: rack.hang,
    gear: rack.gear,
  });
  const load = loadOfSet({
    set: at.set,
    facts,
    gear: rack.gear,
    mode: room.rounding,
    unit: room.unit,
    overrideKg: block.overrides[overrideKey(athlete.id, slotId, at.set.key)]?.loadKg,
    rigging,
    variantName: input.liftName,
  });
  if (!load.ok) return { ...none, reason: load.reason };
  const kg = load.loading.totalKg;
  const counted = load.loading.askedKg + (rigging.kind === "rigged" ? rigging.rig.meanKg : 0);
  return {
    week: at.week.number,
    kg,
    percent: facts.maxKg === undefined ? undefined : (100 * counted) / facts.maxKg,
    reason: undefined,
    overBestKg: isFirstTime(kg, lift.lifetimeBestKg) ? lift.lifetimeBestKg : undefined,
    peakOpen: isPeakOpen(slot.recipe.basis, lift),
  };
}
