import { expect, it } from "vitest";
import { withCoachFloor } from "./coach-floor";
import type { Recipe } from "./recipe";

const recipe = (aim: Recipe["aim"], floorMps?: number): Recipe => ({
  name: "Wave",
  aim,
  school: "",
  basis: "percent",
  start: 50,
  steps: [{ id: "s1", sets: 3, reps: 2, add: 0 }],
  weeks: [{ id: "w1", add: 0 }],
  convention: "bar",
  rest: { leastS: 60, mostS: 90 },
  cycle: [],
  lead: "percent",
  stop: { lossFrom: "best", ...(floorMps === undefined ? {} : { floorMps }) },
});
const values = { floorSquatMps: 0.6, floorBenchMps: 0.5 };

it.each([
  ["a speed squat takes the squat's floor", recipe("speed"), "squat", values, 0.6],
  ["the box squat goes by the squat's", recipe("speed"), "box-squat", values, 0.6],
  ["a speed bench takes the presses'", recipe("speed"), "bench", values, 0.5],
  ["a recipe's own floor stays", recipe("speed", 0.7), "bench", values, 0.7],
  ["work for strength has none proposed", recipe("strength"), "bench", values, undefined],
  ["where the coach has set none there is none", recipe("speed"), "bench", {}, undefined],
  [
    "its own comes before the squat's",
    recipe("speed"),
    "box-squat",
    { ...values, floorBoxSquatMps: 0.55 },
    0.55,
  ],
  ["a press without its own takes the bench's", recipe("speed"), "press", values, 0.5],
  ["a deadlift takes its own", recipe("speed"), "deadlift", { floorDeadliftMps: 0.4 }, 0.4],
  ["another lift has none", recipe("speed"), "deadlift", values, undefined],
  ["no name of an object is a lift", recipe("speed"), "constructor", values, undefined],
] as const)("%s", (_, own, lift, coach, floor) => {
  expect(withCoachFloor(own, lift, coach).stop.floorMps).toBe(floor);
});
