import type { Recipe, RecipeWeek } from "../../core/recipe/recipe";

/** A shipped recipe: copied into a team, which changes it freely. */
export interface ShippedRecipe {
  family: string;
  /** Where its shape comes from, in words. */
  source: string;
  recipe: Recipe;
}

const PERCENT_WAVES = "Percent waves, short rest";
const VELOCITY_LED = "Velocity-led";
const PEAK_FORCE = "Velocity of peak force";
const FULL_REST = "Power at full rest";
const FOUR_SPEEDS = "Four-speed sessions";
const ROTATION = "Method rotation";
const NO_SPEED = "Strength and volume";

const rising = (add: number, count: number): RecipeWeek[] =>
  Array.from({ length: count }, (_, i) => ({ id: `w${i + 1}`, add: add * i }));

const speed = (over: Partial<Recipe> & Pick<Recipe, "name" | "steps" | "weeks">): Recipe => ({
  aim: "speed",
  school: PERCENT_WAVES,
  basis: "percent",
  start: 50,
  convention: "bar",
  rest: { leastS: 45, mostS: 60 },
  cycle: [],
  lead: "percent",
  stop: { lossPercent: 10, lossFrom: "best" },
  after: "drop-back",
  ...over,
});
const strength = (over: Partial<Recipe> & Pick<Recipe, "name" | "steps" | "weeks">): Recipe => ({
  ...speed(over),
  aim: "strength",
  school: NO_SPEED,
  rest: { leastS: 120, mostS: 240 },
  stop: { lossPercent: 20, lossFrom: "best" },
  ...over,
});
const step = (sets: number, reps: number, add = 0, id = "s1") => ({ id, sets, reps, add });
const PRACTICE = "coaching practice";

