import { describe, expect, it } from "vitest";
import { testGear } from "../barload/fixtures/gear";
import { lifterAt, testedLine, testedMax } from "../prescribe/fixtures/base";
import type { Lifter } from "../prescribe/lifter";
import { DELOAD_UNSET } from "../prescribe/prescribe";
import type { LoadBasis } from "../recipe/basis";
import type { Recipe, WaveSet } from "../recipe/recipe";
import { NOTHING_TO_HANG } from "../resistance/rig";
import { type Block, blockOfLift, type Slot, slotWeek } from "./block";
import {
  type BlockRoom,
  blockLoads,
  changedLoads,
  elsewhereWords,
  setInFull,
  slotCells,
} from "./block-loads";
import { BETWEEN_EXERCISES_S, dayStave, setSeconds, WARM_UP_S } from "./day-time";
import { exerciseLoad } from "./exercise-load";
import { weekSum } from "./week-sums";

const gear = testGear([25, 20, 15, 10, 5, 2.5, 1.25]);
const recipe: Recipe = {
  name: "Ladder",
  aim: "speed",
  school: "S",
  basis: "percent",
  start: 50,
  steps: [
    { id: "a", sets: 2, reps: 3, add: 0 },
    { id: "b", sets: 1, reps: 2, add: 10 },
  ],
  weeks: [
    { id: "w1", add: 0 },
    { id: "w2", add: 5 },
  ],
  convention: "bar",
  rest: { leastS: 40, mostS: 80 },
  cycle: [],
  lead: "percent",
  stop: { lossFrom: "best" },
};
const room: BlockRoom = {
  gear,
  rounding: "nearest",
  metric: "MCV",
  settings: {},
  hang: NOTHING_TO_HANG,
  forLift: {},
  unit: "kg",
  others: [],
  hand: undefined,
  handOf: {},
};
const athlete = (id: string, kg: number | undefined): Lifter =>
  lifterAt(
    id,
    "v",
    { workingMax: testedMax(kg, "2026-03-01"), profile: testedLine("2026-02-01") },
    { name: id, bodyKg: 80 },
  );
const base = blockOfLift({
  name: "B",
  startDate: "2026-03-02",
  variantId: "v",
  recipe,
  schoolId: "S",
});
const slotOf = (over: Partial<Slot>): Slot => ({ ...(base.slots.main as Slot), ...over });
const cellsOf = (block: Block, athletes: Lifter[], slotId = "main", rules = room) =>
  slotCells({ block, slotId, weeks: [1, 2], athletes, room: rules, liftName: "Bench" });

describe("an exercise without a bar", () => {
  const set = (basis: LoadBasis): WaveSet => ({
    key: "k",
    weekId: "w",
    stepId: "s",
    number: 1,
    reps: 8,
    basis,
    factor: 1,
    kind: "work",
    cycleItem: undefined,
  });

  it("takes a fixed load or a share of body mass, and says why it has none by a lift's base", () => {
    expect(exerciseLoad(set({ by: "fixed", kg: 22.6 }), undefined, undefined)).toMatchObject({
      kg: 22.5,
    });
    expect(exerciseLoad(set({ by: "body", percent: 20 }), 81, undefined)).toMatchObject({ kg: 16 });
    expect(exerciseLoad(set({ by: "body", percent: 20 }), undefined, undefined).reason).toContain(
      "body mass",
    );
    expect(exerciseLoad(set({ by: "percent", percent: 50 }), 80, undefined).reason).toContain(
      "no max",
    );
    for (const basis of [{ by: "eye" }, { by: "fixed", kg: 0 }] as LoadBasis[]) {
      expect(exerciseLoad(set(basis), 80, undefined)).toEqual({ kg: undefined, reason: undefined });
    }
  });
});

