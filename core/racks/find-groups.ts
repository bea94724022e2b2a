import { seededRandom } from "../numeric/random";
import { GroupBound } from "./bound";
import { EVERY_GROUPING, exactGroups } from "./exact";
import { GroupCosts } from "./group-cost";
import { costOf, movesBetween, type Setting } from "./moves";
import { brokenBy, type GroupProblem, type RackGroup } from "./problem";

/** An answer so far: it is whole at any time, and gets better. */
export interface GroupsSoFar {
  groups: RackGroup[];
  /** In the unit of the weights; what is broken of what was asked is not in it. */
  cost: number;
  /** No grouping is cheaper. */
  bound: number;
  /** Share of the search that is done, 0 to 1. */
  done: number;
  /** What was asked and is not kept, in words; empty where all is. */
  broken: string[];
}

export interface HowToFind {
  seed?: number;
  /** Exchanges that are tried. */
  tries?: number;
  /** Up to so many lifters every grouping is looked at, at most `EVERY_GROUPING`. */
  whole?: number;
}

/** Exchanges that are tried, and how often an answer comes between. */
const TRIES = 40_000;
const TRIES_A_STEP = 2_000;
const BOUND_ROUNDS_A_STEP = 10;
/** How much worse an exchange may be at the start, as a share of the first answer's cost a lifter. */
const FIRST_HEAT = 0.5;
const LAST_HEAT = 0.004;
/** What a broken wish weighs while it is hot, and when it is cold, likewise: first it may be crossed. */
const FIRST_WISH = 1;
const LAST_WISH = 20;

/**
 * Groups and orders at racks with the least to do between sets.
 *
 * The first answer is the best of a few by sorting (load, seat and hooks, load and seat), each group
 * in its best order. Then exchanges of lifters and moves between racks are tried, worse ones too at
 * first (annealing by the seed); a group's cost is exact at each step. Meanwhile the bound rises
 * (see `GroupBound`); with few lifters every grouping is looked at and the answer is the best there is.
 *
 * @yields the first answer at once, then one after each step; the last has `done` 1
 */
export function* findGroups(
  problem: GroupProblem,
  { seed = 1, tries = TRIES, whole = EVERY_GROUPING }: HowToFind = {},
): Generator<GroupsSoFar, void, void> {
  const { lifters, use } = problem;
  if (lifters.length === 0 || use === 0) {
    yield { groups: [], cost: 0, bound: 0, done: 1, broken: [] };
    return;
  }
  const search = new Search(problem, seed);
  const costs = search.costs;
  const bound = costs.even ? new GroupBound(costs) : undefined;
  let least = bound ? 0 : looseBound(problem);
  yield search.answer(least, 0);
  if (costs.even && lifters.length <= whole) {
    const exact = exactGroups(costs);
    if (exact) {
      least = exact.cost;
      if (brokenBy(problem, exact.groups).length === 0) {
        search.take(exact.groups);
        yield search.answer(least, 1);
        return;
      }
    }
  }
  const steps = Math.max(1, Math.ceil(tries / TRIES_A_STEP));
  for (let step = 1; step <= steps; step++) {
    search.anneal(Math.min(TRIES_A_STEP, tries), (step - 1) / steps, step / steps);
    if (bound) {
      bound.improve(search.bestCost, BOUND_ROUNDS_A_STEP);
      least = Math.max(least, bound.best);
    }
    const closed = !search.broken && search.bestCost - least < 1e-6;
    yield search.answer(least, step === steps || closed ? 1 : step / steps);
    if (closed) return;
  }
}

/** The last answer, for who does not show the way there. */
export function bestGroups(problem: GroupProblem, how?: HowToFind): GroupsSoFar {
  let last: GroupsSoFar | undefined;
  for (const answer of findGroups(problem, how)) last = answer;
  return last as GroupsSoFar;
}

