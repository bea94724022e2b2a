import { describe, expect, it } from "vitest";
import type { Complex } from "../contrast/complex";
import { type Block, blockOfLift, type Slot } from "../plan/block";
import type { HeaviestSet } from "../plan/heaviest";
import { methodWords } from "../prescribe/method";
import { expandRecipe, type Recipe } from "../recipe/recipe";
import { asSchool } from "./as-school";
import { school } from "./fixtures/school";
import type { CheckedAthlete, CheckInput, PlanCheck } from "./input";
import { meanIntensity } from "./intensity";
import { checkPlan, isAnswered, openChecks, refusedInSlot } from "./plan";
import { compareSchools, type School, schoolOf, secondDay } from "./school";
import { heavySlot, speedSlot } from "./slots";

const recipe = (over: Partial<Recipe> = {}): Recipe => ({
  name: "Wave",
  aim: "speed",
  school: "House rules",
  basis: "percent",
  start: 55,
  steps: [{ id: "s1", sets: 8, reps: 3, add: 0 }],
  weeks: [
    { id: "w1", add: 0 },
    { id: "w2", add: 5 },
    { id: "w3", add: 10 },
  ],
  convention: "bar",
  rest: { leastS: 45, mostS: 75 },
  cycle: [],
  lead: "percent",
  stop: { lossPercent: 10, lossFrom: "best" },
  ...over,
});
const athlete = (over: Partial<CheckedAthlete> = {}): CheckedAthlete => ({
  id: "a",
  name: "Ansel Quist",
  trainingYears: 4,
  squatPerBody: 1.8,
  maxOf: new Set(["v"]),
  staleOf: new Set(),
  refused: [],
  caps: [],
  returns: [],
  schoolId: undefined,
  box: undefined,
  ...over,
});
const block = (over: Partial<Recipe> = {}, more: Partial<Block> = {}): Block => ({
  ...blockOfLift({
    name: "B",
    startDate: "2026-03-02",
    variantId: "v",
    recipe: recipe(over),
    schoolId: "House rules",
  }),
  ...more,
});
const slot = (over: Partial<Slot>): Slot => ({ ...(block().slots.main as Slot), ...over });
const heavy = recipe({
  aim: "strength",
  start: 85,
  steps: [{ id: "s1", sets: 4, reps: 2, add: 0 }],
});
const input = (own: Block, over: Partial<CheckInput> = {}): CheckInput => ({
  block: own,
  school,
  settings: {},
  coachValues: {},
  workOf: (one) => ({
    name: one.work.kind === "lift" ? "Squat" : "Row",
    variation: one.work.kind === "lift" ? "Squat" : undefined,
    pattern: "squat",
    speedClass: one.recipe.aim === "speed" ? "strength-speed" : "absolute-strength",
    muscles: ["glutes"],
    overhead: one.recipe.name === "Overhead",
    upperBody: one.recipe.name === "Upper",
  }),
  liftOf: (id) => (id === "v" ? { name: "Squat", lift: "squat" } : undefined),
  variationsOf: () => ["Squat", "Front squat", "Box squat"],
  complexOf: () => undefined,
  athletes: [athlete()],
  heaviest: {},
  schools: {},
  notHung: [],
  noBar: [],
  before: [],
  overlaps: [],
  inRoom: [],
  competitionWeeks: [],
  ...over,
});
const codes = (own: Block, over: Partial<CheckInput> = {}) =>
  checkPlan(input(own, over)).map((one) => one.code);
const twoDays = (offset: number, first: Recipe, second: Recipe): Block =>
  block(
    {},
    {
      weeks: 3,
      days: { d1: { name: "Day 1", offset: 0 }, d2: { name: "Day 2", offset } },
      slots: { a: slot({ recipe: first }), b: slot({ dayId: "d2", recipe: second }) },
    },
  );

