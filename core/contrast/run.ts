import { type ClockMark, secondsBetween } from "../units/clock";
import type { Complex, ComplexItem } from "./complex";
import { OUTPUTS } from "./outputs";
import type { Sides } from "./sides";

/** The clock warns this long before the next start, s. */
export const WARN_BEFORE_S = 10;

/** What a running pairing goes by; a team may set each. */
export interface RunSettings {
  /** Taken under this share of the planned rest, a start says so, %. */
  earlyUnderPercent: number;
  /** Output lost against round 1 that proposes the end of the work, %. */
  endAtLossPercent: number;
  /** Within this change output is the same, %. */
  sameWithinPercent: number;
}

export type Side = "left" | "right";

/** One tap that counts; taken back and corrected ones are gone before they come here. */
export type RunTap = {
  id: string;
  /** 1-based. */
  round: number;
  /** 0-based within the round. */
  item: number;
  mark: ClockMark;
} & (
  | { kind: "start" }
  | { kind: "done" }
  /** A jump, a throw, a sprint, a bar speed; the best of an item counts. */
  | { kind: "output"; value: number; side?: Side }
  /** The athlete's own baseline of the item before the work. */
  | { kind: "baseline"; value: number }
  /** Reps that were done to each side, where it was not what was planned. */
  | { kind: "sides"; left: number; right: number }
  /** Another load of the item, from this round on. */
  | { kind: "load"; kg: number }
  | { kind: "stop" }
);

export interface RestTaken {
  round: number;
  item: number;
  plannedS: number;
  takenS: number;
  early: boolean;
  /** Its two ends were not tapped on one running page: the clocks of two may differ. */
  estimated?: true;
}

export interface RoundOutput {
  round: number;
  item: number;
  /** Of an item done left and right. */
  side?: Side;
  value: number;
  /** Against round 1 and against the baseline, %; up is better. */
  againstFirst: number | undefined;
  againstBaseline: number | undefined;
  verdict: "better" | "same" | "fading";
}

export type Stage =
  | { kind: "waiting"; round: number; item: number }
  | { kind: "working"; round: number; item: number; since: ClockMark }
  | { kind: "resting"; round: number; item: number; since: ClockMark; plannedS: number }
  | { kind: "over"; why: "done" | "stopped" };

export interface AthleteRun {
  stage: Stage;
  rests: RestTaken[];
  outputs: RoundOutput[];
  baseline: Partial<Record<number, number>>;
  /** The end rule speaks: which item lost how much. */
  endProposed: { item: number; side?: Side; lossPercent: number } | undefined;
  /** Loads that were set at the rack, by item: from which round, kg. */
  loads: Array<{ round: number; item: number; kg: number }>;
  /** Reps of what is done by sides, a line a round that was finished. */
  sides: Array<{ round: number; item: number } & Sides>;
}

/** Two taps of one place: the first in the log's order stands. */
export interface TappedTwice {
  round: number;
  item: number;
  kept: string;
  other: string;
}

type Tapped = Pick<RunTap, "id" | "mark">;

/** What follows an item: the gap to the next of the round, or the rest to the next round. */
export function restAfter(complex: Complex, item: number): number {
  return item === complex.items.length - 1
    ? complex.restS
    : (complex.items[item] as ComplexItem).gapS;
}

/** The next item after one; undefined after the last of the last round. */
export function nextOf(complex: Complex, round: number, item: number) {
  if (item < complex.items.length - 1) return { round, item: item + 1 };
  return round < complex.rounds ? { round: round + 1, item: 0 } : undefined;
}

/**
 * Folds an athlete's taps, which come in the log's order: of two starts or two ends of one item
 * the first stands, of loads and sides the last, of outputs the best. A rest is done to the next
 * start on one page's monotonic clock, else it is an estimate.
 */
