import { plainNumber } from "../units/mass";
import type { Working } from "../units/working";

/** Tolerance round the target height, cm: a little high is acceptable, low rounds the back. */
export const BOX_UNDER_CM = 0;
export const BOX_OVER_CM = 2.5;

/**
 * Next box height from a trial: seated at height H with the crease d above (+) or below (−) the
 * knee, the box goes to H − d, plus the style's offset of crease over knee. Undefined where that
 * is no height of a seat.
 */
export function boxHeightFromTrial(input: {
  seatCm: number;
  creaseOverKneeCm: number;
  offsetCm?: number;
}): number | undefined {
  const cm = input.seatCm - input.creaseOverKneeCm + (input.offsetCm ?? 0);
  return isHeight(cm) ? cm : undefined;
}

/** Nobody sits higher, cm. */
const MOST_SEAT_CM = 200;
const isHeight = (cm: number) => cm > 0 && cm <= MOST_SEAT_CM;

/** A build in words: "Pin box at 36 cm + 1 × Thin mat". */
export const buildWords = (build: SeatBuild, mats: readonly { name: string }[]): string =>
  [
    `${build.base.name} at ${plainNumber(build.pinCm, 1)} cm`,
    ...build.mats.flatMap((n, i) => (n > 0 ? [`${n} × ${mats[i]?.name}`] : [])),
  ].join(" + ");

/** How a box height and what builds it were found. */
export const seatWorking = (input: {
  seatCm: number;
  creaseOverKneeCm: number;
  targetCm: number;
  build: SeatBuild;
  mats: readonly MatStock[];
  tolerance: Tolerance;
}): Working => {
  const { build, tolerance } = input;
  const off = `${build.offCm >= 0 ? "+" : "−"}${plainNumber(Math.abs(build.offCm), 1)} cm`;
  return {
    title: "Box height",
    lines: [
      { label: "Trial seat", value: `${input.seatCm} cm` },
      { label: "Crease over the knee", value: `${input.creaseOverKneeCm} cm` },
      { label: "Wanted", value: `${plainNumber(input.targetCm, 1)} cm`, detail: "H − d" },
      {
        label: buildWords(build, input.mats),
        value: `${plainNumber(build.heightCm, 1)} cm`,
        detail: `${off}; allowed −${tolerance.underCm} / +${tolerance.overCm}`,
        emphasis: "answer",
      },
    ],
    sources: ["Crease level with the top of the knee; a little high is acceptable"],
    changes: ["Another trial, other mats, another tolerance of the style."],
  };
};

/** Something to sit on: a box at its pin heights, a bench, a block. Never box on box. */
export interface SeatBase {
  id: string;
  name: string;
  heightsCm: readonly number[];
  /** A stand-in for a box, with its caution and the load above which a plan is refused. */
  substitute?: { caution: string; limitKg: number | undefined };
}

export interface MatStock {
  id: string;
  name: string;
  thicknessCm: number;
  count: number;
}

export interface SeatBuild {
  base: SeatBase;
  pinCm: number;
  /** Mats by kind: how many of each, in the order of the stock. */
  mats: number[];
  heightCm: number;
  pieces: number;
  /** Over the target, cm; negative under it. */
  offCm: number;
}

export interface Tolerance {
  underCm: number;
  overCm: number;
}

function within(offCm: number, tolerance: Tolerance): boolean {
  return offCm >= -tolerance.underCm - 1e-9 && offCm <= tolerance.overCm + 1e-9;
}

/** How far outside the tolerance a height lies, cm. */
function outside(offCm: number, tolerance: Tolerance): number {
  return Math.max(0, -tolerance.underCm - offCm, offCm - tolerance.overCm);
}

/** Ways to lay mats that are looked at for a group, those with the fewest mats first. */
export const MOST_MAT_CHOICES = 2000;

/** Ways to lay mats, by kind, fewest mats first; `whole` where there are no others. */
function matChoices(mats: readonly MatStock[]): { choices: number[][]; whole: boolean } {
  let layer = [mats.map(() => 0)];
  const choices: number[][] = [];
  while (layer.length > 0) {
    choices.push(...layer);
    if (choices.length > MOST_MAT_CHOICES) {
      return { choices: choices.slice(0, MOST_MAT_CHOICES), whole: false };
    }
    // One mat more, of the last kind that lies or one after it: each way once.
    layer = layer.flatMap((choice) => {
      const last = choice.findLastIndex((n) => n > 0);
      return mats.flatMap((stock, i) =>
        i < Math.max(0, last) || (choice[i] as number) >= stock.count
          ? []
          : [choice.map((n, k) => (k === i ? n + 1 : n))],
      );
    });
  }
  return { choices, whole: true };
}

