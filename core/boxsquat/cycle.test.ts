import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addDays, type LocalDate } from "../units/time";
import { BOX_FAULTS, faultHistory, returnsWithin } from "./box-faults";
import { boxLoad } from "./box-load";
import { type DepthSet, depthLedger } from "./depth";
import {
  findSpeedWeight,
  gate,
  holding,
  ladderStanding,
  passWords,
  RUNGS,
  type RungMark,
  type WeightStep,
} from "./ladder";
import { BOX_STYLES, type BoxStyle, type EligibilityInput, eligibility, styleById } from "./styles";

const mark = (rungId: string, outcome: RungMark["outcome"] = "passed"): RungMark => ({
  rungId,
  outcome,
  date: "2026-03-02",
  by: "coach",
  note: "",
});

describe("the teaching ladder", () => {
  it("a pass mark is in words, with the coach's clean reps where they are set", () => {
    const [chair] = RUNGS;
    if (!chair) throw new Error("The ladder has rungs.");
    expect(passWords(chair, undefined)).toBe(chair.pass);
    expect(passWords(chair, 5)).toMatch(/no rocking\. 5 clean reps in a row\.$/);
  });

  it("goes rung by rung, and back", () => {
    expect(ladderStanding([]).rung?.id).toBe("chair");
    expect(ladderStanding([mark("chair"), mark("goblet")]).rung?.id).toBe("two-dumbbells");
    expect(ladderStanding([mark("empty-bar")]).passed).toHaveLength(5);
    const back = ladderStanding([mark("empty-bar"), mark("goblet", "back")]);
    expect(back.rung?.id).toBe("goblet");
    expect(back.backs).toBe(1);
    expect(ladderStanding(RUNGS.map((one) => mark(one.id)))).toMatchObject({
      ready: true,
      rung: undefined,
    });
    expect(ladderStanding([mark("no-such-rung")]).passed).toEqual([]);
  });

  it("never stands above what was passed since the last way back", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            i: fc.integer({ min: 0, max: RUNGS.length - 1 }),
            back: fc.boolean(),
          }),
          { maxLength: 20 },
        ),
        (steps) => {
          const found = ladderStanding(
            steps.map(({ i, back }) => mark(RUNGS[i]?.id ?? "", back ? "back" : "passed")),
          );
          const last = steps[steps.length - 1];
          if (last?.back) expect(found.passed.length).toBeLessThanOrEqual(last.i);
          if (last && !last.back) expect(found.passed.length).toBeGreaterThan(last.i);
          expect(found.backs).toBe(steps.filter((one) => one.back).length);
        },
      ),
    );
  });
});

describe("the gate of a group", () => {
  const group = (total: number, ready: number) =>
    Array.from({ length: total }, (_, i) => ({ name: `A${i}`, ready: i < ready }));
  it.each([
    [5, 4],
    [6, 5],
    [7, 6],
    [10, 8],
    [11, 9],
    [28, 23],
    [1, 1],
  ])("of %i athletes %i have to be ready: 80 %%, rounded up", (total, needed) => {
    const at = (ready: number) =>
      gate({ athletes: group(total, ready), startedOn: "2026-03-02", today: "2026-03-16" });
    expect(at(needed).needed).toBe(needed);
    expect(at(needed).open).toBe(true);
    expect(at(needed - 1).open).toBe(false);
    expect(at(needed - 1).missing).toHaveLength(total - needed + 1);
  });
  it("waits two weeks, to the day", () => {
    const at = (today: LocalDate) =>
      gate({ athletes: group(5, 5), startedOn: "2026-03-02", today });
    expect(at("2026-03-15")).toMatchObject({ open: false, why: "1 more days must pass." });
    expect(at("2026-03-16").open).toBe(true);
  });
  it("opens earlier where a coach decides so, and says so", () => {
    const early = gate({
      athletes: group(5, 2),
      startedOn: "2026-03-02",
      today: "2026-03-03",
      decidedEarly: true,
    });
    expect(early).toMatchObject({ open: true, early: true, why: "A coach decided earlier." });
    expect(gate({ athletes: [], startedOn: "2026-03-02", today: "2026-04-01" }).open).toBe(false);
  });
  it("asks for the least whole number that is 80 % (property)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), (total) => {
        const { needed } = gate({
          athletes: group(total, 0),
          startedOn: "2026-03-02",
          today: "2026-03-02",
        });
        expect(10 * needed).toBeGreaterThanOrEqual(8 * total);
        expect(10 * (needed - 1)).toBeLessThan(8 * total);
      }),
    );
  });
});