describe("checks of a plan", () => {
  it("find nothing in a plain wave: 24 reps at 55 to 65 %", () => {
    expect(codes(block())).toEqual([]);
  });

  it.each<[string, Partial<Recipe>, string]>([
    [
      "too many reps for speed",
      { steps: [{ id: "s1", sets: 3, reps: 6, add: 0 }] },
      "reps-for-speed",
    ],
    [
      "too many reps for power",
      {
        aim: "power",
        rest: { leastS: 180, mostS: 240 },
        steps: [{ id: "s1", sets: 4, reps: 5, add: 0 }],
      },
      "reps-for-power",
    ],
    [
      "too little rest for power",
      { aim: "power", steps: [{ id: "s1", sets: 6, reps: 3, add: 0 }] },
      "power-rest",
    ],
    ["too many reps for the intensity", { start: 82 }, "reps-over-total"],
    [
      "few reps for the intensity",
      { steps: [{ id: "s1", sets: 3, reps: 2, add: 0 }] },
      "reps-under-total",
    ],
    [
      "too many reps a set for strength",
      { aim: "strength", start: 82, steps: [{ id: "s1", sets: 3, reps: 5, add: 0 }] },
      "reps-a-set",
    ],
    ["over the max", { start: 95 }, "over-max"],
    [
      "a loss that is no speed work",
      { stop: { lossPercent: 30, lossFrom: "best" } },
      "loss-for-speed",
    ],
    [
      "another basis than the school's",
      { basis: "speed", start: 0.9, weeks: [{ id: "w1", add: 0 }] },
      "other-basis",
    ],
    [
      "a reserve that grinds",
      { basis: "reserve", start: 1, leastReserve: 2, weeks: [{ id: "w1", add: 0 }] },
      "grinding",
    ],
    [
      "much resistance on an upper-body lift",
      { name: "Upper", resistancePercent: 30 },
      "upper-resistance",
    ],
    ["no rest", { rest: { leastS: 0, mostS: 0 } }, "no-rest"],
    ["a deload without factors", { tail: [{ id: "d", add: 0, kind: "deload" }] }, "deload-unset"],
  ])("name %s", (_name, over, code) => {
    const own = block(over);
    expect(codes({ ...own, weeks: 4 })).toContain(code);
  });

  it("count bands into the intensity where the percentage is of the bar", () => {
    const own = block({
      start: 60,
      resistancePercent: 22,
      steps: [{ id: "s1", sets: 9, reps: 3, add: 0 }],
    });
    expect(codes(own)).toContain("reps-over-total");
    const lockout = block({
      start: 60,
      resistancePercent: 22,
      convention: "lockout",
      steps: [{ id: "s1", sets: 8, reps: 3, add: 0 }],
    });
    expect(codes(lockout)).not.toContain("reps-over-total");
  });

  it("want 72 h between heavy and speed work of a pattern, the week's turn included", () => {
    expect(codes(twoDays(2, heavy, recipe()))).toContain("spacing");
    expect(codes(twoDays(3, heavy, recipe()))).not.toContain("spacing");
    expect(codes(twoDays(5, heavy, recipe()))).toContain("spacing");
    expect(
      codes(twoDays(2, heavy, recipe()), { school: { ...school, heavySpeedHours: 48 } }),
    ).not.toContain("spacing");
  });

  it("ask about two heavy days, and about a very strong athlete every week", () => {
    expect(codes(twoDays(3, heavy, heavy))).toContain("heavy-days");
    const strong = { athletes: [athlete({ squatPerBody: 2.6 })] };
    expect(codes(block(heavy), strong)).toContain("very-strong");
    expect(codes(block(heavy))).not.toContain("very-strong");
  });

  it("want a deload after eight weeks, and no variation again within two waves", () => {
    const long = block({}, { weeks: 10, slots: { main: slot({ repeat: true }) } });
    expect(codes(long)).toContain("deload");
    const eased = { ...long, marks: { m: { week: 6, kind: "deload" as const, words: "" } } };
    expect(codes(eased, { settings: { deloadLoad: 0.8, deloadSets: 0.5 } })).not.toContain(
      "deload",
    );
    expect(codes(block(), { before: [["Bench"], ["Squat"]] })).toContain("reuse");
    expect(codes(block(), { before: [["Bench"], ["Row"], ["Squat"]] })).not.toContain("reuse");
  });

  it("name overhead work that comes too often, fast work among the accessories, and the order", () => {
    const often = block(
      {},
      {
        slots: {
          main: slot({
            section: "accessories",
            recipe: recipe({ name: "Overhead", aim: "growth" }),
          }),
        },
      },
    );
    expect(codes(often)).toContain("overhead");
    expect(codes(block({}, { slots: { main: slot({ section: "accessories" }) } }))).toContain(
      "order",
    );
    // Power after a heavy triple in the second lift: told by what they aim at.
    const lateFast = (template: Block["template"], section: Slot["section"]) =>
      checkPlan(
        input(
          block(
            {},
            {
              template,
              slots: {
                heavy: slot({ section: "second", recipe: heavy }),
                fast: slot({ section, order: 9, recipe: recipe({ name: "Jumps", aim: "power" }) }),
              },
            },
          ),
        ),
      ).find((one) => one.code === "order")?.slotId;
    expect(lateFast("power-first", "second")).toBe("fast");
    expect(lateFast("power-first", "power")).toBeUndefined();
    expect(lateFast("heavy-first", "power")).toBeUndefined();
    expect(codes(block({}, { template: "heavy-first" }))).toContain("template");
    expect(codes(block({}, { template: "four-speed" }))).toContain("four-speeds");
  });

  it("refuse a lift whose kind of bar no rack of the room has", () => {
    const noBar = [{ slotId: "main", reason: "No rack in Hall has a safety bar." }];
    const found = checkPlan(input(block(), { noBar })).find((one) => one.code === "no-bar");
    expect(found).toMatchObject({ level: "refused", slotId: "main" });
    expect(found?.text).toContain("No rack in Hall has a safety bar.");
    expect(codes(block())).not.toContain("no-bar");
  });

  it("refuse what names a lift that is gone, or begins after the block", () => {
    const gone = block(
      {},
      { slots: { main: slot({ work: { kind: "lift", variantId: "gone" } }) } },
    );
    expect(codes(gone)[0]).toBe("gone");
    expect(codes(block({}, { slots: { main: slot({ fromWeek: 9 }) } }))).toContain("after-block");
    expect(codes(block({}, { weeks: 2 }))).toContain("wave-too-long");
  });

  it("name athletes without a base, with a stale max, under a year of training", () => {
    const all = checkPlan(
      input(block(), {
        athletes: [
          athlete({ id: "n", name: "Noor", maxOf: new Set() }),
          athlete({ id: "s", name: "Svea", staleOf: new Set(["v"]) }),
          athlete({ id: "y", name: "Yrsa", trainingYears: 0.4 }),
        ],
      }),
    );
    expect(all.find((one) => one.code === "no-base")?.text).toContain("Noor");
    expect(all.find((one) => one.code === "stale")?.text).toContain("Svea");
    expect(all.find((one) => one.code === "novices")?.text).toContain("Yrsa");
  });

  it("refuse heavy work, bands and caps for whom a limit says so, and never for whom is apart", () => {
    const limited = [
      athlete({
        refused: [
          { what: "heavy", lift: undefined, because: "No heavy singles" },
          { what: "bands-chains", lift: undefined, because: "No bands" },
        ],
        caps: [{ lift: "squat", percent: 60 }],
      }),
    ];
    const own = block({ ...heavy, resistancePercent: 20 });
    expect(codes(own, { athletes: limited })).toEqual(
      expect.arrayContaining(["heavy-refused", "resistance-refused", "cap"]),
    );
    expect(codes({ ...own, apart: { a: true } }, { athletes: limited })).not.toContain("cap");
  });

  it("count hard sets per muscle with speed sets apart", () => {
    const many = recipe({
      aim: "growth",
      start: 60,
      steps: [{ id: "s1", sets: 11, reps: 3, add: 0 }],
    });
    expect(codes(twoDays(3, many, many))).toContain("muscle");
    const fast = recipe({ steps: [{ id: "s1", sets: 11, reps: 2, add: 0 }] });
    expect(codes(twoDays(3, fast, fast))).not.toContain("muscle");
  });

  it("name a block of the squad that runs at the same time, louder where it trains the same", () => {
    const overlap = { name: "Other", from: "2026-03-09", to: "2026-03-23" };
    const found = (lifts: string[]) =>
      checkPlan(input(block(), { overlaps: [{ ...overlap, lifts }] })).find(
        (one) => one.code === "overlap",
      );
    expect(found(["Squat"])).toMatchObject({ level: "warning" });
    expect(found(["Squat"])?.text).toContain("2026-03-09 to 2026-03-23");
    expect(found([])?.level).toBe("note");
  });

  it("ask for the coach's factor near a competition only while it is not set", () => {
    const near = (factorSet: boolean) => ({
      competitionWeeks: [{ week: 2, words: "2 weeks to the Cup", factorSet }],
    });
    expect(codes(block(), near(false))).toContain("competition");
    expect(codes(block(), near(true))).not.toContain("competition");
  });

  it("give another list under another school, each with its name, refusals first", () => {
    const own = twoDays(2, heavy, recipe());
    const loose: School = {
      ...school,
      name: "Loose",
      heavySpeedHours: 24,
      totals: false,
      heavyDays: 3,
    };
    const a = checkPlan(input(own));
    const b = checkPlan(input(own, { school: loose }));
    expect(a.map((one) => one.code)).not.toEqual(b.map((one) => one.code));
    for (const one of a) expect(one.from).not.toBe("");
    expect(a.filter((one) => one.code === "spacing")[0]?.from).toBe("House rules");
    const levels = checkPlan(
      input(own, {
        athletes: [athlete({ refused: [{ what: "heavy", lift: undefined, because: "" }] })],
      }),
    ).map((one) => one.level);
    expect(levels).toEqual(
      [...levels].sort(
        (x, y) =>
          ["refused", "warning", "note"].indexOf(x) - ["refused", "warning", "note"].indexOf(y),
      ),
    );
  });

  it("are closed by an answer with a reason, and only that one", () => {
    const own = block({ start: 82 });
    const all = checkPlan(input(own));
    const key = all.find((one) => one.code === "reps-over-total")?.key ?? "";
    const answered = { ...own, answered: { [key]: { reason: "They recover well.", by: "C" } } };
    expect(openChecks(answered, all)).toHaveLength(all.length - 1);
  });
});