/** Heights of mats are told apart to a tenth of a millimetre. */
const heightKey = (cm: number) => Math.round(100 * cm);

/**
 * For every height that mats can make up to one, the fewest mats that make it: a bounded knapsack,
 * so its time grows with the heights and not with the ways.
 */
function fewestMats(mats: readonly MatStock[], mostCm: number): number[][] {
  let known = new Map<number, { pieces: number; counts: number[]; cm: number }>([
    [0, { pieces: 0, counts: mats.map(() => 0), cm: 0 }],
  ]);
  for (const [i, stock] of mats.entries()) {
    if (!(stock.thicknessCm > 0)) continue;
    const next = new Map(known);
    for (const one of known.values()) {
      for (let n = 1; n <= stock.count; n++) {
        const cm = one.cm + n * stock.thicknessCm;
        if (cm > mostCm) break;
        const pieces = one.pieces + n;
        const before = next.get(heightKey(cm));
        if (before && before.pieces <= pieces) continue;
        const counts = one.counts.map((count, k) => (k === i ? n : count));
        next.set(heightKey(cm), { pieces, counts, cm });
      }
    }
    known = next;
  }
  return [...known.values()].map((one) => one.counts);
}

function buildOf(
  base: SeatBase,
  pinCm: number,
  counts: number[],
  mats: readonly MatStock[],
  targetCm: number,
): SeatBuild {
  const laid = counts.reduce((sum, n, i) => sum + n * (mats[i] as MatStock).thicknessCm, 0);
  const heightCm = pinCm + laid;
  return {
    base,
    pinCm,
    mats: counts,
    heightCm,
    pieces: 1 + counts.reduce((sum, n) => sum + n, 0),
    offCm: heightCm - targetCm,
  };
}

export type SeatAnswer =
  | { ok: true; build: SeatBuild }
  /** Nothing fits: the nearest build, with its error. */
  | { ok: false; reason: "none-fits"; nearest: SeatBuild }
  | { ok: false; reason: "no-boxes" | "no-height" | "too-large" };

/** Kinds of mats and heights of boxes in one room, athletes in one group. */
const MOST_KINDS = 40;
const MOST_HEIGHTS = 1000;
const MOST_GROUP = 200;
const MOST_OF_A_KIND = 1000;

type Stock = Pick<GroupInput, "bases" | "mats" | "tolerance">;

/** What of a room's stock can be sat on: heights and mats that are none are left out. */
function soundStock({ bases, mats, tolerance }: Stock): Required<Stock> | "too-large" {
  if (mats.length > MOST_KINDS || bases.length > MOST_HEIGHTS) return "too-large";
  const usable = bases.map((base) => ({ ...base, heightsCm: base.heightsCm.filter(isHeight) }));
  if (usable.reduce((sum, base) => sum + base.heightsCm.length, 0) > MOST_HEIGHTS) {
    return "too-large";
  }
  const fits = (cm: number) => (cm >= 0 && cm <= MOST_SEAT_CM ? cm : 0);
  return {
    bases: usable.filter((base) => base.heightsCm.length > 0),
    // A mat that is none keeps its place, since builds count mats by place.
    mats: mats.map((stock) =>
      isHeight(stock.thicknessCm) && stock.count >= 1
        ? { ...stock, count: Math.min(MOST_OF_A_KIND, Math.floor(stock.count)) }
        : { ...stock, thicknessCm: 0, count: 0 },
    ),
    tolerance: {
      underCm: fits(tolerance?.underCm ?? BOX_UNDER_CM),
      overCm: fits(tolerance?.overCm ?? BOX_OVER_CM),
    },
  };
}

/**
 * The build for one athlete: within tolerance with the fewest pieces; of equal ones a real box
 * before a stand-in, then the nearest. Where none fits, the nearest one is named with its error.
 */
export function seatFor(input: {
  targetCm: number;
  bases: readonly SeatBase[];
  mats: readonly MatStock[];
  tolerance?: Tolerance;
}): SeatAnswer {
  const { targetCm } = input;
  if (!isHeight(targetCm)) return { ok: false, reason: "no-height" };
  const stock = soundStock(input);
  if (stock === "too-large") return { ok: false, reason: stock };
  const { bases, mats, tolerance } = stock;
  const lowest = Math.min(...bases.flatMap((base) => base.heightsCm));
  const thickest = Math.max(0, ...mats.map((one) => one.thicknessCm));
  // What is higher than the target by a whole mat is never the nearest.
  const mostCm = Math.max(0, targetCm - lowest) + tolerance.overCm + thickest;
  const choices = fewestMats(mats, mostCm);
  let best: SeatBuild | undefined;
  const cost = (one: SeatBuild) => [
    outside(one.offCm, tolerance),
    one.pieces,
    one.base.substitute ? 1 : 0,
    Math.abs(one.offCm),
  ];
  for (const base of bases) {
    for (const pinCm of base.heightsCm) {
      for (const counts of choices) {
        const build = buildOf(base, pinCm, counts, mats, targetCm);
        if (best === undefined || lexicallyLess(cost(build), cost(best))) best = build;
      }
    }
  }
  if (best === undefined) return { ok: false, reason: "no-boxes" };
  return within(best.offCm, tolerance)
    ? { ok: true, build: best }
    : { ok: false, reason: "none-fits", nearest: best };
}

