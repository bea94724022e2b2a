import { EvenSteps } from "./even-steps";
import { type FaultListener, FrameIntake } from "./frames";
import { measureVisit } from "./measure";
import { LONGEST_VISIT_S, Segmenter, type Visit } from "./segment";
import { type MeasuredRep, STREAM_DEFAULTS, type StreamSettings } from "./stream";

/** A stretch that was measured; more than one means the signal had gaps. */
export interface MeasuredRun {
  startS: number;
  endS: number;
  rateHz: number;
}

export interface MeterEvents {
  fault?: FaultListener;
  /** The signal was away from one moment to another, s. */
  gap?: (fromS: number, toS: number, tag: number) => void;
}

/** A bottom higher than usual by this share of the usual range makes a short rep. */
const SHORT_SHARE = 0.25;
/** A range under this share of the longest so far … */
const RACKING_SHARE = 0.45;
/** … this long after it, is the bar on its way to the hooks, s. */
const RACKING_AFTER_S = 5;
const LEAST_RUN_SAMPLES = 8;

/**
 * Reps out of frames, one frame at a time: the one detector, for a running set and a stored
 * stream alike. A frame costs the same early and late; memory is bounded by the longest visit.
 */
export class StreamMeter {
  readonly #settings: StreamSettings;
  readonly #intake: FrameIntake;
  readonly #runs: MeasuredRun[] = [];
  #fresh: MeasuredRep[] = [];
  #run: Run | undefined;
  #usualTopM: number | undefined;
  #ranges: number[] = [];
  #bottoms: number[] = [];
  #longest: { rangeM: number; endS: number } | undefined;

