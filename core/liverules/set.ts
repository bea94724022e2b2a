import { type BarLoading, describeSide, stepFrom } from "../barload/load";
import type { LoadingGear } from "../barload/loading-gear";
import {
  DAY_SHIFT_SD_MPS,
  LARGEST_CHANGE_SHARE,
  READING_SD_MPS,
  REP_DROP_MPS,
} from "../profile/day-form";
import type { LoadVelocityLine } from "../profile/line";
import { formatAgainst, formatVelocity } from "../units/velocity";
import { say, type Text, written } from "../units/written";
import { EYE_WORDS, type Eye } from "./eye";
import { nearestWithin } from "./nearest-within";
import { isSpeed } from "./rep";

/** A finished set, as the rules see it. */
export interface DoneSet {
  key: string;
  number: number;
  loadKg: number;
  /** Counted and measured reps, m/s. */
  velocities: number[];
  target: { lowMps: number; highMps: number } | undefined;
  /** How fast it looked, where nothing measured it. */
  eye?: Eye | undefined;
}

export type CallAction =
  | { type: "load"; deltaKg: number; toKg: number }
  | { type: "rest"; addS: number }
  | { type: "end-exercise" }
  | { type: "none" };

export type CallKind =
  | "lighten"
  | "more-rest"
  | "end-exercise"
  | "add-load"
  | "more-intent"
  /** Before the first work set, from the way up. */
  | "day-form";

/** A decision that waits: proposal, evidence, and what taking it does. */
export interface Call {
  kind: CallKind;
  proposal: Text;
  evidence: Text;
  action: CallAction;
  /** For the small chart beside it; none where the eye judged. */
  velocities: number[];
  target: { lowMps: number; highMps: number } | undefined;
}

export interface SetVerdict {
  /** Against the wanted range by the set's best rep. */
  standing: "under" | "on" | "over" | "no-target" | "not-measured";
  /** In words, for the speed strip and the rack. */
  text: string;
  call: Call | undefined;
}

export interface AfterSetInput {
  /** The slot's finished sets of this athlete in order; the last is the one to judge. */
  sets: readonly DoneSet[];
  /** Load planned for the next set, kg; undefined after the last. */
  nextLoadKg: number | undefined;
  gear: LoadingGear;
  line: LoadVelocityLine | undefined;
  velocityLed: boolean;
  /** Rest was lengthened for this athlete in this slot already. */
  restLengthened: boolean;
  /**
   * What became of a call on the load in this slot: there is one, and no more. Changed: what is
   * still under afterwards is a reason to end, not to lighten again.
   */
  loadCall: "none" | "changed" | "declined";
  /** What a rep loses on the one before it, m/s; the athlete's own where known. */
  repDropMps?: number;
  /** Default +15 s. */
  restStepS?: number;
}

export const REST_STEP_S = 15;
/** Reps of a set by which its load is judged: the first ones, before they tire. */
const JUDGED_REPS = 3;
/**
 * A load is called wrong only beyond so many errors: one-sided 95 % downwards. Upwards 97.5 %, so
 * that speed that leads, and may call either way, leaves nine in ten ordinary days alone.
 */
const SURE_UNDER = 1.64;
const SURE_OVER = 1.96;
const sureOf = (byMps: number) => (byMps > 0 ? SURE_OVER : SURE_UNDER);

/**
 * By how much a set's first reps missed a speed, m/s, and the error of that: each rep is set
 * against the drop of those before it, so that a longer set is not slower by itself.
 */
function missOf(input: AfterSetInput, set: DoneSet, wantedMps: number) {
  const reps = set.velocities.slice(0, JUDGED_REPS);
  const drop = input.repDropMps ?? REP_DROP_MPS;
  const mean = reps.reduce((sum, v, j) => sum + v + drop * j, 0) / reps.length;
  return {
    byMps: mean - wantedMps,
    sdMps: READING_SD_MPS / Math.sqrt(reps.length),
    n: reps.length,
  };
}

/**
 * The load to go to for a miss: as far as the own line says, drawn in by how much of it is likely
 * the day and not the reading; the nearest that the rack can build, ten percent at most.
 *
 * @returns undefined where the miss is within its error, or is less than a loadable step
 */
function moveFor(
  input: AfterSetInput,
  fromKg: number,
  miss: ReturnType<typeof missOf>,
): { loading: BarLoading; wantedKg: number | undefined } | undefined {
  const { byMps, sdMps } = miss;
  if (Math.abs(byMps) <= sureOf(byMps) * sdMps || !isFirstAtItsLoad(input)) return undefined;
  const up = byMps > 0;
  const share = DAY_SHIFT_SD_MPS ** 2 / (DAY_SHIFT_SD_MPS ** 2 + sdMps ** 2);
  const slope = input.line && Math.abs(input.line.slopeMpsPerKg);
  const wantedKg = slope ? (share * byMps) / slope : undefined;
  const mostKg = LARGEST_CHANGE_SHARE * fromKg;
  const loading =
    wantedKg === undefined
      ? stepFrom(input.gear, fromKg, up ? 1e-6 : -1e-6)
      : nearestWithin(input.gear, fromKg, Math.max(-mostKg, Math.min(mostKg, wantedKg)));
  if (!loading || Math.abs(loading.totalKg - fromKg) > mostKg + 1e-9) return undefined;
  return { loading, wantedKg };
}