function lexicallyLess(a: readonly number[], b: readonly number[]): boolean {
  for (let i = 0; i < a.length; i++) {
    const difference = (a[i] as number) - (b[i] as number);
    if (Math.abs(difference) > 1e-9) return difference < 0;
  }
  return false;
}

export interface GroupSeats {
  base: SeatBase;
  pinCm: number;
  /** One build for each athlete, in the order given. */
  builds: SeatBuild[];
  /** Everybody within tolerance; otherwise the sum of what is outside it is least. */
  allFit: boolean;
  /** Mats laid or lifted in one round of turns, the way back to the first included. */
  changes: number;
  pieces: number;
  /** Every way to lay the mats was looked at; else those with few mats alone. */
  proven: boolean;
}

interface GroupInput {
  targetsCm: readonly number[];
  bases: readonly SeatBase[];
  mats: readonly MatStock[];
  tolerance?: Tolerance;
}

interface Round {
  builds: SeatBuild[];
  changes: number;
  pieces: number;
}

/**
 * One base height for a rack, mats for each athlete: everybody within tolerance first (else the
 * least outside it), then the fewest mats moved in a round of turns, then the fewest pieces. The
 * pins stay where they are. Exact: every base height, and for each the best round over all ways
 * to lay the mats.
 */
export function seatsForGroup(input: GroupInput): GroupSeats | undefined {
  const n = input.targetsCm.length;
  return bestBase(input, bestRound, Math.cbrt(MOST_WORK / Math.max(1, n)))?.plan;
}

/** Steps of looking for a round: some tenths of a second at the most. */
const MOST_WORK = 4e7;

/** Largest group whose turns are ordered exactly; larger ones go by height. */
export const MOST_TURNS_ORDERED = 6;

/**
 * The same with the turns in the order that moves the fewest mats: exact up to six athletes (a rack shares no more),
 * beyond that by ascending height. The first stays first, since a round has no beginning.
 * @returns the order as indices into the heights, and the seats in that order
 */
export function bestTurns(
  input: GroupInput,
): { order: number[]; seats: GroupSeats; proven: boolean } | undefined {
  const { targetsCm } = input;
  if (targetsCm.length > MOST_TURNS_ORDERED) {
    const order = targetsCm
      .map((_, i) => i)
      .sort((a, b) => (targetsCm[a] as number) - (targetsCm[b] as number));
    const byHeight = order.map((i) => targetsCm[i] as number);
    const seats = seatsForGroup({ ...input, targetsCm: byHeight });
    return seats && { order, seats, proven: false };
  }
  const n = Math.max(1, targetsCm.length);
  const found = bestBase(input, bestTour, Math.cbrt(MOST_WORK / (n * n * 2 ** (n - 1))));
  return found && { order: found.round.order, seats: found.plan, proven: found.plan.proven };
}

/** Over every base height: least outside the tolerance, then the cheapest round or tour. */
function bestBase<R extends Round>(
  input: GroupInput,
  through: (options: readonly SeatBuild[][]) => R,
  /** Builds looked at for one athlete. */
  mostBuilds: number,
): { plan: GroupSeats; round: R } | undefined {
  const { targetsCm } = input;
  const stock = soundStock(input);
  if (stock === "too-large" || targetsCm.length > MOST_GROUP) return undefined;
  if (targetsCm.length === 0 || !targetsCm.every(isHeight)) return undefined;
  const { bases, mats, tolerance } = stock;
  const { choices, whole } = matChoices(mats);
  let best: { plan: GroupSeats; round: R; cost: number[] } | undefined;
  for (const base of bases) {
    for (const pinCm of base.heightsCm) {
      // For each athlete: the ways to lay mats that are least outside the tolerance.
      let error = 0;
      let proven = whole;
      const options = targetsCm.map((targetCm) => {
        const builds = choices.map((counts) => buildOf(base, pinCm, counts, mats, targetCm));
        const least = Math.min(...builds.map((one) => outside(one.offCm, tolerance)));
        error += least;
        // Fewest mats come first, as the choices do.
        const fit = builds.filter((one) => outside(one.offCm, tolerance) <= least + 1e-9);
        if (fit.length > mostBuilds) proven = false;
        return fit.slice(0, Math.max(1, Math.floor(mostBuilds)));
      });
      if (best && error > (best.cost[0] as number) + 1e-9) continue;
      const round = through(options);
      const { builds, changes, pieces } = round;
      const cost = [error, changes, pieces, base.substitute ? 1 : 0];
      if (best === undefined || lexicallyLess(cost, best.cost)) {
        const plan = { base, pinCm, allFit: error < 1e-9, builds, changes, pieces, proven };
        best = { plan, round, cost };
      }
    }
  }
  return best;
}

