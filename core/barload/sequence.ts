import { type Grains, grains, grainsToKg, kgToGrains, type Mass } from "../units/mass";
import type { Working } from "../units/working";
import { type LeastMovesInput, leastMoves } from "./least-moves";
import { loadableTable } from "./loadable";
import type { LoadingGear } from "./loading-gear";

/** One load of a sequence: what stands on each side, and what changes from the one before. */
export interface SequenceStep {
  totalKg: number;
  /** Inside out. */
  side: Mass[];
  /** Taken off each side, outermost first, then put on each side, innermost first. */
  off: Mass[];
  on: Mass[];
  /** Plates put on or off, both sides. */
  moves: number;
}

export type SequencePlan =
  | {
      ok: true;
      steps: SequenceStep[];
      /** Both sides; the first loading counts, the last stripping does not. */
      moves: number;
      /** With the fewest plates for each load on its own, for comparison. */
      movesOnePlan: number;
      /** No way to load them has fewer moves than this. */
      leastMoves: number;
      /** There is none with fewer: `moves` is `leastMoves`. */
      proven: boolean;
    }
  | { ok: false; reason: "not-loadable"; index: number; totalKg: number }
  /** More than `MOST_LOADS`. */
  | { ok: false; reason: "too-large" };

/** No session has more. */
export const MOST_LOADS = 500;

/** Stacks may hold this many plates more than the fewest that build the load. */
export const EXTRA_PLATES = 2;
/** Ways to stack one load that are looked at where all of them would be too many. */
export const MOST_STACKS = 4000;

interface Kind {
  mass: Mass;
  each: Grains;
  pairs: number;
  thicknessMm: number;
}

/** A stack as a path in a tree of plates, from the inside out. */
interface StackTree {
  parent: number[];
  kind: number[];
  depth: number[];
  child: Map<number, number>;
}

/** Cost weights: a move outweighs every preference, and heavy inside outweighs fewer plates. */
const MOVE = 1e6;
const INVERSION = 1e3;

/**
 * The decompositions of a sequence of loads on one bar with the fewest plate moves. Plates come
 * off outermost first; a move is one plate put on or off on one side. Of equal ones, those with
 * heavy plates inside and few plates stand.
 *
 * Exact and proven up to about 40 loads of seven kinds of plates (`leastMoves`). Beyond that the
 * best over the stacks with few plates stands, beside a bound that no way can go under.
 * @param totalsKg loads in order, as `loadBar` gives them
 * @param start what stands on each side before the first, inside out
 */
export function planSequence(
  gear: LoadingGear,
  totalsKg: readonly number[],
  options: { start?: readonly Mass[] } = {},
): SequencePlan {
  if (totalsKg.length > MOST_LOADS) return { ok: false, reason: "too-large" };
  const table = loadableTable(gear);
  const kinds = kindsOf(gear);
  const fewest: Array<{ plates: Mass[]; sideGrains: Grains }> = [];
  for (const [index, totalKg] of totalsKg.entries()) {
    const side = table.sideFor(kgToGrains(totalKg));
    if (!side) return { ok: false, reason: "not-loadable", index, totalKg };
    fewest.push(side);
  }
  const start = options.start ?? [];
  const targets = fewest.map((side) => side.sideGrains);
  const known = knownStart(kinds, start);
  // What lies outside of the first plate that this room does not have comes off in any case.
  const foreign = start.length - known.length;
  const input = {
    kinds: kinds.map(({ each, pairs, thicknessMm }) => ({ each, count: pairs, thicknessMm })),
    sleeveMm: gear.bar.sleeveMm,
    targets,
  };
  const exact = leastMoves({ ...input, start: known });
  const sides = exact.ok
    ? exact.sides.map((side) => side.map((kind) => (kinds[kind] as Kind).mass))
    : fewPlates(gear, kinds, targets, fewest, known);
  const steps = changes(totalsKg, sides, start);
  const alone = fewest.map((side) => side.plates);
  const sum = (all: SequenceStep[]) => all.reduce((total, step) => total + step.moves, 0);
  const moves = sum(steps);
  const least = exact.ok ? moves : 2 * (foreign + boundOf(input, known));
  return {
    ok: true,
    steps,
    moves,
    movesOnePlan: sum(changes(totalsKg, alone, start)),
    leastMoves: least,
    proven: moves === least,
  };
}

/** Plates on the bar, from the inside, up to the first that this room does not have. */
function knownStart(kinds: readonly Kind[], start: readonly Mass[]): number[] {
  const left = kinds.map((kind) => kind.pairs);
  const known: number[] = [];
  for (const mass of start) {
    const kind = kinds.findIndex((one, i) => one.each === grains(mass) && (left[i] as number) > 0);
    if (kind < 0) break;
    left[kind] = (left[kind] as number) - 1;
    known.push(kind);
  }
  return known;
}

