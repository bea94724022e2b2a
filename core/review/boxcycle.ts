import { type DepthLedger, type DepthSet, depthLedger } from "../boxsquat/depth";
import { type FaultHistory, returnsWithin } from "../boxsquat/faults";
import { mean } from "../numeric/statistics";
import { DAY_SHIFT_SD_MPS, READING_SD_MPS } from "../profile/readiness";
import { formatKg, type MassUnit, plainNumber } from "../units/mass";
import type { LocalDate } from "../units/time";
import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";

/** One done set of a cycle on the box. */
export interface CycleSet {
  loadKg: number;
  /** Share of the working max it stood on, %. */
  percent: number | undefined;
  /** Fastest counted rep, m/s; undefined where nothing was measured. */
  bestMps: number | undefined;
  standing: "under" | "on" | "over" | "no-target" | "not-measured";
  reps: number;
  /** Stops at the bottom that were measured, s. */
  pausesS: readonly number[];
  /** Of them shorter than the slot's smallest stop; undefined where the slot sets none. */
  bounces: number | undefined;
  /** Speed on meeting the box and time to the peak, a rep each, where they were measured. */
  contactsMps: readonly number[];
  toPeakS: readonly number[];
  faults: readonly string[];
  cut: boolean;
}

/** One session of a cycle, as planned and as done. */
export interface CycleSession {
  week: number;
  date: LocalDate;
  kind: "work" | "deload" | "test" | "off";
  planned: { sets: number; reps: number };
  /** Box as it stood that day, cm; undefined where it was not frozen. */
  heightCm: number | undefined;
  style: string | undefined;
  /** Undefined: this athlete was not on the floor. */
  sets: readonly CycleSet[] | undefined;
}

/** The main work of a session: its sets at the load done most, the heavier where two tie. */
export interface CycleWeek {
  week: number;
  date: LocalDate;
  kind: CycleSession["kind"];
  heightCm: number | undefined;
  style: string | undefined;
  present: boolean;
  plannedSets: number;
  doneSets: number;
  cutSets: number;
  reps: number;
  loadKg: number | undefined;
  percent: number | undefined;
  /** Mean of the set bests at that load, m/s, of so many sets. */
  speedMps: number | undefined;
  speedSets: number;
  /** First set's best less the last one's, at that load, m/s: the fade over the sets. */
  fadeMps: number | undefined;
  onSpeed: number;
  judged: number;
  meanStopS: number | undefined;
  bounces: number | undefined;
  meanContactMps: number | undefined;
  meanToPeakS: number | undefined;
  faults: Array<{ fault: string; times: number }>;
}

/** Loads within this share of each other are the same load. */
export const SAME_LOAD_SHARE = 0.0125;
/** Sets cut up to this share of the done ones are "few", %. */
export const FEW_CUT_PERCENT = 10;
const several = (n: number, one: string, more: string) => `${n} ${n === 1 ? one : more}`;

/** A change of speed with its sign, m/s. */
export const signedMps = (mps: number): string =>
  `${mps < 0 ? "−" : "+"}${formatVelocity(Math.abs(mps))}`;

/** 90 % interval of a normal error. */
const Z90 = 1.6448536269514722;

/** What one session came to. */
export function weekOf(session: CycleSession): CycleWeek {
  const { sets } = session;
  const done = sets ?? [];
  const byLoad = new Map<number, CycleSet[]>();
  for (const set of done) byLoad.set(set.loadKg, [...(byLoad.get(set.loadKg) ?? []), set]);
  const main = [...byLoad].sort((a, b) => b[1].length - a[1].length || b[0] - a[0])[0];
  const bests = (main?.[1] ?? []).flatMap((set) => set.bestMps ?? []);
  const faults = new Map<string, number>();
  for (const set of done)
    for (const fault of set.faults) faults.set(fault, (faults.get(fault) ?? 0) + 1);
  const watched = done.filter((set) => set.bounces !== undefined);
  const judged = done.filter((set) => !["no-target", "not-measured"].includes(set.standing));
  return {
    week: session.week,
    date: session.date,
    kind: session.kind,
    heightCm: session.heightCm,
    style: session.style,
    present: sets !== undefined,
    plannedSets: session.planned.sets,
    doneSets: done.length,
    cutSets: done.filter((set) => set.cut).length,
    reps: done.reduce((sum, set) => sum + set.reps, 0),
    loadKg: main?.[0],
    percent: main?.[1][0]?.percent,
    speedMps: mean(bests),
    speedSets: bests.length,
    fadeMps:
      bests.length > 1 ? (bests[0] as number) - (bests[bests.length - 1] as number) : undefined,
    onSpeed: judged.filter((set) => set.standing !== "under").length,
    judged: judged.length,
    meanStopS: mean(done.flatMap((set) => [...set.pausesS])),
    bounces:
      watched.length === 0 ? undefined : watched.reduce((sum, set) => sum + (set.bounces ?? 0), 0),
    meanContactMps: mean(done.flatMap((set) => [...set.contactsMps])),
    meanToPeakS: mean(done.flatMap((set) => [...set.toPeakS])),
    faults: [...faults]
      .map(([fault, times]) => ({ fault, times }))
      .sort((a, b) => b.times - a.times || a.fault.localeCompare(b.fault)),
  };
}

