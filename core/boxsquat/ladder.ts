import { usual } from "../settings/usual";
import { daysBetween, type LocalDate } from "../units/time";
import { formatVelocity } from "../units/velocity";

/** The teaching ladder, from the chair to heavy work. DOMAIN 9. */
export interface Rung {
  id: string;
  name: string;
  how: string;
  /** What a watcher looks for; how many clean reps it takes is the coach's to set. */
  pass: string;
}

export const RUNGS: readonly Rung[] = [
  {
    id: "chair",
    name: "Body weight, chair-high box",
    how: "Arms forward, sit back, stop, stand.",
    pass: "Shins upright, no drop on to the box, no rocking.",
  },
  {
    id: "goblet",
    name: "Goblet",
    how: "One weight at the chest, box at the athlete's height.",
    pass: "Trunk stays as it was through the stop.",
  },
  {
    id: "two-dumbbells",
    name: "Two dumbbells",
    how: "At the sides or the shoulders.",
    pass: "Knees over the toes, both sides alike.",
  },
  {
    id: "two-kettlebells",
    name: "Two kettlebells at the shoulders",
    how: "Elbows in, breath held through the stop.",
    pass: "Breath kept, chest does not fall on the way up.",
  },
  {
    id: "empty-bar",
    name: "Empty bar, 15 to 20 kg",
    how: "Two-step walkout, the box found without looking.",
    pass: "Box found three times of three, bar over mid-foot.",
  },
  {
    id: "light-doubles",
    name: "Light doubles in small steps",
    how: "Up while the speed and the push stay.",
    pass: "Every double as fast as the one before.",
  },
  {
    id: "speed-weight",
    name: "The found speed weight",
    how: "Held one to three weeks.",
    pass: "Held for a week or more without a fault that comes back.",
  },
];

const MOST_REPS = 1000;
const MOST_WEEKS = 520;
/** A setting that can hold, else the usual one. */
const settingOr = (usually: number, value: number | undefined, most: number) =>
  value !== undefined && value >= 0 && value <= most ? value : usually;

/** When a rung is passed: what a watcher looks for, and the coach's number of clean reps. */
export const passWords = (rung: Rung, reps: number | undefined): string =>
  reps === undefined || !(reps > 0 && reps <= MOST_REPS)
    ? rung.pass
    : `${rung.pass} ${reps} clean reps in a row.`;

export interface RungMark {
  rungId: string;
  outcome: "passed" | "back";
  date: LocalDate;
  by: string;
  note: string;
}

export interface Standing {
  /** The rung being worked on; undefined once all are passed. */
  rung: Rung | undefined;
  passed: string[];
  ready: boolean;
  /** Times the athlete went back. */
  backs: number;
}

/**
 * Where somebody stands, from their marks in the order they were made. Passing a rung passes
 * those below it; going back to a rung takes away that one and all above.
 */
export function ladderStanding(marks: readonly RungMark[]): Standing {
  let at = 0;
  let backs = 0;
  for (const mark of marks) {
    const index = RUNGS.findIndex((one) => one.id === mark.rungId);
    if (index < 0) continue;
    if (mark.outcome === "passed") at = Math.max(at, index + 1);
    else {
      at = Math.min(at, index);
      backs++;
    }
  }
  return {
    rung: RUNGS[at],
    passed: RUNGS.slice(0, at).map((one) => one.id),
    ready: at >= RUNGS.length,
    backs,
  };
}

/** Share of a group that has to be ready, %, and weeks that have to pass first. */
export const GATE_SHARE_PERCENT = usual("gateSharePercent");
export const GATE_WEEKS = usual("gateWeeks");

export interface Gate {
  /** Of the group, rounded up to whole athletes, %. */
  sharePercent: number;
  total: number;
  ready: number;
  /** The share asked for, rounded up to whole athletes. */
  needed: number;
  missing: string[];
  daysGone: number;
  daysNeeded: number;
  open: boolean;
  /** A coach decided earlier. */
  early: boolean;
  why: string;
}

