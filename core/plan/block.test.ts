import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { percentOf, type Recipe } from "../recipe/recipe";
import { addDays, daysBetween } from "../units/time";
import {
  type Block,
  type BlockPairing,
  blockOfLift,
  cyclePlace,
  dateOf,
  exerciseIn,
  isIn,
  lastDate,
  leadSlot,
  pairingsOf,
  pairingWeek,
  realignsAfter,
  type Slot,
  slotsOf,
  slotWeek,
} from "./block";
import {
  aboutSamePlace,
  applyEdit,
  at,
  type BlockEdit,
  copyBlock,
  insertWeek,
  inverseOf,
  moveSlot,
  orderSlots,
  putPairing,
  removeDay,
  removeSlot,
  removeWeek,
  shiftBlock,
  splitOff,
  startTo,
} from "./edits";

const recipe = (weeks: number): Recipe => ({
  name: `Wave of ${weeks}`,
  aim: "speed",
  school: "School",
  basis: "percent",
  start: 50,
  steps: [{ id: "s1", sets: 3, reps: 2, add: 0 }],
  weeks: Array.from({ length: weeks }, (_, i) => ({ id: `w${i + 1}`, add: 5 * i })),
  convention: "bar",
  rest: { leastS: 45, mostS: 60 },
  cycle: [],
  lead: "percent",
  stop: { lossFrom: "best" },
});
const slot = (weeks: number, over: Partial<Slot> = {}): Slot => ({
  dayId: "d1",
  section: "main",
  order: 1,
  work: { kind: "lift", variantId: "v" },
  recipe: recipe(weeks),
  fromWeek: 1,
  repeat: true,
  session: 1,
  group: "",
  ...over,
});
const block = (over: Partial<Block> = {}): Block => ({
  ...blockOfLift({
    name: "Block",
    startDate: "2026-11-30",
    variantId: "v",
    recipe: recipe(3),
    schoolId: "School",
  }),
  weeks: 12,
  ...over,
});
const made = (from: Block, edit: BlockEdit): Block => {
  const result = applyEdit(from, edit);
  if (!result.ok) throw new Error(result.path.join("/"));
  return result.block;
};