/** A working week's mean speed at its main load. */
export interface SpeedPoint {
  week: number;
  loadKg: number;
  speedMps: number;
  /** Sets behind it. */
  sets: number;
}

export type SpeedChange =
  | {
      ok: true;
      /** Weeks set against each other, the later pair last. */
      pairs: Array<{ from: SpeedPoint; to: SpeedPoint }>;
      /** Mean of later less earlier over the pairs, m/s, with its 90 % interval. */
      changeMps: number;
      lowMps: number;
      highMps: number;
      /** Beyond noise, or not. */
      verdict: "rose" | "fell" | "within-noise";
      /** The loads differ: the earlier speed was carried along the athlete's own line. */
      byLine: boolean;
      working: Working;
    }
  | { ok: false; reason: "one-week" | "no-equal-load"; words: string };

const sameLoad = (a: number, b: number) =>
  Math.abs(a - b) <= SAME_LOAD_SHARE * Math.max(a, b) + 1e-9;

/** From the last week back: each with the earliest week at its load that is in no pair yet. */
function equalLoadPairs(
  points: readonly SpeedPoint[],
): Array<{ from: SpeedPoint; to: SpeedPoint }> {
  const used = new Set<number>();
  const pairs: Array<{ from: SpeedPoint; to: SpeedPoint }> = [];
  for (let i = points.length - 1; i > 0; i--) {
    const to = points[i] as SpeedPoint;
    if (used.has(i)) continue;
    const at = points.findIndex(
      (one, k) => k < i && !used.has(k) && sameLoad(one.loadKg, to.loadKg),
    );
    if (at < 0) continue;
    used.add(i).add(at);
    pairs.unshift({ from: points[at] as SpeedPoint, to });
  }
  return pairs;
}

/**
 * Change of speed at equal load over a cycle: working weeks at one load are set against each
 * other, each week in one pair at most, and the mean is taken. Where no two weeks have a load in
 * common, the first week is carried to the last one's load along the athlete's own line. A week's
 * error is the day's form and the readings of its sets, √(0.05² + 0.03²/n) m/s (DOMAIN 6);
 * deloads and tests are left out.
 * @param slope of the athlete's line, m/s per kg, below zero; undefined without one
 */