/** The first set at a load says whether it suits the day; later ones say how it goes on. */
function isFirstAtItsLoad({ sets }: AfterSetInput): boolean {
  const last = sets[sets.length - 1];
  return !sets.slice(0, -1).some((set) => Math.abs(set.loadKg - (last?.loadKg ?? 0)) < 1e-6);
}

/**
 * After a set of speed work, two things are told apart. The first set at a load already under
 * the wanted range: too heavy today; one call on the load a slot, and only where the miss is
 * more than its error and a loadable step. An earlier set at this load or more was on it and this
 * one is under: fading; rest first, then the end. Under the range is never called fine.
 */
export function afterSet(input: AfterSetInput): SetVerdict {
  const newest = input.sets[input.sets.length - 1];
  if (!newest) return { standing: "not-measured", text: "No set yet.", call: undefined };
  const set = { ...newest, velocities: newest.velocities.filter(isSpeed) };
  if (set.velocities.length === 0 && newest.eye) return byEye(input, newest, newest.eye);
  if (set.velocities.length === 0) {
    return { standing: "not-measured", text: "No rep was measured.", call: undefined };
  }
  const best = Math.max(...set.velocities);
  const { target } = set;
  if (!target) {
    return {
      standing: "no-target",
      text: `Best ${formatVelocity(best)}. Wanted speed not set.`,
      call: undefined,
    };
  }
  const shared = { velocities: set.velocities, target };
  if (best > target.highMps) {
    const [was, most] = formatAgainst(best, target.highMps);
    const text = `Over the wanted speed: best ${was}, wanted ${formatVelocity(target.lowMps)} to ${most}.`;
    return { standing: "over", text, call: overCall(input, set, text, shared) };
  }
  if (best >= target.lowMps) {
    return { standing: "on", text: `On speed: best ${formatVelocity(best)}.`, call: undefined };
  }

  const short = underWords(best, target.lowMps);
  const text = `Under the wanted speed: ${short}`;
  if (input.nextLoadKg === undefined) return { standing: "under", text, call: undefined };
  const earlierOn = input.sets
    .slice(0, -1)
    .find((other) => other.loadKg >= set.loadKg && wasOnSpeed(other));
  if (!earlierOn && input.loadCall === "none")
    return { standing: "under", text, call: lightenCall(input, set, best, shared) };
  if (!earlierOn && input.loadCall === "declined")
    return { standing: "under", text, call: undefined };
  if (!earlierOn)
    return {
      standing: "under",
      text,
      call: {
        kind: "end-exercise",
        proposal: "End this exercise, or go on",
        evidence: say`The load was changed once, and set ${set.number} at ${written(set.loadKg)} is still under: ${short} It is not lightened again.`,
        action: { type: "end-exercise" },
        ...shared,
      },
    };

  const evidence = say`Set ${earlierOn.number} was on speed at ${written(earlierOn.loadKg)}; set ${set.number} ${short}`;
  if (!input.restLengthened) {
    const addS = input.restStepS ?? REST_STEP_S;
    return {
      standing: "under",
      text,
      call: {
        kind: "more-rest",
        proposal: `${addS} s more rest`,
        evidence: say`Fading. ${evidence}`,
        action: { type: "rest", addS },
        ...shared,
      },
    };
  }
  return {
    standing: "under",
    text,
    call: {
      kind: "end-exercise",
      proposal: "End this exercise",
      evidence: say`Still fading with longer rest. ${evidence}`,
      action: { type: "end-exercise" },
      ...shared,
    },
  };
}

/** Whether a set was on speed or over it: by its best rep, else by the eye. */
function wasOnSpeed({ velocities, target, eye }: DoneSet): boolean {
  if (velocities.length === 0) return eye === "fast" || eye === "on";
  return target !== undefined && Math.max(...velocities) >= target.lowMps;
}

const EYE_STANDING = { fast: "over", on: "on", slow: "under" } as const;

/**
 * The same rules by the coach's eye alone. It says no number, so a load moves by one loadable
 * step, and never by more than the rule for a measured miss allows.
 */
