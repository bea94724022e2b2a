import { type Mass, massKg, plainNumber } from "../units/mass";
import { daysBetween, type LocalDate } from "../units/time";
import type { Working, WorkingLine } from "../units/working";
import { written } from "../units/written";

/** How a max came to be known. */
export const MAX_KINDS = [
  "competition",
  "tested",
  "rep-max-estimate",
  "velocity-estimate",
  "coach",
] as const;
export type MaxKind = (typeof MAX_KINDS)[number];

export const MAX_KIND_NAMES: Record<MaxKind, string> = {
  competition: "Competition",
  tested: "Tested in training",
  "rep-max-estimate": "Rep-max estimate",
  "velocity-estimate": "Velocity estimate",
  coach: "Coach's call",
};

/**
 * Default share of a record that a training day can stand on. A meet single is above what an
 * ordinary day gives, and estimates run high; a coach edits the factor per athlete.
 */
export const DEFAULT_FACTORS: Record<MaxKind, number> = {
  competition: 0.95,
  tested: 1,
  "rep-max-estimate": 0.95,
  "velocity-estimate": 0.95,
  coach: 1,
};

/** A record older than this is flagged, never blocked. */
export const STALE_AFTER_DAYS = 56;
/** A step between two records over this asks for a second look. */
export const LARGE_JUMP_SHARE = 0.1;
/** Under a year of real barbell training a max is information only. */
export const TRUSTED_TRAINING_YEARS = 1;

/** Years of barbell training on a day, to a tenth. */
export function trainingYears(since: LocalDate | undefined, today: LocalDate): number | undefined {
  return since ? Math.floor((10 * daysBetween(since, today)) / 365.25) / 10 : undefined;
}

export interface MaxRecord {
  id: string;
  load: Mass;
  date: LocalDate;
  kind: MaxKind;
  note: string;
}

/** A step from a base towards the variant whose max is asked for. */
export type MaxStep =
  | { by: "shares"; name: string; of: string }
  /** @property pairs of own records that the ratio was learnt from; absent where a coach set it */
  | { by: "ratio"; name: string; of: string; ratio: number; pairs?: number };

function stepLine(step: MaxStep): WorkingLine {
  if (step.by === "shares") return { label: `${step.name} shares the max of`, value: step.of };
  const { pairs } = step;
  return {
    label: `${step.name}, of ${step.of}`,
    value: `× ${plainNumber(step.ratio, 3)}`,
    detail:
      pairs === undefined
        ? "ratio set by a coach"
        : `learnt from ${pairs} ${pairs === 1 ? "pair" : "pairs"} of own records`,
  };
}

export interface WorkingMax {
  kg: number;
  record: MaxRecord;
  factor: number;
  factorIsDefault: boolean;
  /** Days since the record; over 56 is stale. */
  ageDays: number;
  stale: boolean;
  /** From the base's max to this one, base first; absent where the record is the variant's own. */
  steps?: MaxStep[];
  working: Working;
}

/** A factor over this is a slip of the pen. */
const MOST_FACTOR = 2;

/**
 * One chosen record × a factor.
 * @param factor the coach's factor, 0.5–1.1; the kind's default where none was set
 */
export function workingMax(input: {
  liftName: string;
  record: MaxRecord;
  factor: number | undefined;
  today: LocalDate;
}): WorkingMax {
  const { record, today, liftName } = input;
  const own = input.factor;
  const given = own !== undefined && own > 0 && own <= MOST_FACTOR;
  const factor = given ? own : DEFAULT_FACTORS[record.kind];
  const recordKg = massKg(record.load);
  const kg = recordKg * factor;
  const ageDays = daysBetween(record.date, today);
  const stale = ageDays > STALE_AFTER_DAYS;
  const max = {
    kg,
    record,
    factor,
    factorIsDefault: !given,
    ageDays,
    stale,
  };
  return withWorking(max, liftName);
}

/** The working is written when it is read: a squad's plan asks for hundreds of maxes. */
const withWorking = (max: PlainMax, liftName: string): WorkingMax => ({
  ...max,
  get working() {
    return maxWorking(max, liftName);
  },
});

