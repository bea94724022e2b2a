import {
  addMoves,
  costOf,
  type Moves,
  type MoveWeights,
  movesBetween,
  NO_MOVES,
  type Setting,
} from "./moves";

/** Somebody who is grouped. */
export interface GroupLifter {
  id: string;
  name: string;
  /** For grouping by load: the first set's, kg. */
  loadKg: number | undefined;
  /**
   * By kind of rack, how it stands for each set that is still to be done; a kind that is absent
   * does not serve this lifter (another bar).
   */
  settings: Readonly<Record<string, readonly Setting[]>>;
  /** Pieces of the room that the rack keeps while they lift there, by name: boxes, mats, bands. */
  needs: Readonly<Record<string, number>>;
  /** Lifts only with somebody beside who may spot. */
  needsSpotter?: boolean;
  /** May spot; everybody may where left out. */
  maySpot?: boolean;
  /** Stays where they are: in the middle of a set. */
  fixedTo?: string;
}

/** A rack that may be used. */
export interface GroupRack {
  id: string;
  name: string;
  /** Racks that are built and loaded alike have the same kind. */
  kind: string;
  /** How it stands now; undefined before the first loading, which is not counted. */
  now?: Setting | undefined;
}

/** Who lifts with whom, at which rack and in which order: what is asked. */
export interface GroupProblem {
  lifters: readonly GroupLifter[];
  racks: readonly GroupRack[];
  /** Racks that are used. */
  use: number;
  /** Lifters a rack, at the least and the most. */
  least: number;
  most: number;
  weights: MoveWeights;
  /** Ids that stay together, and that are kept apart. */
  together: ReadonlyArray<readonly string[]>;
  apart: ReadonlyArray<readonly [string, string]>;
  /** How many of each piece the room has; what is not named is enough. */
  stock: Readonly<Record<string, number>>;
}

/** A problem before it is said how many racks are used. */
export type OpenProblem = Omit<GroupProblem, "use" | "least" | "most">;

/** One rack's group in its order. */
export interface RackGroup {
  rackId: string;
  /** Ids, in turn. */
  order: string[];
}

/**
 * Everything that is done to a rack while a group takes turns: a set of each lifter in its order,
 * round after round; who has no set left is passed over. The first loading is counted only from how
 * the rack stands.
 */
export function rotationMoves(
  order: readonly (readonly Setting[])[],
  now: Setting | undefined,
): Moves {
  let sum = NO_MOVES;
  let at = now;
  const rounds = Math.max(0, ...order.map((sets) => sets.length));
  for (let round = 0; round < rounds; round++)
    for (const sets of order) {
      const next = sets[round];
      if (!next) continue;
      if (at) sum = addMoves(sum, movesBetween(at, next));
      at = next;
    }
  return sum;
}

const NONE: readonly Setting[] = [];

/** The moves of a whole grouping, rack by rack. */
export function movesOf(
  problem: Pick<GroupProblem, "lifters" | "racks" | "weights">,
  groups: readonly RackGroup[],
): { racks: Array<{ rackId: string; moves: Moves; cost: number }>; moves: Moves; cost: number } {
  const byId = new Map(problem.lifters.map((one) => [one.id, one]));
  const racks = groups.map(({ rackId, order }) => {
    const rack = problem.racks.find((one) => one.id === rackId);
    const moves = rotationMoves(
      order.map((id) => byId.get(id)?.settings[rack?.kind ?? ""] ?? NONE),
      rack?.now,
    );
    return { rackId, moves, cost: costOf(moves, problem.weights) };
  });
  const moves = racks.reduce((sum, one) => addMoves(sum, one.moves), NO_MOVES);
  return { racks, moves, cost: costOf(moves, problem.weights) };
}

/** What of a grouping is not as it was asked, in words; empty where all is. */
export function brokenBy(problem: GroupProblem, groups: readonly RackGroup[]): string[] {
  const { lifters, racks } = problem;
  const byId = new Map(lifters.map((one) => [one.id, one]));
  const rackOf = new Map(groups.flatMap(({ rackId, order }) => order.map((id) => [id, rackId])));
  const nameOf = (id: string) => byId.get(id)?.name ?? "somebody";
  const found: string[] = [];
  const placed = groups.flatMap((group) => group.order);
  for (const { id, name, fixedTo } of lifters) {
    const times = placed.filter((one) => one === id).length;
    if (times === 0) found.push(`${name} is in no group.`);
    if (times > 1) found.push(`${name} is in two groups at once.`);
    if (fixedTo !== undefined && rackOf.has(id) && rackOf.get(id) !== fixedTo)
      found.push(`${name} is in the middle of a set at another rack.`);
  }
  for (const id of placed) if (!byId.has(id)) found.push("Somebody is grouped who is not here.");
  const used = new Set(groups.map((group) => group.rackId));
  if (used.size < groups.length) found.push("A rack is given to two groups.");
  for (const { rackId, order } of groups) {
    const rack = racks.find((one) => one.id === rackId);
    if (!rack) {
      found.push("A group stands at a rack that is not there.");
      continue;
    }
    for (const id of order) {
      const one = byId.get(id);
      if (one && !one.settings[rack.kind])
        found.push(`Rack ${rack.name} has no bar for ${one.name}.`);
      if (one?.needsSpotter && !order.some((other) => other !== id && maySpot(byId.get(other))))
        found.push(`${one.name} has nobody to spot at rack ${rack.name}.`);
    }
  }
  for (const ids of problem.together) {
    const here = ids.filter((id) => rackOf.has(id));
    if (new Set(here.map((id) => rackOf.get(id))).size > 1)
      found.push(`${here.map(nameOf).join(", ")} are to be together.`);
  }
  for (const [a, b] of problem.apart)
    if (rackOf.has(a) && rackOf.get(a) === rackOf.get(b))
      found.push(`${nameOf(a)} and ${nameOf(b)} are to be apart.`);
  for (const [piece, needed] of Object.entries(neededBy(problem, groups))) {
    const stock = problem.stock[piece];
    if (stock !== undefined && needed > stock)
      found.push(`${piece}: ${needed} are needed at once, ${stock} are there.`);
  }
  return found;
}

const maySpot = (one: GroupLifter | undefined) => one !== undefined && one.maySpot !== false;

/** Pieces that all racks need at once: of those who take turns the most. */
export function neededBy(
  problem: Pick<GroupProblem, "lifters">,
  groups: readonly RackGroup[],
): Record<string, number> {
  const byId = new Map(problem.lifters.map((one) => [one.id, one]));
  const sum: Record<string, number> = {};
  for (const { order } of groups) {
    const most: Record<string, number> = {};
    for (const id of order)
      for (const [piece, n] of Object.entries(byId.get(id)?.needs ?? {}))
        most[piece] = Math.max(most[piece] ?? 0, n);
    for (const [piece, n] of Object.entries(most)) sum[piece] = (sum[piece] ?? 0) + n;
  }
  return sum;
}