describe("the speed weight", () => {
  const step = (loadKg: number, speedMps: number | undefined, over: Partial<WeightStep> = {}) => ({
    loadKg,
    speedMps,
    eye: undefined,
    pushed: true,
    ...over,
  });
  it("is the last load before speed or push went", () => {
    const steps = [step(40, 1), step(45, 0.98), step(50, 0.93), step(55, 0.85)];
    // A tenth under the fastest double is no end: only the floor, the wanted speed, eye and push are.
    expect(findSpeedWeight(steps, undefined)).toEqual({ kind: "go-on", loadKg: 55 });
    expect(findSpeedWeight(steps, { mps: 0.95, of: "floor" })).toMatchObject({
      loadKg: 45,
      endedBy: "under the floor of 0.95 m/s",
    });
    expect(findSpeedWeight(steps, { mps: 0.9, of: "wanted" })).toMatchObject({
      loadKg: 50,
      endedBy: "under the wanted speed of 0.90 m/s",
    });
    expect(
      findSpeedWeight([step(40, undefined), step(45, undefined, { eye: "slow" })], undefined),
    ).toMatchObject({ loadKg: 40, endedBy: "slow to the eye" });
    expect(findSpeedWeight([step(40, 1), step(45, 1, { pushed: false })], undefined)).toMatchObject(
      { loadKg: 40 },
    );
    expect(findSpeedWeight([step(60, 0.3)], { mps: 0.5, of: "floor" })).toEqual({
      kind: "too-heavy",
    });
    expect(findSpeedWeight([], undefined)).toEqual({ kind: "go-on", loadKg: undefined });
  });
  it("is held one to three weeks, then due", () => {
    expect(holding("2026-03-02", "2026-03-08")).toMatchObject({ week: 1, due: false });
    expect(holding("2026-03-02", "2026-03-22")).toMatchObject({ week: 3, due: false });
    expect(holding("2026-03-02", "2026-03-23")).toMatchObject({ week: 4, due: true });
  });
});

describe("who may do a style", () => {
  const wide = styleById("wide") as BoxStyle;
  const rock = styleById("rock") as BoxStyle;
  const athletic = styleById("athletic") as BoxStyle;
  const grown: EligibilityInput["athlete"] = {
    trainingYears: 4,
    age: 25,
    squatLimit: undefined,
    goal: "sport",
    ladderDone: true,
    freeSquatSigned: true,
  };
  const of = (
    over: Partial<EligibilityInput>,
    athlete: Partial<EligibilityInput["athlete"]> = {},
  ) =>
    eligibility({
      style: wide,
      contact: "weight",
      athlete: { ...grown, ...athlete },
      refusals: [],
      beginners: "ladder",
      rockingAllowed: false,
      relaxAllowed: false,
      ...over,
    });

  it("allows the shipped styles to a grown lifter, rock back aside", () => {
    for (const style of BOX_STYLES.filter((one) => !one.rocks))
      expect(of({ style, contact: style.contact }).verdict).toBe("allowed");
    expect(of({ style: rock })).toMatchObject({ verdict: "refused" });
    expect(of({ style: rock }).reasons.join(" ")).toMatch(/No weight on the spine/);
    // As a hip drill without a bar, never as a lift.
    expect(of({ style: rock, rockingAllowed: true })).toMatchObject({
      verdict: "accessory",
      reasons: ["Only as a hip drill without a bar."],
    });
    // Wide and sat back is no main lift of one who is judged in another stance.
    expect(of({}, { goal: "competition-lifting" }).verdict).toBe("accessory");
  });
  it("refuses rocking and relaxing to those whose limit or age does, also where they are on", () => {
    const refusals = [
      { guarded: "rocking" as const, because: "No loaded spine." },
      { guarded: "relax-and-fire" as const, because: "No loaded spine." },
    ];
    expect(of({ style: rock, rockingAllowed: true, refusals }).reasons).toEqual([
      "Rocking: No loaded spine.",
    ]);
    expect(of({ contact: "relax", relaxAllowed: true, refusals }).verdict).toBe("refused");
    expect(of({ contact: "relax" }).verdict).toBe("refused");
    expect(of({ contact: "relax", relaxAllowed: true }).verdict).toBe("allowed");
  });
  it.each([
    ["ladder", { trainingYears: 0.5, ladderDone: false }, "accessory"],
    ["ladder", { trainingYears: 0.5, ladderDone: true }, "allowed"],
    ["after-free", { trainingYears: 0.5, freeSquatSigned: false }, "refused"],
    ["after-free", { trainingYears: 0.5, freeSquatSigned: true }, "allowed"],
    ["never", { trainingYears: 0.5 }, "refused"],
    ["never", { trainingYears: 3 }, "allowed"],
  ] as const)("keeps to the school's rule for novices: %s %o", (beginners, athlete, verdict) => {
    expect(of({ beginners }, athlete).verdict).toBe(verdict);
  });
  it("makes the box a way round for sore knees and older lifters", () => {
    expect(of({ style: athletic }, { squatLimit: "Squat ≤ 60 %" }).verdict).toBe("accessory");
    expect(of({}, { squatLimit: "Squat ≤ 60 %" }).verdict).toBe("allowed");
    expect(of({ style: athletic }, { age: 63 }).verdict).toBe("accessory");
    expect(of({ style: athletic }, { goal: "competition-lifting" }).verdict).toBe("accessory");
  });
});

