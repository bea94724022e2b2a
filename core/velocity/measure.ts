import { derivative, smoothZeroLag } from "../numeric/butterworth";
import { GRAVITY } from "../units/velocity";
import { fitPassage } from "./passage";
import type { Visit } from "./segment";
import {
  CONTACT_ABOVE_M,
  EDGE_MPS,
  type MeasuredRep,
  type Rock,
  type StreamSettings,
} from "./stream";
import { findTurns } from "./turns";

/** A rise on the seat from this on is a prompt to look, m. */
export const ROCK_M = 0.015;
const ROCK_TURN_M = 0.01;
/** The bottom and the top zone of a range: a tenth of it, 2 to 5 cm. */
const zoneOf = (rangeM: number) => Math.min(0.05, Math.max(0.02, 0.1 * rangeM));

/** A window of even heights around one visit; indices are the window's own. */
export interface Window {
  heights: Float64Array;
  rateHz: number;
  /** Time of the window's first sample, s. */
  startS: number;
  visit: Visit;
}

/** Measures one visit; speeds and times to the definitions of docs/decisions/velocity.md. */
export function measureVisit(window: Window, settings: StreamSettings): MeasuredRep {
  const { rateHz, visit, startS } = window;
  const h = smoothZeroLag(window.heights, rateHz, settings.cutoffHz);
  const v = derivative(h, rateHz);
  const end = h.length - 1;
  const stay = Math.max(0, visit.stayFrom);
  const bottom = argMin(h, stay, visit.top);
  const top = argMax(h, bottom, Math.min(end, visit.top + Math.ceil(0.05 * rateHz)));
  const bottomM = at(h, bottom);
  const topM = at(h, top);
  const rangeM = Math.max(topM - bottomM, 1e-9);
  const zone = zoneOf(rangeM);
  const noiseM = noiseOf(window.heights, h);

  const startGuess = startOf(v, h, stay, bottom, top, bottomM + zone);
  const endGuess = endOf(v, h, startGuess, top, end, topM - zone);
  const peak = argMax(v, Math.floor(startGuess), Math.ceil(endGuess));
  const drive = { window, v, noiseM, peak };
  const start = sharpen(drive, startGuess, 1);
  const finish = sharpen(drive, endGuess, -1);
  const concentricS = Math.max(finish.at - start.at, 1) / rateHz;
  const risen = finish.heightM - start.heightM;

  const a = derivative(v, rateHz);
  const propulsiveEnd = endOfPropulsion(a, peak, finish.at);
  const toEnd = propulsiveEnd >= finish.at;
  const propulsiveM = toEnd ? risen : valueAt(h, propulsiveEnd) - start.heightM;
  const propulsiveS = (propulsiveEnd - start.at) / rateHz;

  return {
    outcome: visit.outcome,
    short: false,
    startS: startS + start.at / rateHz,
    endS: startS + finish.at / rateHz,
    concentricS,
    rangeM,
    bottomM,
    mcvMps: risen / concentricS,
    mpvMps: propulsiveM / propulsiveS,
    propulsiveS,
    propulsiveM,
    propulsiveEndMps: toEnd ? EDGE_MPS : valueAt(v, propulsiveEnd),
    pvMps: peakValue(v, peak),
    timeToPeakS: (peak - start.at) / rateHz,
    fallBackM: visit.fallBackM,
    ...lowering(window, h, v, { bottom, peak, startAt: start.at }, noiseM, settings),
  };
}

/** Everything that is read from the way down and the stay. */
function lowering(
  window: Window,
  h: Float64Array,
  v: Float64Array,
  drive: { bottom: number; peak: number; startAt: number },
  noiseM: number,
  settings: StreamSettings,
): Pick<MeasuredRep, "eccentricS" | "greatestLoweringMps" | "contactMps" | "pauseS" | "rocks"> {
  const { rateHz, visit } = window;
  const none = {
    eccentricS: undefined,
    greatestLoweringMps: undefined,
    contactMps: undefined,
    pauseS: undefined,
    rocks: [] as Rock[],
  };
  if (visit.leaveTop === undefined) return none;
  const from = Math.max(0, visit.from);
  const fastest = argMin(v, from, drive.bottom);
  if (at(v, fastest) >= -settings.stillMps) return none;
  const arrive = arrival(v, h, fastest, drive.bottom);
  const leave = lastBack(v, fastest, from, -settings.stillMps);
  const contactM = at(h, Math.ceil(arrive)) + CONTACT_ABOVE_M;
  const met = falls(h, fastest, drive.bottom, contactM);
  return {
    eccentricS: Math.max(0, arrive - leave) / rateHz,
    greatestLoweringMps: -at(v, fastest),
    contactMps: met === undefined ? -at(v, fastest) : Math.max(0, -valueAt(v, met)),
    pauseS: stillBetween(window, arrive, drive.startAt, settings.stillMps, noiseM) / rateHz,
    rocks: rocksOf(h, Math.floor(arrive), drive.startAt, rateHz),
  };
}

