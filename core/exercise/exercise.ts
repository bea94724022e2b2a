import type { SpeedClass } from "./speed-classes";

/** What an exercise record holds: the shapes and words; the shipped list is in db/library. */
export const PATTERNS = [
  "squat",
  "hinge",
  "horizontal-push",
  "horizontal-pull",
  "vertical-push",
  "vertical-pull",
  "single-leg",
  "jump",
  "throw",
  "sprint",
  "olympic-pull",
  "carry",
  "trunk",
  "isolation",
] as const;
export type Pattern = (typeof PATTERNS)[number];

export const PATTERN_NAMES: Record<Pattern, string> = {
  squat: "Squat",
  hinge: "Hinge",
  "horizontal-push": "Push, horizontal",
  "horizontal-pull": "Pull, horizontal",
  "vertical-push": "Push, vertical",
  "vertical-pull": "Pull, vertical",
  "single-leg": "Single leg",
  jump: "Jump",
  throw: "Throw",
  sprint: "Sprint",
  "olympic-pull": "Explosive pull",
  carry: "Carry and drag",
  trunk: "Trunk",
  isolation: "Single joint",
};

export const MUSCLES = [
  "quadriceps",
  "hamstrings",
  "glutes",
  "adductors",
  "calves",
  "chest",
  "upper back",
  "lats",
  "front shoulders",
  "side and rear shoulders",
  "triceps",
  "biceps",
  "forearms",
  "abdominals",
  "obliques",
  "lower back",
  "hip flexors",
  "neck",
] as const;
export type Muscle = (typeof MUSCLES)[number];

export const SIDES = ["both", "left-right", "alternating"] as const;
export type Sides = (typeof SIDES)[number];

export const SIDES_NAMES: Record<Sides, string> = {
  both: "both at once",
  "left-right": "left, then right",
  alternating: "in turn",
};

/** Histories and places that an exercise is left out for by default. */
export const EXERCISE_LIMITS = [
  "back",
  "knee",
  "shoulder",
  "wrist",
  "hip",
  "neck",
  "pregnancy",
  "minor",
] as const;
export type ExerciseLimit = (typeof EXERCISE_LIMITS)[number];

export interface Exercise {
  name: string;
  pattern: Pattern;
  speedClass: SpeedClass;
  main: Muscle[];
  assisting: Muscle[];
  sides: Sides;
  gear: string[];
  excludes: ExerciseLimit[];
}