/** Groups of even sizes in a given order of lifters, over the first racks that are used. */
export function groupsInOrder(problem: GroupProblem, ids: readonly string[]): RackGroup[] {
  const racks = problem.racks.slice(0, problem.use);
  let from = 0;
  return racks.flatMap((rack, i) => {
    const size = Math.floor(ids.length / racks.length) + (i < ids.length % racks.length ? 1 : 0);
    const order = ids.slice(from, from + size);
    from += size;
    return order.length > 0 ? [{ rackId: rack.id, order: [...order] }] : [];
  });
}

/** By name, as on a list: what grouping is set against. */
export const groupsByName = (problem: GroupProblem): RackGroup[] =>
  groupsInOrder(
    problem,
    [...problem.lifters].sort((a, b) => a.name.localeCompare(b.name, "en")).map((one) => one.id),
  );

/** By load, lightest first. */
export const groupsByLoad = (problem: GroupProblem): RackGroup[] =>
  groupsInOrder(
    problem,
    byLoad(problem).map((i) => problem.lifters[i]?.id ?? ""),
  );

/** The same people at the same racks, each group in the order with the least to do. */
export function inBestOrder(problem: GroupProblem, groups: readonly RackGroup[]): RackGroup[] {
  const costs = new GroupCosts(problem);
  const at = new Map(problem.lifters.map((one, i) => [one.id, i]));
  return groups.map(({ rackId, order }) => {
    const rack = problem.racks.findIndex((one) => one.id === rackId);
    const members = order.flatMap((id) => at.get(id) ?? []);
    return {
      rackId,
      order: costs.of(rack, members).order.map((i) => problem.lifters[i]?.id ?? ""),
    };
  });
}

const byLoad = ({ lifters }: GroupProblem): number[] =>
  [...lifters.keys()].sort(
    (a, b) => (lifters[a]?.loadKg ?? 0) - (lifters[b]?.loadKg ?? 0) || a - b,
  );

/** A lifter's first standing, to sort by what is slow to change. */
function standing(problem: GroupProblem, i: number): string {
  const set = Object.values(problem.lifters[i]?.settings ?? {})[0]?.[0];
  const hangs = Object.entries(set?.hangs ?? {}).join();
  return `${hangs}|${set?.seat?.base ?? ""}|${pad(set?.seat?.pinCm)}|${pad(set?.hooksCm)}|${pad(set?.safetiesCm)}`;
}
const pad = (cm: number | undefined) => String(Math.round(10 * (cm ?? 0))).padStart(6, "0");

/** Share of tries that bring somebody together, where anybody is to be. */
const GATHERING = 0.1;

/** Cost of moves, and how much of what was asked is broken. */
interface Worth {
  cost: number;
  broken: number;
}

const isLess = (a: Worth, b: Worth) =>
  a.broken !== b.broken ? a.broken < b.broken : a.cost < b.cost - 1e-9;

class Search {
  readonly costs: GroupCosts;
  readonly #problem: GroupProblem;
  readonly #random: ReturnType<typeof seededRandom>;
  /** Members by rack, in any order. */
  #groups: number[][];
  #now: Worth;
  #best: number[][];
  #bestWorth: Worth;
  /** The first answer's cost a lifter: what heat is measured in. */
  readonly #unit: number;

  constructor(problem: GroupProblem, seed: number) {
    this.#problem = problem;
    this.costs = new GroupCosts(problem);
    this.#random = seededRandom(seed);
    const loads = byLoad(problem);
    const byStanding = [...loads].sort((a, b) =>
      standing(problem, a).localeCompare(standing(problem, b)),
    );
    const [one, two] = [loads, byStanding].map((order) => this.#split(order)) as [
      number[][],
      number[][],
    ];
    this.#groups = isLess(this.#worth(two), this.#worth(one)) ? two : one;
    this.#now = this.#worth(this.#groups);
    this.#best = this.#groups.map((own) => [...own]);
    this.#bestWorth = this.#now;
    this.#unit = Math.max(1, this.#now.cost / problem.lifters.length);
  }

  get bestCost(): number {
    return this.#bestWorth.cost;
  }

  get broken(): boolean {
    return this.#bestWorth.broken > 0;
  }

