/**
 * Groups at racks: against the exact optimum of small cases (HiGHS, a MILP of every group that may
 * be, with costs walked here and not by the solver's own code), and the time and the distance to the
 * bound of 30 athletes at 6 racks. `npx tsx bench/racks.bench.ts`.
 */

import { findGroups, groupsByLoad, groupsByName } from "../core/racks/find-groups";
import { madeUp } from "../core/racks/fixtures/made-up";
import { MOVE_SECONDS, type MoveWeights, type Setting } from "../core/racks/moves";
import { type GroupProblem, movesOf } from "../core/racks/problem";
import { simulatedSlot } from "../core/racks/propose";
import { simulateDay } from "../core/racks/simulate-day";

/** Points instead of seconds: what cases from elsewhere are counted in. */
const POINTS: MoveWeights = { plates: 1, hooks: 1, pins: 1, mats: 2, boxes: 1, bands: 1 };

/** What is done between two settings, counted here once more. */
function walked(a: Setting, b: Setting, w: MoveWeights): number {
  const [left, right] = [a.side ?? [], b.side ?? []];
  let same = 0;
  while (same < left.length && same < right.length && left[same] === right[same]) same++;
  const plates = 2 * (left.length + right.length - 2 * same);
  const mats = Math.abs((a.seat?.mats.Mat ?? 0) - (b.seat?.mats.Mat ?? 0));
  const bands = 2 * Math.abs((a.hangs["Light band"] ?? 0) - (b.hangs["Light band"] ?? 0));
  const pins = (a.safetiesCm === b.safetiesCm ? 0 : 1) + (a.seat?.pinCm === b.seat?.pinCm ? 0 : 1);
  const hooks = a.hooksCm === b.hooksCm ? 0 : 1;
  return w.plates * plates + w.hooks * hooks + w.pins * pins + w.mats * mats + w.bands * bands;
}

/** The cheapest order of a group, every order walked. */
function cheapest(problem: GroupProblem, members: readonly number[]): number {
  const sets = (i: number) => problem.lifters[i]?.settings.rack ?? [];
  let best = Number.POSITIVE_INFINITY;
  const walk = (order: number[], left: readonly number[]) => {
    if (left.length > 0) {
      for (const one of left)
        walk(
          [...order, one],
          left.filter((two) => two !== one),
        );
      return;
    }
    let sum = 0;
    let at: Setting | undefined;
    for (let round = 0; round < sets(0).length; round++)
      for (const i of order) {
        const next = sets(i)[round] as Setting;
        if (at) sum += walked(at, next, problem.weights);
        at = next;
      }
    best = Math.min(best, sum);
  };
  walk([], members);
  return best;
}

/** The optimum by HiGHS: each lifter in one group, as many groups as racks. */
async function optimum(problem: GroupProblem): Promise<number> {
  const { default: load } = await import("highs");
  const highs = await load();
  const n = problem.lifters.length;
  const columns: Array<{ mask: number; cost: number }> = [];
  for (let mask = 1; mask < 1 << n; mask++) {
    const members = Array.from({ length: n }, (_, i) => i).filter((i) => mask & (1 << i));
    if (members.length < problem.least || members.length > problem.most) continue;
    columns.push({ mask, cost: cheapest(problem, members) });
  }
  const sum = (terms: string[]) => (terms.length > 0 ? terms.join(" + ") : "0 x0");
  const text = [
    "Minimize",
    ` obj: ${sum(columns.map((one, i) => `${one.cost} x${i}`))}`,
    "Subject To",
    ...Array.from({ length: n }, (_, who) => {
      const own = columns.flatMap((one, i) => (one.mask & (1 << who) ? [`x${i}`] : []));
      return ` c${who}: ${sum(own)} = 1`;
    }),
    ` racks: ${sum(columns.map((_, i) => `x${i}`))} = ${problem.use}`,
    "Binary",
    ` ${columns.map((_, i) => `x${i}`).join(" ")}`,
    "End",
  ].join("\n");
  const solved = highs.solve(text);
  if (solved.Status !== "Optimal") throw new Error(`HiGHS says ${solved.Status}.`);
  return solved.ObjectiveValue;
}

