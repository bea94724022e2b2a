/**
 * The moment at which a bar passes 0.05 m/s, from the heights themselves.
 *
 * A low-pass rounds the corner between rest and movement and shifts that moment by up to 20 ms; at
 * 0.8 m/s over half a second that costs 0.03 m/s. So the unfiltered heights around a first guess
 * are described by a turn at t₀ between two simple movements,
 *
 *   before t₀:  h₀ + d·s + c·s²/2                       a hold (c = 0), a drift, or a lowering
 *   after t₀:   h₀ + d·s + a·s²/2 + j·s³/6 + Σ kᵢ·(s − sᵢ)³₊/6
 *
 * which is linear in all but t₀. Each has a prior of the size that bars have; t₀ runs over a grid,
 * with and without c. Every such picture gives a moment and weighs as much as the heights speak
 * for it, so the answer is a mean over what is possible, sharp where the heights are, and wider
 * where noise hides the corner.
 */
export interface PassageInput {
  /** Evenly spaced heights, unfiltered, m. */
  heights: Float64Array;
  rateHz: number;
  /** First guess of the passage, in samples. */
  guess: number;
  /** +1 where the movement lies after the passage, −1 where it lies before. */
  side: 1 | -1;
  /** Samples looked at on the moving side, and on the other. */
  movingSpan: number;
  otherSpan: number;
  /** Noise of one height, m, over 0. */
  noiseM: number;
  levelMps: number;
  /** Speed of the first peak on the moving side, m/s, and the time to it, s: over 0. */
  peakMps: number;
  toPeakS: number;
}

export interface Passage {
  /** In samples. */
  at: number;
  heightM: number;
}

/** Sizes that bars have at rest and on the way down (standard deviations): m, m/s, m/s². */
const HEIGHT_SD_M = 0.05;
const DRIFT_SD_MPS = 0.015;
const OTHER_SD_MPS2 = 6;
/** On the moving side, as multiples of speed ÷ time and speed ÷ time² up to the first peak. */
const START_SD = 1;
const JERK_SD = 8;
const JERK_STEP_SD = 6;
const KNOT_SHARES = [0.35, 0.65];
const REACH_S = 0.06;
const GRID = 17;
const LEAST_SAMPLES = 7;
/** A picture this much less likely than the best adds nothing. */
const LEAST_LOG_WEIGHT = -9;

/** Columns: h₀, d, c, a, j, k₁, k₂. */
const COLUMNS = 7;
const OTHER = 2;

/** Undefined where there is too little to look at: the caller keeps its guess. */
export function fitPassage(input: PassageInput): Passage | undefined {
  const { heights, rateHz, guess, side, noiseM, levelMps } = input;
  const fromS = -input.otherSpan / rateHz;
  const toS = input.movingSpan / rateHz;
  // Times s run from the other side to the moving one, so that v is positive on the moving side.
  const times: number[] = [];
  const values: number[] = [];
  const first = Math.max(0, Math.ceil(guess + (side === 1 ? fromS : -toS) * rateHz));
  const last = Math.min(
    heights.length - 1,
    Math.floor(guess + (side === 1 ? toS : -fromS) * rateHz),
  );
  if (last - first + 1 < LEAST_SAMPLES) return undefined;
  const origin = heights[Math.min(heights.length - 1, Math.max(0, Math.round(guess)))] as number;
  for (let i = first; i <= last; i++) {
    times.push((side * (i - guess)) / rateHz);
    values.push(side * ((heights[i] as number) - origin));
  }
  const knots = KNOT_SHARES.map((share) => share * toS);
  const reach = Math.min(REACH_S, toS);

  const prior = precisions(input);
  let best = Number.NEGATIVE_INFINITY;
  const found: Array<{ weight: number; s: number; heightM: number }> = [];
  for (const turns of [false, true]) {
    for (let k = 0; k < GRID; k++) {
      const t0 = -reach + (2 * reach * k) / (GRID - 1);
      const fit = solve(times, values, t0, knots, noiseM, turns, prior);
      if (!fit) continue;
      const s = passes(fit.m, t0, knots, levelMps, -input.otherSpan / rateHz, toS);
      if (s === undefined) continue;
      best = Math.max(best, fit.logEvidence);
      found.push({
        weight: fit.logEvidence,
        s,
        heightM: heightAt(fit.m, s - t0, knots),
      });
    }
  }
  let weights = 0;
  let at = 0;
  let height = 0;
  for (const one of found) {
    if (one.weight - best < LEAST_LOG_WEIGHT) continue;
    const weight = Math.exp(one.weight - best);
    weights += weight;
    at += weight * one.s;
    height += weight * one.heightM;
  }
  if (!(weights > 0)) return undefined;
  return {
    at: guess + (side * rateHz * at) / weights,
    heightM: origin + (side * height) / weights,
  };
}

