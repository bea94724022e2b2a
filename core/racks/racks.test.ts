import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { exactGroups } from "./exact";
import { bestGroups, findGroups, groupsByLoad, groupsByName, looseBound } from "./find-groups";
import { madeUp } from "./fixtures/made-up";
import { GroupCosts } from "./group-cost";
import { sizesFor } from "./lift-problem";
import { MOVE_SECONDS, movesBetween, type Setting } from "./moves";
import { brokenBy, type GroupProblem, movesOf, neededBy } from "./problem";
import { proposeGroups } from "./propose";

const SETTING: Setting = {
  side: [20, 10],
  hooksCm: 140,
  safetiesCm: 70,
  seat: { base: "Pin box", pinCm: 36, mats: { Thin: 1 } },
  hangs: {},
};

describe("moves between two sets", () => {
  it("are counted by kind; what nobody knows costs nothing", () => {
    expect(
      movesBetween(SETTING, {
        side: [20, 5, 2.5],
        hooksCm: 145,
        safetiesCm: 70,
        seat: { base: "Pin box", pinCm: 38, mats: { Thin: 3, Thick: 1 } },
        hangs: { Light: 2 },
      }),
    ).toEqual({ plates: 6, hooks: 1, pins: 1, mats: 3, boxes: 0, bands: 4 });
    expect(movesBetween(SETTING, { ...SETTING, side: undefined, hooksCm: undefined })).toEqual({
      plates: 0,
      hooks: 0,
      pins: 0,
      mats: 0,
      boxes: 0,
      bands: 0,
    });
    const other = { ...SETTING, seat: { base: "Bench", pinCm: 30, mats: {} } };
    // Another box: its pin is no move of its own.
    expect(movesBetween(SETTING, other)).toMatchObject({ boxes: 1, pins: 0, mats: 1 });
  });
});

const small = (seed: number, over: Partial<GroupProblem> = {}) => ({
  ...madeUp({
    lifters: 7,
    racks: 2,
    rounds: 3,
    seed,
    weights: MOVE_SECONDS,
    least: 3,
    most: 4,
  }),
  ...over,
});

const BAND: Readonly<Record<string, number>> = { Band: 1 };