async function small(): Promise<void> {
  let over = 0;
  let equal = 0;
  let annealed = 0;
  let worst = 0;
  for (let seed = 1; seed <= 50; seed++) {
    const racks = 2 + (seed % 2);
    const lifters = 6 + (seed % 4);
    const problem = madeUp({
      lifters,
      racks,
      rounds: 1 + (seed % 3),
      seed,
      weights: POINTS,
      least: 2,
      most: Math.min(5, lifters - 2 * (racks - 1)),
    });
    const best = await optimum(problem);
    let found = Number.POSITIVE_INFINITY;
    let bound = 0;
    for (const answer of findGroups(problem)) {
      found = movesOf(problem, answer.groups).cost;
      bound = answer.bound;
    }
    if (bound > best + 1e-6) throw new Error(`Case ${seed}: the bound ${bound} is over ${best}.`);
    // The search of large cases on the same small ones.
    const search = movesOf(problem, lastOf(findGroups(problem, { whole: 0 })).groups).cost;
    if (search <= best + 1e-6) annealed++;
    worst = Math.max(worst, best === 0 ? 0 : search / best - 1);
    if (found <= best + 1e-6) equal++;
    if (found > 1.05 * best + 1e-6) over++;
  }
  console.log(
    `50 small cases: optimum found in ${equal}, more than 5 % over it in ${over}; by exchanges alone found in ${annealed}, worst ${(100 * worst).toFixed(1)} % over`,
  );
}

function lastOf<T>(all: Iterable<T>): T {
  let last: T | undefined;
  for (const one of all) last = one;
  return last as T;
}

function large(): void {
  for (const rounds of [1, 6]) {
    const problem = madeUp({
      lifters: 30,
      racks: 6,
      rounds,
      seed: 11,
      weights: MOVE_SECONDS,
      least: 4,
      most: 6,
    });
    const from = performance.now();
    let first: { ms: number; cost: number } | undefined;
    let last: ReturnType<typeof lastOf<{ cost: number; bound: number }>> | undefined;
    for (const answer of findGroups(problem)) {
      first ??= { ms: performance.now() - from, cost: answer.cost };
      last = answer;
    }
    const ms = performance.now() - from;
    const name = movesOf(problem, groupsByName(problem));
    const load = movesOf(problem, groupsByLoad(problem));
    console.log(
      `30 × 6, ${rounds} rounds: first ${first?.cost.toFixed(0)} s after ${first?.ms.toFixed(0)} ms, last ${last?.cost.toFixed(0)} s after ${ms.toFixed(0)} ms; bound ${last?.bound.toFixed(0)} (${(100 * (1 - (last?.bound ?? 0) / (last?.cost ?? 1))).toFixed(1)} % under it); by name ${name.cost} s, by load ${load.cost} s`,
    );
  }
}

/** A day of 28: three lifts in six racks, each of five to nine sets, simulated from its groups. */
function day(): void {
  const problem = madeUp({
    lifters: 28,
    racks: 6,
    rounds: 9,
    seed: 5,
    weights: MOVE_SECONDS,
    least: 4,
    most: 6,
  });
  const groups = groupsByLoad(problem);
  const slots = ["squat", "bench", "pull"].map((slotId) =>
    simulatedSlot(problem, groups, {
      slotId,
      name: slotId,
      rest: { leastS: 45, mostS: 75 },
      setS: [9],
    }),
  );
  const times = {
    turnS: 6,
    weights: MOVE_SECONDS,
    hands: 2,
    walkS: 30,
    patienceS: 20,
  };
  const spent: number[] = [];
  let sets = 0;
  for (let i = 0; i < 21; i++) {
    const from = performance.now();
    sets = simulateDay(slots, times).sets.length;
    spent.push(performance.now() - from);
  }
  spent.sort((a, b) => a - b);
  console.log(`a day of 28, ${sets} sets: simulated in ${spent[10]?.toFixed(1)} ms (median of 21)`);
}

await small();
large();
day();