/** In our own composition and names, one or more of every family that coaches work with. */
export const SHIPPED_RECIPES: readonly ShippedRecipe[] = [
  {
    family: "Ladders",
    source: PRACTICE,
    recipe: speed({
      name: "Ladder, three grips, flat end",
      start: 40,
      steps: [step(3, 3, 0, "s1"), step(3, 3, 5, "s2"), step(3, 3, 10, "s3")],
      weeks: [
        { id: "w1", add: 0 },
        { id: "w2", add: 5 },
        { id: "w3", add: 10, flat: { sets: 9, reps: 3, at: 55 } },
      ],
      rest: { leastS: 45, mostS: 75 },
      cycle: ["close", "middle", "wide"],
    }),
  },
  {
    family: "Flat waves",
    source: PRACTICE,
    recipe: speed({
      name: "Squat doubles, up five a week",
      start: 50,
      steps: [step(10, 2)],
      weeks: [
        { id: "w1", add: 0, moreSets: 2 },
        { id: "w2", add: 5 },
        { id: "w3", add: 10, moreSets: -2 },
      ],
      resistancePercent: 22,
    }),
  },
  {
    family: "Flat waves",
    source: PRACTICE,
    recipe: speed({
      name: "Bench triples, nine over three grips",
      start: 45,
      steps: [step(9, 3)],
      weeks: rising(2.5, 3),
      cycle: ["close", "middle", "wide"],
      resistancePercent: 20,
    }),
  },
  {
    family: "Flat waves",
    source: PRACTICE,
    recipe: speed({ name: "Eight triples", start: 50, steps: [step(8, 3)], weeks: rising(5, 3) }),
  },
  {
    family: "Flat waves",
    source: PRACTICE,
    recipe: speed({
      name: "Fives, fast",
      aim: "learning",
      start: 50,
      steps: [step(5, 5)],
      weeks: rising(5, 3),
      rest: { leastS: 60, mostS: 90 },
    }),
  },
  {
    family: "Pulls",
    source: PRACTICE,
    recipe: speed({
      name: "Pull doubles",
      start: 45,
      steps: [step(6, 2)],
      weeks: [
        { id: "w1", add: 0, moreSets: 2 },
        { id: "w2", add: 7.5 },
        { id: "w3", add: 15, moreSets: -1 },
      ],
    }),
  },
  {
    family: "Pulls",
    source: PRACTICE,
    recipe: speed({
      name: "Pull singles on the clock",
      start: 50,
      steps: [step(8, 1)],
      weeks: rising(5, 3),
      timed: { everyS: 45, minutes: 6 },
    }),
  },
  {
    family: "On the clock",
    source: PRACTICE,
    recipe: speed({
      name: "Twelve minutes, a start every 45 s",
      start: 55,
      steps: [step(16, 2)],
      weeks: rising(2.5, 4),
      timed: { everyS: 45, minutes: 12 },
      rest: { leastS: 30, mostS: 40 },
    }),
  },
  {
    family: "Method rotation",
    source: PRACTICE,
    recipe: speed({
      name: "Free, paused, banded, both; twice, deload, test",
      school: ROTATION,
      start: 55,
      steps: [step(8, 2)],
      weeks: [
        { id: "w1", add: 0, method: { name: "free", factor: 1 } },
        { id: "w2", add: 0, method: { name: "paused", pauseS: 2, factor: 1 } },
        { id: "w3", add: 0, method: { name: "banded", resisted: true, factor: 1 } },
        {
          id: "w4",
          add: 0,
          method: { name: "banded and paused", resisted: true, pauseS: 2, factor: 1 },
        },
      ],
      repeats: 2,
      tail: [
        { id: "deload", add: 0, kind: "deload" },
        { id: "test", add: 0, kind: "test" },
      ],
      resistancePercent: 20,
      hangs: "bands",
      after: "change-variation",
    }),
  },
  {
    family: "By velocity",
    source: PRACTICE,
    recipe: speed({
      name: "Walk down from the speed of peak force",
      aim: "power",
      school: PEAK_FORCE,
      basis: "peak-force",
      start: 0,
      steps: [step(5, 3)],
      weeks: [
        { id: "w1", add: 0 },
        { id: "w2", add: 0.05 },
        { id: "w3", add: 0.1 },
        { id: "w4", add: 0.15 },
      ],
      sessionAdd: 0.02,
      rest: { leastS: 120, mostS: 180 },
      lead: "velocity",
      stop: { lossPercent: 10, lossFrom: "best" },
      after: "test",
    }),
  },
  {
    family: "By velocity",
    source: PRACTICE,
    recipe: speed({
      name: "Speed range, load follows",
      school: VELOCITY_LED,
      basis: "speed",
      start: 0.85,
      steps: [step(6, 3)],
      weeks: rising(-0.05, 4),
      rest: { leastS: 60, mostS: 120 },
      lead: "velocity",
    }),
  },
  {
    family: "By velocity",
    source: PRACTICE,
    recipe: speed({
      name: "Found weight, held, then a step",
      school: VELOCITY_LED,
      basis: "found",
      start: 0,
      steps: [step(6, 2)],
      weeks: [
        { id: "w1", add: 0 },
        { id: "w2", add: 0 },
        { id: "w3", add: 2.5 },
      ],
      rest: { leastS: 60, mostS: 90 },
    }),
  },
  {
    family: "Power",
    source: PRACTICE,
    recipe: speed({
      name: "At the load of peak power, full rest",
      aim: "power",
      school: FULL_REST,
      basis: "peak-power",
      start: 90,
      steps: [step(5, 3)],
      weeks: rising(5, 3),
      rest: { leastS: 180, mostS: 300 },
      stop: { lossPercent: 10, lossFrom: "best" },
    }),
  },
  {
    family: "Power",
    source: PRACTICE,
    recipe: speed({
      name: "Loaded jumps, contacts counted",
      aim: "power",
      school: FULL_REST,
      basis: "body",
      start: 20,
      steps: [step(5, 3)],
      weeks: rising(5, 3),
      rest: { leastS: 180, mostS: 240 },
      counts: "contacts",
    }),
  },
  {
    family: "Power",
    source: PRACTICE,
    recipe: speed({
      name: "Sprints, 5 × 20 m",
      aim: "power",
      school: FOUR_SPEEDS,
      basis: "eye",
      start: 0,
      steps: [step(5, 20)],
      weeks: rising(0, 4),
      rest: { leastS: 120, mostS: 180 },
      counts: "metres",
    }),
  },
  {
    family: "Four speeds",
    source: PRACTICE,
    recipe: speed({
      name: "Strength-speed triples of a four-speed day",
      school: FOUR_SPEEDS,
      start: 55,
      steps: [step(5, 3)],
      weeks: rising(2.5, 4),
      rest: { leastS: 90, mostS: 120 },
    }),
  },
  {
    family: "Heavy",
    source: PRACTICE,
    recipe: strength({
      name: "Up to a top single",
      start: 92.5,
      steps: [step(1, 1)],
      weeks: rising(2.5, 3),
      top: { reps: 1, tries: 3 },
      rest: { leastS: 180, mostS: 300 },
      stop: { lossFrom: "best" },
      after: "change-variation",
    }),
  },
  {
    family: "Heavy",
    source: PRACTICE,
    recipe: strength({
      name: "Up to a top triple",
      start: 85,
      steps: [step(1, 3)],
      weeks: rising(2.5, 3),
      top: { reps: 3, tries: 3 },
      rest: { leastS: 180, mostS: 300 },
      stop: { lossFrom: "best" },
      after: "change-variation",
    }),
  },
  {
    family: "Volume waves",
    source: PRACTICE,
    recipe: strength({
      name: "Sets up, reps down",
      start: 70,
      steps: [step(3, 6)],
      weeks: [
        { id: "w1", add: 0 },
        { id: "w2", add: 2.5, moreSets: 1, moreReps: -1 },
        { id: "w3", add: 5, moreSets: 2, moreReps: -2 },
        { id: "w4", add: 7.5, moreSets: 3, moreReps: -3 },
      ],
    }),
  },
  {
    family: "Volume waves",
    source: PRACTICE,
    recipe: strength({
      name: "A set more a week",
      aim: "growth",
      start: 67.5,
      steps: [{ ...step(3, 6), repsTo: 8 }],
      weeks: [0, 1, 2, 3].map((more) => ({ id: `w${more + 1}`, add: 0, moreSets: more })),
      rest: { leastS: 90, mostS: 150 },
      stop: { lossPercent: 30, lossFrom: "best" },
    }),
  },
  {
    family: "Volume waves",
    source: PRACTICE,
    recipe: strength({
      name: "Repeated submaximal fours",
      basis: "reserve",
      start: 3,
      steps: [step(6, 4)],
      weeks: rising(-0.5, 4),
      leastReserve: 1,
    }),
  },
  {
    family: "Primers",
    source: PRACTICE,
    recipe: speed({
      name: "Primer: light, fast, little",
      basis: "fixed",
      start: 20,
      steps: [{ ...step(2, 5), repsTo: 5 }],
      weeks: rising(0, 4),
      rest: { leastS: 60, mostS: 60 },
    }),
  },
  {
    family: "Accessories",
    source: PRACTICE,
    recipe: strength({
      name: "Three sets of twelve, load follows",
      aim: "growth",
      basis: "fixed",
      start: 30,
      steps: [{ ...step(3, 12), repsTo: 15 }],
      weeks: rising(2.5, 4),
      rest: { leastS: 60, mostS: 90 },
      stop: { lossFrom: "best" },
    }),
  },
];
