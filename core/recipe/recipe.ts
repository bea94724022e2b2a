import { type BasisKind, basisOf, type LoadBasis } from "./basis";

/**
 * A recipe says how a wave goes; the cells are computed from it. Steps and weeks have stable ids,
 * on which overrides and logged sets hang: renaming, reordering or repricing a step moves
 * nothing else.
 */
export const AIMS = ["speed", "power", "strength", "growth", "learning"] as const;
export type Aim = (typeof AIMS)[number];

/** What a number of the recipe counts in is its basis: points of percent, m/s, kg, reps. */
export interface RecipeStep {
  id: string;
  sets: number;
  reps: number;
  /** Upper end where the reps are a range. */
  repsTo?: number;
  /** Added to the week's start for this step: 0, 5, 10 makes a ladder. */
  add: number;
}

/** How a week is done where it differs from the slot: a method of a rotation. */
export interface WeekMethod {
  name: string;
  /** Another variant, with its own max. */
  variantId?: string;
  /** Pause at the bottom, s. */
  pauseS?: number;
  /** Bands or chains by the recipe's convention. */
  resisted?: boolean;
  /** Of the load, for a week that is paused: 1 is the load as it is. */
  factor: number;
}

export const WEEK_KINDS = ["work", "deload", "test", "off"] as const;
export type WeekKind = (typeof WEEK_KINDS)[number];

export interface RecipeWeek {
  id: string;
  /** Added to the recipe's start for this week. */
  add: number;
  /** Left out for a week of work. */
  kind?: WeekKind;
  /** A flat week does this in place of the steps; `at` in the recipe's basis. */
  flat?: { sets: number; reps: number; at: number };
  method?: WeekMethod;
  /** Sets and reps more (or fewer) than the steps say: volume waves, and the rounds of a group. */
  moreSets?: number;
  moreReps?: number;
}

/** What a percentage counts when bands or chains hang on the bar. */
export type ResistanceConvention = "bar" | "lockout" | "mean";

export interface StopRules {
  lossPercent?: number;
  lossFrom: "best" | "first";
  floorMps?: number;
}

export const AFTER = ["drop-back", "change-variation", "repeat", "test"] as const;
export const AFTER_NAMES: Record<(typeof AFTER)[number], string> = {
  "drop-back": "drop back and rise again",
  "change-variation": "change the variation",
  repeat: "the same again",
  test: "test",
};

export interface Recipe {
  name: string;
  aim: Aim;
  /** The school the recipe comes from, as shown beside its warnings. */
  school: string;
  /** What sets the load; start, adds and flat values are in its unit. */
  basis: BasisKind;
  start: number;
  steps: RecipeStep[];
  weeks: RecipeWeek[];
  /** How often the weeks run before the tail; 1 where left out. */
  repeats?: number;
  /** Weeks that end it, once: a deload, a test. */
  tail?: RecipeWeek[];
  /** Added for the second session of a week, and again for each further one. */
  sessionAdd?: number;
  convention: ResistanceConvention;
  /** Wanted share of the lockout load, %, where bands or chains hang on. */
  resistancePercent?: number;
  /** Bands alone or chains alone; what comes nearest to the share where left out. */
  hangs?: "bands" | "chains";
  rest: { leastS: number; mostS: number };
  /** Grips or stances taken in turn, set by set; empty for none. */
  cycle: string[];
  /** Seconds down and at the bottom, for the metronome. */
  tempo?: { downS?: number; pauseS?: number };
  /** A start every so many seconds for so many minutes: sets follow from it. */
  timed?: { everyS: number; minutes: number };
  /** A heavy slot: work up to a top set of so many reps, at most so many tries near it. */
  top?: { reps: 1 | 2 | 3; tries: number };
  /** What reps count: metres for sprints and carries, contacts for jumps. */
  counts?: "reps" | "metres" | "contacts";
  sides?: "both" | "left-right";
  /** Smallest reserve of a power slot: under it, warn of grinding. */
  leastReserve?: number;
  /** Wanted speed, m/s; without it each athlete's profile at the load is asked. */
  target?: { lowMps: number; highMps: number };
  /** What moves the load when a set is over the wanted speed: the percentage stays, or speed
   * leads and the load goes up. */
  lead: "percent" | "velocity";
  /** A set ends by the earliest of these; the rep cap is the step's reps. */
  stop: StopRules;
  /** The processing under which floor and wanted speed were set; today's where undefined. */
  speedsOf?: string;
  /** What comes after the last week. */
  after?: (typeof AFTER)[number];
}

/** A set as the recipe shapes it, before anybody's max is known. */
export interface WaveSet {
  /** Stable: week id (with its run), step id, place within the step. */
  key: string;
  weekId: string;
  stepId: string;
  /** 1-based within the session. */
  number: number;
  reps: number;
  repsTo?: number;
  basis: LoadBasis;
  /** Multiplies the load: a paused week, a deload. Undefined: the coach has set none. */
  factor: number | undefined;
  kind: "work" | "top";
  /** Start on the queue clock, s from the first, for a timed slot. */
  startS?: number;
  cycleItem: string | undefined;
}

export interface WaveWeek {
  weekId: string;
  /** 1-based. */
  number: number;
  kind: WeekKind;
  method: WeekMethod | undefined;
  sets: WaveSet[];
}

/** The step id that the sets of a flat week carry. */
export const FLAT_STEP = "flat";
/** The step id of a heavy slot's top set. */
export const TOP_STEP = "top";