describe("cycles side by side", () => {
  it("stand together again after the least common multiple of their lengths", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 1, max: 12 }),
        (lengths, week) => {
          const own = block({
            weeks: 200,
            slots: Object.fromEntries(lengths.map((n, i) => [`s${i}`, slot(n)])),
          });
          const cycle = realignsAfter(own);
          for (const n of lengths) expect(cycle % n).toBe(0);
          for (const one of Object.values(own.slots)) {
            expect(cyclePlace(own, one, week)?.index).toBe(
              cyclePlace(own, one, week + cycle)?.index,
            );
          }
          // Never sooner: some cycle stands elsewhere at every smaller step.
          for (let step = 1; step < cycle; step++) {
            const all = Object.values(own.slots).every(
              (one) => cyclePlace(own, one, 1)?.index === cyclePlace(own, one, 1 + step)?.index,
            );
            expect(all).toBe(false);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it("three and four weeks from one start: places week by week, realigned in week 13", () => {
    const own = block({ weeks: 13, slots: { a: slot(3), b: slot(4) } });
    const places = (id: string) =>
      Array.from({ length: 13 }, (_, i) => cyclePlace(own, own.slots[id] as Slot, i + 1)?.index);
    expect(places("a")).toEqual([0, 1, 2, 0, 1, 2, 0, 1, 2, 0, 1, 2, 0]);
    expect(places("b")).toEqual([0, 1, 2, 3, 0, 1, 2, 3, 0, 1, 2, 3, 0]);
    expect(realignsAfter(own)).toBe(12);
  });

  it("a marked week counts for none, and a wave that does not repeat ends", () => {
    const own = block({
      weeks: 6,
      marks: { m: { week: 2, kind: "test", words: "" } },
      slots: { once: slot(3, { repeat: false }), again: slot(3), late: slot(2, { fromWeek: 3 }) },
    });
    const places = (id: string) =>
      [1, 2, 3, 4, 5, 6].map((week) => cyclePlace(own, own.slots[id] as Slot, week)?.index);
    expect(places("once")).toEqual([0, undefined, 1, 2, undefined, undefined]);
    expect(places("again")).toEqual([0, undefined, 1, 2, 0, 1]);
    expect(places("late")).toEqual([undefined, undefined, 0, 1, 0, 1]);
  });

  it("the second run's sets have keys of their own, a marked deload the week before's sets", () => {
    const own = block({
      weeks: 6,
      slots: { a: slot(2) },
      marks: { m: { week: 5, kind: "deload", words: "" } },
    });
    const a = own.slots.a as Slot;
    expect(slotWeek(own, a, 1)?.sets[0]?.key).toBe("w1.s1.1");
    expect(slotWeek(own, a, 3)?.sets[0]?.key).toBe("w1@2.s1.1");
    const deload = slotWeek(own, a, 5, { deloadSets: 0.67, deloadLoad: 0.9 });
    expect(deload?.sets).toHaveLength(2);
    expect(deload?.sets[0] && percentOf(deload.sets[0])).toBeCloseTo(55 * 0.9, 9);
    expect(slotWeek(own, a, 6)?.sets[0]?.key).toBe("w1@3.s1.1");
  });

  it("a coach's factor near a competition lies on that week alone", () => {
    const own = block({ slots: { a: slot(3) } });
    const weeks = [1, 2].map(
      (week) =>
        slotWeek(own, own.slots.a as Slot, week, { weekFactors: { 2: 0.9 } })?.sets[0]?.factor,
    );
    expect(weeks).toEqual([1, 0.9]);
  });

  it("exercises are taken in turn, marked weeks left out", () => {
    const own = block({
      marks: { m: { week: 2, kind: "off", words: "" } },
      slots: { a: slot(1, { work: { kind: "exercise", exerciseIds: ["x", "y"], hands: 2 } }) },
    });
    expect([1, 3, 4, 5].map((week) => exerciseIn(own, own.slots.a as Slot, week))).toEqual([
      "x",
      "y",
      "x",
      "y",
    ]);
  });
});

describe("the calendar", () => {
  it("has real dates over a year's end, and who is away or apart is not in", () => {
    const own = block({
      weeks: 8,
      days: { d1: { name: "A", offset: 0 }, d2: { name: "B", offset: 3 } },
    });
    expect(dateOf(own, 5, { name: "B", offset: 3 })).toBe("2026-12-31");
    expect(dateOf(own, 6, { name: "B", offset: 3 })).toBe("2027-01-07");
    expect(lastDate(own)).toBe("2027-01-21");
    const away = {
      ...own,
      away: { a: { athleteId: "x", from: "2026-12-01" as const, to: "2026-12-10" as const } },
      apart: { y: true as const },
    };
    expect(isIn(away, "x", "2026-12-10")).toBe(false);
    expect(isIn(away, "x", "2026-12-11")).toBe(true);
    expect(isIn(away, "y", "2026-12-11")).toBe(false);
  });

  it("moves as a whole with the start: every date by the same days", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -400, max: 400 }),
        fc.integer({ min: 1, max: 12 }),
        (days, week) => {
          const own = block();
          const moved = made(own, shiftBlock(own, days));
          const day = { name: "", offset: 2 };
          expect(daysBetween(dateOf(own, week, day), dateOf(moved, week, day))).toBe(days);
          expect(made(moved, shiftBlock(moved, -days))).toEqual(own);
          expect(made(own, startTo(own, addDays(own.startDate, days)))).toEqual(moved);
        },
      ),
    );
  });
});

const paths = fc.constantFrom(
  ["name"],
  ["weeks"],
  ["slots", "main", "recipe", "start"],
  ["slots", "main", "recipe", "rest"],
  ["slots", "main", "fromWeek"],
  ["slots", "main"],
  ["marks", "m1"],
  ["overrides", "a/main/w1.s1.1"],
  ["days", "d1", "name"],
);
const edits: fc.Arbitrary<BlockEdit> = fc
  .array(fc.tuple(paths, fc.option(fc.oneof(fc.integer(), fc.string()), { nil: undefined })), {
    minLength: 1,
    maxLength: 4,
  })
  .map((sets) => ({
    words: "edit",
    sets: sets.map(([path, value]) => ({ path: [...path], value })),
  }));

