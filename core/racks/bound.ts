import type { GroupCosts } from "./group-cost";

/**
 * What no grouping can be cheaper than, for problems in which everybody has as many sets.
 *
 * Lagrange's bound: every lifter is to be in exactly one group; let that go at a price u a lifter, and
 * each used rack takes the walk of `least` to `most` lifters that is cheapest less its prices. For any
 * prices Σu + Σ min over racks is at most the cheapest grouping; prices are raised for who is in no
 * walk and lowered for who is in several. Walks may come back to a lifter after two others (never
 * at once, and never to the first), which only makes them cheaper: the bound stays one. What must
 * not be together, stock and spotters are left out of it, for the same reason.
 */
export class GroupBound {
  readonly #costs: GroupCosts;
  readonly #prices: Float64Array;
  #step = 1;
  #stale = 0;
  best: number;

  constructor(costs: GroupCosts) {
    this.#costs = costs;
    const n = costs.problem.lifters.length;
    this.#prices = new Float64Array(n);
    this.best = 0;
  }

  /** Some rounds of better prices. @param known the cost of the best grouping that is known */
  improve(known: number, rounds: number): void {
    const { problem } = this.#costs;
    const n = problem.lifters.length;
    for (let round = 0; round < rounds; round++) {
      const walks = problem.racks.map((_, rack) => this.#cheapest(rack));
      const used = [...walks].sort((a, b) => a.cost - b.cost).slice(0, problem.use);
      let bound = 0;
      for (const price of this.#prices) bound += price;
      for (const walk of used) bound += walk.cost;
      if (!Number.isFinite(bound)) return;
      if (bound > this.best + 1e-9) {
        this.best = bound;
        this.#stale = 0;
      } else if (++this.#stale >= 8) {
        this.#step *= 0.7;
        this.#stale = 0;
      }
      const times = new Float64Array(n);
      for (const walk of used) for (const i of walk.lifters) times[i] = (times[i] ?? 0) + 1;
      let norm = 0;
      for (const t of times) norm += (1 - t) ** 2;
      if (norm === 0) return;
      const step = (this.#step * Math.max(1e-6, known - bound)) / norm;
      for (let i = 0; i < n; i++)
        this.#prices[i] = (this.#prices[i] ?? 0) + step * (1 - (times[i] ?? 0));
    }
  }

  readonly #perKind = new Map<string, { at: number; walk: Walk }>();
  #at = 0;

  /** The walk of a rack that is cheapest less its prices. */
  #cheapest(rack: number): Walk {
    const { problem } = this.#costs;
    const own = problem.racks[rack];
    // Racks of one kind that stand alike have one answer.
    if (rack === 0) this.#at++;
    const key = own?.now ? `rack ${rack}` : (own?.kind ?? "");
    const known = this.#perKind.get(key);
    if (known && known.at === this.#at) return known.walk;
    const walk = this.#walk(rack, own?.kind ?? "");
    this.#perKind.set(key, { at: this.#at, walk });
    return walk;
  }

  #walk(rack: number, kind: string): Walk {
    const { problem } = this.#costs;
    const { within, between } = this.#costs.pairs(kind);
    const n = problem.lifters.length;
    const serves = problem.lifters.map((one) => one.settings[kind] !== undefined);
    const prices = this.#prices;
    const most = Math.min(problem.most, n);
    let best: Walk = { cost: Number.POSITIVE_INFINITY, lifters: [] };
    // Of each lifter as the last of a walk, the cheapest two with different ones before.
    const levels = Array.from({ length: most }, () => ({
      cost: [new Float64Array(n), new Float64Array(n)] as const,
      before: [new Int16Array(n), new Int16Array(n)] as const,
      slot: [new Int8Array(n), new Int8Array(n)] as const,
    }));
    for (let first = 0; first < n; first++) {
      if (!serves[first]) continue;
      for (let size = 1; size <= most; size++) {
        const level = levels[size - 1] as (typeof levels)[number];
        level.cost[0].fill(Number.POSITIVE_INFINITY);
        level.cost[1].fill(Number.POSITIVE_INFINITY);
        if (size === 1) {
          level.cost[0][first] = this.#costs.first(rack, first) - (prices[first] ?? 0);
          level.before[0][first] = -1;
        } else {
          const prior = levels[size - 2] as (typeof levels)[number];
          for (let last = 0; last < n; last++) {
            if (last === first || !serves[last]) continue;
            for (let at = 0; at < n; at++) {
              if (at === last || !serves[at]) continue;
              // Not at once back to whom this one came from.
              const slot = prior.before[0][at] === last ? 1 : 0;
              const so = prior.cost[slot][at] ?? Number.POSITIVE_INFINITY;
              if (so === Number.POSITIVE_INFINITY) continue;
              const sum = so + (within[at * n + last] ?? 0) - (prices[last] ?? 0);
              if (sum < (level.cost[0][last] ?? 0)) {
                level.cost[1][last] = level.cost[0][last] ?? 0;
                level.before[1][last] = level.before[0][last] ?? 0;
                level.slot[1][last] = level.slot[0][last] ?? 0;
                level.cost[0][last] = sum;
                level.before[0][last] = at;
                level.slot[0][last] = slot;
              } else if (sum < (level.cost[1][last] ?? 0)) {
                level.cost[1][last] = sum;
                level.before[1][last] = at;
                level.slot[1][last] = slot;
              }
            }
          }
        }
        if (size < problem.least) continue;
        for (let last = 0; last < n; last++) {
          const sum = (level.cost[0][last] ?? 0) + (between[last * n + first] ?? 0);
          if (sum < best.cost) best = { cost: sum, lifters: walkBack(levels, size, last) };
        }
      }
    }
    return best;
  }
}

interface Walk {
  cost: number;
  lifters: readonly number[];
}

function walkBack(
  levels: ReadonlyArray<{
    before: readonly [Int16Array, Int16Array];
    slot: readonly [Int8Array, Int8Array];
  }>,
  size: number,
  last: number,
): number[] {
  const found: number[] = [];
  let at = last;
  let slot: 0 | 1 = 0;
  for (let level = size - 1; level >= 0; level--) {
    found.push(at);
    const own = levels[level];
    const before = own?.before[slot][at] ?? -1;
    slot = (own?.slot[slot][at] ?? 0) as 0 | 1;
    at = before;
  }
  return found;
}
