import type { Muscle, Pattern } from "./exercise";

/** What each barbell lift trains, for checks and weekly sets. */
export const LIFT_WORK: Record<
  string,
  { pattern: Pattern; muscles: Muscle[]; upperBody: boolean; overhead: boolean }
> = {
  bench: {
    pattern: "horizontal-push",
    muscles: ["chest", "triceps"],
    upperBody: true,
    overhead: false,
  },
  squat: { pattern: "squat", muscles: ["quadriceps", "glutes"], upperBody: false, overhead: false },
  "box-squat": {
    pattern: "squat",
    muscles: ["glutes", "hamstrings"],
    upperBody: false,
    overhead: false,
  },
  deadlift: {
    pattern: "hinge",
    muscles: ["glutes", "hamstrings"],
    upperBody: false,
    overhead: false,
  },
  "trap-bar-deadlift": {
    pattern: "hinge",
    muscles: ["quadriceps", "glutes"],
    upperBody: false,
    overhead: false,
  },
  press: {
    pattern: "vertical-push",
    muscles: ["front shoulders", "triceps"],
    upperBody: true,
    overhead: true,
  },
  "bench-pull": {
    pattern: "horizontal-pull",
    muscles: ["upper back", "lats"],
    upperBody: true,
    overhead: false,
  },
  "pull-up": {
    pattern: "vertical-pull",
    muscles: ["lats", "biceps"],
    upperBody: true,
    overhead: false,
  },
  "hip-thrust": { pattern: "hinge", muscles: ["glutes"], upperBody: false, overhead: false },
};

/** Patterns of the upper body. */
export const UPPER_PATTERNS: readonly Pattern[] = [
  "horizontal-push",
  "horizontal-pull",
  "vertical-push",
  "vertical-pull",
];
