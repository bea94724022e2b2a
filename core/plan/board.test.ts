import { describe, expect, it } from "vitest";
import { type Recipe, recipeWeeks } from "../recipe/recipe";
import {
  type Block,
  blockOfLift,
  emptyBlock,
  NOTHING_OWN,
  ownInSlot,
  type Slot,
  slotsOf,
  slotWeek,
} from "./block";
import { boardRow, cellWords } from "./board";
import {
  beginSlot,
  copyCell,
  copySlot,
  hasSteps,
  moreInWeek,
  moveMark,
  placeSlot,
  raiseBar,
  stepSlot,
  stretchCycle,
} from "./board-edits";
import {
  applyEdit,
  type BlockEdit,
  insertWeek,
  inverseOf,
  noOwn,
  ownFloor,
  ownRest,
  removeSlot,
} from "./edits";

const kg = (value: number) => `${value} kg`;

const ladder: Recipe = {
  name: "Ladder",
  aim: "speed",
  school: "Speed strength",
  basis: "percent",
  start: 40,
  steps: [
    { id: "s1", sets: 3, reps: 3, add: 0 },
    { id: "s2", sets: 3, reps: 3, add: 5 },
    { id: "s3", sets: 3, reps: 3, add: 10 },
  ],
  weeks: [
    { id: "w1", add: 0 },
    { id: "w2", add: 5 },
    { id: "w3", add: 10, flat: { sets: 9, reps: 3, at: 55 } },
  ],
  convention: "bar",
  rest: { leastS: 45, mostS: 60 },
  cycle: [],
  lead: "percent",
  stop: { lossFrom: "best" },
};

const slot = (over: Partial<Slot>): Slot => ({
  dayId: "mon",
  section: "main",
  order: 1,
  work: { kind: "lift", variantId: "v" },
  recipe: ladder,
  fromWeek: 1,
  repeat: true,
  session: 1,
  group: "",
  ...over,
});

const block: Block = {
  ...emptyBlock({
    name: "Winter",
    startDate: "2026-11-30",
    weeks: 8,
    schoolId: "",
    template: "power-first",
  }),
  days: { mon: { name: "Mon", offset: 0 }, thu: { name: "Thu", offset: 3 } },
  slots: {
    bench: slot({}),
    squat: slot({ section: "second", group: "A" }),
    pull: slot({ section: "accessories", order: 1, group: "A" }),
    plank: slot({ section: "accessories", order: 2 }),
    heavy: slot({ dayId: "thu" }),
  },
  marks: {
    m: { week: 4, kind: "deload", words: "" },
    t: { week: 8, kind: "test", words: "tests" },
  },
};

const made = (edit: BlockEdit | undefined, of = block): Block => {
  if (!edit) throw new Error("no edit");
  const next = applyEdit(of, edit);
  if (!next.ok) throw new Error("no place");
  const back = applyEdit(next.block, inverseOf(of, edit));
  expect(back.ok && back.block, "undone").toEqual(of);
  return next.block;
};
const order = (of: Block, dayId: string) => slotsOf(of, dayId).map((one) => one.id);