function fill(row: Float64Array, s: number, knots: readonly number[], turns: boolean): void {
  row[0] = 1;
  row[1] = s;
  row[OTHER] = s < 0 && turns ? (s * s) / 2 : 0;
  row[3] = s > 0 ? (s * s) / 2 : 0;
  row[4] = s > 0 ? (s * s * s) / 6 : 0;
  for (let k = 0; k < knots.length; k++) {
    const over = s - (knots[k] as number);
    row[5 + k] = over > 0 ? (over * over * over) / 6 : 0;
  }
}

function precisions({ peakMps, toPeakS }: PassageInput): Float64Array {
  const push = Math.max(0.5, peakMps / toPeakS);
  const jerk = push / toPeakS;
  return Float64Array.from(
    [
      HEIGHT_SD_M,
      DRIFT_SD_MPS,
      OTHER_SD_MPS2,
      START_SD * push,
      JERK_SD * jerk,
      JERK_STEP_SD * jerk,
      JERK_STEP_SD * jerk,
    ],
    (sd) => 1 / (sd * sd),
  );
}

const row = new Float64Array(COLUMNS);
const normal = new Float64Array(COLUMNS * COLUMNS);
const right = new Float64Array(COLUMNS);

function solve(
  times: readonly number[],
  values: readonly number[],
  t0: number,
  knots: readonly number[],
  noiseM: number,
  turns: boolean,
  prior: Float64Array,
): { m: Float64Array; logEvidence: number } | undefined {
  const n = COLUMNS;
  const weight = 1 / (noiseM * noiseM);
  normal.fill(0);
  right.fill(0);
  let squares = 0;
  for (let i = 0; i < times.length; i++) {
    fill(row, (times[i] as number) - t0, knots, turns);
    const y = values[i] as number;
    squares += y * y;
    for (let r = 0; r < n; r++) {
      const value = row[r] as number;
      if (value === 0) continue;
      right[r] = (right[r] as number) + value * y;
      for (let c = 0; c <= r; c++) {
        const at = r * n + c;
        normal[at] = (normal[at] as number) + value * (row[c] as number);
      }
    }
  }
  for (let r = 0; r < n; r++) {
    right[r] = (right[r] as number) * weight;
    for (let c = 0; c <= r; c++) normal[r * n + c] = (normal[r * n + c] as number) * weight;
    normal[r * n + r] = (normal[r * n + r] as number) + (prior[r] as number);
  }
  // Cholesky in place; log|Λ| beside it.
  let logDet = 0;
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = normal[i * n + j] as number;
      for (let k = 0; k < j; k++) {
        sum -= (normal[i * n + k] as number) * (normal[j * n + k] as number);
      }
      if (i === j) {
        if (!(sum > 0)) return undefined;
        normal[i * n + i] = Math.sqrt(sum);
        logDet += Math.log(sum) - Math.log(prior[i] as number);
      } else normal[i * n + j] = sum / (normal[j * n + j] as number);
    }
  }
  const m = Float64Array.from(right);
  let explained = 0;
  for (let i = 0; i < n; i++) {
    let sum = m[i] as number;
    for (let k = 0; k < i; k++) sum -= (normal[i * n + k] as number) * (m[k] as number);
    m[i] = sum / (normal[i * n + i] as number);
    explained += (m[i] as number) ** 2;
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = m[i] as number;
    for (let k = i + 1; k < n; k++) sum -= (normal[k * n + i] as number) * (m[k] as number);
    m[i] = sum / (normal[i * n + i] as number);
  }
  return { m, logEvidence: (explained - squares * weight - logDet) / 2 };
}

function velocityAt(m: Float64Array, s: number, knots: readonly number[]): number {
  let v = m[1] as number;
  if (s < 0) return v + (m[OTHER] as number) * s;
  v += (m[3] as number) * s + ((m[4] as number) * s * s) / 2;
  for (let k = 0; k < knots.length; k++) {
    const over = s - (knots[k] as number);
    if (over > 0) v += ((m[5 + k] as number) * over * over) / 2;
  }
  return v;
}

function heightAt(m: Float64Array, s: number, knots: readonly number[]): number {
  const basis = new Float64Array(COLUMNS);
  fill(basis, s, knots, true);
  let h = 0;
  for (let c = 0; c < COLUMNS; c++) h += (m[c] as number) * (basis[c] as number);
  return h;
}

const SCAN_STEPS = 60;

/** Going from the moving side outwards: where v first falls under the level. */
function passes(
  m: Float64Array,
  t0: number,
  knots: readonly number[],
  level: number,
  fromS: number,
  toS: number,
): number | undefined {
  const step = (toS - fromS) / SCAN_STEPS;
  let fast: number | undefined;
  for (let i = SCAN_STEPS; i >= 0; i--) {
    const s = fromS + i * step;
    const v = velocityAt(m, s - t0, knots);
    if (v >= level) fast = v;
    else if (fast !== undefined) return s + step * ((level - v) / (fast - v));
  }
  return undefined;
}