describe("everybody's loads of a slot", () => {
  it("equal what each set is prescribed by itself, run by run", () => {
    const people = [athlete("a", 100), athlete("b", 137.5)];
    const cells = cellsOf(base, people);
    for (const cell of cells) {
      people.forEach((person, i) => {
        const runs = cell.byAthlete[i] ?? [];
        const flat = runs.flatMap((run) => Array(run.count).fill(run.loadKg));
        const alone = (cell.wave?.sets ?? []).map(
          (set) =>
            setInFull({
              block: base,
              slotId: "main",
              week: cell.wave as never,
              set,
              athlete: person,
              room,
              lift: { id: "v", name: "Bench", lift: "bench" },
            }).loadKg,
        );
        expect(flat).toEqual(alone);
      });
    }
    expect(cells[0]?.byAthlete[0]?.map((run) => [run.count, run.reps, run.loadKg])).toEqual([
      [2, 3, 50],
      [1, 2, 60],
    ]);
  });

  it("say what is missing instead of a load, and follow the coach's own", () => {
    const own = { ...base, overrides: { "a/main/w1.a.1": { loadKg: 42.5, by: "C" } } };
    const [first] = cellsOf(own, [athlete("a", 100), athlete("n", undefined)]);
    expect(first?.byAthlete[0]?.[0]).toMatchObject({ loadKg: 42.5, overridden: true, count: 1 });
    expect(first?.byAthlete[1]?.[0]?.loadKg).toBeUndefined();
    expect(first?.byAthlete[1]?.[0]?.reason).toContain("No working max for Bench");
  });

  it.each([
    [
      "speed",
      { basis: "speed" as const, start: 0.8, steps: [{ id: "a", sets: 1, reps: 3, add: 0 }] },
      60,
    ],
    [
      "reserve",
      { basis: "reserve" as const, start: 2, steps: [{ id: "a", sets: 1, reps: 3, add: 0 }] },
      85,
    ],
    [
      "body mass",
      { basis: "body" as const, start: 75, steps: [{ id: "a", sets: 1, reps: 3, add: 0 }] },
      60,
    ],
    [
      "a fixed load",
      { basis: "fixed" as const, start: 62.5, steps: [{ id: "a", sets: 1, reps: 3, add: 0 }] },
      62.5,
    ],
  ])("by %s", (_name, over, kg) => {
    const block = { ...base, slots: { main: slotOf({ recipe: { ...recipe, ...over } }) } };
    expect(cellsOf(block, [athlete("a", 100)])[0]?.byAthlete[0]?.[0]?.loadKg).toBe(kg);
  });

  it("have no load in a deload whose factor nobody set, and say so", () => {
    const block: Block = {
      ...base,
      weeks: 2,
      marks: { m: { week: 2, kind: "deload", words: "" } },
    };
    expect(cellsOf(block, [athlete("a", 100)])[1]?.byAthlete[0]?.[0]?.reason).toBe(DELOAD_UNSET);
    const set = { ...room, settings: { deloadLoad: 0.8, deloadSets: 1 } };
    expect(cellsOf(block, [athlete("a", 100)], "main", set)[1]?.byAthlete[0]?.[0]?.loadKg).toBe(40);
  });

  it("of an exercise are its fixed load or nothing, for everybody", () => {
    const work = { kind: "exercise" as const, exerciseIds: ["x"], hands: 2 as const };
    const block = {
      ...base,
      slots: { main: slotOf({ work, recipe: { ...recipe, basis: "fixed", start: 30 } }) },
    };
    expect(cellsOf(block, [athlete("a", undefined)])[0]?.byAthlete[0]?.[0]?.loadKg).toBe(30);
  });
});

describe("what changed since a publication", () => {
  it("counts sets with another load, new and gone ones, by athlete", () => {
    const people = [athlete("a", 100), athlete("b", 120)];
    const before = blockLoads({ block: base, athletes: people, room });
    expect(Object.keys(before.a ?? {})).toHaveLength(6);
    expect(changedLoads(before, blockLoads({ block: base, athletes: people, room }))).toEqual([]);
    const stronger = blockLoads({
      block: base,
      athletes: [athlete("a", 110), people[1] as Lifter],
      room,
    });
    expect(changedLoads(before, stronger)).toEqual([
      { athleteId: "a", changed: 6, added: 0, gone: 0 },
    ]);
    expect(changedLoads(before, { a: before.a ?? {} })).toEqual([
      { athleteId: "b", changed: 0, added: 0, gone: 6 },
    ]);
  });
});

describe("a day drawn to time", () => {
  it("adds sets, rests, the warm-up and the walk between exercises", () => {
    const block: Block = {
      ...base,
      slots: { main: slotOf({}), second: slotOf({ section: "second" }) },
    };
    const stave = dayStave(block, "d1", 1);
    const oneSet = [9, 9, 8];
    const slot = oneSet.reduce((sum, s) => sum + s, 0) + 2 * 60;
    expect(stave.lengthS).toBe(WARM_UP_S + 2 * slot + BETWEEN_EXERCISES_S);
    const [first] = stave.lines;
    expect(first?.sets.map((one) => one.startS - WARM_UP_S)).toEqual([0, 69, 138]);
    expect(first?.sets.map((one) => one.restS)).toEqual([60, 60, 0]);
  });

  it("draws neighbours of one letter in rounds and a timed slot on its clock", () => {
    const grouped: Block = {
      ...base,
      slots: { a: slotOf({ group: "A", order: 1 }), b: slotOf({ group: "A", order: 2 }) },
    };
    const [a, b] = dayStave(grouped, "d1", 1).lines;
    expect(b?.sets[0]?.startS).toBe(a?.sets[0]?.endS);
    expect((a?.sets[1]?.startS ?? 0) - (b?.sets[0]?.endS ?? 0)).toBe(60);
    const timed: Block = {
      ...base,
      slots: {
        main: slotOf({
          recipe: {
            ...recipe,
            steps: [{ id: "a", sets: 1, reps: 2, add: 0 }],
            timed: { everyS: 45, minutes: 12 },
          },
        }),
      },
    };
    const starts = dayStave(timed, "d1", 1).lines[0]?.sets.map((one) => one.startS - WARM_UP_S);
    expect(starts).toEqual(Array.from({ length: 16 }, (_, i) => 45 * i));
  });

  it("is longer for tempo, for both sides, and measures metres", () => {
    expect(setSeconds({ reps: 3 }, recipe)).toBe(9);
    expect(setSeconds({ reps: 3 }, { ...recipe, tempo: { downS: 2, pauseS: 1 } })).toBe(18);
    expect(setSeconds({ reps: 3 }, { ...recipe, sides: "left-right" })).toBe(18);
    expect(setSeconds({ reps: 20 }, { ...recipe, counts: "metres" })).toBe(5);
  });
});

