import { derivative, smoothZeroLag } from "../numeric/butterworth";
import { type EvenRun, resampleEvenly } from "../numeric/resample";
import { median } from "../numeric/statistics";
import { GRAVITY } from "../units/velocity";
import { findEdge } from "./edges";
import {
  CONTACT_ABOVE_M,
  type MeasuredRep,
  type PositionStream,
  PROCESSING_VERSION,
  STREAM_DEFAULTS,
  type StreamAnalysis,
  type StreamSettings,
} from "./stream";
import { fitTurn } from "./turn-fit";
import { findTurns } from "./turns";

/** A turn needs this much movement back: wobble while standing is less. */
const TURN_HYSTERESIS_M = 0.02;
/** A try that turns back after this much is a failed rep, if a full lowering came before it. */
const LEAST_FAILED_RISE_M = 0.05;
/** The top is reached within this share of the range (or 6 cm). */
const TOP_TOLERANCE_SHARE = 0.15;
const TOP_TOLERANCE_M = 0.06;
/** A bottom higher than the usual one by this share of the usual range makes a short rep. */
const SHORT_SHARE = 0.25;

/**
 * Finds the reps in a displacement stream and measures each.
 *
 * Walkout, re-rack, bar bounce and plate changes are not reps: they move the bar less than
 * `leastDisplacementM`, or (for lifts that start from the top) have no lowering before them.
 *
 * @param stream times in s, heights in m; 25–1000 Hz, jitter and gaps allowed
 * @returns the reps in order of time; an empty list where there are none (never an error)
 */
export function analyseStream(
  stream: PositionStream,
  settings: Partial<StreamSettings> = {},
): StreamAnalysis {
  const used = { ...STREAM_DEFAULTS, ...settings };
  const runs = resampleEvenly(stream.timesS, stream.heightsM);
  const reps = runs.flatMap((run) => repsOfRun(run, used));
  markShort(reps);
  return {
    reps,
    runs: runs.map((run) => ({
      startS: run.startS,
      endS: run.startS + (run.values.length - 1) / run.rateHz,
      rateHz: run.rateHz,
    })),
    processing: PROCESSING_VERSION,
  };
}

interface Signal {
  run: EvenRun;
  heights: Float64Array;
  velocity: Float64Array;
  lowering: Float64Array;
  acceleration: Float64Array;
}

function repsOfRun(run: EvenRun, settings: StreamSettings): MeasuredRep[] {
  const heights = smoothZeroLag(run.values, run.rateHz, settings.cutoffHz);
  const velocity = derivative(heights, run.rateHz);
  const signal: Signal = {
    run,
    heights,
    velocity,
    lowering: velocity.map((v) => -v),
    acceleration: derivative(velocity, run.rateHz),
  };
  const turns = findTurns(heights, TURN_HYSTERESIS_M);
  const reps: MeasuredRep[] = [];

  for (let i = 0; i < turns.length; i++) {
    const top = turns[i];
    const bottom = turns[i - 1];
    if (top?.kind !== "top" || bottom === undefined) continue;
    const startTop = turns[i - 2];
    const wentDownAfter = turns[i + 1] !== undefined;
    const rise = at(heights, top.index) - at(heights, bottom.index);
    const lowered = startTop ? at(heights, startTop.index) - at(heights, bottom.index) : 0;
    const fromTop = lowered >= settings.leastDisplacementM;
    if (settings.start === "top" && !fromTop) continue;

    // For a lift from the top the way up is known: back to where the lowering began.
    const tolerance = Math.max(TOP_TOLERANCE_M, TOP_TOLERANCE_SHARE * lowered);
    const missedTop = settings.start === "top" && rise < lowered - tolerance;
    const failed = missedTop && wentDownAfter;
    if (rise < (failed ? LEAST_FAILED_RISE_M : settings.leastDisplacementM)) continue;
    if (missedTop && !failed) continue; // still on the way up: not yet a rep

    const rep = measureRep(
      signal,
      settings,
      fromTop ? startTop?.index : undefined,
      bottom.index,
      top.index,
    );
    if (rep.concentricS < settings.leastTimeS) continue;
    reps.push(failed ? { ...rep, outcome: "failed" } : rep);
  }
  return reps;
}

