import { LineProblems } from "../reading/line-problems";
import { analyseStream } from "./analyse";
import type { MeasuredRep, StreamSettings } from "./stream";

/** A long stream is measured in windows of this length, so that memory does not grow with it. */
const WINDOW_S = 120;
/** Each window begins this long before the last one ended: a set at the seam is seen whole. */
const OVERLAP_S = 30;
/** Reps this close to a window's end are left to the next window. */
const UNSETTLED_S = 8;
/** Faster between two samples than any bar: the signal jumped, m/s. */
export const JUMP_MPS = 15;
/** Positions further apart than this are not in metres, m. */
export const MOST_RANGE_M = 3.5;
/** Reps further apart than this belong to different sets, s. */
export const SET_GAP_S = 12;

export interface StreamGap {
  line: number;
  fromS: number;
  lengthS: number;
}

/**
 * Measures a displacement stream of any length, sample by sample: times in s, heights in m, with
 * the line each sample came from. Faults are named by their line; gaps are noted, since the
 * measuring stops and starts again there.
 */
export class LongStream {
  readonly problems = new LineProblems();
  readonly gaps: StreamGap[] = [];
  readonly reps: MeasuredRep[] = [];
  #settings: Partial<StreamSettings>;
  #times: number[] = [];
  #heights: number[] = [];
  #samples = 0;
  #least = Number.POSITIVE_INFINITY;
  #greatest = Number.NEGATIVE_INFINITY;
  #last: { timeS: number; heightM: number } | undefined;
  #doneUntilS = Number.NEGATIVE_INFINITY;
  #windowStartS: number | undefined;

  constructor(settings: Partial<StreamSettings> = {}) {
    this.#settings = settings;
  }

  get samples(): number {
    return this.#samples;
  }

  push(timeS: number, heightM: number, line: number): void {
    const before = this.#last;
    if (before) {
      const step = timeS - before.timeS;
      if (step <= 0) {
        this.problems.add(
          line,
          `Time ${timeS} s does not come after ${before.timeS} s. Times must rise.`,
        );
        return;
      }
      const moved = heightM - before.heightM;
      if (step < 0.1 && Math.abs(moved) / step > JUMP_MPS) {
        this.problems.add(
          line,
          `The position jumps ${moved.toFixed(3)} m in ${step.toFixed(3)} s. No bar does: a slipped cable, or not metres?`,
        );
        return;
      }
      if (step > 0.1) this.gaps.push({ line, fromS: before.timeS, lengthS: step });
    }
    this.#last = { timeS, heightM };
    this.#samples++;
    this.#least = Math.min(this.#least, heightM);
    this.#greatest = Math.max(this.#greatest, heightM);
    this.#windowStartS ??= timeS;
    this.#times.push(timeS);
    this.#heights.push(heightM);
    if (timeS - this.#windowStartS >= WINDOW_S) this.#measure(timeS - UNSETTLED_S);
  }

  /** Measures what is left; call once, at the end. */
  finish(): void {
    if (this.#samples === 0) {
      this.problems.add(0, "The file holds no samples under its header.");
      return;
    }
    if (this.#greatest - this.#least > MOST_RANGE_M) {
      this.problems.add(
        0,
        `Positions span ${(this.#greatest - this.#least).toFixed(1)}: in metres no bar moves that far. Are they in cm or mm?`,
      );
    }
    this.#measure(Number.POSITIVE_INFINITY);
  }

  #measure(untilS: number): void {
    const { reps } = analyseStream(
      { timesS: this.#times, heightsM: this.#heights },
      this.#settings,
    );
    for (const rep of reps) {
      if (rep.startS <= this.#doneUntilS || rep.endS > untilS) continue;
      this.reps.push(rep);
      this.#doneUntilS = rep.endS;
    }
    const newest = this.#times[this.#times.length - 1] ?? 0;
    const keepFrom = this.#times.findIndex((timeS) => timeS >= newest - OVERLAP_S);
    this.#times = this.#times.slice(keepFrom);
    this.#heights = this.#heights.slice(keepFrom);
    this.#windowStartS = this.#times[0];
  }
}

/** The reps of a stream as sets: a longer wait between two reps starts the next set. */
export function setsOf(reps: readonly MeasuredRep[]): MeasuredRep[][] {
  const sets: MeasuredRep[][] = [];
  for (const rep of reps) {
    const current = sets[sets.length - 1];
    const before = current?.[current.length - 1];
    if (current && before && rep.startS - before.endS <= SET_GAP_S) current.push(rep);
    else sets.push([rep]);
  }
  return sets;
}
