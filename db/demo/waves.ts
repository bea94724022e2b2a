import type { Recipe } from "../../core/recipe/recipe";

const grips = ["close", "middle", "wide"];

/** The wave that every squad runs now: a ladder within the session, shifted up weekly, flat at
 * the end. */
export const RISING_LADDER: Recipe = {
  name: "Rising ladder, speed bench",
  aim: "speed",
  school: "Percent waves, short rest",
  basis: "percent",
  start: 40,
  steps: [
    { id: "s1", sets: 3, reps: 3, add: 0 },
    { id: "s2", sets: 3, reps: 3, add: 5 },
    { id: "s3", sets: 3, reps: 3, add: 10 },
  ],
  weeks: [
    { id: "w1", add: 0 },
    { id: "w2", add: 5 },
    { id: "w3", add: 10, flat: { sets: 9, reps: 3, at: 55 } },
  ],
  convention: "bar",
  rest: { leastS: 45, mostS: 75 },
  cycle: grips,
  lead: "percent",
  stop: { lossPercent: 10, lossFrom: "best" },
};

/** Flat sets that rise five points a week. */
export const FLAT_RISE: Recipe = {
  name: "Flat rise, speed bench",
  aim: "speed",
  school: "Percent waves, short rest",
  basis: "percent",
  start: 45,
  steps: [{ id: "s1", sets: 8, reps: 3, add: 0 }],
  weeks: [
    { id: "w1", add: 0 },
    { id: "w2", add: 5 },
    { id: "w3", add: 10 },
  ],
  convention: "bar",
  rest: { leastS: 45, mostS: 75 },
  cycle: grips,
  lead: "percent",
  stop: { lossPercent: 15, lossFrom: "best" },
};