/** The first arrival: where the lowering comes to 0.05 m/s for good or turns, in samples. */
function arrival(v: Float64Array, h: Float64Array, fastest: number, bottom: number): number {
  const near = at(h, bottom) + 0.25 * (at(h, fastest) - at(h, bottom));
  for (let i = fastest; i < bottom; i++) {
    const [here, next] = [at(v, i), at(v, i + 1)];
    if (here < -EDGE_MPS && next >= -EDGE_MPS && at(h, i) <= near + 0.03) {
      return i + (-EDGE_MPS - here) / (next - here);
    }
  }
  return bottom;
}

/** Going back from an index: where v was last above a level, in samples. */
function lastBack(v: Float64Array, from: number, to: number, level: number): number {
  for (let i = from; i > to; i--) {
    const [before, here] = [at(v, i - 1), at(v, i)];
    if (before >= level && here < level) return i - 1 + (before - level) / (before - here);
  }
  return to;
}

/** Samples with |v| under a level between the first arrival and the drive's start. */
function stillBetween(
  { heights, rateHz }: Window,
  arrive: number,
  start: number,
  levelMps: number,
  noiseM: number,
): number {
  // As quick a filter as the noise allows: a rock or a hop lasts a tenth of a second, and noise
  // must not look like movement.
  const quickHz =
    (levelMps / STILL_NOISES / (2 * Math.PI * noiseM)) ** (2 / 3) * Math.cbrt(1.5 * rateHz);
  const cutoffHz = Math.min(MOST_STILL_HZ, Math.max(LEAST_STILL_HZ, quickHz));
  const v = derivative(smoothZeroLag(heights, rateHz, cutoffHz), rateHz);
  const edge = EDGE_ROOM_S * rateHz;
  let sum = 0;
  for (let i = Math.ceil(arrive); i < Math.floor(start); i++) {
    // Near both ends the filter rounds the turns, which are known.
    const inner = i > arrive + edge && i < start - edge;
    sum += inner ? shareInside(at(v, i), at(v, i + 1), levelMps) : 1;
  }
  const ends = Math.ceil(arrive) - arrive + start - Math.floor(start);
  return start <= arrive ? 0 : sum + (Math.ceil(arrive) <= Math.floor(start) ? ends : -ends);
}
/** Standing still, velocity noise stays this many times under the level. */
const STILL_NOISES = 5;
const LEAST_STILL_HZ = 4;
const MOST_STILL_HZ = 20;
const EDGE_ROOM_S = 0.06;

/** Rises on the seat between the first arrival and the drive. */
function rocksOf(h: Float64Array, arrive: number, start: number, rateHz: number): Rock[] {
  const to = Math.floor(start);
  if (to - arrive < 3) return [];
  const turns = findTurns(h.subarray(arrive, to + 1), ROCK_TURN_M);
  const rocks: Rock[] = [];
  for (let i = 0; i + 1 < turns.length; i++) {
    const turn = turns[i];
    if (turn?.kind !== "top") continue;
    const before = turns[i - 1]?.index ?? 0;
    const high = at(h, arrive + turn.index);
    const low = argMin(h, arrive + before, arrive + turn.index);
    const riseM = high - at(h, low);
    if (riseM < ROCK_M) continue;
    rocks.push({
      riseM,
      riseS: (arrive + turn.index - low) / rateHz,
      toDriveS: (start - arrive - turn.index) / rateHz,
    });
  }
  return rocks;
}

/** The last rise of v through 0.05 before the bottom zone is left, else the first after. */
function startOf(
  v: Float64Array,
  h: Float64Array,
  stay: number,
  bottom: number,
  top: number,
  levelM: number,
): number {
  let leave = top;
  while (leave > bottom && at(h, leave) >= levelM) leave--;
  let i = leave;
  while (i > stay && at(v, i) < EDGE_MPS) i--;
  if (at(v, i) >= EDGE_MPS) {
    while (i > stay && at(v, i - 1) >= EDGE_MPS) i--;
    return i > stay ? between(v, i - 1, EDGE_MPS) : i;
  }
  for (let k = leave; k < top; k++) {
    if (at(v, k) < EDGE_MPS && at(v, k + 1) >= EDGE_MPS) return between(v, k, EDGE_MPS);
  }
  return bottom;
}

/** The first fall of v through 0.05 after the top zone is entered, else the last before. */
function endOf(
  v: Float64Array,
  h: Float64Array,
  start: number,
  top: number,
  last: number,
  levelM: number,
): number {
  let enter = Math.ceil(start);
  while (enter < top && at(h, enter) <= levelM) enter++;
  let i = enter;
  while (i < top && at(v, i) < EDGE_MPS) i++;
  if (at(v, i) >= EDGE_MPS) {
    while (i < last && at(v, i + 1) >= EDGE_MPS) i++;
    return i < last ? between(v, i, EDGE_MPS) : i;
  }
  for (let k = enter; k > start; k--) {
    if (at(v, k) < EDGE_MPS && at(v, k - 1) >= EDGE_MPS) return between(v, k - 1, EDGE_MPS);
  }
  return top;
}

