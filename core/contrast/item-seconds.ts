import { formatClock } from "../units/time";
import type { Working } from "../units/working";

/** An item as somebody times it: reps, seconds for each, and the gap after it. */
export interface TimedItem {
  reps: number;
  secondsEach: number;
  gapS: number;
}

export interface ComplexLength {
  /** One round's work and gaps, s. */
  roundS: number;
  workS: number;
  /** All rounds, with and without the rest after the last, s. */
  wholeS: number;
  withLastRestS: number;
  reps: number;
  working: Working;
}

const MOST_ITEMS = 20;
const MOST_ROUNDS = 50;
const MOST_S = 3600;

/**
 * How long a complex takes, from the seconds that each item takes: work and gaps of a round (the last
 * item's gap is the rest), rounds and the rest between them.
 * @returns undefined for no item, or one that nobody could do
 */
export function complexLength(input: {
  items: readonly TimedItem[];
  rounds: number;
  restS: number;
}): ComplexLength | undefined {
  const { items, rounds, restS } = input;
  if (items.length === 0 || items.length > MOST_ITEMS) return undefined;
  if (!Number.isInteger(rounds) || rounds < 1 || rounds > MOST_ROUNDS) return undefined;
  if (!(restS >= 0 && restS <= MOST_S)) return undefined;
  const sound = items.every(
    ({ reps, secondsEach, gapS }) =>
      Number.isInteger(reps) &&
      reps >= 1 &&
      reps <= 200 &&
      secondsEach > 0 &&
      secondsEach <= MOST_S &&
      gapS >= 0 &&
      gapS <= MOST_S,
  );
  if (!sound) return undefined;
  const workS = items.reduce((sum, one) => sum + one.reps * one.secondsEach, 0);
  const gapsS = items.slice(0, -1).reduce((sum, one) => sum + one.gapS, 0);
  const roundS = workS + gapsS;
  const wholeS = rounds * roundS + (rounds - 1) * restS;
  const reps = rounds * items.reduce((sum, one) => sum + one.reps, 0);
  return {
    roundS,
    workS,
    wholeS,
    withLastRestS: wholeS + restS,
    reps,
    working: {
      title: "Length of the complex",
      lines: [
        ...items.map((one, i) => ({
          label: `Item ${i + 1}`,
          value: `${one.reps} × ${one.secondsEach} s`,
          ...(i < items.length - 1 ? { detail: `then ${one.gapS} s` } : {}),
        })),
        { label: "One round", value: formatClock(roundS), detail: `${workS} s of it work` },
        {
          label: `${rounds} rounds, ${restS} s between`,
          value: formatClock(wholeS),
          emphasis: "answer" as const,
        },
        { label: "With the rest after the last", value: formatClock(wholeS + restS) },
      ],
      sources: ["Sum of reps × seconds, gaps and rests"],
      changes: ["Seconds of an item by the clock, once, in place of a guess."],
    },
  };
}
