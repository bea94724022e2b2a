/**
 * The exact moment of a turn, from the heights themselves.
 *
 * Any low-pass rounds the corner between rest and movement, and with it the moment at which
 * v = 0. Near that moment a bar's height is, to third order,
 *
 *   h(t) = h₀ + ½·a·(t − t₀)² + ⅙·j·(t − t₀)³   on the moving side,
 *   h(t) = h₀ + ½·c·(t − t₀)²                    on the other side (c = 0 in a hold),
 *
 * which is linear in h₀, a, j, c once t₀ is given. So t₀ is searched in one dimension and the
 * rest solved by least squares on the unfiltered heights (variable projection): white noise
 * averages out and nothing is rounded.
 */
export interface TurnFitInput {
  /** Evenly spaced heights, unfiltered, m. */
  heights: Float64Array;
  rateHz: number;
  /** First guess of the turn, in samples. */
  guess: number;
  /** +1 where the movement lies after the turn, −1 where it lies before. */
  side: 1 | -1;
  /** Span used on the moving side and on the other side, in samples. */
  movingSpan: number;
  otherSpan: number;
  /** How far from the guess the turn may lie, in samples. */
  reach: number;
}

export interface TurnFit {
  /** Moment of v = 0, in samples. */
  at: number;
  /** Height there, m. */
  heightM: number;
}

const COARSE_STEPS = 12;
const FINE_STEPS = 18;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Undefined where the data do not bend: the caller keeps its guess. */
export function fitTurn(input: TurnFitInput): TurnFit | undefined {
  const { guess, reach } = input;
  const window = windowOf(input);
  if (window.to - window.from < 6) return undefined;
  const cost = (at: number) => solveAt(input, window, at)?.cost ?? Number.POSITIVE_INFINITY;

  let best = guess;
  let bestCost = Number.POSITIVE_INFINITY;
  const step = (2 * reach) / COARSE_STEPS;
  for (let i = 0; i <= COARSE_STEPS; i++) {
    const at = guess - reach + i * step;
    const here = cost(at);
    if (here < bestCost) {
      bestCost = here;
      best = at;
    }
  }
  let low = best - step;
  let high = best + step;
  let left = high - GOLDEN * (high - low);
  let right = low + GOLDEN * (high - low);
  let leftCost = cost(left);
  let rightCost = cost(right);
  for (let i = 0; i < FINE_STEPS; i++) {
    if (leftCost < rightCost) {
      high = right;
      right = left;
      rightCost = leftCost;
      left = high - GOLDEN * (high - low);
      leftCost = cost(left);
    } else {
      low = left;
      left = right;
      leftCost = rightCost;
      right = low + GOLDEN * (high - low);
      rightCost = cost(right);
    }
  }
  const at = (low + high) / 2;
  const solved = solveAt(input, window, at);
  if (solved === undefined || !Number.isFinite(solved.cost)) return undefined;
  return { at, heightM: solved.heightM };
}

interface Window {
  from: number;
  to: number;
}

/** The same samples for every t₀, so that costs compare. */
function windowOf({ heights, guess, side, movingSpan, otherSpan }: TurnFitInput): Window {
  const before = side === 1 ? otherSpan : movingSpan;
  const after = side === 1 ? movingSpan : otherSpan;
  return {
    from: Math.max(0, Math.ceil(guess - before)),
    to: Math.min(heights.length - 1, Math.floor(guess + after)),
  };
}

function solveAt(
  { heights, side }: TurnFitInput,
  window: Window,
  at: number,
): { cost: number; heightM: number } | undefined {
  // Normal equations of [1, moving², moving³, other²]; times scaled to the window for condition.
  const scale = Math.max(1, (window.to - window.from) / 2);
  const matrix = [
    new Float64Array(5),
    new Float64Array(5),
    new Float64Array(5),
    new Float64Array(5),
  ];
  const origin = heights[window.from] as number;
  const row = new Float64Array(5);
  let squares = 0;
  for (let i = window.from; i <= window.to; i++) {
    const u = (side * (i - at)) / scale;
    row[0] = 1;
    row[1] = u > 0 ? u * u : 0;
    row[2] = u > 0 ? u * u * u : 0;
    row[3] = u < 0 ? u * u : 0;
    row[4] = (heights[i] as number) - origin;
    squares += row[4] * row[4];
    for (let r = 0; r < 4; r++) {
      const line = matrix[r] as Float64Array;
      const weight = row[r] as number;
      if (weight === 0) continue;
      for (let c = r; c < 5; c++) line[c] = (line[c] as number) + weight * (row[c] as number);
    }
  }
  return solveSymmetric(matrix, squares, origin, side);
}

/** Columns: h₀, a, j, c. */
const CURVE = 1;
const OTHER = 3;

/**
 * Elimination of the 4 × 4 system. A bar that turns bends the same way on both sides, so a
 * curvature of the wrong sign on the far side is noise and is taken as a hold (c = 0); one on
 * the moving side means that there is no turn here.
 */
function solveSymmetric(matrix: Float64Array[], squares: number, origin: number, side: 1 | -1) {
  const n = 4;
  const used = new Uint8Array(n);
  const gain = new Float64Array(n);
  for (let r = 0; r < n; r++) {
    const line = matrix[r] as Float64Array;
    const pivot = line[r] as number;
    if (pivot <= 1e-9) continue;
    used[r] = 1;
    gain[r] = (line[n] as number) ** 2 / pivot;
    for (let s = r + 1; s < n; s++) {
      const other = matrix[s] as Float64Array;
      const factor = (line[s] as number) / pivot;
      if (factor === 0) continue;
      for (let c = s; c <= n; c++) {
        other[c] = (other[c] as number) - factor * (line[c] as number);
      }
    }
  }
  let solution = backSubstitute(matrix, used);
  if ((solution[OTHER] as number) * side < 0) {
    used[OTHER] = 0;
    solution = backSubstitute(matrix, used);
  }
  if ((solution[CURVE] as number) * side <= 0) return undefined;
  let cost = squares;
  for (let r = 0; r < n; r++) if (used[r]) cost -= gain[r] as number;
  return { cost: Math.max(0, cost), heightM: origin + (solution[0] as number) };
}

function backSubstitute(matrix: Float64Array[], used: Uint8Array): Float64Array {
  const n = 4;
  const solution = new Float64Array(n);
  for (let r = n - 1; r >= 0; r--) {
    if (!used[r]) continue;
    const line = matrix[r] as Float64Array;
    let value = line[n] as number;
    for (let c = r + 1; c < n; c++) value -= (line[c] as number) * (solution[c] as number);
    solution[r] = value / (line[r] as number);
  }
  return solution;
}
