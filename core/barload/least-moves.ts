/**
 * The fewest plate moves of a sequence of loads, exactly.
 *
 * On a sleeve the plate put on last comes off first, so the times that plates stay on are nested:
 * a plate that stays for loads i to j lies inside every plate that is put on and taken off within
 * them. What lies above a group of plates does not depend on the order of the group. So an
 * interval programme over multisets is enough: F(i, j, P) is the least cost of loads i to j while
 * the plates P stay on, and either one more plate stays on for all of them, or the loads part into
 * two runs, or there is one load left and P makes it.
 *
 * A plate put on and taken off again is two moves a side; one that is on at the end is not taken
 * off. Among equal costs fewer plates on the bar stand.
 */
export interface PlateKind {
  /** Any whole unit of mass, over 0. */
  each: number;
  /** On one side. */
  count: number;
  thicknessMm: number;
}

export interface LeastMovesInput {
  /** Heaviest first. */
  kinds: readonly PlateKind[];
  sleeveMm: number;
  /** What each side weighs, load by load, in the kinds' unit. */
  targets: readonly number[];
  /** On each side before the first load, inside out, as indices of `kinds`. */
  start: readonly number[];
  /** The first loading is not counted either: a stretch out of a longer sequence. */
  freeStart?: boolean;
}

export type LeastMoves =
  | {
      ok: true;
      /** A side: twice as many in all. */
      moves: number;
      /** Inside out, load by load, as indices of `kinds`. */
      sides: number[][];
    }
  | { ok: false; reason: "too-large" | "not-loadable" };

/** Steps of the programme that are taken at most: about a tenth of a second. */
export const MOST_STEPS = 1.2e8;
/** Loads that are looked at together. */
const MOST_STRETCH = 256;
/** Multisets that are looked at most. */
const MOST_SETS = 40_000;
/** A move outweighs every plate that stands on the bar for a load. */
const MOVE = 1 << 13;
const NEVER = 0x3fffffff;

/** All multisets of plates that fit, lightest first, and what one plate more makes of each. */
interface PlateSets {
  weights: Float64Array;
  /** next[kind][set]: the set with one such plate more, or −1. */
  next: Int32Array[];
  /** By its counts as the digits of one number; one plate of a kind is worth `digits[kind]`. */
  index: Map<number, number>;
  digits: number[];
}

const count = (kinds: readonly PlateKind[], k: number) => kinds[k]?.count ?? 0;

function plateSets(input: LeastMovesInput, mostWeight: number): PlateSets | undefined {
  const { kinds, sleeveMm } = input;
  const found: Array<{ code: number; weight: number }> = [];
  const counts = kinds.map(() => 0);
  const digits: number[] = [];
  let digit = 1;
  for (const kind of kinds) {
    digits.push(digit);
    digit *= kind.count + 1;
  }
  if (!(digit < Number.MAX_SAFE_INTEGER)) return undefined;
  let code = 0;
  const walk = (from: number, weight: number, lengthMm: number): boolean => {
    if (found.length >= MOST_SETS) return false;
    found.push({ code, weight });
    for (let k = from; k < kinds.length; k++) {
      const kind = kinds[k] as PlateKind;
      if ((counts[k] as number) >= kind.count || weight + kind.each > mostWeight) continue;
      if (lengthMm + kind.thicknessMm > sleeveMm) continue;
      counts[k] = (counts[k] as number) + 1;
      code += digits[k] as number;
      const whole = walk(k, weight + kind.each, lengthMm + kind.thicknessMm);
      counts[k] = (counts[k] as number) - 1;
      code -= digits[k] as number;
      if (!whole) return false;
    }
    return true;
  };
  if (!walk(0, 0, 0)) return undefined;
  found.sort((a, b) => a.weight - b.weight);
  const index = new Map(found.map((one, i) => [one.code, i]));
  return {
    weights: Float64Array.from(found, (one) => one.weight),
    next: kinds.map((_, k) =>
      Int32Array.from(found, (one) => {
        // A kind that is used up carries into the next digit, and is another set.
        const used = Math.floor(one.code / (digits[k] as number)) % (count(kinds, k) + 1);
        return used === count(kinds, k) ? -1 : (index.get(one.code + (digits[k] as number)) ?? -1);
      }),
    ),
    index,
    digits,
  };
}

