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
  const { heights, rateHz, guess, side, levelMps } = input;
  const fromS = -input.otherSpan / rateHz;
  const toS = input.movingSpan / rateHz;
  // Times s run from the other side to the moving one, so that v is positive on the moving side.
  const first = Math.max(0, Math.ceil(guess + (side === 1 ? fromS : -toS) * rateHz));
  const last = Math.min(
    heights.length - 1,
    Math.floor(guess + (side === 1 ? toS : -fromS) * rateHz),
  );
  if (last - first + 1 < LEAST_SAMPLES) return undefined;
  const origin = heights[Math.min(heights.length - 1, Math.max(0, Math.round(guess)))] as number;
  const sums = new Moments(last - first + 1);
  for (let i = 0; i <= last - first; i++) {
    const index = side === 1 ? first + i : last - i;
    sums.add((side * (index - guess)) / rateHz, side * ((heights[index] as number) - origin));
  }
  const knots = KNOT_SHARES.map((share) => share * toS);
  const reach = Math.min(REACH_S, toS);

  const prior = precisions(input);
  let best = Number.NEGATIVE_INFINITY;
  const found: Array<{ weight: number; s: number; heightM: number }> = [];
  for (let k = 0; k < GRID; k++) {
    const t0 = -reach + (2 * reach * k) / (GRID - 1);
    sums.normalEquations(t0, knots, input.noiseM, prior);
    for (const turns of [false, true]) {
      const fit = solve(prior, turns);
      if (!fit) continue;
      const s = passes(fit.m, t0, knots, levelMps, fromS, toS);
      if (s === undefined) continue;
      best = Math.max(best, fit.logEvidence);
      found.push({ weight: fit.logEvidence, s, heightM: heightAt(fit.m, s - t0, knots) });
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

const POWERS = 7;
const HEIGHT_POWERS = 4;
const STRIDE = POWERS + HEIGHT_POWERS;
const normal = new Float64Array(COLUMNS * COLUMNS);
const right = new Float64Array(COLUMNS);
/** Σ sᵖ and Σ sᵖ·h of the samples after t₀ and after each knot, and of those before t₀. */
const after = [0, 1, 2].map(() => new Float64Array(STRIDE));
const before = new Float64Array(STRIDE);
const shifted = new Float64Array(STRIDE);
/** Binomials up to 6. */
const CHOOSE = Array.from({ length: POWERS }, (_, n) =>
  Array.from({ length: n + 1 }, (_, k) => choose(n, k)),
);
function choose(n: number, k: number): number {
  let ways = 1;
  for (let i = 1; i <= k; i++) ways = (ways * (n - k + i)) / i;
  return Math.round(ways);
}

/**
 * Running sums of powers of the time, and of the heights times them: every column of the picture
 * is a polynomial from some moment on, so the normal equations of any t₀ are differences of these
 * sums, moved to that moment. The samples are gone through once, not once a t₀.
 */
class Moments {
  readonly #times: Float64Array;
  /** Of the first i samples, from i·STRIDE on. */
  readonly #sums: Float64Array;
  #count = 0;

  constructor(samples: number) {
    this.#times = new Float64Array(samples);
    this.#sums = new Float64Array((samples + 1) * STRIDE);
  }

  /** Times rise. */
  add(s: number, h: number): void {
    const sums = this.#sums;
    const from = this.#count * STRIDE;
    this.#times[this.#count++] = s;
    let power = 1;
    for (let p = 0; p < POWERS; p++) {
      sums[from + STRIDE + p] = (sums[from + p] as number) + power;
      if (p < HEIGHT_POWERS) {
        const at = from + POWERS + p;
        sums[at + STRIDE] = (sums[at] as number) + power * h;
      }
      power *= s;
    }
  }

  /** Samples up to and with a moment. */
  #until(s: number): number {
    let low = 0;
    let high = this.#count;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.#times[middle] as number) <= s) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Sums of the samples i ≤ index < j in powers of s − origin, into a place. */
  #between(i: number, j: number, origin: number, into: Float64Array): void {
    const sums = this.#sums;
    for (let p = 0; p < STRIDE; p++) {
      shifted[p] = (sums[j * STRIDE + p] as number) - (sums[i * STRIDE + p] as number);
    }
    for (const [from, powers] of SUM_PARTS) {
      for (let p = 0; p < powers; p++) {
        const row = CHOOSE[p] as number[];
        let sum = 0;
        let factor = 1;
        for (let q = p; q >= 0; q--) {
          sum += (row[q] as number) * factor * (shifted[from + q] as number);
          factor *= -origin;
        }
        into[from + p] = sum;
      }
    }
  }

  /** Leaves the normal equations with the full picture (c too) in `normal` and `right`. */
  normalEquations(t0: number, knots: readonly number[], noiseM: number, prior: Float64Array): void {
    const weight = 1 / (noiseM * noiseM);
    const all = this.#count;
    const start = this.#until(t0);
    this.#between(0, start, t0, before);
    const [main, one, two] = after as [Float64Array, Float64Array, Float64Array];
    this.#between(start, all, t0, main);
    const bends = [one, two];
    for (let k = 0; k < knots.length; k++) {
      const knot = t0 + (knots[k] as number);
      this.#between(this.#until(knot), all, knot, bends[k] as Float64Array);
    }
    const put = (r: number, c: number, sum: number) => {
      normal[r * COLUMNS + c] = weight * sum;
    };
    const b = (p: number) => before[p] as number;
    const m = (p: number) => main[p] as number;
    put(0, 0, b(0) + m(0));
    put(1, 0, b(1) + m(1));
    put(1, 1, b(2) + m(2));
    put(2, 0, b(2) / 2);
    put(2, 1, b(3) / 2);
    put(2, 2, b(4) / 4);
    put(3, 0, m(2) / 2);
    put(3, 1, m(3) / 2);
    put(3, 2, 0);
    put(3, 3, m(4) / 4);
    put(4, 0, m(3) / 6);
    put(4, 1, m(4) / 6);
    put(4, 2, 0);
    put(4, 3, m(5) / 12);
    put(4, 4, m(6) / 36);
    right[0] = weight * ((before[POWERS] as number) + (main[POWERS] as number));
    right[1] = weight * ((before[POWERS + 1] as number) + (main[POWERS + 1] as number));
    right[2] = (weight * (before[POWERS + 2] as number)) / 2;
    right[3] = (weight * (main[POWERS + 2] as number)) / 2;
    right[4] = (weight * (main[POWERS + 3] as number)) / 6;
    for (let k = 0; k < knots.length; k++) {
      // In u = s − knot the older columns are polynomials too: s − t₀ = u + e.
      const r = 5 + k;
      const e = knots[k] as number;
      const sums = bends[k] as Float64Array;
      const u = (p: number) => sums[p] as number;
      put(r, 0, u(3) / 6);
      put(r, 1, (u(4) + e * u(3)) / 6);
      put(r, 2, 0);
      put(r, 3, (u(5) + 2 * e * u(4) + e * e * u(3)) / 12);
      put(r, 4, (u(6) + 3 * e * u(5) + 3 * e * e * u(4) + e ** 3 * u(3)) / 36);
      for (let other = 0; other < k; other++) {
        const d = e - (knots[other] as number);
        put(r, 5 + other, (u(6) + 3 * d * u(5) + 3 * d * d * u(4) + d ** 3 * u(3)) / 36);
      }
      put(r, r, u(6) / 36);
      right[r] = (weight * (sums[POWERS + 3] as number)) / 6;
    }
    for (let r = 0; r < COLUMNS; r++) {
      normal[r * COLUMNS + r] = (normal[r * COLUMNS + r] as number) + (prior[r] as number);
    }
  }
}

/** Where the sums of times lie, and those of heights. */
const SUM_PARTS: ReadonlyArray<readonly [from: number, powers: number]> = [
  [0, POWERS],
  [POWERS, HEIGHT_POWERS],
];

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

const factor = new Float64Array(COLUMNS * COLUMNS);
const solution = new Float64Array(COLUMNS);
const solved = { m: solution, logEvidence: 0 };

/**
 * The most likely coefficients and the log of how well the picture explains the heights, up to a
 * constant of the heights alone; read before the next call. Without turns c is left out.
 */
function solve(
  prior: Float64Array,
  turns: boolean,
): { m: Float64Array; logEvidence: number } | undefined {
  const n = COLUMNS;
  let logDet = 0;
  let explained = 0;
  for (let i = 0; i < n; i++) {
    const out = i === OTHER && !turns;
    let sum = out ? 0 : (right[i] as number);
    for (let j = 0; j <= i; j++) {
      const without = !turns && (i === OTHER || j === OTHER);
      let value = without ? (i === j ? (prior[i] as number) : 0) : (normal[i * n + j] as number);
      for (let k = 0; k < j; k++) {
        value -= (factor[i * n + k] as number) * (factor[j * n + k] as number);
      }
      if (i === j) {
        if (!(value > 0)) return undefined;
        factor[i * n + i] = Math.sqrt(value);
        logDet += Math.log(value / (prior[i] as number));
      } else {
        const l = value / (factor[j * n + j] as number);
        factor[i * n + j] = l;
        sum -= l * (solution[j] as number);
      }
    }
    const y = sum / (factor[i * n + i] as number);
    solution[i] = y;
    explained += y * y;
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = solution[i] as number;
    for (let k = i + 1; k < n; k++) {
      sum -= (factor[k * n + i] as number) * (solution[k] as number);
    }
    solution[i] = sum / (factor[i * n + i] as number);
  }
  solved.logEvidence = (explained - logDet) / 2;
  return solved;
}

/** Height of the picture, s from t₀ on. */
function heightAt(m: Float64Array, s: number, knots: readonly number[]): number {
  const line = (m[0] as number) + (m[1] as number) * s;
  if (s < 0) return line + ((m[OTHER] as number) * s * s) / 2;
  let h = line + ((m[3] as number) * s * s) / 2 + ((m[4] as number) * s ** 3) / 6;
  for (let k = 0; k < knots.length; k++) {
    const over = s - (knots[k] as number);
    if (over > 0) h += ((m[5 + k] as number) * over ** 3) / 6;
  }
  return h;
}

/**
 * Going from the moving side outwards: where v first falls under the level. v is a parabola
 * between the knots and a line before t₀, so every piece is looked at whole.
 */
function passes(
  m: Float64Array,
  t0: number,
  knots: readonly number[],
  level: number,
  fromS: number,
  toS: number,
): number | undefined {
  let fast = false;
  let right = toS - t0;
  for (let piece = knots.length; piece >= 0; piece--) {
    const left = piece === 0 ? 0 : (knots[piece - 1] as number);
    if (right <= left) continue;
    // v = p + q·s + r·s² of this piece.
    let p = (m[1] as number) - level;
    let q = m[3] as number;
    let r = (m[4] as number) / 2;
    for (let k = 0; k < piece; k++) {
      const knot = knots[k] as number;
      const half = (m[5 + k] as number) / 2;
      p += half * knot * knot;
      q -= 2 * half * knot;
      r += half;
    }
    const found = lastRise(p, q, r, left, right, fast);
    if (found !== undefined) return t0 + found;
    fast ||= reaches(p, q, r, left, right);
    right = left;
  }
  const v0 = (m[1] as number) - level;
  const c = m[OTHER] as number;
  const found = lastRise(v0, c, 0, fromS - t0, Math.min(0, right), fast);
  return found === undefined ? undefined : t0 + found;
}

/** The largest s of a piece where the speed falls under 0 going down, after it was over it. */
function lastRise(
  p: number,
  q: number,
  r: number,
  left: number,
  right: number,
  fastBefore: boolean,
): number | undefined {
  const atRight = p + q * right + r * right * right;
  if (fastBefore && atRight < 0) return right;
  // Of the two roots the one where the speed rises with s, without cancelling.
  const disc = q * q - 4 * r * p;
  if (!(disc > 0)) return undefined;
  const root = Math.sqrt(disc);
  const s = q > 0 ? (-2 * p) / (q + root) : (root - q) / (2 * r);
  return s >= left && s <= right ? s : undefined;
}

function reaches(p: number, q: number, r: number, left: number, right: number): boolean {
  const at = (s: number) => p + q * s + r * s * s;
  if (at(left) >= 0 || at(right) >= 0) return true;
  const turn = -q / (2 * r);
  return turn > left && turn < right && at(turn) >= 0;
}