describe("a week added up", () => {
  const workOf = (slot: Slot) => ({
    name: slot.work.kind === "lift" ? "Bench" : "Row",
    speedClass: "absolute-strength" as const,
    muscles: slot.work.kind === "lift" ? (["chest"] as const) : (["lats"] as const),
  });

  it("has sets, reps, mean percentage weighted by reps, tonnage, fast against slow", () => {
    const rowRecipe: Recipe = {
      ...recipe,
      aim: "growth",
      basis: "fixed",
      start: 30,
      steps: [{ id: "a", sets: 3, reps: 12, add: 0 }],
    };
    const block: Block = {
      ...base,
      slots: {
        main: slotOf({}),
        row: slotOf({
          section: "accessories",
          work: { kind: "exercise", exerciseIds: ["x"], hands: 2 },
          recipe: rowRecipe,
        }),
      },
    };
    const sum = weekSum({
      block,
      week: 1,
      settings: {},
      workOf,
      loadKg: (slotId) => (slotId === "row" ? 30 : 50),
    });
    expect(sum.lifts).toEqual([
      { name: "Bench", sets: 3, reps: 8, meanPercent: (6 * 50 + 2 * 60) / 8, tonnageKg: 400 },
      // 3 × 12 × 30 kg in each of two hands.
      { name: "Row", sets: 3, reps: 36, meanPercent: undefined, tonnageKg: 2160 },
    ]);
    expect([sum.fastSets, sum.slowSets]).toEqual([3, 3]);
    expect(sum.muscles).toEqual([
      { muscle: "chest", hard: 0, speed: 3 },
      { muscle: "lats", hard: 3, speed: 0 },
    ]);
  });

  it("keeps sprint metres and jump contacts as doses", () => {
    const of = (counts: "metres" | "contacts", reps: number): Slot =>
      slotOf({
        work: { kind: "exercise", exerciseIds: ["x"], hands: 1 },
        recipe: {
          ...recipe,
          aim: "power",
          basis: "eye",
          counts,
          steps: [{ id: "a", sets: 5, reps, add: 0 }],
        },
      });
    const block: Block = { ...base, slots: { run: of("metres", 20), jump: of("contacts", 3) } };
    const sum = weekSum({ block, week: 1, settings: {}, workOf });
    expect([sum.sprintMetres, sum.jumpContacts, sum.sets]).toEqual([100, 15, 5]);
    expect(slotWeek(block, block.slots.run as Slot, 1)?.sets).toHaveLength(5);
  });
});

describe("racks of one room that load otherwise", () => {
  const coarse: BlockRoom = { ...room, others: [{ number: 3, gear: testGear([25, 20, 15, 10]) }] };

  it("are named in the cell where they build another total, and nowhere else", () => {
    // Half of 165 kg: 82.5 here, 80 or 90 there, a tie of neither: 80 is nearer.
    const [week] = cellsOf(base, [athlete("a", 165)], "main", coarse);
    expect(week?.byAthlete[0]?.[0]).toMatchObject({
      loadKg: 82.5,
      elsewhere: [{ rack: 3, kg: 80 }],
    });
    expect(elsewhereWords(week?.byAthlete[0] ?? [], "kg")[0]).toMatch(/^Rack 3: 80 kg/);
    expect(elsewhereWords(week?.byAthlete[0] ?? [], "lb")[0]).toMatch(/^Rack 3: 176.4 lb/);
    const [same] = cellsOf(base, [athlete("b", 160)], "main", coarse);
    expect(same?.byAthlete[0]?.[0]).toMatchObject({ loadKg: 80, elsewhere: [] });
    const [alone] = cellsOf(base, [athlete("a", 165)]);
    expect(elsewhereWords(alone?.byAthlete[0] ?? [], "kg")).toEqual([]);
  });
});
