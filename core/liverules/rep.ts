import { formatPercent } from "../units/percent";
import { formatVelocity } from "../units/velocity";

/** What ends a set, in the order that breaks ties. */
export const STOP_RULES = ["fault", "bounce", "floor", "loss", "cap"] as const;
export type StopRule = (typeof STOP_RULES)[number];

const ENDED_WORDS: Record<string, string> = {
  cap: "all reps done",
  loss: "velocity loss",
  floor: "the floor",
  fault: "a fault",
  bounce: "bounces in a row",
  hand: "hand",
};

/** What ended a set, in words: "Ended by velocity loss". */
export function endedWords(by: string | undefined): string {
  return ENDED_WORDS[by ?? "hand"] ?? "hand";
}

/** A rep is past a line only when it is under it by more than this, m/s: exactly on it goes on. */
export const LINE_GRACE_MPS = 0.0005;

export interface SetRules {
  /** Reps planned. */
  cap: number;
  /** Largest velocity loss, %, from the set's best so far or its first rep. */
  lossPercent?: number;
  lossFrom: "best" | "first";
  /** Under this a set ends, m/s. */
  floorMps?: number;
  /** On a box under a style that asks for a stop: a shorter pause is a bounce, s. */
  smallestStopS?: number;
  /** Bounces in a row that end a set; 2 where left out. */
  bouncesThatCut?: number;
}

export interface RuleHit {
  rule: StopRule;
  /** What was compared with what, in words. */
  text: string;
  /** The line that was crossed, m/s; undefined for the cap and faults. */
  lineMps?: number;
}

export interface RepAdvice {
  advice: "go-on" | "last-one" | "stop";
  /** All rules that were met by the last rep; the first is the one that ended the set. */
  hits: RuleHit[];
  /** One line for the screen. */
  text: string;
  best: number | undefined;
  /** Loss of the last rep against the reference, %, never under 0. */
  lossPercent: number | undefined;
}

const MOST_MPS = 20;
/** What is none was not measured. */
export const isSpeed = (v: number | undefined): v is number =>
  v !== undefined && v > 0 && v < MOST_MPS;

/** Undefined for none. */
const bestOf = (speeds: readonly number[]): number | undefined =>
  speeds.length > 0 ? Math.max(...speeds) : undefined;

/** The velocity under which the loss rule ends the set; undefined before the first rep. */
export function lossLine(velocities: readonly number[], rules: SetRules): number | undefined {
  if (rules.lossPercent === undefined) return undefined;
  const measured = velocities.filter(isSpeed);
  const reference = rules.lossFrom === "first" ? measured[0] : bestOf(measured);
  return reference && reference * (1 - rules.lossPercent / 100);
}

/**
 * After each counted rep: go on, last one, or stop. The earliest rule wins; where one rep meets
 * several, all are told in the order fault, bounces, floor, loss, cap. A rep that was not measured
 * (undefined) counts towards the cap and is never filled in.
 *
 * @param velocities counted reps in order, m/s; undefined where a rep was not measured
 * @param fault a fault tagged "cut" on the last rep
 * @param pausesS stops at the bottom of the same reps, s; "seen" where somebody saw a bounce,
 *   undefined where nothing is known of it
 */
export function afterRep(
  velocities: ReadonlyArray<number | undefined>,
  rules: SetRules,
  fault?: string,
  pausesS: ReadonlyArray<number | "seen" | undefined> = [],
): RepAdvice {
  const measured = velocities.filter(isSpeed);
  const newest = velocities[velocities.length - 1];
  const last = isSpeed(newest) ? newest : undefined;
  const best = bestOf(measured);
  const line = lossLine(measured, rules);
  const reference = rules.lossFrom === "first" ? measured[0] : best;
  const lossPercent =
    last === undefined || reference === undefined
      ? undefined
      : Math.max(0, 100 * (1 - last / reference));

  const hits: RuleHit[] = [];
  if (fault !== undefined) hits.push({ rule: "fault", text: `Fault: ${fault}` });
  const { smallestStopS, bouncesThatCut = 2 } = rules;
  const stops = pausesS.slice(-bouncesThatCut);
  if (
    smallestStopS !== undefined &&
    stops.length === bouncesThatCut &&
    stops.every((stop) => stop === "seen" || (stop !== undefined && stop < smallestStopS))
  ) {
    hits.push({
      rule: "bounce",
      text: `${bouncesThatCut} ${bouncesThatCut === 1 ? "bounce" : "bounces in a row"}: ${stopWords(stops)}, ${smallestStopS.toFixed(2)} s asked`,
    });
  }
  if (
    last !== undefined &&
    rules.floorMps !== undefined &&
    last < rules.floorMps - LINE_GRACE_MPS
  ) {
    hits.push({
      rule: "floor",
      text: `${formatVelocity(last)} is under the floor of ${formatVelocity(rules.floorMps)}`,
      lineMps: rules.floorMps,
    });
  }
  if (
    last !== undefined &&
    line !== undefined &&
    last < line - LINE_GRACE_MPS &&
    measured.length > 1
  ) {
    hits.push({
      rule: "loss",
      text: `${formatVelocity(last)} is ${formatPercent(lossPercent ?? 0, 0)} under the ${rules.lossFrom === "first" ? "first rep" : "best"}, ${formatPercent(rules.lossPercent ?? 0, 0)} allowed`,
      lineMps: line,
    });
  }
  if (velocities.length >= rules.cap) {
    hits.push({ rule: "cap", text: `All ${rules.cap} reps done` });
  }
  const first = hits[0];
  if (first) return { advice: "stop", hits, text: `Stop. ${first.text}.`, best, lossPercent };

  if (velocities.length === rules.cap - 1) {
    return { advice: "last-one", hits, text: "One more.", best, lossPercent };
  }
  const next = expectedNext(measured);
  if (line !== undefined && next !== undefined && next < line - LINE_GRACE_MPS) {
    return {
      advice: "last-one",
      hits,
      text: `One more: at this rate the next is about ${formatVelocity(next)}, the line is ${formatVelocity(line)}.`,
      best,
      lossPercent,
    };
  }
  return { advice: "go-on", hits, text: "Go on.", best, lossPercent };
}

function stopWords(stops: ReadonlyArray<number | "seen" | undefined>): string {
  const measured = stops.flatMap((stop) => (typeof stop === "number" ? [stop.toFixed(2)] : []));
  const seen = stops.length - measured.length;
  return [
    ...(measured.length > 0 ? [`stops of ${measured.join(" and ")} s`] : []),
    ...(seen > 0 ? [`${seen} seen by eye`] : []),
  ].join(", ");
}

/** The next rep if it drops as much as the last one did; undefined without two measured reps. */
function expectedNext(measured: readonly number[]): number | undefined {
  const last = measured[measured.length - 1];
  const before = measured[measured.length - 2];
  if (last === undefined || before === undefined || last >= before) return undefined;
  return last - (before - last);
}
