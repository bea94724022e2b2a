import type { Muscle } from "../exercise/exercise";
import type { SpeedClass } from "../exercise/speed-classes";
import { percentOf, type RecipeSettings, type WaveSet } from "../recipe/recipe";
import { type Block, daysOf, exerciseIn, type Slot, slotsOf, slotWeek } from "./block";

/** What a slot is about, by name, and whether it counts as fast work. */
export interface WorkFacts {
  name: string;
  speedClass: SpeedClass;
  muscles: readonly Muscle[];
}

export interface LiftSum {
  name: string;
  sets: number;
  reps: number;
  /** Mean percentage of the working max, weighted by reps; undefined where no load is one. */
  meanPercent: number | undefined;
  /** Of one athlete, where loads are given; hands counted. */
  tonnageKg: number | undefined;
}

export interface WeekSum {
  week: number;
  lifts: LiftSum[];
  sets: number;
  reps: number;
  fastSets: number;
  slowSets: number;
  /** Sets for strength and growth, and of a heavy slot from 80 %: the others tire less. */
  hardSets: number;
  /** Mean percentage of the working max over all lifts, weighted by reps; undefined without any. */
  meanPercent: number | undefined;
  /** Doses of qualities that are kept up. */
  sprintMetres: number;
  jumpContacts: number;
  /** Hard sets by main muscle; speed sets apart. */
  muscles: Array<{ muscle: Muscle; hard: number; speed: number }>;
}

/** Work is fast by what it aims at: speed and power are, strength, growth and learning are not. */
export function isFast(slot: Pick<Slot, "recipe">): boolean {
  return slot.recipe.aim === "speed" || slot.recipe.aim === "power";
}

/** Of a heavy slot a set is hard from this share of the max on, % (DOMAIN 8). */
export const HARD_FROM_PERCENT = 80;

/** A hard set has the aim strength or growth, or is one of a heavy slot from 80 %. */
export function isHardSet(slot: Pick<Slot, "recipe">, set: WaveSet): boolean {
  const { aim, top } = slot.recipe;
  if (top) return (percentOf(set) ?? 0) >= HARD_FROM_PERCENT;
  return aim === "strength" || aim === "growth";
}

/**
 * Sets, reps, mean percentage and tonnage per lift of one week, fast against slow work, doses and
 * sets per muscle. Rounds of a group multiply nothing: sets are counted as they stand.
 * @param loadKg load of a set for one athlete; without it there is no tonnage
 */
export function weekSum(input: {
  block: Block;
  week: number;
  settings: RecipeSettings;
  workOf: (slot: Slot, exerciseId: string | undefined) => WorkFacts | undefined;
  loadKg?: (slotId: string, set: WaveSet) => number | undefined;
}): WeekSum {
  const { block, week, settings, workOf, loadKg } = input;
  const lifts = new Map<
    string,
    {
      sets: number;
      reps: number;
      weighted: number;
      ofPercent: number;
      tonnage: number;
      loaded: boolean;
    }
  >();
  const muscles = new Map<Muscle, { hard: number; speed: number }>();
  const sum: WeekSum = {
    week,
    lifts: [],
    sets: 0,
    reps: 0,
    fastSets: 0,
    slowSets: 0,
    hardSets: 0,
    meanPercent: undefined,
    sprintMetres: 0,
    jumpContacts: 0,
    muscles: [],
  };
  for (const day of daysOf(block)) {
    for (const slot of slotsOf(block, day.id)) {
      const found = slotWeek(block, slot, week, settings);
      if (!found) continue;
      const work = workOf(slot, exerciseIn(block, slot, week));
      const fast = isFast(slot);
      const hands = slot.work.kind === "exercise" ? slot.work.hands : 1;
      const name = work?.name ?? slot.recipe.name;
      const sides = slot.recipe.sides === "left-right" ? 2 : 1;
      for (const set of found.sets) {
        const { counts } = slot.recipe;
        if (counts === "metres") {
          sum.sprintMetres += set.reps;
          continue;
        }
        if (counts === "contacts") sum.jumpContacts += set.reps * sides;
        const lift = lifts.get(name) ?? {
          sets: 0,
          reps: 0,
          weighted: 0,
          ofPercent: 0,
          tonnage: 0,
          loaded: false,
        };
        lift.sets++;
        lift.reps += set.reps * sides;
        // A deload without the coach's factor has no load, and counts in no mean.
        const percent = set.factor === undefined ? undefined : percentOf(set);
        if (percent !== undefined) {
          lift.weighted += percent * set.reps;
          lift.ofPercent += set.reps;
        }
        const kg = loadKg?.(slot.id, set);
        if (kg !== undefined) {
          lift.tonnage += kg * set.reps * hands * sides;
          lift.loaded = true;
        }
        lifts.set(name, lift);
        sum.sets++;
        sum.reps += set.reps * sides;
        if (fast) sum.fastSets++;
        else sum.slowSets++;
        const hard = isHardSet(slot, set);
        if (hard) sum.hardSets++;
        for (const muscle of work?.muscles ?? []) {
          const row = muscles.get(muscle) ?? { hard: 0, speed: 0 };
          if (hard) row.hard++;
          else if (fast) row.speed++;
          muscles.set(muscle, row);
        }
      }
    }
  }
  const all = [...lifts.values()];
  const ofPercent = all.reduce((n, one) => n + one.ofPercent, 0);
  if (ofPercent > 0) sum.meanPercent = all.reduce((n, one) => n + one.weighted, 0) / ofPercent;
  sum.lifts = [...lifts].map(([name, one]) => ({
    name,
    sets: one.sets,
    reps: one.reps,
    meanPercent: one.ofPercent > 0 ? one.weighted / one.ofPercent : undefined,
    tonnageKg: one.loaded ? one.tonnage : undefined,
  }));
  sum.muscles = [...muscles]
    .map(([muscle, row]) => ({ muscle, ...row }))
    .sort((a, b) => b.hard + b.speed - (a.hard + a.speed) || a.muscle.localeCompare(b.muscle));
  return sum;
}