function measureRep(
  signal: Signal,
  settings: StreamSettings,
  startTop: number | undefined,
  bottom: number,
  top: number,
): MeasuredRep {
  const { heights, velocity, lowering, acceleration, run } = signal;
  const { rateHz } = run;
  const peak = argMax(velocity, bottom, top);
  const bottomM = at(heights, bottom);
  const topM = at(heights, top);
  const shared = { velocity, peak, rateHz, cutoffHz: settings.cutoffHz, range: topM - bottomM };

  // The search may look a little past the turn, where a hold hides it.
  const slack = Math.ceil(0.1 * rateHz);
  const fastestLowering = startTop === undefined ? undefined : argMax(lowering, startTop, bottom);
  const start = findEdge({
    ...shared,
    limit: Math.max(fastestLowering ?? 0, bottom - slack),
    beyond: (i) => at(heights, i) - bottomM,
  });
  const end = findEdge({
    ...shared,
    limit: Math.min(heights.length - 1, top + slack),
    beyond: (i) => topM - at(heights, i),
  });

  const bottomTurn = sharpen(run, start, 1, end - start);
  const topTurn = sharpen(run, end, -1, end - start);
  const concentricS = (topTurn.at - bottomTurn.at) / rateHz;
  const rangeM = topTurn.heightM - bottomTurn.heightM;
  const propulsiveEnd = endOfPropulsion(acceleration, peak, topTurn.at);
  const propulsiveM =
    propulsiveEnd === topTurn.at ? rangeM : valueAt(heights, propulsiveEnd) - bottomTurn.heightM;

  let eccentricS: number | undefined;
  let pauseS: number | undefined;
  let contactMps: number | undefined;
  if (startTop !== undefined && fastestLowering !== undefined) {
    const lower = {
      velocity: lowering,
      peak: fastestLowering,
      rateHz,
      cutoffHz: settings.cutoffHz,
      range: at(heights, startTop) - bottomM,
    };
    const lowerStart = findEdge({
      ...lower,
      limit: Math.max(0, startTop - slack),
      beyond: (i) => at(heights, startTop) - at(heights, i),
    });
    const lowerEnd = findEdge({
      ...lower,
      limit: Math.min(peak, bottom + slack),
      beyond: (i) => at(heights, i) - bottomM,
    });
    eccentricS = (lowerEnd - lowerStart) / rateHz;
    pauseS = timeUnder(velocity, fastestLowering, peak, settings.stillMps) / rateHz;
    const met = crossing(heights, fastestLowering, bottom, bottomTurn.heightM + CONTACT_ABOVE_M);
    contactMps = met === undefined ? undefined : Math.max(0, valueAt(lowering, met));
  }

  return {
    outcome: "counted",
    short: false,
    startS: run.startS + bottomTurn.at / rateHz,
    endS: run.startS + topTurn.at / rateHz,
    concentricS,
    rangeM,
    bottomM,
    mcvMps: rangeM / concentricS,
    mpvMps: propulsiveM / ((propulsiveEnd - bottomTurn.at) / rateHz),
    propulsiveS: (propulsiveEnd - bottomTurn.at) / rateHz,
    propulsiveM,
    // At the top turn the bar stands still by definition, whatever the filter leaves of it.
    propulsiveEndMps: propulsiveEnd === topTurn.at ? 0 : valueAt(velocity, propulsiveEnd),
    pvMps: peakValue(velocity, peak),
    timeToPeakS: (peak - bottomTurn.at) / rateHz,
    eccentricS,
    greatestLoweringMps: fastestLowering === undefined ? undefined : at(lowering, fastestLowering),
    contactMps,
    pauseS,
  };
}

