import { costOf, movesBetween, type Setting } from "./moves";
import { type GroupProblem, rotationMoves } from "./problem";

/** Up to so many at one bar every order is looked at; over it, an order that no exchange betters. */
const EVERY_ORDER = 9;

/** A group with its best order; `order` holds indices of the problem's lifters. */
export interface GroupCost {
  cost: number;
  order: readonly number[];
  /** How much of what was asked of a group it breaks. */
  broken: number;
  /** Pieces that its rack keeps, in the order of `GroupCosts.pieces`. */
  needs: readonly number[];
}

type Ordered = Omit<GroupCost, "broken" | "needs">;

/** Sums of moves between any two lifters at a kind of rack, for the whole rotation. */
export interface PairCosts {
  /** Over all rounds, from a lifter's set to another's of the same round. */
  within: Float64Array;
  /** From the last of a round to the first of the next. */
  between: Float64Array;
}

/**
 * The cost of any group at any rack. Where everybody has as many sets to do, the cost of an order is
 * a sum over pairs (within a round, and from the last of a round to the first of the next), and the
 * best order is found exactly; where not, orders are walked through.
 */
export class GroupCosts {
  readonly problem: GroupProblem;
  /** Everybody has the same number of sets. */
  readonly even: boolean;
  readonly #pairs = new Map<string, PairCosts>();
  readonly #first: Float64Array[];
  readonly #known: Array<Map<number | string, GroupCost> | undefined> = [];
  readonly #apart = new Set<number>();
  /** Pieces of which the room has so many. */
  readonly pieces: ReadonlyArray<{ name: string; stock: number }>;
  readonly #needs: ReadonlyArray<readonly number[]>;