/** A bound of a long sequence, a side: the exact least of each stretch that can be had. */
function boundOf(input: Omit<LeastMovesInput, "start">, start: readonly number[]): number {
  const { targets } = input;
  let bound = 0;
  let from = 0;
  while (from < targets.length - 1 || from === 0) {
    // The longest of these stretches that is not too large; it shares its last load with the next.
    const found = [32, 16, 8, 4, 2].flatMap((length) => {
      const stretch = targets.slice(from, from + length);
      const first = from === 0;
      const exact = leastMoves({
        ...input,
        targets: stretch,
        start: first ? start : [],
        ...(first ? {} : { freeStart: true }),
      });
      return exact.ok ? [{ moves: exact.moves, length: stretch.length }] : [];
    })[0];
    if (!found) {
      from++;
      continue;
    }
    bound += found.moves;
    from += Math.max(1, found.length - 1);
  }
  return bound;
}

/**
 * The best over all orders of stacks with few plates: the cost from one stack to the next depends
 * only on the prefix they share, so the best way into every prefix is carried from load to load.
 */
function fewPlates(
  gear: LoadingGear,
  kinds: readonly Kind[],
  targets: readonly Grains[],
  fewest: ReadonlyArray<{ plates: Mass[] }>,
  known: readonly number[],
): Mass[][] {
  const tree: StackTree = { parent: [-1], kind: [-1], depth: [0], child: new Map() };
  const leavesOf = new Map<Grains, number[]>();
  for (const [i, target] of targets.entries()) {
    if (leavesOf.has(target)) continue;
    const { leaves } = stacksOf({
      kinds,
      target,
      sleeveMm: gear.bar.sleeveMm,
      mostPlates: (fewest[i]?.plates.length ?? 0) + EXTRA_PLATES,
      tree,
    });
    leavesOf.set(target, leaves);
  }
  let start = 0;
  for (const kind of known) start = childOf(tree, start, kind);
  const size = tree.parent.length;
  // Least cost so far plus the depth of the stack it ends in, by each of that stack's prefixes.
  const through = new Float64Array(size).fill(Number.POSITIVE_INFINITY);
  const from = new Int32Array(size).fill(-1);
  const touched: number[] = [];
  const reach = (leaf: number, cost: number) => {
    const value = cost + MOVE * (tree.depth[leaf] as number);
    for (let at = leaf; at !== -1; at = tree.parent[at] as number) {
      const known = through[at] as number;
      if (known === Number.POSITIVE_INFINITY) touched.push(at);
      if (value < known) {
        through[at] = value;
        from[at] = leaf;
      }
    }
  };
  reach(start, 0);
  const history: Array<Map<number, number>> = [];
  let last = new Map<number, number>([[start, 0]]);
  for (const target of targets) {
    const leaves = leavesOf.get(target) ?? [];
    const costs = new Map<number, number>();
    const cameFrom = new Map<number, number>();
    for (const leaf of leaves) {
      const depth = tree.depth[leaf] as number;
      let best = Number.POSITIVE_INFINITY;
      let source = -1;
      for (let at = leaf; at !== -1; at = tree.parent[at] as number) {
        const cost = (through[at] as number) + MOVE * (depth - 2 * (tree.depth[at] as number));
        if (cost < best) {
          best = cost;
          source = from[at] as number;
        }
      }
      costs.set(leaf, best + preference(tree, kinds, leaf));
      cameFrom.set(leaf, source);
    }
    for (const at of touched) through[at] = Number.POSITIVE_INFINITY;
    touched.length = 0;
    for (const [leaf, cost] of costs) reach(leaf, cost);
    history.push(cameFrom);
    last = costs;
  }
  const path: number[] = [];
  let at = [...last].reduce((a, b) => (b[1] < a[1] ? b : a))[0];
  for (let i = history.length - 1; i >= 0; i--) {
    path.unshift(at);
    at = (history[i] as Map<number, number>).get(at) as number;
  }
  return path.map((leaf) => stackAt(tree, kinds, leaf));
}

function kindsOf(gear: LoadingGear): Kind[] {
  return gear.plates
    .filter((stock) => stock.pairs > 0 && stock.mass.amount > 0)
    .map((stock) => ({
      mass: stock.mass,
      each: grains(stock.mass),
      pairs: stock.pairs,
      thicknessMm: stock.thicknessMm,
    }))
    .sort((a, b) => b.each - a.each);
}