describe("heavy and fast", () => {
  it("heavy is a top set or strength work from 80 %; speed work is never heavy", () => {
    expect(heavySlot({ recipe: heavy })).toBe(true);
    expect(heavySlot({ recipe: recipe({ top: { reps: 1, tries: 3 } }) })).toBe(true);
    expect(heavySlot({ recipe: recipe({ start: 85 }) })).toBe(false);
    expect(heavySlot({ recipe: recipe({ aim: "strength", start: 60 }) })).toBe(false);
    expect([speedSlot({ recipe: recipe() }), speedSlot({ recipe: heavy })]).toEqual([true, false]);
  });
});

describe("schools", () => {
  it("compare line by line, leaving out what they share", () => {
    const other = { ...school, speedReps: 3, totals: false };
    expect(compareSchools(school, other).map((row) => row.matter)).toEqual([
      "most reps of a speed set",
      "total reps against intensity",
    ]);
    expect(compareSchools(school, school)).toEqual([]);
    expect(compareSchools(school, school, true).length).toBeGreaterThan(15);
  });

  it.each([
    ["keeps speed all year", {}, {}, "speed-wave"],
    ["does no speed work", { speedWork: "none" as const }, {}, "volume-wave"],
    ["only for the sport, which asks", { speedWork: "sport-only" as const }, {}, "speed-wave"],
    [
      "only for the sport, which does not",
      { speedWork: "sport-only" as const },
      { sportNeedsSpeed: false },
      "volume-wave",
    ],
    ["a novice", {}, { trainingYears: 0.5 }, "volume-wave"],
    ["no school reason, in season", { speedWork: "none" as const }, { inSeason: true }, "none"],
  ])("the second day where the school %s", (_name, over, facts, proposed) => {
    const found = secondDay(
      { ...school, ...over },
      {
        sportNeedsSpeed: true,
        trainingYears: 3,
        speedRose: undefined,
        heavyDays: 1,
        inSeason: false,
        ...facts,
      },
    );
    expect(found.proposed).toBe(proposed);
    expect(found.reasons.length).toBeGreaterThan(0);
  });
});