  answer(bound: number, done: number): GroupsSoFar {
    const { racks, lifters } = this.#problem;
    const groups = this.#best.flatMap((members, rack) => {
      const own = racks[rack];
      return members.length === 0 || !own
        ? []
        : [
            {
              rackId: own.id,
              order: this.costs.of(rack, members).order.map((i) => lifters[i]?.id ?? ""),
            },
          ];
    });
    const broken = brokenBy(this.#problem, groups);
    const { cost } = this.#bestWorth;
    return { groups, cost, bound: Math.min(bound, cost), done, broken };
  }

  /** Goes on from groups that somebody made. */
  take(groups: readonly RackGroup[]): void {
    const at = new Map(this.#problem.lifters.map((one, i) => [one.id, i]));
    this.#groups = this.#problem.racks.map((rack) =>
      (groups.find((one) => one.rackId === rack.id)?.order ?? []).flatMap((id) => at.get(id) ?? []),
    );
    this.#now = this.#worth(this.#groups);
    this.#keepBest();
  }

  /** Exchanges while it cools from one share of the way to another. */
  anneal(tries: number, from: number, to: number): void {
    for (let i = 0; i < tries; i++) {
      const at = from + ((to - from) * i) / tries;
      const heat = this.#unit * FIRST_HEAT * (LAST_HEAT / FIRST_HEAT) ** at;
      this.#try(heat, this.#unit * FIRST_WISH * (LAST_WISH / FIRST_WISH) ** at);
    }
  }

  /** Brings who is to be together to one rack, each in exchange for somebody there. */
  #gather(heat: number, wish: number): void {
    const { together, lifters } = this.#problem;
    const ids = together[this.#index(together.length)] ?? [];
    const own = lifters.flatMap((one, i) => (ids.includes(one.id) ? [i] : []));
    const groups = this.#groups.map((members) => [...members]);
    const to = groups[this.#index(groups.length)] as number[];
    for (const who of own) {
      if (to.includes(who)) continue;
      const others = [...to.keys()].filter((at) => !own.includes(to[at] as number));
      const at = others[this.#index(others.length)];
      const from = groups.find((members) => members.includes(who));
      if (at === undefined || !from) return;
      from[from.indexOf(who)] = to[at] as number;
      to[at] = who;
    }
    const next = this.#worth(groups);
    const worse = next.cost - this.#now.cost + wish * (next.broken - this.#now.broken);
    if (worse > 0 && this.#random.uniform() >= Math.exp(-worse / heat)) return;
    this.#groups = groups;
    this.#now = next;
    this.#keepBest();
  }

  #try(heat: number, wish: number): void {
    if (this.#problem.together.length > 0 && this.#random.uniform() < GATHERING) {
      this.#gather(heat, wish);
      return;
    }
    const groups = this.#groups;
    const a = this.#index(groups.length);
    const b = this.#index(groups.length);
    if (a === b) return;
    const [one, two] = [groups[a] as number[], groups[b] as number[]];
    if (one.length === 0) return;
    const { least, most } = this.#problem;
    let next: [number[], number[]];
    if (two.length === 0) {
      // A whole group goes to a rack that nobody uses.
      if (this.#problem.racks[a]?.kind === this.#problem.racks[b]?.kind && !this.#standsNow) return;
      next = [[], [...one]];
    } else if (this.#random.uniform() < 0.3 && one.length > least && two.length < most) {
      const i = this.#index(one.length);
      next = [one.filter((_, at) => at !== i), [...two, one[i] as number]];
    } else {
      const [i, j] = [this.#index(one.length), this.#index(two.length)];
      next = [
        one.map((who, at) => (at === i ? (two[j] as number) : who)),
        two.map((who, at) => (at === j ? (one[i] as number) : who)),
      ];
    }
    const across = this.#across(groups);
    groups[a] = next[0];
    groups[b] = next[1];
    const after = [this.costs.of(a, next[0]), this.costs.of(b, next[1])] as const;
    const before = [this.costs.of(a, one), this.costs.of(b, two)] as const;
    const cost = after[0].cost + after[1].cost - before[0].cost - before[1].cost;
    const broken =
      after[0].broken +
      after[1].broken -
      before[0].broken -
      before[1].broken +
      this.#across(groups) -
      across;
    const worse = cost + wish * broken;
    if (worse <= 0 || this.#random.uniform() < Math.exp(-worse / heat)) {
      this.#now = { cost: this.#now.cost + cost, broken: this.#now.broken + broken };
      if (isLess(this.#now, this.#bestWorth)) this.#keepBest();
    } else {
      groups[a] = one;
      groups[b] = two;
    }
  }

  #keepBest(): void {
    if (!isLess(this.#now, this.#bestWorth)) return;
    this.#bestWorth = this.#now;
    this.#best = this.#groups.map((own) => [...own]);
  }

  get #standsNow(): boolean {
    return this.#problem.racks.some((rack) => rack.now !== undefined);
  }

  #index(length: number): number {
    return Math.floor(this.#random.uniform() * length);
  }

  #split(order: readonly number[]): number[][] {
    const { racks, lifters } = this.#problem;
    const split = groupsInOrder(
      this.#problem,
      order.map((i) => lifters[i]?.id ?? ""),
    );
    const at = new Map(lifters.map((one, i) => [one.id, i]));
    return racks.map((rack) =>
      (split.find((one) => one.rackId === rack.id)?.order ?? []).flatMap((id) => at.get(id) ?? []),
    );
  }

  #worth(groups: readonly number[][]): Worth {
    const own = groups.map((members, rack) => this.costs.of(rack, members));
    return {
      cost: own.reduce((sum, one) => sum + one.cost, 0),
      broken: own.reduce((sum, one) => sum + one.broken, 0) + this.#across(groups),
    };
  }

  /** What is broken between groups: who is not together, pieces that are needed twice. */
  #across(groups: readonly number[][]): number {
    const { together, lifters } = this.#problem;
    let broken = 0;
    if (together.length > 0) {
      const rackOf = new Map<string, number>();
      groups.forEach((members, rack) => {
        for (const i of members) rackOf.set(lifters[i]?.id ?? "", rack);
      });
      for (const ids of together) {
        const own = new Set(ids.flatMap((id) => rackOf.get(id) ?? []));
        broken += Math.max(0, own.size - 1);
      }
    }
    for (const [piece, { stock }] of this.costs.pieces.entries()) {
      let needed = 0;
      for (const [rack, members] of groups.entries())
        needed += this.costs.of(rack, members).needs[piece] ?? 0;
      broken += Math.max(0, needed - stock);
    }
    return broken;
  }
}

/**
 * A bound where sets to be done differ: each set costs at least what leads to it from any other set of
 * any lifter or from how a rack stands; the first at a rack that stands in no way is free.
 */
export function looseBound(problem: GroupProblem): number {
  const { lifters, racks, weights, use } = problem;
  const kinds = [...new Set(racks.map((rack) => rack.kind))];
  const sets = lifters.flatMap((one, who) =>
    kinds.flatMap((kind) =>
      (one.settings[kind] ?? []).map((set, round) => ({ kind, who, round, set })),
    ),
  );
  const least = new Map<string, number>();
  for (const to of sets) {
    let cheapest = Number.POSITIVE_INFINITY;
    for (const from of sets)
      if (from.kind === to.kind && (from.who !== to.who || from.round !== to.round))
        cheapest = Math.min(cheapest, costOf(movesBetween(from.set, to.set), weights));
    for (const rack of racks)
      if (rack.kind === to.kind && rack.now)
        cheapest = Math.min(cheapest, costOf(movesBetween(rack.now as Setting, to.set), weights));
    if (!Number.isFinite(cheapest)) cheapest = 0;
    const key = `${to.who}/${to.round}`;
    least.set(key, Math.min(least.get(key) ?? Number.POSITIVE_INFINITY, cheapest));
  }
  const all = [...least.values()].sort((a, b) => b - a);
  const free = racks.some((rack) => rack.now === undefined) ? use : 0;
  return all.slice(free).reduce((sum, one) => sum + one, 0);
}