export function speedAtEqualLoad(
  weeks: readonly CycleWeek[],
  slope: number | undefined,
  unit: MassUnit,
): SpeedChange {
  const points = weeks.flatMap((one): SpeedPoint[] =>
    one.kind === "work" && one.speedMps !== undefined && one.loadKg !== undefined
      ? [{ week: one.week, loadKg: one.loadKg, speedMps: one.speedMps, sets: one.speedSets }]
      : [],
  );
  const [first] = points;
  const last = points[points.length - 1];
  if (!first || !last || points.length < 2)
    return {
      ok: false,
      reason: "one-week",
      words: "Fewer than two working weeks with measured speed: nothing to set side by side.",
    };
  const equal = equalLoadPairs(points);
  const byLine = equal.length === 0;
  if (byLine && !(slope !== undefined && slope < 0))
    return {
      ok: false,
      reason: "no-equal-load",
      words:
        "No two working weeks at the same load, and no own profile to carry a speed from one load to another. One set at the first week's load would show it.",
    };
  const pairs = byLine ? [{ from: first, to: last }] : equal;
  const carried = (one: { from: SpeedPoint; to: SpeedPoint }) =>
    one.from.speedMps + (byLine ? (slope as number) * (one.to.loadKg - one.from.loadKg) : 0);
  const changeMps = mean(pairs.map((one) => one.to.speedMps - carried(one))) as number;
  const variance = (one: SpeedPoint) => DAY_SHIFT_SD_MPS ** 2 + READING_SD_MPS ** 2 / one.sets;
  const half =
    (Z90 * Math.sqrt(pairs.reduce((sum, one) => sum + variance(one.from) + variance(one.to), 0))) /
    pairs.length;
  const at = (one: SpeedPoint) => `${formatVelocity(one.speedMps)} m/s`;
  return {
    ok: true,
    pairs,
    changeMps,
    lowMps: changeMps - half,
    highMps: changeMps + half,
    verdict: changeMps > half ? "rose" : changeMps < -half ? "fell" : "within-noise",
    byLine,
    working: {
      title: "Speed at equal load, over the cycle",
      lines: [
        ...pairs.flatMap((one) => [
          {
            label: `Week ${one.from.week}, ${formatKg(one.from.loadKg, unit)}`,
            value: at(one.from),
            detail: `mean of the best rep of ${several(one.from.sets, "set", "sets")}`,
          },
          ...(byLine
            ? [
                {
                  label: `Carried to ${formatKg(one.to.loadKg, unit)}`,
                  value: `${formatVelocity(carried(one))} m/s`,
                  detail: "along the slope of the athlete's own profile",
                },
              ]
            : []),
          {
            label: `Week ${one.to.week}, ${formatKg(one.to.loadKg, unit)}`,
            value: at(one.to),
            detail: `mean of the best rep of ${several(one.to.sets, "set", "sets")}`,
          },
        ]),
        {
          label: "Noise of the difference, 90 %",
          value: `± ${formatVelocity(half)} m/s`,
          detail: `day's form ${DAY_SHIFT_SD_MPS} m/s and reading ${READING_SD_MPS} m/s over the sets of each week${pairs.length > 1 ? `, mean of ${pairs.length} pairs` : ""}`,
        },
        {
          label: pairs.length > 1 ? "Change, mean of the pairs" : "Change",
          value: `${signedMps(changeMps)} m/s`,
          emphasis: "answer",
        },
      ],
      sources: ["Error of a day and of a reading: docs/sources.md, day readiness"],
      changes: ["More weeks at one load, or more sets measured at it."],
    },
  };
}

/** What a coach may decide at the end of a cycle, or within it. */
export const CYCLE_DECISIONS = ["raise", "hold", "lower", "change-box", "end"] as const;
export type CycleDecision = (typeof CYCLE_DECISIONS)[number];
export const CYCLE_DECISION_NAMES: Record<CycleDecision, string> = {
  raise: "Raise the load",
  hold: "Hold the load",
  lower: "Take load off",
  "change-box": "Change height or style",
  end: "End the cycle",
};

/** One finding of a review, with what it speaks for. */
export interface CycleFinding {
  about: "attendance" | "speed" | "cut" | "stops" | "faults" | "depth" | "next";
  speaksFor: "raise" | "hold" | "lower" | "look" | "none";
  words: string;
}

export interface BoxCycleReview {
  weeks: CycleWeek[];
  speed: SpeedChange;
  depth: DepthLedger;
  findings: CycleFinding[];
  /** What the rule proposes; the coach decides. */
  proposal: "raise" | "hold" | "lower" | "not-enough";
}

/**
 * The review of a cycle on the box: raise only where speed at equal load rose beyond noise, few
 * sets were cut, and no fault of the last week speaks against it (DOMAIN 13; the share of cut
 * sets is the coach's).
 * @param sessions in order of their dates, those to come left out
 * @param nextPercent share of the max that the plan goes to next, %
 */
