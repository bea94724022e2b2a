import { describe, expect, it } from "vitest";
import { RACK, SLOT, TestDevice, testSession } from "../floor/fixtures/session";
import { FloorFold } from "../floor/state";
import { seededRandom } from "../numeric/random";
import { MOVE_SECONDS } from "./moves";
import { type DayTimes, type SimulatedSlot, simulateDay } from "./simulate-day";

const TIMES: DayTimes = {
  turnS: 10,
  weights: MOVE_SECONDS,
  hands: 2,
  walkS: 0,
  patienceS: 20,
};

const slot = (
  slotId: string,
  rest: SimulatedSlot["rest"],
  groups: Record<string, { people: string[]; sets: number; setS: number }>,
): SimulatedSlot => ({
  slotId,
  name: slotId,
  rest,
  groups: Object.entries(groups).map(([stationId, { people, sets, setS }]) => ({
    stationId,
    order: people.map((athleteId) => ({
      athleteId,
      sets: Array.from({ length: sets }, () => ({ setS })),
    })),
  })),
});

describe("a day on the clock", () => {
  it("gives the rest of turn-taking: n(w + c) − w", () => {
    for (const n of [3, 4, 5]) {
      const people = Array.from({ length: n }, (_, i) => `a${i}`);
      const day = simulateDay(
        [slot("s", { leastS: 0, mostS: 999 }, { r: { people, sets: 4, setS: 8 } })],
        TIMES,
      );
      const rests = day.sets.flatMap((one) => one.restS ?? []);
      expect(new Set(rests)).toEqual(new Set([n * 18 - 8]));
      expect(day.lengthS).toBe(4 * n * 8 + (4 * n - 1) * 10);
      expect(day.waits).toEqual([
        { stationId: "r", waitS: 0, busyS: 4 * n * 8 + (4 * n - 1) * 10 },
      ]);
    }
  });

  it("waits where turns are quicker than the wanted rest, and says rests that are longer", () => {
    const two = simulateDay(
      [slot("s", { leastS: 60, mostS: 75 }, { r: { people: ["a", "b"], sets: 3, setS: 8 } })],
      TIMES,
    );
    expect(two.sets.filter((one) => one.athleteId === "a").map((one) => one.restS)).toEqual([
      undefined,
      60,
      60,
    ]);
    expect(two.waits[0]?.waitS).toBeGreaterThan(0);
    expect(two.tooLong).toEqual([]);
    const five = simulateDay(
      [
        slot(
          "s",
          { leastS: 60, mostS: 75 },
          {
            r: { people: ["a", "b", "c", "d", "e"], sets: 3, setS: 8 },
          },
        ),
      ],
      TIMES,
    );
    expect(five.tooLong.map((one) => [one.athleteId, one.longestS, one.times])).toEqual(
      ["a", "b", "c", "d", "e"].map((id) => [id, 82, 2]),
    );
  });

  it("has nobody at two stations and no station with two at once; who is awaited is said", () => {
    const random = seededRandom(4);
    for (let round = 0; round < 40; round++) {
      const people = Array.from({ length: 9 }, (_, i) => `a${i}`);
      const cut = (ids: string[]) => ({
        r1: { people: ids.slice(0, 4), sets: 2 + (round % 3), setS: 8 + random.uniform() * 20 },
        r2: { people: ids.slice(4), sets: 3, setS: 8 + random.uniform() * 20 },
      });
      const mixed = [...people].sort(() => random.uniform() - 0.5);
      const day = simulateDay(
        [
          slot("s", { leastS: 30, mostS: 90 }, cut(people)),
          slot("t", { leastS: 30, mostS: 90 }, cut(mixed)),
        ],
        { ...TIMES, walkS: 15 },
      );
      for (const of of ["athleteId", "stationId"] as const) {
        const by = new Map<string, typeof day.sets>();
        for (const set of day.sets) by.set(set[of], [...(by.get(set[of]) ?? []), set]);
        for (const own of by.values()) {
          const sorted = [...own].sort((a, b) => a.startS - b.startS);
          for (let i = 1; i < sorted.length; i++)
            expect(sorted[i]?.startS).toBeGreaterThanOrEqual((sorted[i - 1]?.endS ?? 0) - 1e-9);
        }
      }
      for (const set of day.sets)
        if (set.restS !== undefined) expect(set.restS).toBeGreaterThanOrEqual(30 - 1e-9);
      for (const clash of day.clashes) expect(clash.waitS).toBeGreaterThan(0);
    }
  });

  it("counts every set of a day of 28 once", () => {
    const people = Array.from({ length: 28 }, (_, i) => `a${i}`);
    const slots = Array.from({ length: 6 }, (_, k) =>
      slot(
        `s${k}`,
        { leastS: 45, mostS: 75 },
        Object.fromEntries(
          Array.from({ length: 6 }, (_, r) => [
            `r${r}`,
            { people: people.filter((_, i) => i % 6 === r), sets: 8, setS: 10 },
          ]),
        ),
      ),
    );
    expect(simulateDay(slots, TIMES).sets).toHaveLength(28 * 8 * 6);
  });
});

