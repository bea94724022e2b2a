import { LineProblems } from "../reading/line-problems";
import type { FrameFault } from "./frames";
import { StreamMeter } from "./meter";
import type { MeasuredRep, StreamSettings } from "./stream";

/** Positions further apart than this are not in metres, m. */
export const MOST_RANGE_M = 3.5;
/** Reps further apart than this belong to different sets, s. */
export const SET_GAP_S = 12;
/** A broken signal can have more gaps than anybody reads: all are counted, these are kept. */
const GAPS_KEPT = 200;

export interface StreamGap {
  line: number;
  fromS: number;
  lengthS: number;
}

/** Frames of one kind that the signal got wrong: how many, and where the first stood. */
export interface StreamFault {
  fault: FrameFault;
  count: number;
  line: number;
  timeS: number;
}

/**
 * Measures a displacement stream of any length, sample by sample: times in s, heights in m, with
 * the line each sample came from. What a sensor got wrong is named with its first line and left
 * out, what follows it is measured; gaps are noted, since measuring stops and starts again there.
 */
export class LongStream {
  readonly problems = new LineProblems();
  readonly gaps: StreamGap[] = [];
  readonly reps: MeasuredRep[] = [];
  gapCount = 0;
  readonly #faults = new Map<FrameFault, StreamFault>();
  readonly #meter: StreamMeter;
  #samples = 0;
  #least = Number.POSITIVE_INFINITY;
  #greatest = Number.NEGATIVE_INFINITY;

  constructor(settings: Partial<StreamSettings> = {}) {
    this.#meter = new StreamMeter(settings, {
      fault: (fault, frame) => {
        const known = this.#faults.get(fault);
        if (known) known.count++;
        else this.#faults.set(fault, { fault, count: 1, line: frame.tag, timeS: frame.timeS });
      },
      gap: (fromS, toS, line) => {
        this.gapCount++;
        if (this.gaps.length < GAPS_KEPT) this.gaps.push({ line, fromS, lengthS: toS - fromS });
      },
    });
  }

  get samples(): number {
    return this.#samples;
  }

  /** What the signal got wrong, by the line of the first of each kind. */
  get faults(): StreamFault[] {
    return [...this.#faults.values()].sort((a, b) => a.line - b.line);
  }

  push(timeS: number, heightM: number, line: number): void {
    this.#samples++;
    if (heightM < this.#least) this.#least = heightM;
    if (heightM > this.#greatest) this.#greatest = heightM;
    const fresh = this.#meter.push(timeS, heightM, line);
    if (fresh.length > 0) this.reps.push(...fresh);
  }

  /** Measures what is left; call once, at the end. */
  finish(): void {
    this.reps.push(...this.#meter.finish());
    if (this.#samples === 0) {
      this.problems.add(0, "The file holds no samples under its header.");
      return;
    }
    const spikes = this.#faults.get("spike")?.count ?? 0;
    if (this.#greatest - this.#least > MOST_RANGE_M && spikes === 0) {
      this.problems.add(
        0,
        `Positions span ${(this.#greatest - this.#least).toFixed(1)}: in metres no bar moves that far. Are they in cm or mm?`,
      );
    }
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