describe("slots on the box", () => {
  const onBox = { liftOf: () => ({ name: "Box squat", lift: "box-squat" }) };
  const box = { purpose: "power", role: "main", styleId: "wide", contact: "weight" } as const;
  const boxed = (over: Partial<Recipe>, more: Partial<NonNullable<Slot["box"]>> = {}) => {
    const own = block(over);
    return { ...own, slots: { main: { ...(own.slots.main as Slot), box: { ...box, ...more } } } };
  };
  const found = (own: Block, over: Partial<CheckInput> = {}) =>
    checkPlan(input(own, { ...onBox, ...over })).filter((one) => one.code.startsWith("box-"));

  it("without a purpose, without a stop, and with the first week rising: each is said", () => {
    expect(found(block()).map((one) => one.code)).toContain("box-purpose");
    expect(found(boxed({})).map((one) => one.code)).toEqual(["box-stop"]);
    const rising = boxed(
      {
        steps: [
          { id: "s1", sets: 3, reps: 2, add: 0 },
          { id: "s2", sets: 3, reps: 2, add: 5 },
        ],
      },
      { smallestStopS: 0.4 },
    );
    expect(found(rising).map((one) => one.code)).toEqual(["box-first-week"]);
  });

  it("asks where the plan goes back to the share at which a cured fault returned", () => {
    // 50, 55 and 60 %: the fault came back at 55.
    const own = boxed({ start: 50 }, { smallestStopS: 0.4 });
    const returns = [{ fault: "Knees in", returnsAt: 55 }];
    const [check, ...more] = found(own, {
      athletes: [
        athlete({ returns }),
        athlete({ id: "b", name: "Brita Lauder" }),
        athlete({ id: "c", name: "Cai Penrose", returns: [{ fault: "Knees in", returnsAt: 58 }] }),
      ],
    });
    expect(more).toEqual([]);
    expect(check?.text).toMatch(/week 2 goes to 55 %\. "Knees in" came back there/);
    expect(check?.text).toContain("Ansel Quist, Cai Penrose");
    expect(check?.text).toContain("Push the floor apart");
    expect(
      found(own, { athletes: [athlete({ returns: [{ fault: "Knees in", returnsAt: 62.5 }] })] }),
    ).toEqual([]);
  });
});