export function foldRun(
  complex: Complex,
  taps: Iterable<RunTap>,
  settings: RunSettings,
): { run: AthleteRun; twice: TappedTwice[] } {
  const place = (round: number, item: number) => `${round}/${item}`;
  const starts = new Map<string, Tapped>();
  const ends = new Map<string, Tapped>();
  const values = new Map<string, number>();
  const loads = new Map<string, AthleteRun["loads"][number]>();
  const sidesDone = new Map<string, Sides>();
  const baseline: Partial<Record<number, number>> = {};
  const twice: TappedTwice[] = [];
  let stopped = false;
  for (const tap of taps) {
    const { round, item: index } = tap;
    const item = complex.items[index];
    if (!item) continue;
    const key = place(round, index);
    if (tap.kind === "start" || tap.kind === "done") {
      const known = tap.kind === "start" ? starts : ends;
      const kept = known.get(key);
      if (kept === undefined) known.set(key, tap);
      else twice.push({ round, item: index, kept: kept.id, other: tap.id });
    } else if (tap.kind === "output") {
      const of = `${key}/${tap.side ?? ""}`;
      const before = values.get(of);
      values.set(of, before === undefined ? tap.value : bestOf(item, before, tap.value));
    } else if (tap.kind === "load") {
      loads.set(key, { round, item: index, kg: tap.kg });
    } else if (tap.kind === "sides") {
      sidesDone.set(key, { left: tap.left, right: tap.right });
    } else if (tap.kind === "baseline") {
      const before = baseline[index];
      baseline[index] = before === undefined ? tap.value : bestOf(item, before, tap.value);
    } else stopped = true;
  }

  const rests: RestTaken[] = [];
  let stage: Stage = { kind: "waiting", round: 1, item: 0 };
  let at: { round: number; item: number } | undefined = { round: 1, item: 0 };
  let previous: { round: number; item: number; done: Tapped } | undefined;
  while (at) {
    const key = place(at.round, at.item);
    const start = starts.get(key);
    const done = ends.get(key);
    if (start === undefined) {
      if (previous) {
        const plannedS = restAfter(complex, previous.item);
        stage = {
          kind: "resting",
          ...at,
          since: previous.done.mark,
          plannedS,
        };
      } else stage = { kind: "waiting", ...at };
      break;
    }
    if (previous) {
      const plannedS = restAfter(complex, previous.item);
      const { seconds: takenS, measured } = secondsBetween(previous.done.mark, start.mark);
      rests.push({
        ...at,
        plannedS,
        takenS,
        early: takenS < (settings.earlyUnderPercent / 100) * plannedS - 1e-9,
        ...(measured ? {} : { estimated: true }),
      });
    }
    if (done === undefined) {
      stage = { kind: "working", ...at, since: start.mark };
      break;
    }
    previous = { ...at, done };
    at = nextOf(complex, at.round, at.item);
  }
  if (!at) stage = { kind: "over", why: "done" };
  if (stopped) stage = { kind: "over", why: "stopped" };

  const outputs: RoundOutput[] = [];
  let endProposed: AthleteRun["endProposed"];
  complex.items.forEach((item, i) => {
    if (item.output === "none") return;
    for (const side of [undefined, "left", "right"] as const) {
      const first = values.get(`${place(1, i)}/${side ?? ""}`);
      for (let round = 1; round <= complex.rounds; round++) {
        const value = values.get(`${place(round, i)}/${side ?? ""}`);
        if (value === undefined) continue;
        const againstFirst = round === 1 ? undefined : changePercent(item, first, value);
        const againstBaseline = changePercent(item, baseline[i], value);
        const reference = againstFirst ?? againstBaseline ?? 0;
        outputs.push({
          round,
          item: i,
          ...(side === undefined ? {} : { side }),
          value,
          againstFirst,
          againstBaseline,
          verdict:
            reference > settings.sameWithinPercent
              ? "better"
              : reference < -settings.sameWithinPercent
                ? "fading"
                : "same",
        });
        const loss = againstFirst === undefined ? 0 : -againstFirst;
        if (loss >= settings.endAtLossPercent - 1e-9)
          endProposed = { item: i, ...(side === undefined ? {} : { side }), lossPercent: loss };
        else if (endProposed?.item === i && endProposed.side === side) endProposed = undefined;
      }
    }
  });
  outputs.sort((a, b) => a.round - b.round || a.item - b.item);
  const sides = [...ends.keys()].flatMap((key) => {
    const [round = 0, at = 0] = key.split("/").map(Number);
    const item = complex.items[at];
    const told = sidesDone.get(key);
    // A side that is not told of one-sided work stays untold: nothing is filled in.
    if (!item || (!told && !item.sides)) return [];
    return [{ round, item: at, ...(told ?? { left: item.reps, right: item.reps }) }];
  });
  sides.sort((a, b) => a.round - b.round || a.item - b.item);
  return {
    run: {
      stage,
      rests,
      outputs,
      baseline,
      endProposed,
      loads: [...loads.values()].sort((a, b) => a.round - b.round || a.item - b.item),
      sides,
    },
    twice,
  };
}

/** What a run did to each side, by the item's name: lines of a ledger. */
export const sidesOf = (complex: Complex, run: Pick<AthleteRun, "sides">) =>
  run.sides.map(({ item, left, right }) => ({
    item: complex.items[item]?.name ?? "",
    left,
    right,
  }));

/** The newest load of an item that was set at the rack for a round or one before it. */
export function loadSet(run: Pick<AthleteRun, "loads">, item: number, round: number) {
  return run.loads.filter((one) => one.item === item && one.round <= round).pop();
}

/** The better of two values of an item. */
export function bestOf(item: ComplexItem, a: number, b: number): number {
  return OUTPUTS[item.output].up ? Math.max(a, b) : Math.min(a, b);
}

/** Change of an output, %: up is better whatever is measured. */
function changePercent(
  item: ComplexItem,
  from: number | undefined,
  value: number,
): number | undefined {
  if (from === undefined || !(from > 0)) return undefined;
  const share = value / from - 1;
  return 100 * (OUTPUTS[item.output].up ? share : -share);
}

/** How long until the next start, s (negative once it is due), and whether to warn. */
export function dueIn(stage: Stage, now: ClockMark): { leftS: number; warn: boolean } | undefined {
  if (stage.kind !== "resting") return undefined;
  const leftS = stage.plannedS - secondsBetween(stage.since, now).seconds;
  return { leftS, warn: leftS <= WARN_BEFORE_S };
}

/** Whether a start now would be early, with what is left of the planned rest. */
export function earlyStart(
  stage: Stage,
  now: ClockMark,
  settings: RunSettings,
): { takenS: number; plannedS: number } | undefined {
  if (stage.kind !== "resting") return undefined;
  const takenS = secondsBetween(stage.since, now).seconds;
  return takenS < (settings.earlyUnderPercent / 100) * stage.plannedS - 1e-9
    ? { takenS, plannedS: stage.plannedS }
    : undefined;
}
