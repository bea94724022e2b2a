import { costOf, type MoveWeights, movesBetween, type Setting } from "./moves";

/** A set's seconds, and how the rack stands for it where it is one. */
export interface SimulatedSet {
  setS: number;
  setting?: Setting | undefined;
}

/** One slot of a day at its stations, as it will be run. */
export interface SimulatedSlot {
  slotId: string;
  name: string;
  rest: { leastS: number; mostS: number };
  groups: ReadonlyArray<{
    stationId: string;
    /** In turn. */
    order: ReadonlyArray<{ athleteId: string; sets: ReadonlyArray<SimulatedSet> }>;
  }>;
}

export interface DayTimes {
  /** From one lifter to the next where nothing is changed, s. */
  turnS: number;
  /** Seconds of each move, and how many share them. */
  weights: MoveWeights;
  hands: number;
  /** From one station to another, s. */
  walkS: number;
  /** A ready bar waits so long for who is next, s; then who is there goes before. */
  patienceS: number;
}

/** One set on the day's clock. */
export interface DaySet {
  slotId: string;
  stationId: string;
  athleteId: string;
  number: number;
  startS: number;
  endS: number;
  /** Of the change before it, s. */
  changeS: number;
  /** The station stood still for this lifter's rest, or until they came, s. */
  waitS: number;
  /** Since the lifter's set before in this slot, s; undefined for the first. */
  restS: number | undefined;
}

/** A rest that is not as it was wanted. */
export interface RestMiss {
  slotId: string;
  athleteId: string;
  /** The longest rest, s. */
  longestS: number;
  /** The slot's own wish, s. */
  mostS: number;
  /** How often. */
  times: number;
}

export interface SimulatedDay {
  sets: DaySet[];
  lengthS: number;
  /** By station, how long it stands still between its first set and its last, s. */
  waits: Array<{ stationId: string; waitS: number; busyS: number }>;
  tooLong: RestMiss[];
  /** Who was wanted at two stations at once, and how long the second waited, s. */
  clashes: Array<{ athleteId: string; slotId: string; stationId: string; waitS: number }>;
}

/**
 * A day on the clock: at each station the slots in the day's order, in each slot a set of each in
 * turn, round after round. A set begins when the rack is changed, the lifter is there and has rested
 * at the least as long as wanted; a ready bar waits for who is next, but not longer than its
 * patience where somebody else could lift. Nobody is at two
 * stations at once, and no station has two at once.
 */
export function simulateDay(slots: readonly SimulatedSlot[], times: DayTimes): SimulatedDay {
  const sets: DaySet[] = [];
  const clashes: SimulatedDay["clashes"] = [];
  /** When a station is free, and how it stands. */
  const stations = new Map<
    string,
    { freeS: number; setting: Setting | undefined; last: string | undefined }
  >();
  /** When somebody is free, and where they are. */
  const people = new Map<string, { freeS: number; stationId: string | undefined }>();
  for (const slot of slots) {
    for (const { stationId, order } of slot.groups) {
      const at = stations.get(stationId) ?? { freeS: 0, setting: undefined, last: undefined };
      stations.set(stationId, at);
      const ended = new Map<string, number>();
      const doneOf = order.map(() => 0);
      for (;;) {
        const next = nextUp(
          order,
          doneOf,
          (athleteId, set) => {
            const who = people.get(athleteId) ?? NOWHERE;
            const moved = who.stationId !== undefined && who.stationId !== stationId;
            const before = ended.get(athleteId);
            const changed =
              at.setting && set.setting
                ? costOf(movesBetween(at.setting, set.setting), times.weights) / times.hands
                : 0;
            const changeS = (at.last === undefined ? 0 : times.turnS) + changed;
            const there = who.freeS + (moved ? times.walkS : 0);
            const rested = before === undefined ? 0 : before + slot.rest.leastS;
            const readyS = at.freeS + changeS;
            return { readyS, changeS, there, before, startS: Math.max(readyS, there, rested) };
          },
          times.patienceS,
        );
        if (!next) break;
        const { athleteId, set, readyS, changeS, there, before, startS } = next;
        if (before === undefined && there > readyS + 1e-9 && at.last !== undefined)
          clashes.push({ athleteId, slotId: slot.slotId, stationId, waitS: there - readyS });
        const endS = startS + set.setS;
        doneOf[next.index] = (doneOf[next.index] ?? 0) + 1;
        sets.push({
          slotId: slot.slotId,
          stationId,
          athleteId,
          number: doneOf[next.index] ?? 0,
          startS,
          endS,
          changeS,
          waitS: startS - readyS,
          restS: before === undefined ? undefined : startS - before,
        });
        at.freeS = endS;
        at.last = athleteId;
        if (set.setting) at.setting = set.setting;
        people.set(athleteId, { freeS: endS, stationId });
        ended.set(athleteId, endS);
      }
    }
  }
  return {
    sets,
    lengthS: Math.max(0, ...sets.map((one) => one.endS)),
    waits: [...stations.keys()].map((stationId) => {
      const own = sets.filter((one) => one.stationId === stationId);
      const [first] = own;
      return {
        stationId,
        // Until its first set a station waits for nobody.
        waitS: own.reduce((sum, one) => sum + (one === first ? 0 : one.waitS), 0),
        busyS: own.reduce((sum, one) => sum + one.endS - one.startS + one.changeS, 0),
      };
    }),
    tooLong: restsTooLong(slots, sets),
    clashes,
  };
}

const NOWHERE = { freeS: 0, stationId: undefined };

interface Turn {
  readyS: number;
  changeS: number;
  there: number;
  before: number | undefined;
  startS: number;
}

/**
 * Whose set comes next: the fewest done first, in turn, as on the floor; but somebody who could lift
 * is let before where the bar would wait longer than its patience.
 */
function nextUp(
  order: SimulatedSlot["groups"][number]["order"],
  doneOf: readonly number[],
  turnOf: (athleteId: string, set: SimulatedSet) => Turn,
  patienceS: number,
): (Turn & { athleteId: string; set: SimulatedSet; index: number }) | undefined {
  const left = order
    .flatMap((one, index) => {
      const set = one.sets[doneOf[index] ?? 0];
      return set === undefined ? [] : [{ athleteId: one.athleteId, set, index }];
    })
    .sort((a, b) => (doneOf[a.index] ?? 0) - (doneOf[b.index] ?? 0) || a.index - b.index);
  let soonest: (Turn & (typeof left)[number]) | undefined;
  for (const one of left) {
    const turn = { ...one, ...turnOf(one.athleteId, one.set) };
    if (turn.startS - turn.readyS <= patienceS) return turn;
    if (!soonest || turn.startS < soonest.startS) soonest = turn;
  }
  return soonest;
}

function restsTooLong(slots: readonly SimulatedSlot[], sets: readonly DaySet[]): RestMiss[] {
  const mostOf = new Map(slots.map((slot) => [slot.slotId, slot.rest.mostS]));
  const found = new Map<string, RestMiss>();
  for (const { slotId, athleteId, restS } of sets) {
    const mostS = mostOf.get(slotId) ?? Number.POSITIVE_INFINITY;
    if (restS === undefined || restS <= mostS + 0.5) continue;
    const key = `${slotId}/${athleteId}`;
    const before = found.get(key) ?? { slotId, athleteId, longestS: 0, mostS, times: 0 };
    found.set(key, {
      ...before,
      longestS: Math.max(before.longestS, restS),
      times: before.times + 1,
    });
  }
  return [...found.values()];
}