describe("groups at racks", () => {
  it("are whole at once, and get better; by load and by name are set beside", () => {
    const problem = madeUp({
      lifters: 24,
      racks: 6,
      rounds: 4,
      seed: 3,
      weights: MOVE_SECONDS,
      least: 3,
      most: 5,
    });
    let before = Number.POSITIVE_INFINITY;
    let bound = 0;
    for (const answer of findGroups(problem, { tries: 6000 })) {
      expect(brokenBy(problem, answer.groups)).toEqual([]);
      expect(answer.cost).toBeCloseTo(movesOf(problem, answer.groups).cost, 6);
      expect(answer.cost).toBeLessThanOrEqual(before + 1e-9);
      expect(answer.bound).toBeGreaterThanOrEqual(bound - 1e-9);
      expect(answer.bound).toBeLessThanOrEqual(answer.cost + 1e-9);
      before = answer.cost;
      bound = answer.bound;
    }
    expect(before).toBeLessThan(0.8 * movesOf(problem, groupsByLoad(problem)).cost);
    expect(before).toBeLessThan(0.6 * movesOf(problem, groupsByName(problem)).cost);
  });

  it("of few are the best there are, and exchanges alone find them too", () => {
    for (let seed = 1; seed <= 12; seed++) {
      const problem = small(seed);
      const exact = exactGroups(new GroupCosts(problem));
      expect(bestGroups(problem).cost).toBeCloseTo(exact?.cost ?? -1, 6);
      const search = bestGroups(problem, { whole: 0, tries: 10_000 });
      expect(search.cost).toBeCloseTo(exact?.cost ?? -1, 6);
      expect(search.bound).toBeLessThanOrEqual((exact?.cost ?? 0) + 1e-6);
    }
  });

  it("keep who is together, apart, spotted, in the middle of a set; and what the room has", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), (seed) => {
        const plain = small(seed);
        const [a, b, c, d] = plain.lifters.map((one) => one.id) as [string, string, string, string];
        const problem: GroupProblem = {
          ...plain,
          lifters: plain.lifters.map((one, i) => ({
            ...one,
            needs: i < 3 ? BAND : {},
            ...(one.id === d ? { fixedTo: "r1" } : {}),
            ...(i === 6 ? { needsSpotter: true } : {}),
            ...(i === 5 ? { maySpot: false } : {}),
          })),
          together: [[a, b]],
          apart: [[a, c]],
          stock: { Band: 2 },
        };
        const answer = bestGroups(problem, { tries: 4000 });
        expect(answer.broken).toEqual([]);
        expect(brokenBy(problem, answer.groups)).toEqual([]);
        expect(neededBy(problem, answer.groups).Band).toBeLessThanOrEqual(2);
      }),
      { numRuns: 25 },
    );
  });

  it("say what cannot be kept", () => {
    const problem = small(1, { together: [["l0", "l1"]], apart: [["l0", "l1"]] });
    expect(bestGroups(problem, { tries: 2000 }).broken).toHaveLength(1);
  });

  it("go only to racks that serve a lifter, and count from how a rack stands", () => {
    const plain = small(4);
    const problem: GroupProblem = {
      ...plain,
      racks: [
        { id: "r0", name: "1", kind: "rack", now: plain.lifters[0]?.settings.rack?.[0] },
        { id: "r1", name: "2", kind: "trap" },
      ],
      lifters: plain.lifters.map((one, i) =>
        i < 3 ? { ...one, settings: { trap: one.settings.rack ?? [] } } : one,
      ),
    };
    const answer = bestGroups(problem, { tries: 4000 });
    expect(answer.groups.find((one) => one.rackId === "r1")?.order.sort()).toEqual([
      "l0",
      "l1",
      "l2",
    ]);
    expect(answer.cost).toBeCloseTo(movesOf(problem, answer.groups).cost, 6);
  });

  it("with unequal sets left walk each order, and stand over a bound", () => {
    const plain = small(5);
    const problem = {
      ...plain,
      lifters: plain.lifters.map((one, i) => ({
        ...one,
        settings: { rack: (one.settings.rack ?? []).slice(i % 3) },
      })),
    };
    const answer = bestGroups(problem, { tries: 2000 });
    expect(answer.broken).toEqual([]);
    expect(answer.cost).toBeCloseTo(movesOf(problem, answer.groups).cost, 6);
    expect(looseBound(problem)).toBeLessThanOrEqual(answer.cost);
  });
});

const TIMES = {
  turnS: 10,
  weights: MOVE_SECONDS,
  hands: 2,
  walkS: 0,
  patienceS: 20,
};

describe("how many racks", () => {
  it("are those whose turns keep the rest, the most first; else all, evenly", () => {
    const turn = { setS: 8, changeS: 10 };
    expect(sizesFor({ lifters: 12, racks: 6, rest: { leastS: 45, mostS: 75 }, turn })).toEqual([
      { use: 4, least: 3, most: 4 },
      { use: 3, least: 3, most: 4 },
    ]);
    expect(sizesFor({ lifters: 30, racks: 3, rest: { leastS: 45, mostS: 75 }, turn })).toEqual([
      { use: 3, least: 10, most: 10 },
    ]);
    expect(sizesFor({ lifters: 0, racks: 3, rest: { leastS: 45, mostS: 75 }, turn })).toEqual([]);
  });

  it("one fewer never makes the answer better", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 300 }), (seed) => {
        const problem = madeUp({
          lifters: 12,
          racks: 4,
          rounds: 3,
          seed,
          weights: MOVE_SECONDS,
          least: 0,
          most: 0,
        });
        const slot = {
          slotId: "s",
          name: "Squat",
          rest: { leastS: 45, mostS: 90 },
          setS: [8],
          times: TIMES,
        };
        const best = (racks: number) => {
          const own = { ...problem, racks: problem.racks.slice(0, racks) };
          const sizes = sizesFor({
            lifters: 12,
            racks,
            rest: slot.rest,
            turn: { setS: 8, changeS: 12 },
          });
          return [...proposeGroups(own, sizes, slot, { tries: 1000 })].at(-1);
        };
        const [all, fewer] = [best(4), best(3)];
        if (!all || !fewer) throw new Error("There is an answer.");
        const worse =
          fewer.clock.tooLong > all.clock.tooLong ||
          (fewer.clock.tooLong === all.clock.tooLong &&
            fewer.clock.lengthS >= all.clock.lengthS - 0.5);
        expect(worse).toBe(true);
      }),
      { numRuns: 12 },
    );
  });
});