  constructor(settings: Partial<StreamSettings> = {}, events: MeterEvents = {}) {
    this.#settings = { ...STREAM_DEFAULTS, ...settings };
    this.#intake = new FrameIntake(
      {
        frame: (timeS, heightM) => this.#frame(timeS, heightM),
        gap: (fromS, toS, tag) => {
          this.#endRun();
          events.gap?.(fromS, toS, tag);
        },
      },
      events.fault,
    );
  }

  /** Takes a frame; gives the reps that became certain with it, mostly none. */
  push(timeS: number, heightM: number, tag = 0): MeasuredRep[] {
    this.#intake.push(timeS, heightM, tag);
    return this.#taken();
  }

  /** No frame follows; gives what was still open. */
  finish(): MeasuredRep[] {
    this.#intake.finish();
    this.#endRun();
    return this.#taken();
  }

  /** The stretches that are over. */
  get runs(): readonly MeasuredRun[] {
    return this.#runs;
  }

  /** Samples in memory: bounded by the longest visit, however long the set. */
  get samplesKept(): number {
    return this.#run?.kept ?? 0;
  }

  #taken(): MeasuredRep[] {
    if (this.#fresh.length === 0) return NONE;
    const fresh = this.#fresh;
    this.#fresh = [];
    return fresh;
  }

  #frame(timeS: number, heightM: number): void {
    if (this.#run === undefined) {
      const stepS = this.#intake.stepS;
      if (!(stepS > 0)) return;
      this.#run = new Run(stepS, this.#settings, this.#usualTopM, (visit, run) =>
        this.#visit(visit, run),
      );
    }
    this.#run.steps.frame(timeS, heightM);
  }

  #endRun(): void {
    const run = this.#run;
    this.#run = undefined;
    if (!run) return;
    run.finish();
    this.#usualTopM = run.segmenter.usualTopM;
    const startS = run.steps.startS;
    if (startS === undefined || run.count < LEAST_RUN_SAMPLES) return;
    const rateHz = 1 / run.steps.stepS;
    this.#runs.push({ startS, endS: startS + (run.count - 1) / rateHz, rateHz });
  }

  #visit(visit: Visit, run: Run): void {
    const rep = measureVisit(run.window(visit), this.#settings);
    if (!(rep.concentricS >= this.#settings.leastTimeS) || !Number.isFinite(rep.mcvMps)) return;
    if (rep.outcome === "counted" && rep.rangeM < this.#settings.leastDisplacementM) return;
    const longest = this.#longest;
    if (
      rep.outcome === "counted" &&
      longest !== undefined &&
      rep.rangeM < RACKING_SHARE * longest.rangeM &&
      rep.startS - longest.endS > RACKING_AFTER_S
    ) {
      return;
    }
    this.#fresh.push({ ...rep, short: rep.outcome === "counted" && this.#isShort(rep) });
    if (rep.outcome !== "counted") return;
    if (longest === undefined || rep.rangeM > longest.rangeM) {
      this.#longest = { rangeM: rep.rangeM, endS: rep.endS };
    } else if (rep.rangeM >= RACKING_SHARE * longest.rangeM) longest.endS = rep.endS;
    this.#ranges = [...this.#ranges.slice(-USUAL_REPS), rep.rangeM];
    this.#bottoms = [...this.#bottoms.slice(-USUAL_REPS), rep.bottomM];
  }

  /** Started clearly higher than the reps before it. */
  #isShort(rep: MeasuredRep): boolean {
    const range = middle(this.#ranges);
    const bottom = middle(this.#bottoms);
    if (range === undefined || bottom === undefined) return false;
    return rep.bottomM > bottom + SHORT_SHARE * range;
  }
}

const NONE: MeasuredRep[] = [];
const USUAL_REPS = 8;

function middle(values: readonly number[]): number | undefined {
  return [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) / 2)];
}

/** One unbroken stretch of the signal. */
class Run {
  readonly steps: EvenSteps;
  readonly segmenter: Segmenter;
  readonly #visit: (visit: Visit, run: Run) => void;
  /** Heights from sample `#base` on; older ones are let go. */
  #heights = new Float64Array(1024);
  #base = 0;
  count = 0;

  constructor(
    stepS: number,
    settings: StreamSettings,
    usualTopM: number | undefined,
    visit: (visit: Visit, run: Run) => void,
  ) {
    this.#visit = visit;
    this.steps = new EvenSteps(stepS, (heightM) => this.#sample(heightM));
    this.segmenter = new Segmenter(
      1 / this.steps.stepS,
      { start: settings.start, leastDisplacementM: settings.leastDisplacementM, usualTopM },
      (index) => this.#heights[index - this.#base] as number,
    );
  }

  get kept(): number {
    return this.#heights.length;
  }

  #sample(heightM: number): void {
    if (this.count - this.#base === this.#heights.length) this.#makeRoom();
    this.#heights[this.count - this.#base] = heightM;
    this.count++;
    const visit = this.segmenter.push(heightM);
    if (visit) this.#visit(visit, this);
  }

  /** Lets go what no visit can need, or doubles the room. */
  #makeRoom(): void {
    const rateHz = 1 / this.steps.stepS;
    const oldest = this.count - Math.ceil(2 * LONGEST_VISIT_S * rateHz);
    const keep = Math.max(this.#base, oldest, 0);
    const needed = Math.max(keep, Math.min(this.segmenter.needsFrom, this.count) - 1);
    const from = Math.min(Math.max(needed, this.#base), this.count);
    const kept = this.#heights.subarray(from - this.#base, this.count - this.#base);
    const size = kept.length > this.#heights.length / 2 ? 2 * this.#heights.length : undefined;
    const room = size === undefined ? this.#heights : new Float64Array(size);
    room.set(kept);
    this.#heights = room;
    this.#base = from;
  }

  window(visit: Visit): Parameters<typeof measureVisit>[0] {
    const rateHz = 1 / this.steps.stepS;
    const from = Math.max(this.#base, visit.from);
    const heights = this.#heights.slice(from - this.#base, visit.decided + 1 - this.#base);
    const shifted = (index: number) => Math.max(0, index - from);
    return {
      heights,
      rateHz,
      startS: (this.steps.startS ?? 0) + from / rateHz,
      visit: {
        ...visit,
        leaveTop: visit.leaveTop === undefined ? undefined : shifted(visit.leaveTop),
        from: 0,
        stayFrom: shifted(visit.stayFrom),
        bottom: shifted(visit.bottom),
        top: shifted(visit.top),
        decided: shifted(visit.decided),
      },
    };
  }

  finish(): void {
    this.steps.finish();
    const visit = this.segmenter.finish();
    if (visit) this.#visit(visit, this);
  }
}