/** Where v passes a level between a sample and the next. */
function between(v: Float64Array, i: number, level: number): number {
  const [here, next] = [at(v, i), at(v, i + 1)];
  return here === next ? i : i + (level - here) / (next - here);
}

/** Share of the way to the peak that is looked at, and its bounds, s. */
const MOVING_SHARE = 0.75;
const LEAST_MOVING_S = 0.06;
const MOST_MOVING_S = 0.3;
const OTHER_S = 0.12;
const LEAST_SIDE_SAMPLES = 6;

function sharpen(
  { window, v, noiseM, peak }: { window: Window; v: Float64Array; noiseM: number; peak: number },
  guess: number,
  side: 1 | -1,
): { at: number; heightM: number } {
  const { rateHz, heights } = window;
  // The first peak from here: in a grind the greatest speed lies beyond a sticking point.
  const goal = Math.max(2 * EDGE_MPS, 0.5 * at(v, peak));
  let near = Math.round(guess);
  while (near !== peak && at(v, near) < goal) near += side;
  while (near !== peak && at(v, near + side) >= at(v, near)) near += side;
  const toPeakS = Math.abs(near - guess) / rateHz;
  const movingS = Math.min(MOST_MOVING_S, Math.max(LEAST_MOVING_S, MOVING_SHARE * toPeakS));
  const fit = fitPassage({
    heights,
    rateHz,
    guess,
    side,
    movingSpan: Math.max(movingS * rateHz, LEAST_SIDE_SAMPLES),
    otherSpan: Math.max(OTHER_S * rateHz, LEAST_SIDE_SAMPLES - 2),
    noiseM,
    levelMps: EDGE_MPS,
    peakMps: Math.max(EDGE_MPS, at(v, near)),
    toPeakS: Math.max(toPeakS, LEAST_MOVING_S),
  });
  return fit ?? { at: guess, heightM: valueAt(heights, guess) };
}

const LEAST_NOISE_M = 0.00015;
const FOURTH_GAIN = Math.sqrt(70);

/** Noise of a height: fourth differences, in which a bar's own movement is gone; m. */
function noiseOf(heights: Float64Array, filtered: Float64Array): number {
  const n = heights.length;
  const rest = new Float64Array(n);
  for (let i = 0; i < n; i++) rest[i] = at(heights, i) - at(filtered, i);
  const size = new Float64Array(Math.max(0, n - 4));
  for (let i = 0; i < size.length; i++) {
    size[i] = Math.abs(
      at(rest, i) -
        4 * at(rest, i + 1) +
        6 * at(rest, i + 2) -
        4 * at(rest, i + 3) +
        at(rest, i + 4),
    );
  }
  size.sort();
  const median = size[Math.floor(size.length / 2)] ?? 0;
  return Math.max(LEAST_NOISE_M, median / 0.6745 / FOURTH_GAIN);
}

/** Fractional index of the first a < −g after the peak, or the end of the concentric. */
function endOfPropulsion(a: Float64Array, peak: number, end: number): number {
  for (let i = peak; i + 1 <= end; i++) {
    const [here, next] = [at(a, i), at(a, i + 1)];
    if (next < -GRAVITY) return here <= -GRAVITY ? i : i + (-GRAVITY - here) / (next - here);
  }
  return end;
}

/** Where a falling height first passes a level, in samples; undefined where it never does. */
function falls(h: Float64Array, from: number, to: number, levelM: number): number | undefined {
  for (let i = from + 1; i <= to; i++) {
    const [above, under] = [at(h, i - 1), at(h, i)];
    if (above >= levelM && under < levelM) return i - 1 + (above - levelM) / (above - under);
  }
  return undefined;
}

/** Share of a straight piece from a to b that lies within ±level. */
function shareInside(a: number, b: number, level: number): number {
  if (a === b) return Math.abs(a) < level ? 1 : 0;
  const low = Math.min(a, b);
  const high = Math.max(a, b);
  return Math.max(0, Math.min(high, level) - Math.max(low, -level)) / (high - low);
}

function at(values: Float64Array, index: number): number {
  return values[index] as number;
}

/** Linear between samples; held at the ends. */
function valueAt(values: Float64Array, index: number): number {
  const held = Math.min(values.length - 1, Math.max(0, index));
  const below = Math.max(0, Math.min(values.length - 2, Math.floor(held)));
  const share = held - below;
  return at(values, below) * (1 - share) + at(values, below + 1) * share;
}

function argMax(values: Float64Array, from: number, to: number): number {
  let best = from;
  for (let i = from; i <= to; i++) if (at(values, i) > at(values, best)) best = i;
  return best;
}

function argMin(values: Float64Array, from: number, to: number): number {
  let best = from;
  for (let i = from; i <= to; i++) if (at(values, i) < at(values, best)) best = i;
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