/** All orders of plates that make a side, heaviest inside first, up to a number of plates. */
function stacksOf(input: {
  kinds: readonly Kind[];
  target: Grains;
  sleeveMm: number;
  mostPlates: number;
  tree: StackTree;
}): { leaves: number[] } {
  const { kinds, target, tree } = input;
  const left = kinds.map((kind) => kind.pairs);
  const heaviest = kinds[0]?.each ?? 0;
  const leaves: number[] = [];
  const walk = (node: number, rest: Grains, lengthMm: number) => {
    if (rest === 0) {
      leaves.push(node);
      return;
    }
    const depth = tree.depth[node] as number;
    if (rest > (input.mostPlates - depth) * heaviest) return;
    for (const [i, kind] of kinds.entries()) {
      if (leaves.length >= MOST_STACKS) return;
      if ((left[i] as number) === 0 || kind.each > rest) continue;
      const length = lengthMm + kind.thicknessMm;
      if (length > input.sleeveMm) continue;
      left[i] = (left[i] as number) - 1;
      walk(childOf(tree, node, i), rest - kind.each, length);
      left[i] = (left[i] as number) + 1;
    }
  };
  walk(0, target, 0);
  return { leaves };
}

function childOf(tree: StackTree, node: number, kind: number): number {
  const key = node * 64 + kind;
  const known = tree.child.get(key);
  if (known !== undefined) return known;
  const id = tree.parent.length;
  tree.parent.push(node);
  tree.kind.push(kind);
  tree.depth.push((tree.depth[node] as number) + 1);
  tree.child.set(key, id);
  return id;
}

function stackAt(tree: StackTree, kinds: readonly Kind[], leaf: number): Mass[] {
  const side: Mass[] = [];
  for (let at = leaf; at > 0; at = tree.parent[at] as number) {
    side.unshift((kinds[tree.kind[at] as number] as Kind).mass);
  }
  return side;
}

/** Heavy inside, then few plates: what decides between equal numbers of moves. */
function preference(tree: StackTree, kinds: readonly Kind[], leaf: number): number {
  let inversions = 0;
  for (let at = leaf; at > 0; at = tree.parent[at] as number) {
    const inside = tree.parent[at] as number;
    if (inside <= 0) break;
    const outer = kinds[tree.kind[at] as number] as Kind;
    const inner = kinds[tree.kind[inside] as number] as Kind;
    if (outer.each > inner.each) inversions++;
  }
  return INVERSION * inversions + (tree.depth[leaf] as number);
}

function changes(
  totalsKg: readonly number[],
  sides: ReadonlyArray<readonly Mass[]>,
  start: readonly Mass[],
): SequenceStep[] {
  return sides.map((side, i) => {
    const before = i === 0 ? start : (sides[i - 1] as readonly Mass[]);
    let shared = 0;
    while (
      shared < Math.min(before.length, side.length) &&
      grains(before[shared] as Mass) === grains(side[shared] as Mass)
    ) {
      shared++;
    }
    const off = before.slice(shared).reverse();
    const on = side.slice(shared);
    return {
      totalKg: totalsKg[i] as number,
      side: [...side],
      off,
      on,
      moves: 2 * (off.length + on.length),
    };
  });
}

/** Steps of a warm-up, share of the first work load; the empty bar comes before them. */
export const WARM_UP_SHARES = [0.4, 0.55, 0.7, 0.85, 0.95] as const;

/**
 * The warm-up ramp: the empty bar, then the nearest loadable totals of the shares, ascending,
 * merged where they round together, all under the work load.
 */
export function warmUpRamp(
  gear: LoadingGear,
  workKg: number,
  shares: readonly number[] = WARM_UP_SHARES,
): number[] {
  const { totals } = loadableTable(gear);
  const work = kgToGrains(workKg);
  const first = totals[0];
  if (first === undefined || first >= work) return [];
  const steps = new Set<Grains>([first]);
  for (const share of shares) {
    const asked = work * share;
    const nearest = totals.reduce((a, b) => (Math.abs(b - asked) < Math.abs(a - asked) ? b : a));
    if (nearest < work) steps.add(nearest);
  }
  return [...steps].sort((a, b) => a - b).map(grainsToKg);
}

/** What planning the loads together saves, in plate moves. */
export const movesWorking = (plan: Extract<SequencePlan, { ok: true }>): Working => ({
  title: "Plate moves",
  lines: [
    { label: "Loads", value: String(plan.steps.length) },
    { label: "Fewest plates each time", value: `${plan.movesOnePlan} moves` },
    {
      label: "Planned together",
      value: `${plan.moves} moves`,
      emphasis: "answer",
      detail: plan.proven
        ? "the fewest there are: every way was looked at"
        : `no way has fewer than ${plan.leastMoves}`,
    },
  ],
  sources: [
    "A move is one plate put on or off on one side; the first loading counts, the last stripping does not. Plates come off outermost first.",
  ],
  changes: ["Another order of the loads, other plates."],
});