export function reviewBoxCycle(input: {
  sessions: readonly CycleSession[];
  slope: number | undefined;
  depthSets: readonly DepthSet[];
  faults: readonly FaultHistory[];
  nextPercent: number | undefined;
  today: LocalDate;
  unit: MassUnit;
  fewCutPercent?: number;
}): BoxCycleReview {
  const few = input.fewCutPercent ?? FEW_CUT_PERCENT;
  const weeks = input.sessions.map(weekOf);
  const speed = speedAtEqualLoad(weeks, input.slope, input.unit);
  const depth = depthLedger(input.depthSets, input.today);
  const findings: CycleFinding[] = [];

  const came = weeks.filter((one) => one.present).length;
  const done = weeks.reduce((sum, one) => sum + one.doneSets, 0);
  const planned = weeks.reduce((sum, one) => sum + (one.present ? one.plannedSets : 0), 0);
  findings.push({
    about: "attendance",
    speaksFor: came * 2 < weeks.length ? "hold" : "none",
    words: `There for ${came} of ${several(weeks.length, "session", "sessions")}, ${done} of ${planned} sets done.`,
  });

  if (speed.ok) {
    const between = speed.pairs.map((one) => `${one.from.week} to ${one.to.week}`).join(" and ");
    const range = `${signedMps(speed.changeMps)} m/s, week ${between}${speed.byLine ? ", by the own profile" : ""}`;
    findings.push({
      about: "speed",
      speaksFor: speed.verdict === "rose" ? "raise" : speed.verdict === "fell" ? "lower" : "hold",
      words: {
        rose: `Speed at equal load rose beyond noise: ${range}.`,
        fell: `Speed at equal load fell beyond noise: ${range}.`,
        "within-noise": `Speed at equal load changed by no more than noise: ${range}.`,
      }[speed.verdict],
    });
  } else findings.push({ about: "speed", speaksFor: "none", words: speed.words });

  const cut = weeks.reduce((sum, one) => sum + one.cutSets, 0);
  if (done > 0) {
    const share = (100 * cut) / done;
    findings.push({
      about: "cut",
      speaksFor: share > few + 1e-9 ? "hold" : "none",
      words: `${several(cut, "set", "sets")} of ${done} cut, ${plainNumber(share, 0)} %; up to ${few} % counts as few.`,
    });
  }

  const watched = weeks.filter((one) => one.bounces !== undefined);
  if (watched.length > 0) {
    const bounces = watched.reduce((sum, one) => sum + (one.bounces ?? 0), 0);
    const reps = watched.reduce((sum, one) => sum + one.reps, 0);
    findings.push({
      about: "stops",
      speaksFor: bounces * 10 > reps ? "look" : "none",
      words:
        bounces === 0
          ? "No bounce: every measured stop was long enough."
          : `${several(bounces, "bounce", "bounces")} in ${reps} reps: the stop was shorter than the slot asks.`,
    });
  }

  const last = weeks.filter((one) => one.present).at(-1);
  const open = last?.faults ?? [];
  const seen = [...new Set(weeks.flatMap((one) => one.faults.map((fault) => fault.fault)))];
  const gone = seen.filter((fault) => !open.some((one) => one.fault === fault));
  if (open.length > 0)
    findings.push({
      about: "faults",
      speaksFor: "hold",
      words: `In the last session: ${open.map((one) => `${one.fault} × ${one.times}`).join(", ")}.`,
    });
  if (gone.length > 0)
    findings.push({
      about: "faults",
      speaksFor: "none",
      words: `Not seen any more in the last session: ${gone.join(", ")}.`,
    });
  if (seen.length === 0 && done > 0)
    findings.push({ about: "faults", speaksFor: "none", words: "No fault was tagged." });

  if (!depth.ok) findings.push({ about: "depth", speaksFor: "look", words: depth.words });
  const { nextPercent } = input;
  if (nextPercent !== undefined)
    for (const one of returnsWithin(input.faults, nextPercent))
      findings.push({
        about: "next",
        speaksFor: "hold",
        words: `The plan goes to ${plainNumber(nextPercent, 1)} %: "${one.fault}" came back at ${plainNumber(one.returnsAt ?? 0, 1)} %.`,
      });

  const says = (what: CycleFinding["speaksFor"]) => findings.some((one) => one.speaksFor === what);
  return {
    weeks,
    speed,
    depth,
    findings,
    proposal: !speed.ok
      ? "not-enough"
      : says("lower")
        ? "lower"
        : says("hold") || !says("raise")
          ? "hold"
          : "raise",
  };
}
