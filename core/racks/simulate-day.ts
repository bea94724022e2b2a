import { costOf, type MoveWeights, movesBetween, type Setting } from "./moves";

/** One slot of a day at its stations, as it will be run. */
export interface SimulatedSlot {
  slotId: string;
  name: string;
  rest: { leastS: number; mostS: number };
  groups: ReadonlyArray<{
    stationId: string;
    /** In turn; each with the seconds of a set, and how the rack stands for it where it is one. */
    order: ReadonlyArray<{
      athleteId: string;
      sets: ReadonlyArray<{ setS: number; setting?: Setting | undefined }>;
    }>;
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
  /** Everybody does a slot before any of its group goes on to the next. */
  groupsGoOnTogether: boolean;
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
 * at the least as long as wanted; a station that somebody is not yet at waits. Nobody is at two
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
  const people = new Map<
    string,
    { freeS: number; stationId: string | undefined; slotId: string | undefined }
  >();
  for (const slot of slots) {
    const slotStart = new Map<string, number>();
    for (const { stationId, order } of slot.groups) {
      const at = stations.get(stationId) ?? { freeS: 0, setting: undefined, last: undefined };
      stations.set(stationId, at);
      if (times.groupsGoOnTogether) {
        const together = Math.max(
          0,
          ...order.map(({ athleteId }) => people.get(athleteId)?.freeS ?? 0),
        );
        slotStart.set(stationId, together);
      }
      const rounds = Math.max(0, ...order.map((one) => one.sets.length));
      const endedAt = new Map<string, number>();
      for (let round = 0; round < rounds; round++)
        for (const { athleteId, sets: own } of order) {
          const set = own[round];
          if (!set) continue;
          const who = people.get(athleteId) ?? {
            freeS: 0,
            stationId: undefined,
            slotId: undefined,
          };
          people.set(athleteId, who);
          const moved = who.stationId !== undefined && who.stationId !== stationId;
          const changed =
            at.setting && set.setting
              ? costOf(movesBetween(at.setting, set.setting), times.weights) / times.hands
              : 0;
          const changeS = (at.last === undefined ? 0 : times.turnS) + changed;
          const ready = at.freeS + changeS;
          const there = Math.max(
            who.freeS + (moved ? times.walkS : 0),
            slotStart.get(stationId) ?? 0,
          );
          const before = endedAt.get(athleteId);
          const rested = before === undefined ? 0 : before + slot.rest.leastS;
          const startS = Math.max(ready, there, rested);
          const waitS = startS - ready;
          if (before === undefined && there > ready + 1e-9 && at.last !== undefined)
            clashes.push({ athleteId, slotId: slot.slotId, stationId, waitS: there - ready });
          const endS = startS + set.setS;
          sets.push({
            slotId: slot.slotId,
            stationId,
            athleteId,
            number: round + 1,
            startS,
            endS,
            changeS,
            waitS,
            restS: before === undefined ? undefined : startS - before,
          });
          at.freeS = endS;
          at.last = athleteId;
          if (set.setting) at.setting = set.setting;
          who.freeS = endS;
          who.stationId = stationId;
          who.slotId = slot.slotId;
          endedAt.set(athleteId, endS);
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
