/**
 * A recipe says how a wave goes; the cells are computed from it. Steps and weeks have stable ids,
 * on which overrides and logged sets hang: renaming, reordering or repricing a step moves
 * nothing else.
 */
export const AIMS = ["speed", "power", "strength", "growth", "learning"] as const;
export type Aim = (typeof AIMS)[number];

export interface RecipeStep {
  id: string;
  sets: number;
  reps: number;
  /** Points added to the week's start for this step: 0, 5, 10 makes a ladder. */
  addPoints: number;
}

export interface RecipeWeek {
  id: string;
  /** Points added to the recipe's start for this week. */
  addPoints: number;
  /** A flat week does this in place of the steps. */
  flat?: { sets: number; reps: number; percent: number };
}

/** What a percentage counts when bands or chains hang on the bar. */
export type ResistanceConvention = "bar" | "lockout" | "mean";

export interface Recipe {
  name: string;
  aim: Aim;
  /** The school the recipe comes from, as shown beside its warnings. */
  school: string;
  startPercent: number;
  steps: RecipeStep[];
  weeks: RecipeWeek[];
  convention: ResistanceConvention;
  rest: { leastS: number; mostS: number };
  /** Grips or stances taken in turn, set by set; empty for none. */
  cycle: string[];
  /** Wanted speed, m/s; without it each athlete's profile at the load is asked. */
  target?: { lowMps: number; highMps: number };
  /** What moves the load when a set is over the wanted speed: the percentage stays, or speed
   * leads and the load goes up. */
  lead: "percent" | "velocity";
  /** A set ends by the earliest of these; the rep cap is the step's reps. */
  stop: { lossPercent?: number; lossFrom: "best" | "first"; floorMps?: number };
}

/** A set as the recipe shapes it, before anybody's max is known. */
export interface WaveSet {
  /** Stable: week id, step id, place within the step. */
  key: string;
  weekId: string;
  stepId: string;
  /** 1-based within the session. */
  number: number;
  reps: number;
  percent: number;
  cycleItem: string | undefined;
}

export interface WaveWeek {
  weekId: string;
  /** 1-based. */
  number: number;
  sets: WaveSet[];
}

/** The step id that the sets of a flat week carry. */
export const FLAT_STEP = "flat";

export function expandRecipe(recipe: Recipe): WaveWeek[] {
  return recipe.weeks.map((week, index) => {
    const steps = week.flat
      ? [{ id: FLAT_STEP, sets: week.flat.sets, reps: week.flat.reps, percent: week.flat.percent }]
      : recipe.steps.map((step) => ({
          ...step,
          percent: recipe.startPercent + week.addPoints + step.addPoints,
        }));
    const sets: WaveSet[] = [];
    for (const step of steps) {
      for (let place = 1; place <= step.sets; place++) {
        const number = sets.length + 1;
        sets.push({
          key: `${week.id}.${step.id}.${place}`,
          weekId: week.id,
          stepId: step.id,
          number,
          reps: step.reps,
          percent: step.percent,
          cycleItem:
            recipe.cycle.length > 0 ? recipe.cycle[(number - 1) % recipe.cycle.length] : undefined,
        });
      }
    }
    return { weekId: week.id, number: index + 1, sets };
  });
}

export type RecipeWarning = { code: string; text: string; school: string };

/** Reps a speed set may have before the bar slows. */
export const SPEED_REPS = { least: 1, most: 5 };
/** Prilepin's totals by mean intensity (zone upper bound exclusive): under warns of little. */
const PRILEPIN = [
  { under: 70, least: 18, most: 30 },
  { under: 80, least: 12, most: 24 },
  { under: 90, least: 10, most: 20 },
  { under: Number.POSITIVE_INFINITY, least: 4, most: 10 },
];

/** Checks of one recipe: reasons in words, each with the school it comes from. */
export function recipeWarnings(recipe: Recipe): RecipeWarning[] {
  const warnings: RecipeWarning[] = [];
  const fast = recipe.aim === "speed" || recipe.aim === "power";
  for (const week of expandRecipe(recipe)) {
    const reps = week.sets.reduce((sum, set) => sum + set.reps, 0);
    if (reps === 0) continue;
    const long = week.sets.find((set) => set.reps > SPEED_REPS.most);
    if (fast && long) {
      warnings.push({
        code: "reps-for-speed",
        text: `Week ${week.number} asks for ${long.reps} reps a set: speed holds for ${SPEED_REPS.least} to ${SPEED_REPS.most}. More is growth work.`,
        school: "Percent waves",
      });
    }
    const mean = week.sets.reduce((sum, set) => sum + set.percent * set.reps, 0) / reps;
    const zone = PRILEPIN.find((row) => mean < row.under);
    if (zone && reps > zone.most) {
      warnings.push({
        code: "reps-over-total",
        text: `Week ${week.number}: ${reps} reps at ${mean.toFixed(0)} % on average, over the ${zone.most} that keep their speed in this zone.`,
        school: "Prilepin totals",
      });
    }
    if (week.sets.some((set) => set.percent > 100)) {
      warnings.push({
        code: "over-max",
        text: `Week ${week.number} asks for more than 100 % of the working max.`,
        school: "Arithmetic",
      });
    }
  }
  if (fast && recipe.stop.lossPercent !== undefined && recipe.stop.lossPercent > 20) {
    warnings.push({
      code: "loss-for-speed",
      text: `A loss of ${recipe.stop.lossPercent} % is strength or growth work; speed sets end at 10 to 15 %.`,
      school: "Velocity-led",
    });
  }
  return warnings;
}
