import { isFirstTime } from "../maxes/records";
import { atLift, basisFacts, type Lifter } from "../prescribe/lifter";
import { isPeakOpen } from "../prescribe/own-words";
import { loadOfSet } from "../prescribe/prescribe";
import { riggingOf } from "../prescribe/rigging";
import { BASIS_REFUSALS, type BasisFacts, basisLoad, type LoadBasis } from "../recipe/basis";
import type { WaveSet, WaveWeek } from "../recipe/recipe";
import { type Block, overrideKey, type Slot, slotWeek } from "./block";
import { type BlockRoom, rackFor, variantIn } from "./block-loads";
import { exerciseLoad, inHands } from "./exercise-load";

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
  if (slot.work.kind === "exercise") return heaviestHeld(input);
  const asked = distinctSets(block, slot, room);
  const owners = new Set(Object.keys(block.overrides).map((key) => key.split("/")[0]));
  const found: Record<string, HeaviestSet> = {};
  const byBasis = heaviestOfEach(asked);
  for (const athlete of input.athletes) {
    let heaviest: { week: WaveWeek; set: WaveSet; kg: number; variantId: string } | undefined;
    let none: { week: number; reason: string } | undefined;
    // Loads of their own may be anywhere; else only the heaviest ask of each kind is looked at.
    const withOwn = owners.has(athlete.id);
    const known = new Map<string, BasisFacts>();
    for (const { week, set, variantId } of withOwn ? asked : byBasis) {
      const own = withOwn
        ? block.overrides[overrideKey(athlete.id, slotId, set.key)]?.loadKg
        : undefined;
      let facts = known.get(variantId);
      if (!facts) {
        facts = basisFacts(atLift(athlete, variantId), variantId, room.metric);
        known.set(variantId, facts);
      }
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

/** The same of an exercise: by what is held, or by body mass. */
function heaviestHeld(input: Parameters<typeof heaviestSets>[0]): Record<string, HeaviestSet> {
  const { block, slot, room } = input;
  const weeks = Array.from({ length: block.weeks }, (_, i) => i + 1).flatMap((number) => {
    const week = slotWeek(block, slot, number, room.settings);
    const held = inHands(block, slot, number, room);
    return (week?.sets ?? []).map((set) => ({ number, set, held }));
  });
  const seen = new Set<string>();
  const asked = weeks.filter(({ set, held }) => {
    const key = `${JSON.stringify(set.basis)}/${set.factor}/${held?.kind}`;
    return !seen.has(key) && seen.add(key);
  });
  return Object.fromEntries(
    input.athletes.flatMap((athlete): Array<[string, HeaviestSet]> => {
      let found: HeaviestSet | undefined;
      for (const { number, set, held } of asked) {
        const load = exerciseLoad(set, athlete.bodyKg, held);
        if (load.kg === undefined && load.reason === undefined) continue;
        const reason = found?.reason ?? load.reason;
        const heavier = load.kg !== undefined && load.kg > (found?.kg ?? 0);
        found = {
          week: heavier || !found ? number : found.week,
          kg: heavier ? load.kg : found?.kg,
          percent: undefined,
          reason,
          overBestKg: undefined,
          peakOpen: false,
        };
      }
      return found ? [[athlete.id, found]] : [];
    }),
  );
}

type Asked = { week: WaveWeek; set: WaveSet; variantId: string };

/**
 * Of asks that differ in their number alone, the one that is the heaviest for everybody: more of a
 * percentage or of kilograms, less speed, fewer reps in reserve, a greater factor.
 */
function heaviestOfEach(asked: readonly Asked[]): Asked[] {
  const best = new Map<string, Asked>();
  for (const one of asked) {
    const { basis, factor, reps } = one.set;
    // A factor moves what a line or kilograms come to in another way than a number does.
    const key = `${basis.by}/${one.variantId}/${basis.by === "reserve" ? reps : ""}/${factor}`;
    const before = best.get(key);
    if (!before || heavierThan(basis, before.set.basis)) best.set(key, one);
  }
  return [...best.values()];
}

function heavierThan(a: LoadBasis, b: LoadBasis): boolean {
  if ("percent" in a && "percent" in b) return a.percent > b.percent;
  if (a.by === "speed" && b.by === "speed") return a.mps < b.mps;
  if (a.by === "peak-force" && b.by === "peak-force") return a.slowerMps > b.slowerMps;
  if (a.by === "reserve" && b.by === "reserve") return a.reserve < b.reserve;
  if (a.by === "found" && b.by === "found") return a.plusKg > b.plusKg;
  if (a.by === "fixed" && b.by === "fixed") return a.kg > b.kg;
  return false;
}

/** The sets of a slot that differ in what they ask, with those that somebody has an own load for. */
function distinctSets(block: Block, slot: Slot, room: BlockRoom): Asked[] {
  const seen = new Set<string>();
  const written = new Set(
    Object.keys(block.overrides).map((key) => key.split("/").slice(2).join("/")),
  );
  return Array.from({ length: block.weeks }, (_, i) => i + 1).flatMap((number) => {
    const week = slotWeek(block, slot, number, room.settings);
    const variantId = week && variantIn(slot, week);
    if (!week || variantId === undefined) return [];
    return week.sets.flatMap((set) => {
      const key = `${JSON.stringify(set.basis)}/${set.factor}/${set.reps}/${variantId}`;
      const again = seen.has(key) && !written.has(set.key);
      seen.add(key);
      return again ? [] : [{ week, set, variantId }];
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
