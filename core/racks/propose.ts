import { findGroups, type GroupsSoFar } from "./find-groups";
import type { Sizes } from "./lift-problem";
import type { GroupProblem, OpenProblem, RackGroup } from "./problem";
import { type DayTimes, type SimulatedSlot, simulateDay } from "./simulate-day";

/** What one slot's groups come to on the clock. */
export interface SlotClock {
  lengthS: number;
  /** Rests longer than wanted. */
  tooLong: number;
  waitS: number;
}

/** How a slot is timed: seconds of each set, and the wanted rest. */
export interface SlotTimes {
  slotId: string;
  name: string;
  rest: { leastS: number; mostS: number };
  /** Seconds of a set by its place, the same for everybody. */
  setS: readonly number[];
  times: DayTimes;
}

/** A slot's groups as the day is simulated with them. */
export function simulatedSlot(
  problem: Pick<GroupProblem, "lifters" | "racks">,
  groups: readonly RackGroup[],
  slot: Omit<SlotTimes, "times">,
): SimulatedSlot {
  const byId = new Map(problem.lifters.map((one) => [one.id, one]));
  return {
    slotId: slot.slotId,
    name: slot.name,
    rest: slot.rest,
    groups: groups.map(({ rackId, order }) => {
      const kind = problem.racks.find((rack) => rack.id === rackId)?.kind ?? "";
      return {
        stationId: rackId,
        order: order.map((athleteId) => ({
          athleteId,
          sets: (byId.get(athleteId)?.settings[kind] ?? []).map((setting, i) => ({
            setS: slot.setS[i] ?? slot.setS.at(-1) ?? 0,
            setting,
          })),
        })),
      };
    }),
  };
}

export function clockOf(
  problem: Pick<GroupProblem, "lifters" | "racks">,
  groups: readonly RackGroup[],
  slot: SlotTimes,
): SlotClock {
  const day = simulateDay([simulatedSlot(problem, groups, slot)], slot.times);
  return {
    lengthS: day.lengthS,
    tooLong: day.tooLong.reduce((sum, one) => sum + one.times, 0),
    waitS: day.waits.reduce((sum, one) => sum + one.waitS, 0),
  };
}

export interface Proposal extends GroupsSoFar {
  sizes: Sizes;
  clock: SlotClock;
}

/** Numbers of racks that are looked at; after the first with a shorter search. */
const MOST_SIZES = 3;
const TRIES_OF_LATER = 12_000;

/** Fewer broken wishes first, then rests in range, then the shorter day, then fewer moves. */
function isBetter(a: Proposal, b: Proposal): boolean {
  if (a.broken.length !== b.broken.length) return a.broken.length < b.broken.length;
  if (a.clock.tooLong !== b.clock.tooLong) return a.clock.tooLong < b.clock.tooLong;
  if (Math.abs(a.clock.lengthS - b.clock.lengthS) > 0.5) return a.clock.lengthS < b.clock.lengthS;
  return a.cost < b.cost - 1e-9;
}

/**
 * A slot's groups for each number of racks that may be used: the best by what is kept of the wishes,
 * rests, length and moves. A number of racks is looked at whatever others there are, so that taking
 * a rack away never makes the answer better.
 *
 * @yields the best so far, the first one at once
 */
export function* proposeGroups(
  problem: OpenProblem,
  sizes: readonly Sizes[],
  slot: SlotTimes,
  how: { seed?: number; tries?: number } = {},
): Generator<Proposal, void, void> {
  const looked = sizes.slice(0, MOST_SIZES);
  let best: Proposal | undefined;
  for (const [i, size] of looked.entries()) {
    const own = { ...problem, ...size };
    for (const answer of findGroups(own, i === 0 ? how : { tries: TRIES_OF_LATER, ...how })) {
      const found = { ...answer, sizes: size, clock: clockOf(own, answer.groups, slot) };
      const done = (i + answer.done) / looked.length;
      if (!best || best.sizes === size || isBetter(found, best)) {
        const last = best && best.sizes === size && isBetter(best, found) ? best : found;
        best = { ...last, bound: Math.max(answer.bound, best?.sizes === size ? best.bound : 0) };
      }
      yield { ...best, done };
    }
  }
}