describe("pairings on a day", () => {
  const complex: Complex = {
    name: "Pull and jump",
    aim: "complex",
    school: "House rules",
    purpose: "Fast hips.",
    items: [
      {
        id: "pull",
        name: "Pull",
        kind: "lift",
        pattern: "hinge",
        reps: 2,
        load: { by: "percent", percent: 60 },
        of: "deadlift",
        gapS: 20,
        output: "none",
        sides: false,
      },
      {
        id: "jump",
        name: "Jump",
        kind: "jump",
        pattern: "hinge",
        reps: 3,
        load: { by: "none" },
        gapS: 0,
        output: "height",
        sides: false,
      },
    ],
    rounds: 4,
    restS: 150,
    patternReason: "",
    direction: "hold",
    weekStep: 0,
    beforeMain: true,
  };
  const paired = (template: Block["template"], over: Partial<Recipe> = {}) =>
    block(over, { template, pairings: { p1: { dayId: "d1", complexId: "c", fromWeek: 1 } } });
  const found = (own: Block, over: Partial<CheckInput> = {}) =>
    checkPlan(input(own, { complexOf: () => complex, ...over })).filter((one) =>
      one.code.startsWith("pairing-"),
    );

  it("nothing stands against strong athletes before the heavy work", () => {
    expect(found(paired("power-first"))).toEqual([]);
  });

  it("names who is not strong enough, by the complex's own rule", () => {
    const [check] = found(paired("power-first"), {
      athletes: [athlete(), athlete({ id: "b", name: "Brita Lauder", squatPerBody: 1.1 })],
    });
    expect(check?.code).toBe("pairing-strength-first");
    expect(check?.text).toContain("Brita Lauder");
    expect(check?.text).not.toContain("Ansel Quist");
  });

  it("says that heavy comes first, and that a complex is gone", () => {
    const heavyFirst = paired("heavy-first", { ...heavy });
    expect(found(heavyFirst).map((one) => one.code)).toContain("pairing-after-heavy");
    expect(found(paired("power-first"), { complexOf: () => undefined })).toMatchObject([
      { code: "pairing-gone", key: "pairing-gone/p1" },
    ]);
  });
});

describe("numbers that a team may set", () => {
  const primer = (reps: number) => {
    const long = recipe({ aim: "speed", steps: [{ id: "s1", sets: 3, reps, add: 0 }] });
    const own = block();
    return {
      ...own,
      slots: { main: { ...(own.slots.main as Slot), section: "primer" as const, recipe: long } },
    };
  };
  const found = (own: Block, over: Partial<CheckInput> = {}) =>
    checkPlan(input(own, over)).find((one) => one.code === "primer-reps");

  it("a primer over fifteen reps tires; a team that sets twenty hears nothing of eighteen", () => {
    expect(found(primer(5))).toBeUndefined();
    expect(found(primer(6))?.text).toContain("18 reps in the primer, over 15");
    expect(found(primer(6), { coachValues: { primerMostReps: 20 } })).toBeUndefined();
  });
});

describe("what hangs on", () => {
  const eight = { steps: [{ id: "s1", sets: 9, reps: 3, add: 0 }], resistancePercent: 20 };
  const mean = (over: Partial<Recipe>) => {
    const own = recipe({ start: 50, ...eight, ...over });
    const [week] = expandRecipe(own);
    return week && meanIntensity(own, week)?.meanPercent;
  };

  it("counts by its mean over the range: a bar of 50 % with 20 % hung is 56.25 %, no 70", () => {
    // 20 % of the lockout is a quarter of the bar there, an eighth of it in the mean.
    expect(mean({ convention: "bar" })).toBeCloseTo(56.25, 9);
    // A lockout total of 50 % has a bar of 40 % and 10 % hung there: 45 % in the mean.
    expect(mean({ convention: "lockout" })).toBeCloseTo(45, 9);
    expect(mean({ convention: "mean" })).toBeCloseTo(50, 9);
  });

  it("counts in the weeks alone that hang it", () => {
    const methods = [
      { id: "w1", add: 0, method: { name: "free", factor: 1 } },
      { id: "w2", add: 0, method: { name: "banded", resisted: true, factor: 1 } },
    ];
    const own = recipe({ start: 50, ...eight, convention: "bar", weeks: methods });
    expect(expandRecipe(own).map((week) => meanIntensity(own, week)?.meanPercent)).toEqual([
      50, 56.25,
    ]);
  });

  it("is said where a room cannot hang it, by whom it concerns", () => {
    const found = checkPlan(
      input(block({ resistancePercent: 20 }), {
        notHung: [{ slotId: "main", athleteIds: ["a"], reason: "No bands here." }],
      }),
    ).find((one) => one.code.startsWith("resistance-not-hung"));
    expect(found?.text).toContain("nothing is hung for");
    expect(found?.text).toContain("No bands here.");
  });
});

