import { DEFAULT_SET_S } from "../prescribe/turns";
import type { RecipeSettings, WaveSet } from "../recipe/recipe";
import { type Block, exerciseIn, type Slot, slotsOf, slotWeek } from "./block";

/** Seconds a rep takes in a longer set, and the walk from one exercise to the next. */
export const REP_S = 3;
export const BETWEEN_EXERCISES_S = 60;
/** The general warm-up, where no slot of that section says more. */
export const WARM_UP_S = 10 * 60;
/** Seconds a metre of a sprint or carry takes, where nobody measured. */
export const METRE_S = 0.25;

/** One set on the stave. */
export interface StaveSet {
  slotId: string;
  set: WaveSet;
  startS: number;
  endS: number;
  /** Rest that follows before the same slot's next set, s; 0 after the last. */
  restS: number;
}

export interface StaveLine {
  slotId: string;
  slot: Slot & { id: string };
  /** The exercise of the week, where the slot takes several in turn. */
  exerciseId: string | undefined;
  sets: StaveSet[];
}

export interface DayStave {
  lines: StaveLine[];
  /** Length of the session, s, the general warm-up included. */
  lengthS: number;
}

/** How long a set lasts, s. */
export function setSeconds(set: Pick<WaveSet, "reps">, recipe: Slot["recipe"]): number {
  if (recipe.counts === "metres") return Math.max(4, set.reps * METRE_S);
  const rep = REP_S + (recipe.tempo?.downS ?? 0) + (recipe.tempo?.pauseS ?? 0);
  const seconds = Math.max(DEFAULT_SET_S, set.reps * rep);
  return recipe.sides === "left-right" ? 2 * seconds : seconds;
}

/** The rest that a plan counts with: the middle of the wanted range. */
export const plannedRestS = ({ leastS, mostS }: { leastS: number; mostS: number }) =>
  (leastS + mostS) / 2;

/**
 * A day of the block drawn to time for one lifter: slots one after the other, those of one group
 * in rounds. A timed slot keeps its own clock.
 */
export function dayStave(
  block: Block,
  dayId: string,
  week: number,
  settings: RecipeSettings = {},
): DayStave {
  const slots = slotsOf(block, dayId).flatMap((slot) => {
    const found = slotWeek(block, slot, week, settings);
    return found && found.sets.length > 0 ? [{ slot, week: found }] : [];
  });
  const lines: StaveLine[] = slots.map(({ slot }) => ({
    slotId: slot.id,
    slot,
    exerciseId: exerciseIn(block, slot, week),
    sets: [],
  }));
  const hasWarmUp = slots.some(({ slot }) => slot.section === "warm-up");
  let now = hasWarmUp || slots.length === 0 ? 0 : WARM_UP_S;
  let i = 0;
  while (i < slots.length) {
    const first = slots[i] as (typeof slots)[number];
    // Neighbours of one letter are done in rounds; everything else alone.
    let end = i + 1;
    while (first.slot.group !== "" && slots[end]?.slot.group === first.slot.group) end++;
    const group = slots.slice(i, end);
    const rounds = Math.max(...group.map((one) => one.week.sets.length));
    for (let round = 0; round < rounds; round++) {
      const last = round === rounds - 1;
      for (const [j, { slot, week: own }] of group.entries()) {
        const set = own.sets[round];
        if (!set) continue;
        const startS =
          set.startS === undefined ? now : Math.max(now, groupStart(lines, i) + set.startS);
        const endS = startS + setSeconds(set, slot.recipe);
        const endsRound = j === group.length - 1;
        const restS = last ? 0 : plannedRestS(slot.recipe.rest);
        (lines[i + j] as StaveLine).sets.push({ slotId: slot.id, set, startS, endS, restS });
        // Within a round the next exercise follows at once; the rest comes after the round.
        now = endsRound && !last && set.startS === undefined ? endS + restS : endS;
      }
    }
    now += end < slots.length ? BETWEEN_EXERCISES_S : 0;
    i = end;
  }
  return { lines, lengthS: now };
}

function groupStart(lines: readonly StaveLine[], index: number): number {
  const first = lines[index]?.sets[0];
  if (first) return first.startS;
  const before = lines.slice(0, index).flatMap((line) => line.sets.map((one) => one.endS));
  return before.length > 0 ? Math.max(...before) + BETWEEN_EXERCISES_S : 0;
}