/**
 * The fewest moves, with the plates of each load.
 * @returns `too-large` where the programme would take more than `MOST_STEPS`
 */
export function leastMoves(input: LeastMovesInput): LeastMoves {
  const { kinds, start } = input;
  // The same load twice in a row changes nothing.
  const targets: number[] = [];
  const placeOf = input.targets.map((target) => {
    if (targets[targets.length - 1] !== target) targets.push(target);
    return targets.length - 1;
  });
  const n = targets.length;
  if (n > MOST_STRETCH) return { ok: false, reason: "too-large" };
  if (!targets.every(Number.isFinite)) return { ok: false, reason: "not-loadable" };
  if (n === 0) return { ok: true, moves: 0, sides: [] };
  const sets = plateSets(input, Math.max(...targets));
  if (sets === undefined) return { ok: false, reason: "too-large" };
  const { weights, next } = sets;
  const under = (target: number) => {
    let low = 0;
    let high = weights.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((weights[middle] as number) <= target) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  const own = targets.map(under);
  let steps = 0;
  for (let i = 0; i < n; i++) {
    let limit = Number.POSITIVE_INFINITY;
    for (let j = i; j < n; j++) {
      limit = Math.min(limit, own[j] as number);
      steps += limit * (j - i + kinds.length);
      if (steps > MOST_STEPS) return { ok: false, reason: "too-large" };
    }
  }

  const price = (i: number, j: number) =>
    MOVE * ((i > 0 || !input.freeStart ? 1 : 0) + (j < n - 1 ? 1 : 0)) + (j - i + 1);
  const table: Int32Array[] = new Array(n * n);
  const at = (i: number, j: number) => table[i * n + j] as Int32Array;
  for (let length = 1; length <= n; length++) {
    for (let i = 0; i + length <= n; i++) {
      const j = i + length - 1;
      let limit = Number.POSITIVE_INFINITY;
      for (let k = i; k <= j; k++) limit = Math.min(limit, own[k] as number);
      const cost = new Int32Array(limit).fill(NEVER);
      if (i === j) {
        for (let p = limit - 1; p >= 0 && weights[p] === targets[i]; p--) cost[p] = 0;
      }
      for (let k = i; k < j; k++) {
        const left = at(i, k);
        const right = at(k + 1, j);
        for (let p = 0; p < limit; p++) {
          const sum = (left[p] as number) + (right[p] as number);
          if (sum < (cost[p] as number)) cost[p] = sum;
        }
      }
      const one = price(i, j);
      for (const more of next) {
        for (let p = limit - 1; p >= 0; p--) {
          const q = more[p] as number;
          if (q < 0 || q >= limit) continue;
          const sum = (cost[q] as number) + one;
          if (sum < (cost[p] as number)) cost[p] = sum;
        }
      }
      table[i * n + j] = cost;
    }
  }
  const plan = fromStart(input, sets, n, at);
  if (plan === undefined) return { ok: false, reason: "not-loadable" };
  const sides: number[][] = Array.from({ length: n }, () => []);
  for (const run of plan.runs) {
    const inside = start.slice(0, run.kept);
    for (let load = run.from; load <= run.to; load++) sides[load] = [...inside];
    unroll(run.from, run.to, run.set, { sets, at, price, sides, kinds, weights, targets });
  }
  return {
    ok: true,
    moves: Math.floor(plan.cost / MOVE),
    sides: placeOf.map((place) => sides[place] as number[]),
  };
}

interface StartRun {
  from: number;
  to: number;
  /** Plates of the start that stay on for it, from the inside. */
  kept: number;
  set: number;
}

/** How long the plates that are on the bar at the start stay there. */
function fromStart(
  { start }: LeastMovesInput,
  sets: PlateSets,
  n: number,
  at: (i: number, j: number) => Int32Array,
): { cost: number; runs: StartRun[] } | undefined {
  let code = 0;
  const setOf = [sets.index.get(code) ?? 0];
  for (const kind of start) {
    code += sets.digits[kind] ?? Number.NaN;
    setOf.push(sets.index.get(code) ?? -1);
  }
  const m = start.length;
  // best[i][t]: loads from i on, with t plates of the start still on before load i.
  const best: Array<Array<{ cost: number; kept: number; to: number }>> = [];
  best[n] = Array.from({ length: m + 1 }, (_, kept) => ({ cost: 0, kept, to: n }));
  for (let i = n - 1; i >= 0; i--) {
    const alone = setOf.map((set, kept) => {
      let found = { cost: NEVER, kept, to: -1 };
      if (set < 0) return found;
      for (let j = i; j < n; j++) {
        const cost = at(i, j)[set];
        const rest = best[j + 1]?.[kept];
        if (cost === undefined || rest === undefined) continue;
        // A plate of the start that stays costs nothing but its place on the bar.
        const sum = cost + rest.cost + kept * (j - i + 1);
        if (sum < found.cost) found = { cost: sum, kept, to: j };
      }
      return found;
    });
    best[i] = alone.map((_, t) => {
      let found = { cost: NEVER, kept: t, to: -1 };
      for (let kept = 0; kept <= t; kept++) {
        const one = alone[kept] as (typeof alone)[number];
        const sum = one.cost + MOVE * (t - kept);
        if (sum < found.cost) found = { cost: sum, kept, to: one.to };
      }
      return found;
    });
  }
  const runs: StartRun[] = [];
  const first = best[0]?.[m];
  if (!first || first.cost >= NEVER) return undefined;
  let kept = m;
  for (let i = 0; i < n; ) {
    const step = best[i]?.[kept];
    if (!step || step.to < i) return undefined;
    runs.push({ from: i, to: step.to, kept: step.kept, set: setOf[step.kept] as number });
    kept = step.kept;
    i = step.to + 1;
  }
  return { cost: first.cost, runs };
}

interface Unrolling {
  sets: PlateSets;
  at: (i: number, j: number) => Int32Array;
  price: (i: number, j: number) => number;
  sides: number[][];
  kinds: readonly PlateKind[];
  weights: Float64Array;
  targets: readonly number[];
}

/** Writes the plates of loads i to j on top of what stays on. */
function unroll(i: number, j: number, set: number, all: Unrolling): void {
  const { sets, at, price, sides, weights, targets } = all;
  let p = set;
  const group: number[] = [];
  const one = price(i, j);
  for (;;) {
    const cost = at(i, j)[p] as number;
    if (i === j && cost === 0 && weights[p] === targets[i]) break;
    const kind = sets.next.findIndex((more) => {
      const q = more[p] as number;
      return q >= 0 && q < at(i, j).length && (at(i, j)[q] as number) + one === cost;
    });
    if (kind < 0) break;
    group.push(kind);
    p = (sets.next[kind] as Int32Array)[p] as number;
  }
  // Of plates that stay equally long the heavy ones go inside: kinds are in that order.
  group.sort((a, b) => a - b);
  for (let load = i; load <= j; load++) (sides[load] as number[]).push(...group);
  if (i === j) return;
  const cost = at(i, j)[p] as number;
  for (let k = i; k < j; k++) {
    if ((at(i, k)[p] as number) + (at(k + 1, j)[p] as number) !== cost) continue;
    unroll(i, k, p, all);
    unroll(k + 1, j, p, all);
    return;
  }
}