describe("a wave that changes the variation", () => {
  const ends = (
    over: Partial<CheckInput> = {},
    more: Partial<Slot> = {},
    own: Partial<Recipe> = {},
  ) => {
    const whole = block({ after: "change-variation", ...own }, { weeks: 4 });
    whole.slots.main = { ...(whole.slots.main as Slot), repeat: false, ...more };
    return checkPlan(input(whole, over)).find((one) => one.code === "next-variation")?.text;
  };
  it("proposes those not used within the school's waves", () => {
    expect(ends()).toContain("Not used in 2 waves: Front squat, Box squat.");
    expect(ends({ before: [["Box squat"]] })).toContain(": Front squat.");
    expect(ends({ before: [["Box squat"], ["Front squat"]] })).toContain(": Front squat.");
    expect(ends({ variationsOf: () => ["Squat"] })).toContain("Add one, or repeat");
  });
  it("says nothing of a wave that comes again, or goes on otherwise", () => {
    expect(ends({}, { repeat: true })).toBeUndefined();
    expect(ends({}, {}, { after: "repeat" })).toBeUndefined();
  });
});

describe("guards on every basis", () => {
  const at = (over: Partial<HeaviestSet>): CheckInput["heaviest"] => ({
    main: {
      a: {
        week: 1,
        kg: 100,
        percent: 70,
        reason: undefined,
        overBestKg: undefined,
        peakOpen: false,
        ...over,
      },
    },
  });
  const found = (own: Partial<Recipe>, over: Partial<CheckInput>, code: string) =>
    checkPlan(input(block(own), over)).find((one) => one.code.startsWith(code));
  const bySpeed = { aim: "strength", basis: "speed", start: 0.4 } as const;

  it("names whoever lacks what the basis stands on, in the words of the load", () => {
    const reason = "No profile of this variant and metric. Test one, or go by percent.";
    expect(found(bySpeed, { heaviest: at({ kg: undefined, reason }) }, "no-base")).toMatchObject({
      text: `Squat: no load for anybody. ${reason}`,
      athletes: ["a"],
    });
  });
  it("refuses heavy work by a speed for whom it comes to 80 % and more", () => {
    const minor = {
      athletes: [athlete({ refused: [{ what: "heavy", lift: undefined, because: "" }] })],
    };
    expect(
      found(bySpeed, { ...minor, heaviest: at({ percent: 85 }) }, "heavy-refused")?.athletes,
    ).toEqual(["a"]);
    expect(
      found(bySpeed, { ...minor, heaviest: at({ percent: 75 }) }, "heavy-refused"),
    ).toBeUndefined();
  });
  it("holds an instruction against what a speed or bands come to", () => {
    const capped = { athletes: [athlete({ caps: [{ lift: "squat", percent: 60 }] })] };
    expect(found(bySpeed, { ...capped, heaviest: at({ percent: 66 }) }, "cap")?.text).toContain(
      "66 %",
    );
    expect(found(bySpeed, { ...capped, heaviest: at({ percent: 58 }) }, "cap")).toBeUndefined();
  });
  it("asks before a first time at a load, and names a peak that was not reached", () => {
    expect(found({}, { heaviest: at({ overBestKg: 95 }) }, "first-time")?.level).toBe("note");
    expect(
      found({ basis: "peak-power", start: 90 }, { heaviest: at({ peakOpen: true }) }, "open-peak")
        ?.text,
    ).toContain("lower bound");
    expect(found({}, { heaviest: at({}) }, "first-time")).toBeUndefined();
  });
  it("warns of a found weight that is held longer than its weeks", () => {
    const hold = (weeks: number) => ({
      basis: "found" as const,
      start: 0,
      weeks: Array.from({ length: weeks }, (_, i) => ({ id: `w${i}`, add: 0 })),
    });
    const longer = (weeks: number, over: Partial<CheckInput> = {}) =>
      checkPlan(input(block(hold(weeks), { weeks }), over)).some(
        (one) => one.code === "weight-held",
      );
    expect(longer(3)).toBe(false);
    expect(longer(4)).toBe(true);
    expect(longer(4, { coachValues: { holdWeeksMost: 4 } })).toBe(false);
  });
});