describe("a row of the board", () => {
  const row = boardRow(block, block.slots.bench as Slot, { deloadSets: 0.6, deloadLoad: 0.9 });

  it("has each week's sets with their height, the deload at the coach's factors, nothing in the test week", () => {
    expect(row.cells.map((cell) => cell.kind)).toEqual([
      "work",
      "work",
      "work",
      "deload",
      "work",
      "work",
      "work",
      "nothing",
    ]);
    expect(row.cells[1]?.sets.map((set) => set.percent)).toEqual([
      45, 45, 45, 50, 50, 50, 55, 55, 55,
    ]);
    expect(row.cells[3]?.sets).toHaveLength(5);
    expect(row.cells[3]?.sets[0]?.percent).toBeCloseTo(49.5, 9);
    expect(row.cells.map((cell) => cell.place?.at)).toEqual([
      1,
      2,
      3,
      undefined,
      1,
      2,
      3,
      undefined,
    ]);
  });

  it("joins the weeks of one time through the cycle, and crosses what the block cuts", () => {
    expect(row.runs).toEqual([
      { run: 1, from: 1, to: 3, waits: [], cut: undefined },
      { run: 2, from: 5, to: 7, waits: [], cut: undefined },
    ]);
    const four = slot({ recipe: { ...ladder, weeks: [...ladder.weeks, { id: "w4", add: 0 }] } });
    expect(boardRow(block, four).runs).toEqual([
      { run: 1, from: 1, to: 5, waits: [4], cut: undefined },
      { run: 2, from: 6, to: 7, waits: [8], cut: { at: 2, of: 4 } },
    ]);
    const once = boardRow(block, slot({ repeat: false, fromWeek: 6 }));
    expect(once.runs).toEqual([{ run: 1, from: 6, to: 7, waits: [8], cut: { at: 2, of: 3 } }]);
    expect(boardRow({ ...block, slots: {}, weeks: 2 }, slot({ fromWeek: 5 })).runs).toEqual([]);
  });

  it("says a week in a few figures", () => {
    const words = (recipe: Recipe, week = 1) =>
      cellWords(recipe, slotWeek(block, slot({ recipe }), week), kg);
    expect(words(ladder)).toBe("9×3 · 40–50 %");
    expect(words(ladder, 3)).toBe("9×3 · 55 %");
    expect(words(ladder, 8)).toBe("none");
    const one = (over: Partial<Recipe>, step: Partial<Recipe["steps"][number]> = {}) =>
      words({
        ...ladder,
        weeks: [{ id: "w1", add: 0 }],
        steps: [{ id: "s1", sets: 4, reps: 5, add: 0, ...step }],
        ...over,
      });
    expect(one({ basis: "fixed", start: 0, counts: "contacts" })).toBe("4×5 = 20");
    expect(one({ basis: "eye", counts: "metres" }, { reps: 20 })).toBe("4×20 m");
    expect(one({ basis: "fixed", start: 24, sides: "left-right" })).toBe("4×5 a side · 24 kg");
    expect(one({ basis: "reserve", start: 2 }, { repsTo: 8 })).toBe("4×5–8 · 2 in reserve");
    expect(one({ start: 85, top: { reps: 3, tries: 2 } })).toBe("top 3 · 85 %");
    expect(one({ basis: "speed", start: 0.75 })).toBe("4×5 · 0.75 m/s");
  });
});