/** What only a coach can set and a recipe may need. Undefined is "not set"; nothing is guessed. */
export interface RecipeSettings {
  /** Of the sets, and of the load, in a deload week: 0.5 is half. */
  deloadSets?: number | undefined;
  deloadLoad?: number | undefined;
  /** Of the load, by week of the block: the coach's own near a competition. */
  weekFactors?: Readonly<Record<number, number>>;
}

/** The weeks of a recipe in the order in which they are done; repeated ones carry their run. */
export function recipeWeeks(recipe: Recipe): RecipeWeek[] {
  const runs = recipe.repeats ?? 1;
  const weeks: RecipeWeek[] = [];
  for (let run = 1; run <= runs; run++) {
    for (const week of recipe.weeks) {
      weeks.push(run === 1 ? week : { ...week, id: `${week.id}~${run}` });
    }
  }
  return [...weeks, ...(recipe.tail ?? [])];
}

/** An hour of a start every few seconds. */
const MOST_TIMED_SETS = 1000;

/** Sets of a timed slot: a start every so many seconds, the first at once. 12 min at 45 s: 16. */
export function timedSets({ everyS, minutes }: { everyS: number; minutes: number }): number {
  const sets = Math.floor((minutes * 60) / everyS + 1e-9);
  // No interval, or none of a clock, is no set.
  return sets > 0 && sets <= MOST_TIMED_SETS ? sets : 0;
}

/**
 * Every set of every week.
 * @param session 1-based: which session of the week this slot is
 */
export function expandRecipe(
  recipe: Recipe,
  settings: RecipeSettings = {},
  session = 1,
): WaveWeek[] {
  // A recipe is never changed in place: an edit makes a new one. So its weeks are kept with it.
  const kept = expanded.get(recipe) ?? new Map<string, WaveWeek[]>();
  expanded.set(recipe, kept);
  const key = `${session}/${settings.deloadSets}/${settings.deloadLoad}`;
  const known = kept.get(key);
  if (known) return known;
  const weeks = expandAnew(recipe, settings, session);
  kept.set(key, weeks);
  return weeks;
}

const expanded = new WeakMap<Recipe, Map<string, WaveWeek[]>>();

/** A share that can be one; what is none was not set. */
const shareOr = (share: number | undefined) =>
  share !== undefined && share > 0 && share <= MOST_SHARE ? share : undefined;
const MOST_SHARE = 2;
/** Of one week. */
const MOST_SESSIONS = 21;

function expandAnew(recipe: Recipe, settings: RecipeSettings, session: number): WaveWeek[] {
  const known: RecipeSettings = {
    deloadSets: shareOr(settings.deloadSets),
    deloadLoad: shareOr(settings.deloadLoad),
  };
  const which = session >= 1 && session <= MOST_SESSIONS ? Math.floor(session) : 1;
  return recipeWeeks(recipe).map((week, index) => {
    const kind = week.kind ?? "work";
    return {
      weekId: week.id,
      number: index + 1,
      kind,
      method: week.method,
      sets: kind === "test" || kind === "off" ? [] : weekSets(recipe, week, known, which),
    };
  });
}

function weekSets(
  recipe: Recipe,
  week: RecipeWeek,
  settings: RecipeSettings,
  session: number,
): WaveSet[] {
  const deload = week.kind === "deload";
  const ofWeek = week.method?.factor ?? 1;
  const factor = !deload
    ? ofWeek
    : settings.deloadLoad === undefined
      ? undefined
      : ofWeek * settings.deloadLoad;
  const start = recipe.start + week.add + (recipe.sessionAdd ?? 0) * (session - 1);
  const steps = recipe.top
    ? [{ id: TOP_STEP, sets: 1, reps: recipe.top.reps, at: start }]
    : week.flat
      ? [{ id: FLAT_STEP, ...week.flat }]
      : recipe.steps.map((step) => ({
          ...step,
          sets: Math.max(1, step.sets + (week.moreSets ?? 0)),
          reps: Math.max(1, step.reps + (week.moreReps ?? 0)),
          at: start + step.add,
        }));
  const sets: WaveSet[] = [];
  for (const step of steps) {
    const planned = recipe.timed && steps.length === 1 ? timedSets(recipe.timed) : step.sets;
    // Without the coach's factor the sets stay as they are, and the load says what is missing.
    const count =
      deload && settings.deloadSets !== undefined
        ? Math.max(1, Math.round(planned * settings.deloadSets))
        : planned;
    const repsTo = "repsTo" in step ? step.repsTo : undefined;
    for (let place = 1; place <= count; place++) {
      const number = sets.length + 1;
      sets.push({
        key: `${week.id}.${step.id}.${place}`,
        weekId: week.id,
        stepId: step.id,
        number,
        reps: step.reps,
        ...(repsTo === undefined ? {} : { repsTo }),
        basis: basisOf(recipe.basis, step.at),
        factor,
        kind: recipe.top ? "top" : "work",
        ...(recipe.timed ? { startS: (number - 1) * recipe.timed.everyS } : {}),
        cycleItem:
          recipe.cycle.length > 0 ? recipe.cycle[(number - 1) % recipe.cycle.length] : undefined,
      });
    }
  }
  return sets;
}

const MOST_PERCENT = 1000;

/** The percentage of a set, where its load is one. */
export function percentOf(set: Pick<WaveSet, "basis" | "factor">): number | undefined {
  if (set.basis.by !== "percent") return undefined;
  const percent = set.basis.percent * (set.factor ?? 1);
  return Math.abs(percent) <= MOST_PERCENT ? percent : undefined;
}