describe("schools act", () => {
  const found = (
    own: Partial<Recipe>,
    over: Partial<CheckInput>,
    code: string,
    more: Partial<Slot> = {},
  ) => {
    const whole = block(own);
    whole.slots.main = { ...(whole.slots.main as Slot), ...more };
    return checkPlan(input(whole, over)).filter((one) => one.code.startsWith(code));
  };
  const box = (over: Partial<Slot["box"]> = {}) => ({
    box: {
      purpose: "power",
      role: "main",
      styleId: "wide",
      contact: "weight",
      ...over,
    } as Slot["box"],
  });
  const onBox: Partial<CheckInput> = { liftOf: () => ({ name: "Box squat", lift: "box-squat" }) };
  const sits = (
    over: Partial<NonNullable<CheckedAthlete["box"]>> = {},
    facts: Partial<NonNullable<CheckedAthlete["box"]>["facts"]> = {},
  ) =>
    athlete({
      box: {
        facts: {
          trainingYears: 5,
          age: undefined,
          squatLimit: undefined,
          goal: undefined,
          ladderDone: true,
          freeSquatSigned: true,
          ...facts,
        },
        setAside: false,
        seat: { name: "Pin box", substitute: undefined, limitKg: undefined },
        rehearsed: true,
        ...over,
      },
    });

  it("on rest, ending, convention and share, each in the school's name", () => {
    const speed = { aim: "speed" as const, rest: { leastS: 300, mostS: 400 } };
    expect(found(speed, {}, "speed-rest")).toMatchObject([{ from: school.name, level: "note" }]);
    expect(
      found(speed, { school: { ...school, rest: { leastS: 300, mostS: 400 } } }, "speed-rest"),
    ).toEqual([]);
    const fixed = { aim: "speed" as const, stop: { lossFrom: "best" as const } };
    expect(found(fixed, { school: { ...school, ending: "loss" } }, "ending")).toHaveLength(1);
    expect(found(fixed, { school: { ...school, ending: "fixed" } }, "ending")).toEqual([]);
    const banded = { resistancePercent: 40, convention: "bar" as const };
    expect(found(banded, { school: { ...school, convention: "mean" } }, "convention")).toHaveLength(
      1,
    );
    expect(found(banded, {}, "resistance-share")[0]?.text).toContain("hangs 15 to 30 %");
    expect(found({ resistancePercent: 20 }, {}, "resistance-share")).toEqual([]);
  });

  it("on styles and letting go: what is refused names what is offered", () => {
    expect(found({}, onBox, "box-style", box({ styleId: "touch" }))[0]?.text).toContain(
      "It offers wide, sat back, or athletic stance",
    );
    expect(found({}, onBox, "box-style", box())).toEqual([]);
    expect(found({}, onBox, "box-relax", box({ contact: "relax" }))[0]).toMatchObject({
      level: "refused",
    });
    expect(found({}, onBox, "box-relax", box({ contact: "relax" }))[0]?.text).toContain(
      "Instead: sit and stay tight",
    );
    const free = { ...onBox, school: { ...school, relaxAndFire: true } };
    expect(found({}, free, "box-relax", box({ contact: "relax" }))).toEqual([]);
    const minor = athlete({ refused: [{ what: "relax", lift: undefined, because: "" }] });
    expect(
      found({}, { ...free, athletes: [minor] }, "box-relax", box({ contact: "relax" }))[0]
        ?.athletes,
    ).toEqual(["a"]);
  });

  it("on who may sit: a novice by the school's rule, a competition lifter, a note sets it aside", () => {
    const novice = sits({}, { trainingYears: 0.5, ladderDone: false, rungName: "Goblet" });
    const never = { ...onBox, athletes: [novice], school: { ...school, box: "never" as const } };
    expect(found({}, never, "box-eligible", box())[0]).toMatchObject({
      level: "refused",
      athletes: ["a"],
    });
    expect(found({}, never, "box-eligible", box())[0]?.text).toContain("Instead: the free squat.");
    const ladder = { ...onBox, athletes: [novice] };
    expect(found({}, ladder, "box-eligible", box())[0]?.text).toContain(
      "Instead: the ladder, goblet.",
    );
    expect(found({}, ladder, "box-eligible", box({ role: "accessory" }))).toEqual([]);
    const lifter = sits({}, { goal: "competition-lifting" });
    expect(found({}, { ...onBox, athletes: [lifter] }, "box-eligible", box())[0]?.level).toBe(
      "warning",
    );
    const noted = {
      ...onBox,
      athletes: [
        { ...novice, box: { ...novice.box, setAside: true } as NonNullable<CheckedAthlete["box"]> },
      ],
      school: { ...school, box: "never" as const },
    };
    expect(found({}, noted, "box-eligible", box())).toEqual([]);
  });

  it("on height: a box over the own height asks for full depth beside it, and says so", () => {
    expect(found({}, onBox, "box-high", box({ offsetCm: 8 }))).toHaveLength(1);
    expect(found({}, onBox, "box-high", box({ offsetCm: -4 }))).toEqual([]);
    const words = (offsetCm: number) =>
      methodWords(recipe(), { kind: "work", method: undefined }, box({ offsetCm }).box);
    expect(words(8)).toContain("Box 8 cm over the own height: hip power");
    expect(words(-4)).toContain("Box 4 cm under the own height: hip power");
    expect(words(0)).toHaveLength(1);
  });

  it("on seats: a substitute's limit refuses, an unset one warns, no rehearsal is said", () => {
    const bench = { name: "Bench", substitute: "Tips.", limitKg: 80 };
    const heaviest = {
      main: {
        a: {
          week: 1,
          kg: 90,
          percent: 60,
          reason: undefined,
          overBestKg: undefined,
          peakOpen: false,
        },
      },
    };
    const at = (who: CheckedAthlete) =>
      found({}, { ...onBox, heaviest, athletes: [who] }, "box-seat", box());
    expect(at(sits({ seat: bench }))).toMatchObject([
      { code: "box-seat-limit", level: "refused", athletes: ["a"] },
    ]);
    expect(at(sits({ seat: { ...bench, limitKg: 100 } }))).toEqual([]);
    expect(at(sits({ seat: { ...bench, limitKg: undefined } }))).toMatchObject([
      { code: "box-seat-unset", level: "warning" },
    ]);
    expect(at(sits({ seat: undefined, rehearsed: false })).map((one) => one.code)).toEqual([
      "box-seat-height",
      "box-seat-rehearsal",
    ]);
  });

  it("by slot and by athlete: a slot's own school judges it, an athlete's says only what differs", () => {
    const strict = { ...school, name: "Strict", rest: { leastS: 10, mostS: 20 } };
    const own = { aim: "speed" as const, rest: { leastS: 60, mostS: 90 } };
    const lenient = {
      school: { ...school, rest: { leastS: 60, mostS: 90 } },
      schools: { s: strict },
    };
    expect(found(own, lenient, "speed-rest")).toEqual([]);
    expect(found(own, lenient, "speed-rest", { schoolId: "s" })).toMatchObject([
      { from: "Strict" },
    ]);
    const two = {
      ...lenient,
      athletes: [athlete(), athlete({ id: "b", name: "Bo", schoolId: "s" })],
    };
    expect(found(own, two, "speed-rest")).toMatchObject([
      { from: "Strict", athletes: ["b"], key: "speed-rest/main/s" },
    ]);
    expect(found(own, two, "speed-rest")[0]?.text).toMatch(/^Bo, by Strict\. /);
    // What both schools say stands once.
    expect(
      found({ ...own, rest: { leastS: 500, mostS: 600 } }, { ...two, school }, "speed-rest"),
    ).toHaveLength(2);
  });

  it("and are proposed for a new slot", () => {
    const speed = recipe({
      aim: "speed",
      rest: { leastS: 300, mostS: 400 },
      resistancePercent: 40,
      convention: "bar",
    });
    const other = {
      ...school,
      convention: "mean" as const,
      ending: "loss" as const,
      loss: { speed: 12 },
      rest: { leastS: 30, mostS: 60 },
    };
    const proposed = asSchool(speed, other);
    expect(proposed.recipe).toMatchObject({
      rest: { leastS: 30, mostS: 60 },
      convention: "mean",
      resistancePercent: 30,
      stop: { lossPercent: 12 },
    });
    expect(proposed.changes).toHaveLength(4);
    expect(asSchool(proposed.recipe, other).changes).toEqual([]);
  });

  it("as kept before they had these rules, with the style out of their sentence", () => {
    const {
      boxStyles: _a,
      relaxAndFire: _b,
      rockingDrill: _c,
      breathing: _d,
      resistanceShare: _e,
      ...old
    } = school;
    expect(schoolOf({ ...old, boxStyle: "light touch, no weight on the box" })).toMatchObject({
      boxStyles: ["touch"],
      relaxAndFire: false,
      breathing: "held",
      resistanceShare: { leastPercent: 15, mostPercent: 30 },
    });
    expect(schoolOf(school)).toEqual(school);
  });
});

