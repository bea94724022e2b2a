import type { Aim, Recipe, StopRules } from "../recipe/recipe";
import { PRILEPIN } from "./intensity";
import type { School } from "./school";

/** Rests and endings that work of an aim begins with: the shipped recipes' own, to be changed. */
export const AIM_BEGINNINGS: Record<Aim, Pick<Recipe, "rest" | "stop">> = {
  speed: { rest: { leastS: 45, mostS: 60 }, stop: { lossPercent: 10, lossFrom: "best" } },
  power: { rest: { leastS: 120, mostS: 180 }, stop: { lossPercent: 10, lossFrom: "best" } },
  strength: { rest: { leastS: 120, mostS: 240 }, stop: { lossPercent: 20, lossFrom: "best" } },
  growth: { rest: { leastS: 90, mostS: 150 }, stop: { lossPercent: 30, lossFrom: "best" } },
  learning: { rest: { leastS: 60, mostS: 120 }, stop: { lossFrom: "best" } },
};

/** A dose by aim: what a slot would begin with, each figure with where it comes from. */
export interface Dose {
  aim: Aim;
  sets: number;
  reps: number;
  /** % of the working max, from and to; the recipe begins in the middle. */
  percent: { least: number; most: number };
  atPercent: number;
  rest: { leastS: number; mostS: number };
  stop: StopRules;
  /** A line each: "50 to 60 %: usual for squats". */
  because: string[];
}

/** Usual percentages by aim, and of speed work by lift (DOMAIN 8: typical). */
const PERCENT: Record<Aim, { least: number; most: number }> = {
  speed: { least: 45, most: 60 },
  power: { least: 30, most: 60 },
  strength: { least: 80, most: 88 },
  growth: { least: 65, most: 75 },
  learning: { least: 40, most: 60 },
};
const SPEED_PERCENT: Readonly<Record<string, { least: number; most: number }>> = {
  squat: { least: 50, most: 60 },
  "box-squat": { least: 50, most: 60 },
  bench: { least: 40, most: 50 },
  press: { least: 40, most: 50 },
  deadlift: { least: 45, most: 60 },
  "trap-bar-deadlift": { least: 45, most: 60 },
};
/** Reps a set before a school's ceiling. */
const REPS: Record<Aim, number> = { speed: 3, power: 3, strength: 4, growth: 8, learning: 5 };
const LIMIT = { leastSets: 2, mostSets: 12 };

/**
 * What a slot of an aim begins with: a percentage usual for the lift, reps under the school's ceiling, so
 * many sets that all reps come to the middle of Prilepin's totals of that zone, the school's rest and loss.
 * Everything is a start to be changed.
 * @param lift the lift's family; undefined for what has no max of its own
 * @example doseFor({ aim: "speed", lift: "bench", school }) // 8 × 3 at 45 %
 */
export function doseFor(of: { aim: Aim; lift: string | undefined; school: School }): Dose {
  const { aim, lift, school } = of;
  const usual = aim === "speed" && lift !== undefined ? SPEED_PERCENT[lift] : undefined;
  const percent = usual ?? PERCENT[aim];
  const atPercent = Math.round((percent.least + percent.most) / 2 / 2.5) * 2.5;
  const ceiling =
    aim === "speed" ? school.speedReps : aim === "power" ? school.powerReps : REPS[aim];
  const reps = Math.max(1, Math.min(REPS[aim], ceiling));
  const zone = PRILEPIN.find((row) => atPercent < row.under) ?? PRILEPIN[0];
  const total = (zone.least + zone.most) / 2;
  const sets = Math.min(LIMIT.mostSets, Math.max(LIMIT.leastSets, Math.round(total / reps)));
  const begin = AIM_BEGINNINGS[aim];
  const rest =
    aim === "speed"
      ? { ...school.rest }
      : aim === "power"
        ? {
            leastS: school.powerRestS,
            mostS: Math.max(begin.rest.mostS, school.powerRestS),
          }
        : begin.rest;
  const loss = school.loss[aim];
  const stop: StopRules =
    school.ending === "loss" && loss !== undefined
      ? { lossPercent: loss, lossFrom: "best" }
      : school.ending === "fixed" && (aim === "speed" || aim === "power")
        ? { lossFrom: "best" }
        : begin.stop;
  return {
    aim,
    sets,
    reps,
    percent,
    atPercent,
    rest,
    stop,
    because: [
      `${percent.least} to ${percent.most} %: usual for ${usual ? `speed in this lift` : `the aim ${aim}`}`,
      `${sets} × ${reps} = ${sets * reps} reps: the middle of ${zone.least} to ${zone.most} in this zone (Prilepin)`,
      `Rest ${rest.leastS} to ${rest.mostS} s: ${aim === "speed" || aim === "power" ? school.name : "usual for the aim"}`,
      stop.lossPercent === undefined
        ? "Sets end by their reps"
        : `Sets end at ${stop.lossPercent} % loss`,
    ],
  };
}

/** Weeks of a recipe that a dose begins, and what each adds, points. */
const WEEKS = 3;
const WEEK_POINTS = 2.5;

/** A flat recipe of three weeks that begins with a dose; its speed and power rise by 2.5 points a week. */
export function recipeOfDose(dose: Dose, name: string, school: string): Recipe {
  return {
    name,
    aim: dose.aim,
    school,
    basis: "percent",
    start: dose.atPercent,
    steps: [{ id: "s1", sets: dose.sets, reps: dose.reps, add: 0 }],
    weeks: Array.from({ length: WEEKS }, (_, i) => ({
      id: `w${i + 1}`,
      add: dose.aim === "learning" ? 0 : i * WEEK_POINTS,
    })),
    convention: "bar",
    rest: dose.rest,
    cycle: [],
    lead: "percent",
    stop: dose.stop,
  };
}