/** The max of a variant that goes through a base: the base's record, with the steps from it. */
export function basedMax(
  base: PlainMax,
  found: { kg: number; steps: MaxStep[] },
  liftName: string,
): WorkingMax {
  return withWorking({ ...plainMax(base), ...found }, liftName);
}

/** A working max without its working: what is sent of hundreds. */
export type PlainMax = Omit<WorkingMax, "working">;

export function plainMax(max: PlainMax): PlainMax {
  const { kg, factor, factorIsDefault, ageDays, stale, steps } = max;
  const { id, load, date, kind, note } = max.record;
  const record = { id, load, date, kind, note };
  return { kg, record, factor, factorIsDefault, ageDays, stale, ...(steps ? { steps } : {}) };
}

/** The working of a max: its record and factor, then the steps from its base. */
export function maxWorking(max: PlainMax, liftName: string): Working {
  const { record, factor, kg, ageDays, stale, steps } = max;
  if (steps && steps.length > 0) {
    const { steps: _, ...plain } = max;
    const base = maxWorking({ ...plain, kg: massKg(record.load) * factor }, "");
    return {
      title: `Working max, ${liftName}`,
      lines: [
        ...base.lines.map(({ emphasis: _e, ...line }) => line),
        ...steps.map(stepLine),
        { label: `Working max, ${liftName}`, value: written(kg, 1), emphasis: "answer" },
      ],
      sources: base.sources ?? [],
      changes: ["An own record of this variant, another ratio, or another record of its base."],
    };
  }
  return {
    title: `Working max, ${liftName}`,
    lines: [
      {
        label: `${MAX_KIND_NAMES[record.kind]}, ${record.date}`,
        value: `${plainNumber(record.load.amount, 3)} ${record.load.unit}`,
        detail: record.note || undefined,
      },
      {
        label: "Factor",
        value: `× ${plainNumber(factor, 3)}`,
        detail: max.factorIsDefault
          ? `default for ${MAX_KIND_NAMES[record.kind].toLowerCase()}`
          : "set by a coach",
      },
      { label: "Working max", value: written(kg), emphasis: "answer" },
      {
        label: "Age",
        value: `${ageDays} days`,
        detail: stale ? `stale after ${STALE_AFTER_DAYS}` : undefined,
      },
    ],
    sources: ["Factors: coaching defaults, docs/sources.md"],
    changes: ["A new record, another chosen record, or another factor."],
  };
}

export type RecordWarning =
  | { code: "large-jump"; fromKg: number; toKg: number; share: number }
  | { code: "future-date" };

/** What a coach should look at twice before a record is kept. */
export function recordWarnings(
  history: readonly MaxRecord[],
  next: { load: Mass; date: LocalDate },
  today: LocalDate,
): RecordWarning[] {
  const warnings: RecordWarning[] = [];
  if (daysBetween(today, next.date) > 0) warnings.push({ code: "future-date" });
  const previous = [...history]
    .filter((record) => daysBetween(record.date, next.date) >= 0)
    .sort((a, b) => daysBetween(a.date, b.date))[0];
  if (previous) {
    const fromKg = massKg(previous.load);
    const toKg = massKg(next.load);
    const share = Math.abs(toKg / fromKg - 1);
    // A hair of floating point must not make 100 → 110 a jump.
    if (share > LARGE_JUMP_SHARE + 1e-9) warnings.push({ code: "large-jump", fromKg, toKg, share });
  }
  return warnings;
}

/**
 * The heaviest load of an athlete's records of a variant, kg; estimates do not count as lifted.
 * @param earlier loads of sets from an imported sheet: they raise a known best, and make none (a
 *   sheet of light work says nothing about the most that was lifted)
 */
export function lifetimeBestKg(
  records: readonly MaxRecord[],
  earlier: readonly Mass[] = [],
): number | undefined {
  const lifted = records
    .filter((record) => record.kind === "competition" || record.kind === "tested")
    .map((record) => massKg(record.load));
  return lifted.length === 0 ? undefined : Math.max(...lifted, ...earlier.map(massKg));
}

/** A load above everything lifted so far: ask first; stopping there is a note, not a failure. */
export function isFirstTime(loadKg: number, bestKg: number | undefined): boolean {
  return bestKg !== undefined && loadKg > bestKg + 1e-9;
}