/** Where a falling height first passes a level, in samples; undefined where it never does. */
function crossing(
  heights: Float64Array,
  from: number,
  to: number,
  levelM: number,
): number | undefined {
  for (let i = from + 1; i <= to; i++) {
    const above = at(heights, i - 1);
    const under = at(heights, i);
    if (above >= levelM && under < levelM) return i - 1 + (above - levelM) / (above - under);
  }
  return undefined;
}

/** Share of the concentric that is looked at on the moving side of a turn. */
const TURN_SHARE = 0.38;
const LEAST_TURN_SAMPLES = 8;
const LARGEST_TURN_SHARE = 0.46;
const OTHER_SIDE_S = 0.12;
const TURN_REACH_S = 0.05;

/** The turn next to a first guess, from the unfiltered heights; the guess where none is found. */
function sharpen(run: EvenRun, guess: number, side: 1 | -1, concentricSamples: number) {
  const fit = fitTurn({
    heights: run.values,
    rateHz: run.rateHz,
    guess,
    side,
    movingSpan: Math.max(
      TURN_SHARE * concentricSamples,
      Math.min(LEAST_TURN_SAMPLES, LARGEST_TURN_SHARE * concentricSamples),
    ),
    otherSpan: Math.max(4, OTHER_SIDE_S * run.rateHz),
    reach: Math.max(1, TURN_REACH_S * run.rateHz),
  });
  return fit ?? { at: guess, heightM: valueAt(run.values, guess) };
}

function at(values: Float64Array, index: number): number {
  return values[index] as number;
}

/** Linear between samples; held at the ends. */
function valueAt(values: Float64Array, index: number): number {
  const held = Math.min(values.length - 1, Math.max(0, index));
  const below = Math.min(values.length - 2, Math.floor(held));
  const share = held - below;
  return at(values, below) * (1 - share) + at(values, below + 1) * share;
}

function argMax(values: Float64Array, from: number, to: number): number {
  let best = from;
  for (let i = from; i <= to; i++) if (at(values, i) > at(values, best)) best = i;
  return best;
}

/** Height of the parabola through the peak sample and its neighbours. */
function peakValue(values: Float64Array, peak: number): number {
  const here = at(values, peak);
  const before = values[peak - 1];
  const after = values[peak + 1];
  if (before === undefined || after === undefined) return here;
  const curve = before - 2 * here + after;
  return curve >= 0 ? here : here - (after - before) ** 2 / (8 * curve);
}

/** Fractional index of the first a < −g after the peak, or the end of the concentric. */
function endOfPropulsion(acceleration: Float64Array, peak: number, end: number): number {
  for (let i = peak; i + 1 <= end; i++) {
    const here = at(acceleration, i);
    const next = at(acceleration, i + 1);
    if (next < -GRAVITY) {
      return here <= -GRAVITY ? i : i + (-GRAVITY - here) / (next - here);
    }
  }
  return end;
}

/** Samples (fractional) with |v| under `level` between two indices. */
function timeUnder(values: Float64Array, from: number, to: number, level: number): number {
  let sum = 0;
  for (let i = from; i < to; i++) {
    sum += shareInside(at(values, i), at(values, i + 1), level);
  }
  return sum;
}

/** Share of a straight piece from a to b that lies within ±level. */
function shareInside(a: number, b: number, level: number): number {
  if (a === b) return Math.abs(a) < level ? 1 : 0;
  const low = Math.min(a, b);
  const high = Math.max(a, b);
  return Math.max(0, Math.min(high, level) - Math.max(low, -level)) / (high - low);
}

function markShort(reps: MeasuredRep[]): void {
  const counted = reps.filter((rep) => rep.outcome === "counted");
  const usualBottom = median(counted.map((rep) => rep.bottomM));
  const usualRange = median(counted.map((rep) => rep.rangeM));
  if (usualBottom === undefined || usualRange === undefined || counted.length < 3) return;
  for (const rep of counted) rep.short = rep.bottomM > usualBottom + SHORT_SHARE * usualRange;
}
