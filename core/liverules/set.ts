import { describeSide, stepFrom } from "../barload/load";
import type { LoadingGear } from "../barload/loading-gear";
import type { LoadVelocityLine } from "../profile/line";
import { formatKg } from "../units/mass";
import { formatAgainst, formatVelocity } from "../units/velocity";

/** A finished set, as the rules see it. */
export interface DoneSet {
  key: string;
  number: number;
  loadKg: number;
  /** Counted and measured reps, m/s. */
  velocities: number[];
  target: { lowMps: number; highMps: number } | undefined;
}

export type CallAction =
  | { type: "load"; deltaKg: number; toKg: number }
  | { type: "rest"; addS: number }
  | { type: "end-exercise" }
  | { type: "none" };

export type CallKind = "lighten" | "more-rest" | "end-exercise" | "add-load" | "more-intent";

/** A decision that waits: proposal, evidence, and what taking it does. */
export interface Call {
  kind: CallKind;
  proposal: string;
  evidence: string;
  action: CallAction;
  /** For the small chart beside it. */
  velocities: number[];
  target: { lowMps: number; highMps: number };
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
  /** Default +15 s. */
  restStepS?: number;
}

export const REST_STEP_S = 15;

/**
 * After a set of speed work, two things are told apart. The first set at a load already under
 * the wanted range: too heavy today. An earlier set at this load or more was on it and this one
 * is under: fading; rest first, then the end. Under the range is never called fine.
 */
export function afterSet(input: AfterSetInput): SetVerdict {
  const set = input.sets[input.sets.length - 1];
  if (!set) return { standing: "not-measured", text: "No set yet.", call: undefined };
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
    return { standing: "over", text, call: overCall(input, set, best, text, shared) };
  }
  if (best >= target.lowMps) {
    return { standing: "on", text: `On speed: best ${formatVelocity(best)}.`, call: undefined };
  }

  const short = underWords(best, target.lowMps);
  const text = `Under the wanted speed: ${short}`;
  if (input.nextLoadKg === undefined) return { standing: "under", text, call: undefined };
  const earlierOn = input.sets
    .slice(0, -1)
    .find(
      (other) =>
        other.loadKg >= set.loadKg &&
        other.target !== undefined &&
        other.velocities.length > 0 &&
        Math.max(...other.velocities) >= other.target.lowMps,
    );
  if (!earlierOn) return { standing: "under", text, call: lightenCall(input, set, best, shared) };

  const evidence = `Set ${earlierOn.number} was on speed at ${formatKg(earlierOn.loadKg)}; set ${set.number} ${short}`;
  if (!input.restLengthened) {
    const addS = input.restStepS ?? REST_STEP_S;
    return {
      standing: "under",
      text,
      call: {
        kind: "more-rest",
        proposal: `${addS} s more rest`,
        evidence: `Fading. ${evidence}`,
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
      evidence: `Still fading with longer rest. ${evidence}`,
      action: { type: "end-exercise" },
      ...shared,
    },
  };
}

function underWords(best: number, wanted: number): string {
  const [was, asked] = formatAgainst(best, wanted);
  return `best ${was}, wanted ${asked} and over.`;
}

type CallParts = Pick<Call, "velocities" | "target">;

function lightenCall(
  input: AfterSetInput,
  set: DoneSet,
  best: number,
  shared: CallParts,
): Call | undefined {
  const from = input.nextLoadKg as number;
  const shortBy = shared.target.lowMps - best;
  const bySlope = input.line ? shortBy / Math.abs(input.line.slopeMpsPerKg) : 0;
  const lighter = stepFrom(input.gear, from, -Math.max(bySlope, 1e-6));
  if (!lighter) return undefined;
  const slope = input.line
    ? ` The own line gives ${Math.abs(input.line.slopeMpsPerKg).toFixed(4)} m/s a kg: ${bySlope.toFixed(1)} kg.`
    : " No own line: one loadable step.";
  return {
    kind: "lighten",
    proposal: `Lighten to ${formatKg(lighter.totalKg)}`,
    evidence: `Set ${set.number} at ${formatKg(set.loadKg)} was under at once: ${underWords(best, shared.target.lowMps)}${slope}`,
    action: { type: "load", deltaKg: lighter.totalKg - from, toKg: lighter.totalKg },
    ...shared,
  };
}

function overCall(
  input: AfterSetInput,
  set: DoneSet,
  best: number,
  text: string,
  shared: CallParts,
): Call | undefined {
  if (input.nextLoadKg === undefined) return undefined;
  if (!input.velocityLed) {
    return {
      kind: "more-intent",
      proposal: `Keep ${formatKg(input.nextLoadKg)}, ask for more intent`,
      evidence: `${text} The percentage leads, so the load stays.`,
      action: { type: "none" },
      ...shared,
    };
  }
  const bySlope = input.line
    ? (best - shared.target.highMps) / Math.abs(input.line.slopeMpsPerKg)
    : 0;
  const heavier = stepFrom(input.gear, input.nextLoadKg, Math.max(bySlope, 1e-6));
  if (!heavier) return undefined;
  return {
    kind: "add-load",
    proposal: `Go up to ${formatKg(heavier.totalKg)}`,
    evidence: `${text} Next a side: ${describeSide(heavier.side.plates)}. Set ${set.number} at ${formatKg(set.loadKg)}.`,
    action: {
      type: "load",
      deltaKg: heavier.totalKg - input.nextLoadKg,
      toKg: heavier.totalKg,
    },
    ...shared,
  };
}