describe("faults", () => {
  it("has every one with cause, cue, drill and action, each name once", () => {
    expect(BOX_FAULTS.length).toBeGreaterThanOrEqual(18);
    expect(new Set(BOX_FAULTS.map((one) => one.seen)).size).toBe(BOX_FAULTS.length);
    for (const one of BOX_FAULTS)
      expect(one.cause && one.cue && one.drill && one.action).toBeTruthy();
  });
  it("is cured after three training days without it; a return is kept with its share", () => {
    const seen = (date: LocalDate, percent: number) => ({ fault: "Knees in", date, percent });
    const days: LocalDate[] = [
      "2026-03-02",
      "2026-03-04",
      "2026-03-06",
      "2026-03-09",
      "2026-03-11",
    ];
    const first = faultHistory([seen("2026-03-02", 60)], days.slice(0, 3));
    expect(first[0]).toMatchObject({ cured: false, returnsAt: undefined, times: 1 });
    expect(faultHistory([seen("2026-03-02", 60)], days.slice(0, 4))[0]?.cured).toBe(true);
    const back = faultHistory([seen("2026-03-02", 60), seen("2026-03-11", 82)], days);
    expect(back[0]).toMatchObject({ cured: false, returnsAt: 82, times: 2 });
    // Seen again before it was cured: no return.
    expect(
      faultHistory([seen("2026-03-02", 60), seen("2026-03-06", 70)], days)[0]?.returnsAt,
    ).toBeUndefined();
    expect(returnsWithin(back, 81)).toEqual([]);
    expect(returnsWithin(back, 82)).toHaveLength(1);
  });
});

describe("the depth ledger", () => {
  const sets = (high: number, full: number): DepthSet[] => [
    { date: "2026-03-10", sets: high, depth: "high-box" },
    { date: "2026-03-12", sets: full, depth: "full" },
    { date: "2026-01-01", sets: 50, depth: "full" },
  ];
  it("asks for half to full depth beside a high box, over three weeks", () => {
    expect(depthLedger(sets(8, 8), "2026-03-14")).toMatchObject({ enough: true, fullPercent: 50 });
    expect(depthLedger(sets(8, 7), "2026-03-14")).toMatchObject({
      enough: false,
      full: 7,
      high: 8,
    });
    expect(depthLedger(sets(8, 7), "2026-03-14").words).toContain("1 more");
    expect(depthLedger(sets(0, 3), "2026-03-14").enough).toBe(true);
    expect(depthLedger([], "2026-03-14").fullPercent).toBeUndefined();
    expect(depthLedger(sets(8, 8), "2026-04-20")).toMatchObject({ full: 0, high: 0, enough: true });
  });
  it("names just as many sets as are missing (property)", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 40 }),
        (high, full) => {
          const found = depthLedger(sets(high, full), "2026-03-14");
          if (found.enough) return;
          const more = Number(/(\d+) more/.exec(found.words)?.[1]);
          expect(depthLedger(sets(high, full + more), "2026-03-14").enough).toBe(true);
          expect(depthLedger(sets(high, full + more - 1), "2026-03-14").enough).toBe(false);
        },
      ),
    );
    expect(addDays("2026-03-14", -21)).toBe("2026-02-21");
  });
});

describe("box from free", () => {
  it("prints its base: 60 to 70 % of 150 is 90 to 105; the own ratio takes its place", () => {
    const found = boxLoad({
      baseKg: 150,
      base: "working-max",
      styleName: "wide",
      learnt: undefined,
    });
    if (!found.ok) throw new Error("A load was to be found.");
    expect([found.leastKg, found.mostKg]).toEqual([90, 105]);
    expect(found.working.lines[0]?.label).toContain("free squat working max");
    const own = boxLoad({
      baseKg: 150,
      base: "working-weight",
      styleName: "wide",
      learnt: { ratio: 0.72, n: 3 },
    });
    expect(own).toMatchObject({ own: true });
    if (!own.ok) throw new Error("A load was to be found.");
    expect(own.leastKg).toBeCloseTo(108, 9);
    expect(own.mostKg).toBe(own.leastKg);
  });
});