/** Whether a group moves on to heavy work: enough are ready, and the weeks have gone. */
export function gate(input: {
  athletes: ReadonlyArray<{ name: string; ready: boolean }>;
  startedOn: LocalDate;
  today: LocalDate;
  decidedEarly?: boolean;
  sharePercent?: number;
  weeks?: number;
}): Gate {
  const { athletes } = input;
  const share = settingOr(GATE_SHARE_PERCENT, input.sharePercent, 100);
  // In whole numbers: 0.8 × 5 must not come out a hair over 4.
  const needed = Math.ceil((share * athletes.length - 1e-9) / 100);
  const ready = athletes.filter((one) => one.ready).length;
  const daysGone = daysBetween(input.startedOn, input.today);
  const daysNeeded = 7 * settingOr(GATE_WEEKS, input.weeks, MOST_WEEKS);
  const enough = athletes.length > 0 && ready >= needed;
  const long = daysGone >= daysNeeded;
  const early = Boolean(input.decidedEarly) && !(enough && long);
  const missingWords = [
    enough ? "" : `${needed - ready} more of ${athletes.length} must be ready`,
    long ? "" : `${daysNeeded - daysGone} more days must pass`,
  ].filter(Boolean);
  return {
    total: athletes.length,
    sharePercent: share,
    ready,
    needed,
    missing: athletes.filter((one) => !one.ready).map((one) => one.name),
    daysGone,
    daysNeeded,
    open: (enough && long) || early,
    early,
    why: early
      ? "A coach decided earlier."
      : enough && long
        ? `${ready} of ${athletes.length} are ready, ${Math.floor(daysGone / 7)} weeks have gone.`
        : `${missingWords.join(", and ")}.`,
  };
}

/** One double on the way to the speed weight. */
export interface WeightStep {
  loadKg: number;
  speedMps: number | undefined;
  /** Without a sensor: what the coach saw. */
  eye: "fast" | "on" | "slow" | undefined;
  /** The athlete still drove it, as against placing it. */
  pushed: boolean;
}

const MOST_LOAD_KG = 1000;
const MOST_SPEED_MPS = 20;
const isSpeed = (mps: number | undefined): mps is number =>
  mps !== undefined && mps > 0 && mps < MOST_SPEED_MPS;

export const HOLD_WEEKS = { least: 1, most: usual("holdWeeksMost") } as const;

export type SpeedWeight =
  | { kind: "found"; loadKg: number; endedBy: string }
  | { kind: "go-on"; loadKg: number | undefined }
  | { kind: "too-heavy" };

/**
 * Up in small steps while speed and push stay: the last load before either went is the speed
 * weight. Speed stays while it is over the coach's floor, or over the wanted speed where no floor
 * is set; with neither, the eye and the push end it. A loss from the fastest light double is no
 * measure: it stops far too early (DOMAIN 9).
 *
 * @param slowest the speed that a double must reach, m/s, and whose it is
 */
export function findSpeedWeight(
  steps: readonly WeightStep[],
  slowest: { mps: number; of: "floor" | "wanted" } | undefined,
): SpeedWeight {
  let last: number | undefined;
  for (const written of steps) {
    // What is no load was not lifted, and what is no speed was not measured.
    if (!(written.loadKg > 0 && written.loadKg < MOST_LOAD_KG)) continue;
    const step = isSpeed(written.speedMps) ? written : { ...written, speedMps: undefined };
    const under =
      slowest !== undefined &&
      isSpeed(slowest.mps) &&
      step.speedMps !== undefined &&
      step.speedMps < slowest.mps - 1e-9;
    const endedBy = !step.pushed
      ? "it was placed, not driven"
      : under
        ? `under ${slowest.of === "floor" ? "the floor" : "the wanted speed"} of ${formatVelocity(slowest.mps)} m/s`
        : step.eye === "slow"
          ? "slow to the eye"
          : undefined;
    if (endedBy === undefined) last = step.loadKg;
    else
      return last === undefined ? { kind: "too-heavy" } : { kind: "found", loadKg: last, endedBy };
  }
  return { kind: "go-on", loadKg: last };
}

/** Where somebody is in the weeks of holding the found weight. */
export function holding(foundOn: LocalDate, today: LocalDate, most: number = HOLD_WEEKS.most) {
  const mostWeeks = settingOr(HOLD_WEEKS.most, most, MOST_WEEKS);
  const week = Math.floor(daysBetween(foundOn, today) / 7) + 1;
  return {
    week,
    words:
      week <= HOLD_WEEKS.least
        ? "Hold it: the first week is for getting used to it."
        : week <= mostWeeks
          ? `Week ${week} of at most ${mostWeeks}: hold, or go on when every rep is as fast.`
          : "Held long enough: find the next weight, or go on to heavy work.",
    due: week > mostWeeks,
  };
}