  constructor(problem: GroupProblem) {
    this.problem = problem;
    const { lifters, racks, weights, stock } = problem;
    this.pieces = Object.entries(stock).flatMap(([name, own]) =>
      lifters.some((one) => (one.needs[name] ?? 0) > 0) ? [{ name, stock: own }] : [],
    );
    this.#needs = lifters.map((one) => this.pieces.map(({ name }) => one.needs[name] ?? 0));
    const kinds = [...new Set(racks.map((rack) => rack.kind))];
    const counts = new Set(
      lifters.flatMap((one) => Object.values(one.settings).map((sets) => sets.length)),
    );
    this.even = counts.size <= 1;
    for (const kind of kinds) this.#pairs.set(kind, pairCosts(problem, kind));
    this.#first = racks.map(({ kind, now }) =>
      Float64Array.from(lifters, (one) => {
        const first = one.settings[kind]?.[0];
        return now && first ? costOf(movesBetween(now, first), weights) : 0;
      }),
    );
    const at = new Map(lifters.map((one, i) => [one.id, i]));
    for (const [a, b] of problem.apart) {
      const [i, j] = [at.get(a), at.get(b)];
      if (i !== undefined && j !== undefined)
        this.#apart.add(Math.min(i, j) * 1e4 + Math.max(i, j));
    }
  }

  pairs(kind: string): PairCosts {
    return this.#pairs.get(kind) as PairCosts;
  }

  /** The cost of going from how a rack stands to a lifter's first set. */
  first(rack: number, lifter: number): number {
    return this.#first[rack]?.[lifter] ?? 0;
  }

  /** A group's best order and its cost, with what it breaks. */
  of(rack: number, members: readonly number[]): GroupCost {
    if (members.length === 0) return NOBODY;
    const known = this.#of(rack);
    const key = setKey(members);
    const before = known.get(key);
    if (before) return before;
    const sorted = [...members].sort((a, b) => a - b);
    const found = this.#best(rack, sorted);
    const needs = this.pieces.map((_, piece) =>
      sorted.reduce((most, i) => Math.max(most, this.#needs[i]?.[piece] ?? 0), 0),
    );
    const result = { ...found, broken: this.#broken(rack, sorted), needs };
    known.set(key, result);
    return result;
  }

  /** What is known of a rack: of those of one kind that stand in no way, together. */
  #of(rack: number): Map<number | string, GroupCost> {
    let known = this.#known[rack];
    if (!known) {
      const { racks, lifters } = this.problem;
      const own = racks[rack];
      // Who stays at a rack makes it another than those that are alike.
      const alike = lifters.some((one) => one.fixedTo !== undefined)
        ? -1
        : racks.findIndex((one) => one.kind === own?.kind && !one.now && !own?.now);
      known = (alike >= 0 && alike !== rack ? this.#of(alike) : undefined) ?? new Map();
      this.#known[rack] = known;
    }
    return known;
  }

  /** The cost of one order as it stands, in the weights' unit. */
  inOrder(rack: number, order: readonly number[]): number {
    const { lifters, racks, weights } = this.problem;
    const own = racks[rack];
    const sets = order.map((i) => lifters[i]?.settings[own?.kind ?? ""] ?? NONE);
    return costOf(rotationMoves(sets, own?.now), weights);
  }

  #broken(rack: number, members: readonly number[]): number {
    const { lifters, racks } = this.problem;
    const own = racks[rack];
    let broken = 0;
    for (const i of members) {
      const one = lifters[i];
      if (!one) continue;
      if (!one.settings[own?.kind ?? ""]) broken++;
      if (one.fixedTo !== undefined && one.fixedTo !== own?.id) broken++;
      if (one.needsSpotter && !members.some((j) => j !== i && lifters[j]?.maySpot !== false))
        broken++;
    }
    if (this.#apart.size > 0)
      for (let a = 0; a < members.length; a++)
        for (let b = a + 1; b < members.length; b++)
          if (this.#apart.has((members[a] ?? 0) * 1e4 + (members[b] ?? 0))) broken++;
    return broken;
  }

  #best(rack: number, members: readonly number[]): Ordered {
    if (members.length > EVERY_ORDER) return this.#exchanged(rack, members);
    return this.even ? this.#heldKarp(rack, members) : this.#permuted(rack, members);
  }

  /** The best cycle through a group by the first lifter and every subset: exact. */
  #heldKarp(rack: number, members: readonly number[]): Ordered {
    const n = members.length;
    const { within, between } = this.pairs(this.problem.racks[rack]?.kind ?? "");
    const all = this.problem.lifters.length;
    const at = (table: Float64Array, a: number, b: number) =>
      table[(members[a] ?? 0) * all + (members[b] ?? 0)] ?? 0;
    const full = (1 << n) - 1;
    let best = Number.POSITIVE_INFINITY;
    let order: number[] = [];
    const cost = new Float64Array((full + 1) * n);
    const from = new Int8Array((full + 1) * n);
    for (let first = 0; first < n; first++) {
      cost.fill(Number.POSITIVE_INFINITY);
      cost[(1 << first) * n + first] = this.first(rack, members[first] ?? 0);
      for (let mask = 1; mask <= full; mask++) {
        if (!(mask & (1 << first))) continue;
        for (let last = 0; last < n; last++) {
          const so = cost[mask * n + last] ?? 0;
          if (so === Number.POSITIVE_INFINITY) continue;
          for (let next = 0; next < n; next++) {
            if (mask & (1 << next)) continue;
            const to = (mask | (1 << next)) * n + next;
            const sum = so + at(within, last, next);
            if (sum < (cost[to] ?? 0)) {
              cost[to] = sum;
              from[to] = last;
            }
          }
        }
      }
      for (let last = 0; last < n; last++) {
        const sum = (cost[full * n + last] ?? 0) + at(between, last, first);
        if (sum < best - 1e-9) {
          best = sum;
          order = [];
          for (let mask = full, i = last; ; ) {
            order.push(members[i] ?? 0);
            if (i === first && mask === 1 << first) break;
            const before = from[mask * n + i] ?? 0;
            mask &= ~(1 << i);
            i = before;
          }
          order.reverse();
        }
      }
    }
    return { cost: best, order };
  }

  #permuted(rack: number, members: readonly number[]): Ordered {
    if (members.length > 6) return this.#exchanged(rack, members);
    let best: Ordered = { cost: Number.POSITIVE_INFINITY, order: members };
    const walk = (order: number[], left: readonly number[]) => {
      if (left.length === 0) {
        const cost = this.inOrder(rack, order);
        if (cost < best.cost - 1e-9) best = { cost, order: [...order] };
        return;
      }
      for (const one of left)
        walk(
          [...order, one],
          left.filter((other) => other !== one),
        );
    };
    walk([], members);
    return best;
  }

  /** An order that no exchange of two betters. */
  #exchanged(rack: number, members: readonly number[]): Ordered {
    const order = [...members];
    let cost = this.inOrder(rack, order);
    for (let better = true; better; ) {
      better = false;
      for (let i = 0; i < order.length; i++)
        for (let j = i + 1; j < order.length; j++) {
          [order[i], order[j]] = [order[j] as number, order[i] as number];
          const now = this.inOrder(rack, order);
          if (now < cost - 1e-9) {
            cost = now;
            better = true;
          } else [order[i], order[j]] = [order[j] as number, order[i] as number];
        }
    }
    return { cost, order };
  }
}

/** One key for a set of lifters in any order. */
function setKey(members: readonly number[]): number | string {
  let mask = 0;
  for (const i of members) {
    if (i > 30) return [...members].sort((a, b) => a - b).join();
    mask |= 1 << i;
  }
  return mask;
}

const NONE: readonly Setting[] = [];
const NOBODY: GroupCost = { cost: 0, order: [], broken: 0, needs: [] };

function pairCosts({ lifters, weights }: GroupProblem, kind: string): PairCosts {
  const n = lifters.length;
  const within = new Float64Array(n * n);
  const between = new Float64Array(n * n);
  for (const [i, a] of lifters.entries())
    for (const [j, b] of lifters.entries()) {
      const [from, to] = [a.settings[kind] ?? NONE, b.settings[kind] ?? NONE];
      for (let round = 0; round < from.length; round++) {
        const set = from[round] as Setting;
        const same = to[round];
        const next = to[round + 1];
        if (same && i !== j)
          within[i * n + j] = (within[i * n + j] ?? 0) + costOf(movesBetween(set, same), weights);
        if (next)
          between[i * n + j] = (between[i * n + j] ?? 0) + costOf(movesBetween(set, next), weights);
      }
    }
  return { within, between };
}
