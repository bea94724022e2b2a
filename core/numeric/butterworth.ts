/**
 * Zero-lag low-pass filter: a 2nd-order Butterworth section run forward and back (4th order in
 * all), the usual smoother for human movement (Winter, Biomechanics and Motor Control of Human
 * Movement). Because two passes lower the −3 dB point, the design frequency is raised by
 * 1/0.802 before the bilinear pre-warp (Winter's correction for a 2nd-order filter).
 */
export interface Biquad {
  b: [number, number, number];
  a: [number, number, number];
}

export const TWO_PASS_CORRECTION = 0.802;
/** The cut-off never exceeds this share of the sampling rate. */
export const LARGEST_CUTOFF_SHARE = 0.2;
/** Under this share its arithmetic runs out of digits. */
const LEAST_CUTOFF_SHARE = 1e-5;

/** 2nd-order Butterworth low-pass by the bilinear transform; frequencies in Hz. */
export function butterworthLowpass(cutoffHz: number, rateHz: number): Biquad {
  const warped = Math.tan((Math.PI * cutoffHz) / rateHz);
  const k = warped * warped;
  const norm = 1 / (1 + Math.SQRT2 * warped + k);
  return {
    b: [k * norm, 2 * k * norm, k * norm],
    a: [1, 2 * (k - 1) * norm, (1 - Math.SQRT2 * warped + k) * norm],
  };
}

/** Direct form II transposed, started in the steady state of its first value. */
function runOnce(filter: Biquad, input: Float64Array): Float64Array {
  const { b, a } = filter;
  const out = new Float64Array(input.length);
  // Steady state for a unit step (what scipy calls lfilter_zi), scaled by the first value.
  const gainRest = 1; // a low-pass has unit gain at rest
  const z2Unit = b[2] - a[2] * gainRest;
  const z1Unit = b[1] - a[1] * gainRest + z2Unit;
  const first = input[0] ?? 0;
  let z1 = z1Unit * first;
  let z2 = z2Unit * first;
  for (let i = 0; i < input.length; i++) {
    const x = input[i] as number;
    const y = b[0] * x + z1;
    z1 = b[1] * x - a[1] * y + z2;
    z2 = b[2] * x - a[2] * y;
    out[i] = y;
  }
  return out;
}

/**
 * Forward and backward pass with an odd extension of both ends, as scipy's `filtfilt` does.
 * @param input evenly spaced samples, any unit
 * @param padding samples of extension on either side (scipy's default for this order is 9);
 *   shortened to the length of a shorter input
 */
export function filterBothWays(filter: Biquad, input: Float64Array, padding = 9): Float64Array {
  const n = input.length;
  if (n < 2) return Float64Array.from(input);
  const pad = Math.min(padding, n - 1);
  const extended = new Float64Array(n + 2 * pad);
  const first = input[0] as number;
  const last = input[n - 1] as number;
  for (let i = 0; i < pad; i++) {
    extended[i] = 2 * first - (input[pad - i] as number);
    extended[n + pad + i] = 2 * last - (input[n - 2 - i] as number);
  }
  extended.set(input, pad);
  const forward = runOnce(filter, extended).reverse();
  const back = runOnce(filter, forward).reverse();
  return back.slice(pad, pad + n);
}

/** Winter-corrected zero-lag low-pass; the cut-off is held under a fifth of the rate. */
export function smoothZeroLag(input: Float64Array, rateHz: number, cutoffHz: number): Float64Array {
  const held = Math.min(cutoffHz, rateHz * LARGEST_CUTOFF_SHARE);
  // No rate or no cut-off is no filter: the samples stay as they are.
  if (!(held / rateHz > LEAST_CUTOFF_SHARE) || !Number.isFinite(rateHz)) {
    return Float64Array.from(input);
  }
  const filter = butterworthLowpass(held / TWO_PASS_CORRECTION, rateHz);
  // A long extension lets the ends settle: two periods of the cut-off.
  return filterBothWays(filter, input, Math.max(9, Math.ceil((2 * rateHz) / held)));
}

const MOST_RATE_HZ = 1e9;

/** No rate gives no change. Central differences, one-sided at the ends; units of `input` per second. */
export function derivative(input: Float64Array, rateHz: number): Float64Array {
  const n = input.length;
  const out = new Float64Array(n);
  if (n < 2 || !(rateHz > 0 && rateHz < MOST_RATE_HZ)) return out;
  for (let i = 1; i < n - 1; i++) {
    out[i] = (((input[i + 1] as number) - (input[i - 1] as number)) * rateHz) / 2;
  }
  out[0] = ((input[1] as number) - (input[0] as number)) * rateHz;
  out[n - 1] = ((input[n - 1] as number) - (input[n - 2] as number)) * rateHz;
  return out;
}