describe("what is done by hand on the board", () => {
  it("moves a slot between sections and days, and leaves a round with the day", () => {
    const up = made(
      placeSlot(block, "plank", { dayId: "mon", section: "accessories", before: "pull" }),
    );
    expect(order(up, "mon")).toEqual(["bench", "squat", "plank", "pull"]);
    const other = made(
      placeSlot(block, "pull", { dayId: "thu", section: "main", before: "heavy" }),
    );
    expect(order(other, "thu")).toEqual(["pull", "heavy"]);
    expect(other.slots.pull).toMatchObject({ dayId: "thu", section: "main", group: "" });
    expect(
      placeSlot(block, "pull", { dayId: "sun", section: "main", before: undefined }),
    ).toBeUndefined();
    expect(
      placeSlot(block, "no", { dayId: "mon", section: "main", before: undefined }),
    ).toBeUndefined();
  });

  it("steps by the keyboard through sections and over a day's edge, there and back", () => {
    const days = ["mon", "thu"];
    let now = block;
    const seen = [order(now, "mon").join(" ")];
    for (let i = 0; i < 3; i++) {
      now = made(stepSlot(now, days, "plank", -1), now);
      seen.push(`${order(now, "mon").join(" ")}, ${now.slots.plank?.section}`);
    }
    expect(seen).toEqual([
      "bench squat pull plank",
      "bench squat plank pull, accessories",
      "bench squat plank pull, second",
      "bench plank squat pull, second",
    ]);
    const down = made(stepSlot(block, days, "plank", 1));
    expect(order(down, "thu")).toEqual(["plank", "heavy"]);
    expect(stepSlot(block, days, "heavy", 1)).toBeUndefined();
    expect(stepSlot(block, days, "bench", -1)).toBeUndefined();
  });

  it("copies a slot without its round", () => {
    const next = made(
      copySlot(block, "pull", "new", { dayId: "thu", section: "second", before: undefined }),
    );
    expect(order(next, "thu")).toEqual(["heavy", "new"]);
    expect(next.slots.new).toMatchObject({ group: "", section: "second", recipe: ladder });
    expect(next.slots.pull).toEqual(block.slots.pull);
  });

  it("begins a slot later, and makes a cycle longer and shorter", () => {
    expect(made(beginSlot(block, "bench", 3)).slots.bench?.fromWeek).toBe(3);
    for (const week of [0, 1, 9]) expect(beginSlot(block, "bench", week)).toBeUndefined();
    let n = 0;
    const longer = made(stretchCycle(block, "bench", 5, () => `n${++n}`));
    const weeks = longer.slots.bench?.recipe.weeks ?? [];
    expect(weeks.map((week) => week.id)).toEqual(["w1", "w2", "w3", "n1", "n2"]);
    expect(weeks[4]?.flat).toEqual(ladder.weeks[2]?.flat);
    expect(made(stretchCycle(block, "bench", 2, () => "x")).slots.bench?.recipe.weeks).toHaveLength(
      2,
    );
    for (const bad of [0, 3, 27])
      expect(stretchCycle(block, "bench", bad, () => "x")).toBeUndefined();
  });

  it("moves a deload as taking it out and putting it in would, as one edit", () => {
    const moved = made(moveMark(block, "m", 6));
    expect(moved.marks).toEqual({ ...block.marks, m: { ...block.marks.m, week: 6 } });
    expect(moved.weeks).toBe(8);
    const late = { ...block, slots: { ...block.slots, late: slot({ fromWeek: 5 }) } };
    // Its first week was the one after the deload: it is a week earlier now.
    expect(made(moveMark(late, "m", 7), late).slots.late?.fromWeek).toBe(4);
    const there = made(moveMark(late, "m", 7), late);
    expect(made(moveMark(there, "m", 4), there).slots.late?.fromWeek).toBe(5);
    for (const week of [0, 4, 9]) expect(moveMark(block, "m", week)).toBeUndefined();
    expect(moveMark(block, "none", 2)).toBeUndefined();
    const again = made(insertWeek(block, "x", { week: 2, kind: "off", words: "" }));
    expect(made(moveMark(again, "x", 9), again).marks.m?.week).toBe(4);
  });

  const heights = (recipe: Recipe | undefined, week: number) => {
    if (!recipe) throw new Error("no recipe");
    const wave = slotWeek(block, slot({ recipe }), week);
    return [
      ...new Set(wave?.sets.map((set) => (set.basis.by === "percent" ? set.basis.percent : 0))),
    ];
  };

  it("raises a week, a step in every week, or all of it", () => {
    const raised = (reach: "week" | "step" | "all", index = 1) =>
      raiseBar(ladder, { index, stepId: "s2", by: 2.5, reach });
    expect([1, 2, 3].map((week) => heights(raised("week"), week))).toEqual([
      [40, 45, 50],
      [47.5, 52.5, 57.5],
      [55],
    ]);
    expect([1, 2, 3].map((week) => heights(raised("step"), week))).toEqual([
      [40, 47.5, 50],
      [45, 52.5, 55],
      [55],
    ]);
    expect([1, 2, 3].map((week) => heights(raised("all"), week))).toEqual([
      [42.5, 47.5, 52.5],
      [47.5, 52.5, 57.5],
      [57.5],
    ]);
    expect(heights(raised("week", 2), 3)).toEqual([57.5]);
    // A flat week has no steps: what is pulled there is the week.
    expect(
      heights(raiseBar(ladder, { index: 2, stepId: "flat", by: -5, reach: "step" }), 3),
    ).toEqual([50]);
    for (const by of [0, Number.NaN, Number.POSITIVE_INFINITY])
      expect(raiseBar(ladder, { index: 0, stepId: "s1", by, reach: "week" })).toBeUndefined();
    expect(raiseBar(ladder, { index: 9, stepId: "s1", by: 5, reach: "week" })).toBeUndefined();
  });

  it("reaches a repeated week in all of its runs, and a week of the tail alone", () => {
    const tailed: Recipe = { ...ladder, repeats: 2, tail: [{ id: "t1", add: -10 }] };
    expect(recipeWeeks(tailed)).toHaveLength(7);
    const week = raiseBar(tailed, { index: 4, stepId: "s1", by: 1, reach: "week" });
    expect(week?.weeks[1]?.add).toBe(6);
    const tail = raiseBar(tailed, { index: 6, stepId: "s1", by: 1, reach: "week" });
    expect(tail?.tail?.[0]?.add).toBe(-9);
    expect(tail?.weeks).toEqual(tailed.weeks);
  });

  it("adds sets and reps in one week, and does a week as another", () => {
    const more = moreInWeek(ladder, { index: 0, sets: 1 });
    expect(slotWeek(block, slot({ recipe: more as Recipe }), 1)?.sets).toHaveLength(12);
    expect(moreInWeek(ladder, { index: 2, reps: -5 })?.weeks[2]?.flat?.reps).toBe(1);
    // Fewer than one is one: what was taken off too often need not be put on again.
    let fewer: Recipe | undefined = ladder;
    for (let i = 0; i < 6; i++)
      fewer = moreInWeek(fewer as Recipe, { index: 0, sets: -1, reps: -1 });
    const one = slotWeek(
      block,
      slot({ recipe: moreInWeek(fewer as Recipe, { index: 0, sets: 1, reps: 1 }) as Recipe }),
      1,
    );
    expect(one?.sets.map((set) => set.reps)).toEqual([2, 2, 2, 2, 2, 2]);
    const copied = copyCell(ladder, 2, 0);
    expect(copied?.weeks[0]).toEqual({ ...ladder.weeks[2], id: "w1" });
    expect(copyCell(ladder, 1, 1)).toBeUndefined();
    expect(copyCell(ladder, 7, 1)).toBeUndefined();
  });

  it("gives the slot's floor and rest back to who had their own", () => {
    const at = { athleteId: "a", slotId: "bench" };
    const floored = made(ownFloor(block, at, { floorMps: 0.66, by: "C" }));
    const both = made(ownRest(floored, at, { addS: 15, by: "C" }), floored);
    expect(ownInSlot(both, "bench").floors.get("a")).toBe(0.66);
    const back = made(noOwn("rests", at), both);
    expect(ownInSlot(made(noOwn("floors", at), back), "bench")).toEqual(NOTHING_OWN);
    expect(made(removeSlot(both, "bench"), both)).toMatchObject({ floors: {}, rests: {} });
  });

  it("offers more sets and reps only where the recipe's steps say them", () => {
    expect(hasSteps(ladder)).toBe(true);
    expect(hasSteps({ ...ladder, top: { reps: 3, tries: 2 } })).toBe(false);
    expect(hasSteps({ ...ladder, timed: { everyS: 45, minutes: 12 } })).toBe(true);
    expect(
      hasSteps({ ...ladder, timed: { everyS: 45, minutes: 12 }, steps: ladder.steps.slice(0, 1) }),
    ).toBe(false);
  });

  it("keeps the block of one lift as it is drawn elsewhere", () => {
    const small = blockOfLift({
      name: "One",
      startDate: "2026-11-30",
      variantId: "v",
      recipe: ladder,
      schoolId: "",
    });
    expect(boardRow(small, small.slots.main as Slot).runs).toHaveLength(1);
  });
});