describe("what an answer covers", () => {
  const check = (athletes?: string[]): PlanCheck => ({
    key: "heavy-refused/main",
    code: "heavy-refused",
    level: "refused",
    text: "Heavy work is refused.",
    from: "Cautions",
    slotId: "main",
    ...(athletes ? { athletes } : {}),
  });
  const answered = (athletes?: string[]) => ({
    answered: {
      "heavy-refused/main": { reason: "Seen.", by: "C", ...(athletes ? { athletes } : {}) },
    },
  });
  const having = (over: Partial<Block>) => block({}, over);

  it("is the matter and those it named: who joins later is asked about anew", () => {
    expect(isAnswered(having(answered(["a"])), check(["a"]))).toBe(true);
    expect(isAnswered(having(answered(["a"])), check(["a", "b"]))).toBe(false);
    // Answers from before names were kept cover nobody by name.
    expect(isAnswered(having(answered()), check(["a"]))).toBe(false);
    expect(isAnswered(having(answered()), check())).toBe(true);
  });

  it("leaves out whom an open refusal names, and only them; one of the slot itself stops it", () => {
    const found = refusedInSlot(having(answered(["a"])), [check(["a", "b"])], "main");
    expect([...found.leftOut.keys()]).toEqual(["b"]);
    expect(found.stops).toEqual([]);
    expect(refusedInSlot(having({}), [check()], "main").stops).toHaveLength(1);
    expect(refusedInSlot(having({}), [check()], "other").stops).toHaveLength(0);
  });
});
