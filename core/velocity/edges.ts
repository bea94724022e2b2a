/**
 * Where a movement begins and ends, when noise or a hold hides the moment at which v = 0.
 *
 * The tangent through the 0.05 and 0.10 m/s crossings is carried on to v = 0; a plain 0.05 m/s
 * threshold would move a mean velocity by about 0.02. The low-pass rounds the corner between
 * rest and movement over about 1/(8·cut-off) s, so for a quick start the two crossings are taken
 * higher up, where the rounding has died out. Where the bar truly passes through zero (touch and
 * go), the crossing itself is used.
 */
export interface EdgeSearch {
  /** Filtered velocity in the direction of the movement (positive while it goes on), m/s. */
  velocity: Float64Array;
  /** Index of the movement's peak. */
  peak: number;
  /** Search no further than this index. */
  limit: number;
  rateHz: number;
  cutoffHz: number;
  /** Displacement still to go beyond index i in this direction, m. */
  beyond: (index: number) => number;
  /** Displacement of the whole movement, m. */
  range: number;
}

export const LOW_CROSSING_MPS = 0.05;
export const HIGH_CROSSING_MPS = 0.1;
/** A dip under the low crossing belongs to the movement when this share is still to come … */
const INNER_DIP_SHARE = 0.25;
/** … or when it is short and something clear is still to come. */
const SHORT_DIP_S = 0.25;
const CLEAR_REST_M = 0.03;

/** The time, in samples (fractional), at which the movement starts or ends. */
export function findEdge(search: EdgeSearch): number {
  const { velocity, peak, limit, rateHz, cutoffHz } = search;
  const step = limit < peak ? -1 : 1;
  const rest = restIndex(search, step);
  const coarse = extrapolate(velocity, peak, rest, step, LOW_CROSSING_MPS, HIGH_CROSSING_MPS);
  if (coarse === undefined) return limit;

  const held = Math.min(cutoffHz, rateHz / 5);
  const roundedMps = (coarse.slope * rateHz) / (8 * held);
  const peakMps = velocity[peak] as number;
  let edge = coarse.zero;
  if (roundedMps > LOW_CROSSING_MPS) {
    const low = Math.min(roundedMps, 0.25 * peakMps);
    const fine = extrapolate(velocity, peak, rest, step, low, Math.min(2 * low, 0.5 * peakMps));
    if (fine !== undefined) edge = fine.zero;
  }
  const crossing = zeroCrossing(velocity, rest, limit, step, edge);
  return crossing ?? edge;
}

/** First index, going out from the peak, at which the movement has come to rest. */
function restIndex(search: EdgeSearch, step: number): number {
  const { velocity, peak, limit, rateHz, beyond, range } = search;
  let index = peak;
  for (;;) {
    while (index !== limit && (velocity[index] as number) >= LOW_CROSSING_MPS) index += step;
    if (index === limit) return limit;
    let out = index;
    while (out !== limit && (velocity[out] as number) < LOW_CROSSING_MPS) out += step;
    const still = Math.abs(out - index) / rateHz;
    const remaining = beyond(index);
    const inner =
      remaining >= INNER_DIP_SHARE * range || (remaining >= CLEAR_REST_M && still <= SHORT_DIP_S);
    if (out === limit || !inner) return index;
    index = out;
  }
}

interface Tangent {
  zero: number;
  /** m/s per sample, positive. */
  slope: number;
}

function extrapolate(
  velocity: Float64Array,
  peak: number,
  rest: number,
  step: number,
  lowMps: number,
  highMps: number,
): Tangent | undefined {
  const low = crossing(velocity, rest, peak, -step, lowMps);
  const high = crossing(velocity, rest, peak, -step, highMps);
  if (low === undefined || high === undefined || low === high) return undefined;
  const slope = (highMps - lowMps) / Math.abs(high - low);
  return { zero: low + (step * lowMps) / slope, slope };
}

/** Fractional index of the first rise over `level`, going from `from` towards `to`. */
function crossing(
  velocity: Float64Array,
  from: number,
  to: number,
  step: number,
  level: number,
): number | undefined {
  for (let i = from; i !== to; i += step) {
    const here = velocity[i] as number;
    const next = velocity[i + step] as number;
    if (here < level && next >= level) return i + step * ((level - here) / (next - here));
  }
  return (velocity[from] as number) >= level ? from : undefined;
}

/** A true passage through zero between rest and the extrapolated edge: touch and go. */
function zeroCrossing(
  velocity: Float64Array,
  rest: number,
  limit: number,
  step: number,
  edge: number,
): number | undefined {
  const reach = Math.ceil(Math.abs(edge - rest)) + 1;
  for (let i = rest, k = 0; i !== limit && k < reach; i += step, k++) {
    const here = velocity[i] as number;
    const next = velocity[i + step] as number;
    if (here >= 0 && next < 0) {
      const at = i + step * (here / (here - next));
      // Only a real reversal counts: noise about rest crosses zero at no speed.
      const later = velocity[i + 3 * step];
      if (later !== undefined && later < -LOW_CROSSING_MPS) return at;
      return undefined;
    }
  }
  return undefined;
}