/** One mat moved outweighs any number of pieces. */
const MOVE_COST = 1000;

const matsMoved = (a: SeatBuild, b: SeatBuild) =>
  a.mats.reduce((sum, n, i) => sum + Math.abs(n - (b.mats[i] as number)), 0);

function roundOf(builds: SeatBuild[]): Round {
  return {
    builds,
    changes: builds.reduce(
      (sum, build, i) => sum + matsMoved(build, builds[(i + 1) % builds.length] as SeatBuild),
      0,
    ),
    pieces: builds.reduce((sum, build) => sum + build.pieces, 0),
  };
}

/**
 * The cheapest tour that starts with the first athlete and takes every other once, one build of
 * each: dynamic programming over who has lifted (Held & Karp 1962).
 */
function bestTour(options: readonly SeatBuild[][]): Round & { order: number[] } {
  const n = options.length;
  const full = (1 << n) - 1;
  // Every build of every athlete is a node; moves between any two are worked out once.
  const nodes = options.flatMap((builds, athlete) => builds.map((build) => ({ build, athlete })));
  const size = nodes.length;
  const moves = Float64Array.from({ length: size * size }, (_, k) => {
    const [from, to] = [nodes[Math.floor(k / size)], nodes[k % size]];
    return from && to ? MOVE_COST * matsMoved(from.build, to.build) + to.build.pieces : 0;
  });
  const who = Int32Array.from(nodes, (one) => one.athlete);
  const cost = new Float64Array((full + 1) * size);
  const from = new Int32Array((full + 1) * size);
  let best = Number.POSITIVE_INFINITY;
  let path: number[] = [];
  for (let start = 0; start < (options[0]?.length ?? 0); start++) {
    cost.fill(Number.POSITIVE_INFINITY);
    cost[size + start] = nodes[start]?.build.pieces ?? 0;
    for (let mask = 1; mask <= full; mask += 2) {
      for (let here = 0; here < size; here++) {
        const at = cost[mask * size + here] as number;
        if (at === Number.POSITIVE_INFINITY) continue;
        for (let there = 0; there < size; there++) {
          const bit = 1 << (who[there] as number);
          if (mask & bit) continue;
          const next = (mask | bit) * size + there;
          const sum = at + (moves[here * size + there] as number);
          if (sum < (cost[next] as number)) {
            cost[next] = sum;
            from[next] = here;
          }
        }
      }
    }
    const home = nodes[start]?.build.pieces ?? 0;
    for (let last = 0; last < size; last++) {
      const sum =
        (cost[full * size + last] as number) + (moves[last * size + start] as number) - home;
      if (sum >= best) continue;
      best = sum;
      path = [];
      for (let node = last, mask = full; mask > 0; ) {
        path.unshift(node);
        const before = from[mask * size + node] as number;
        mask &= ~(1 << (who[node] as number));
        node = before;
      }
    }
  }
  return {
    ...roundOf(path.map((node) => (nodes[node] as { build: SeatBuild }).build)),
    order: path.map((node) => who[node] as number),
  };
}

/** The cheapest round through one build of each athlete: mats moved first, then pieces. */
function bestRound(options: readonly SeatBuild[][]): Round {
  let best: { builds: SeatBuild[]; cost: number } | undefined;
  for (const first of options[0] ?? []) {
    let front = [{ builds: [first], cost: first.pieces }];
    for (const own of options.slice(1)) {
      front = own.map((build) => {
        let least: (typeof front)[number] | undefined;
        for (const one of front) {
          const last = one.builds[one.builds.length - 1] as SeatBuild;
          const cost = one.cost + MOVE_COST * matsMoved(last, build) + build.pieces;
          if (least === undefined || cost < least.cost)
            least = { builds: [...one.builds, build], cost };
        }
        return least as (typeof front)[number];
      });
    }
    for (const one of front) {
      const last = one.builds[one.builds.length - 1] as SeatBuild;
      const cost = one.cost + MOVE_COST * matsMoved(last, first);
      if (best === undefined || cost < best.cost) best = { builds: one.builds, cost };
    }
  }
  return roundOf(best?.builds ?? []);
}