/**
 * People lift at a rack by the floor's own rule of who is up, with sets and changes that take now a
 * little less and now a little more; who is up and has not rested keeps the bar waiting.
 */
function asRun(names: string[], sets: number, rest: { leastS: number }, seed: number) {
  const random = seededRandom(seed);
  const session = testSession(names, sets);
  const device = new TestDevice();
  const fold = new FloorFold(session);
  const spread = (s: number) => s * Math.exp(0.2 * random.normal());
  const ended = new Map<string, number>();
  let nowS = 0;
  let waitS = 0;
  let seq = 0;
  for (let n = 0; n < names.length * sets; n++) {
    const rack = fold.state().racks[0];
    const up = rack?.lifters.find((one) => one.lifter.athleteId === rack.upId);
    const set = up?.sets[up.current ?? -1];
    if (!up || !set) throw new Error("Somebody is up until all is done.");
    const id = up.lifter.athleteId;
    if (n > 0) nowS += spread(10);
    const rested = (ended.get(id) ?? -1e9) + rest.leastS;
    if (rested > nowS) {
      waitS += rested - nowS;
      nowS = rested;
    }
    nowS += spread(8);
    ended.set(id, nowS);
    const at = { athleteId: id, slotId: SLOT, stationId: RACK, setKey: set.prescription.key };
    const body = { kind: "set-done", ...at, loadKg: 60, endedBy: "hand", cut: false } as const;
    fold.add([{ ...device.entry(body), seq: ++seq }]);
  }
  return { lengthS: nowS, waitS };
}

describe("the simulated day beside one that people run", () => {
  it.each([
    { names: ["ann", "bo", "cy", "di"], rest: { leastS: 45, mostS: 75 } },
    { names: ["ann", "bo"], rest: { leastS: 60, mostS: 75 } },
    { names: ["ann", "bo", "cy", "di", "ed", "flo"], rest: { leastS: 45, mostS: 75 } },
  ])("has its length within 10 %, and its waits: $names.length at a rack", ({ names, rest }) => {
    const sets = 6;
    const day = simulateDay(
      [slot(SLOT, rest, { [RACK]: { people: names, sets, setS: 8 } })],
      TIMES,
    );
    const foretold = day.waits[0]?.waitS ?? 0;
    for (let seed = 1; seed <= 20; seed++) {
      const run = asRun(names, sets, rest, seed);
      expect(Math.abs(run.lengthS / day.lengthS - 1)).toBeLessThan(0.1);
      // Waits that come of spread alone are short.
      if (foretold > 0) expect(run.waitS).toBeGreaterThan(0.6 * foretold);
      else expect(run.waitS).toBeLessThan(0.05 * day.lengthS);
    }
  });
});