describe("edits", () => {
  it("are taken back exactly by their inverse, whatever they set", () => {
    fc.assert(
      fc.property(edits, (edit) => {
        const before = block();
        const result = applyEdit(before, edit);
        if (!result.ok) return;
        expect(made(result.block, inverseOf(before, edit))).toEqual(before);
      }),
      { numRuns: 300 },
    );
  });

  it("commute where they do not meet, so that two coaches lose nothing", () => {
    fc.assert(
      fc.property(edits, edits, (one, two) => {
        fc.pre(!aboutSamePlace(one, two));
        const both = (first: BlockEdit, second: BlockEdit) => {
          const a = applyEdit(block(), first);
          if (!a.ok) return undefined;
          const b = applyEdit(a.block, second);
          return b.ok ? b.block : undefined;
        };
        expect(both(one, two)).toEqual(both(two, one));
      }),
      { numRuns: 300 },
    );
  });

  it("show in every week at once, although weeks are kept: the same as worked out afresh", () => {
    const settings = { deloadSets: 0.5, deloadLoad: 0.8, weekFactors: { 4: 0.9 } };
    const other = { ...settings, deloadLoad: 0.7 };
    const marks = fc.record({
      week: fc.integer({ min: 1, max: 12 }),
      kind: fc.constantFrom("deload" as const, "test" as const, "off" as const),
      words: fc.constant(""),
    });
    const changes = fc.oneof(
      fc
        .integer({ min: 30, max: 80 })
        .map((start) => ({ path: ["slots", "main", "recipe", "start"], value: start })),
      fc
        .integer({ min: 1, max: 6 })
        .map((week) => ({ path: ["slots", "main", "fromWeek"], value: week })),
      fc.boolean().map((repeat) => ({ path: ["slots", "main", "repeat"], value: repeat })),
      fc.integer({ min: 1, max: 16 }).map((weeks) => ({ path: ["weeks"], value: weeks })),
      fc.option(marks, { nil: undefined }).map((mark) => ({ path: ["marks", "m1"], value: mark })),
      fc.integer({ min: 1, max: 2 }).map((n) => ({ path: ["slots", "main", "session"], value: n })),
    );
    fc.assert(
      fc.property(fc.array(changes, { minLength: 1, maxLength: 8 }), (sets) => {
        let now = block();
        for (const set of sets) {
          now = made(now, { words: "", sets: [set] });
          const fresh = structuredClone(now);
          for (const which of [settings, other]) {
            for (let week = 1; week <= 16; week++) {
              expect(slotWeek(now, now.slots.main as Slot, week, which)).toEqual(
                slotWeek(fresh, fresh.slots.main as Slot, week, structuredClone(which)),
              );
            }
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it("leave the old block untouched, and name a place that is gone", () => {
    const before = block();
    const copy = structuredClone(before);
    applyEdit(before, { sets: [{ path: ["slots", "main", "recipe", "start"], value: 70 }] });
    expect(before).toEqual(copy);
    expect(applyEdit(before, { sets: [{ path: ["slots", "gone", "order"], value: 1 }] })).toEqual({
      ok: false,
      reason: "no-place",
      path: ["slots", "gone", "order"],
    });
    expect(at(before, ["slots", "main", "recipe", "start"])).toBe(50);
    expect(at(before, ["slots", "none", "x"])).toBeUndefined();
  });

  it("a week put in and taken out again leaves the block as it was", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), (week) => {
        const own = block({
          slots: { a: slot(3), late: slot(2, { fromWeek: 5 }) },
          marks: { other: { week: 8, kind: "test", words: "" } },
          pairings: {
            early: { dayId: "d1", complexId: "c", fromWeek: 1 },
            late: { dayId: "d1", complexId: "c", fromWeek: 6 },
          },
        });
        const longer = made(own, insertWeek(own, "new", { week, kind: "deload", words: "" }));
        expect(longer.weeks).toBe(13);
        expect(longer.marks.other?.week).toBe(week <= 8 ? 9 : 8);
        const back = removeWeek(longer, "new");
        expect(back && made(longer, back)).toEqual(own);
        // So is every week of a pairing.
        for (let w = 1; w <= 12; w++) {
          const later = w < week ? w : w + 1;
          for (const id of ["early", "late"]) {
            expect(pairingWeek(longer, longer.pairings?.[id] as BlockPairing, later)).toBe(
              pairingWeek(own, own.pairings?.[id] as BlockPairing, w),
            );
          }
        }
        // Every week of work is the same week as before, moved by one after the new one.
        for (let w = 1; w <= 12; w++) {
          const later = w < week ? w : w + 1;
          expect(cyclePlace(longer, longer.slots.late as Slot, later)?.index).toBe(
            cyclePlace(own, own.slots.late as Slot, w)?.index,
          );
        }
      }),
    );
  });

  it("move slots within their section and stop at its edges", () => {
    const own = block({
      slots: {
        a: slot(1, { order: 1 }),
        b: slot(1, { order: 2 }),
        c: slot(1, { section: "accessories" }),
      },
    });
    const down = moveSlot(own, "a", 1);
    expect(down && slotsOf(made(own, down), "d1").map((one) => one.id)).toEqual(["b", "a", "c"]);
    expect(moveSlot(own, "a", -1)).toBeUndefined();
    expect(moveSlot(own, "c", 1)).toBeUndefined();
    expect(orderSlots(["b", "a"], "x").sets.map((set) => set.value)).toEqual([1, 2]);
  });

  it("take a slot's own loads with it, a day its slots; undo brings all of it back", () => {
    const own = block({
      slots: { main: slot(1), other: slot(1) },
      overrides: {
        "p/main/w1.s1.1": { loadKg: 60, by: "C" },
        "p/other/w1.s1.1": { loadKg: 70, by: "C" },
      },
    });
    const edit = removeSlot(own, "main");
    const less = made(own, edit);
    expect(Object.keys(less.overrides)).toEqual(["p/other/w1.s1.1"]);
    expect(made(less, inverseOf(own, edit))).toEqual(own);
    const noDay = made(own, removeDay(own, "d1"));
    expect([noDay.days, noDay.slots, noDay.overrides]).toEqual([{}, {}, {}]);
  });

  it("put a pairing on a day, which goes with the day; undo brings the place back as it was", () => {
    const own = block();
    const on = putPairing(own, "p1", { dayId: "d1", complexId: "c", fromWeek: 2 }, "Pull, jump");
    const paired = made(own, on);
    expect(pairingsOf(paired, "d1")).toEqual([
      { id: "p1", dayId: "d1", complexId: "c", fromWeek: 2 },
    ]);
    expect(made(paired, inverseOf(own, on))).toEqual(own);
    const more = putPairing(paired, "p2", { dayId: "d1", complexId: "d", fromWeek: 1 }, "Row");
    expect(Object.keys(made(paired, more).pairings ?? {})).toEqual(["p1", "p2"]);
    const noDay = removeDay(paired, "d1");
    expect(made(paired, noDay).pairings).toEqual({});
    expect(made(made(paired, noDay), inverseOf(paired, noDay))).toEqual(paired);
  });

  it("a pairing's own weeks begin where it does, and stop over marked weeks", () => {
    const own = block({ weeks: 6, marks: { m: { week: 4, kind: "deload", words: "" } } });
    const weeks = [1, 2, 3, 4, 5, 6, 7].map((week) => pairingWeek(own, { fromWeek: 2 }, week));
    expect(weeks).toEqual([undefined, 1, 2, undefined, 3, 4, undefined]);
  });

  it("split an athlete off with their own loads, and copy without anybody's", () => {
    const own = block({
      overrides: { "p/main/k": { loadKg: 60, by: "C" }, "q/main/k": { loadKg: 70, by: "C" } },
      away: { a: { athleteId: "p", from: "2026-12-01", to: "2026-12-02" } },
    });
    const { own: alone, edit } = splitOff(own, "p", "Alone");
    expect(alone.overrides).toEqual({ "p/main/k": { loadKg: 60, by: "C" } });
    expect(made(own, edit).apart).toEqual({ p: true });
    const copy = copyBlock(own, "Again", "2027-03-01");
    expect([copy.name, copy.startDate, copy.overrides, copy.away]).toEqual([
      "Again",
      "2027-03-01",
      {},
      {},
    ]);
  });

  it("a block without a main lift is about its first slot", () => {
    expect(leadSlot(block({ slots: {} }))).toBeUndefined();
    expect(leadSlot(block({ slots: { x: slot(1, { section: "finisher" }) } }))?.id).toBe("x");
  });
});