function byEye(input: AfterSetInput, set: DoneSet, eye: Eye): SetVerdict {
  const text = `By eye: ${EYE_WORDS[eye]}. Coarser than a measured speed.`;
  const verdict = { standing: EYE_STANDING[eye], text };
  const call = (
    kind: CallKind,
    proposal: Text,
    evidence: Text,
    action: CallAction,
  ): SetVerdict => ({
    ...verdict,
    call: { kind, proposal, evidence, action, velocities: [], target: undefined },
  });
  const from = input.nextLoadKg;
  const { loadCall } = input;
  if (from === undefined || eye === "on") return { ...verdict, call: undefined };
  const seen = say`Set ${set.number} at ${written(set.loadKg)} looked ${EYE_WORDS[eye]}.`;
  const step = stepFrom(input.gear, from, eye === "fast" ? 1e-6 : -1e-6);
  const near =
    step && Math.abs(step.totalKg - from) <= LARGEST_CHANGE_SHARE * from + 1e-9 ? step : undefined;
  const toStep = (kg: number): CallAction => ({ type: "load", deltaKg: kg - from, toKg: kg });
  if (eye === "fast") {
    if (!input.velocityLed || loadCall !== "none" || !near) return { ...verdict, call: undefined };
    const evidence = say`${seen} The eye says no number: one loadable step.`;
    return call("add-load", say`Go up to ${written(near.totalKg)}`, evidence, toStep(near.totalKg));
  }
  const earlierOn = input.sets
    .slice(0, -1)
    .find((other) => other.loadKg >= set.loadKg && wasOnSpeed(other));
  if (!earlierOn) {
    if (loadCall === "declined") return { ...verdict, call: undefined };
    if (loadCall === "changed")
      return call(
        "end-exercise",
        "End this exercise, or go on",
        say`The load was changed once, and ${seen} It is not lightened again.`,
        { type: "end-exercise" },
      );
    if (!near) return { ...verdict, call: undefined };
    return call(
      "lighten",
      say`Lighten to ${written(near.totalKg)}`,
      say`${seen} The eye says no number: one loadable step.`,
      toStep(near.totalKg),
    );
  }
  const fading = say`Fading by eye: set ${earlierOn.number} was on speed at ${written(earlierOn.loadKg)}. ${seen}`;
  if (input.restLengthened)
    return call("end-exercise", "End this exercise", fading, { type: "end-exercise" });
  const addS = input.restStepS ?? REST_STEP_S;
  return call("more-rest", `${addS} s more rest`, fading, { type: "rest", addS });
}

function underWords(best: number, wanted: number): string {
  const [was, asked] = formatAgainst(best, wanted);
  return `best ${was}, wanted ${asked} and over.`;
}

type CallParts = Pick<Call, "velocities"> & { target: { lowMps: number; highMps: number } };

function lightenCall(
  input: AfterSetInput,
  set: DoneSet,
  best: number,
  shared: CallParts,
): Call | undefined {
  const from = input.nextLoadKg as number;
  const miss = missOf(input, set, shared.target.lowMps);
  const move = miss.byMps < 0 ? moveFor(input, from, miss) : undefined;
  if (!move) return undefined;
  const { loading } = move;
  return {
    kind: "lighten",
    proposal: say`Lighten to ${written(loading.totalKg)}`,
    evidence: say`Set ${set.number} at ${written(set.loadKg)} was under at once: ${underWords(best, shared.target.lowMps)} ${missWords(input, miss, move.wantedKg)}`,
    action: { type: "load", deltaKg: loading.totalKg - from, toKg: loading.totalKg },
    ...shared,
  };
}

/** What a move stands on: the miss against its error, and what the own line makes of it. */
function missWords(
  input: AfterSetInput,
  { byMps, sdMps, n }: ReturnType<typeof missOf>,
  wantedKg: number | undefined,
): Text {
  const reps = n === 1 ? "The first rep is" : `The first ${n} reps are`;
  const by = `${reps} ${formatVelocity(Math.abs(byMps))} m/s ${byMps < 0 ? "under" : "over"}, more than the error of ${(sureOf(byMps) * sdMps).toFixed(3)}.`;
  if (!input.line || wantedKg === undefined) return `${by} No own line: one loadable step.`;
  return say`${by} The own line gives ${Math.abs(input.line.slopeMpsPerKg).toFixed(4)} m/s a kg, of which the day's likely share is ${written(Math.abs(wantedKg), 1)}.`;
}

function overCall(
  input: AfterSetInput,
  set: DoneSet,
  text: string,
  shared: CallParts,
): Call | undefined {
  if (input.nextLoadKg === undefined) return undefined;
  if (!input.velocityLed) {
    return {
      kind: "more-intent",
      proposal: say`Keep ${written(input.nextLoadKg)}, ask for more intent`,
      evidence: `${text} The percentage leads, so the load stays.`,
      action: { type: "none" },
      ...shared,
    };
  }
  if (input.loadCall !== "none") return undefined;
  const miss = missOf(input, set, shared.target.highMps);
  const move = miss.byMps > 0 ? moveFor(input, input.nextLoadKg, miss) : undefined;
  if (!move) return undefined;
  const { loading } = move;
  return {
    kind: "add-load",
    proposal: say`Go up to ${written(loading.totalKg)}`,
    evidence: say`${text} ${missWords(input, miss, move.wantedKg)} Next a side: ${describeSide(loading.side.plates)}. Set ${set.number} at ${written(set.loadKg)}.`,
    action: {
      type: "load",
      deltaKg: loading.totalKg - input.nextLoadKg,
      toKg: loading.totalKg,
    },
    ...shared,
  };
}
