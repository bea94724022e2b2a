import { describe, expect, it } from "vitest";
import { addDays } from "../units/time";
import { readIn } from "../units/written";
import { rankCalls } from "./calls";
import type { CycleWeek } from "./cycle-week";
import { equalSpeed, type MeasuredSet, usualSlope } from "./equal-speed";
import { speedSets, WORLD_START } from "./fixtures/speed-world";
import { whatBecame } from "./outcome";
import { setFade } from "./set-fade";
import { type AthleteWaveInput, reviewAthleteWave, waveRule } from "./wave";

const RULE = waveRule({ stallExposures: 6, baseStepPercent: 2.5 });

const week = (over: Partial<CycleWeek>): CycleWeek => ({
  week: 1,
  date: WORLD_START,
  kind: "work",
  heightCm: undefined,
  style: undefined,
  present: true,
  plannedSets: 9,
  doneSets: 9,
  cutSets: 0,
  reps: 27,
  loadKg: 60,
  percent: 55,
  speedMps: 0.8,
  speedSets: 9,
  fadeMps: 0.02,
  onSpeed: 9,
  judged: 9,
  meanStopS: undefined,
  bounces: undefined,
  meanContactMps: undefined,
  meanToPeakS: undefined,
  faults: [],
  ...over,
});

const speedOf = (perWaveMps: number, weeks = 12) => {
  const { sets, maxKg } = speedSets({ seed: 3, weeks, perWaveMps, daySdMps: 0.02 });
  const slope = usualSlope(maxKg);
  return equalSpeed(sets, { slope: slope ?? { slopeMpsPerKg: -0.01, sdMpsPerKg: 0.01 } });
};
const sets = (lostPercent: number) =>
  Array.from({ length: 9 }, (_, before) => ({
    before,
    bestMps: 0.8 * (1 - (lostPercent / 100) * (before / 8)),
  }));

const asked = (over: Partial<AthleteWaveInput>): AthleteWaveInput => ({
  athleteId: "a",
  planId: "p",
  slotId: "main",
  variantId: "v",
  weeks: [week({}), week({ week: 2 }), week({ week: 3 })],
  speed: speedOf(0.08),
  exposures: 12,
  fade: setFade(sets(3), RULE.fadePercent),
  lastSets: [],
  returns: [],
  run: 1,
  over: true,
  max: { kg: 100, variantId: "v", ageDays: 20, stale: false },
  profileAgeDays: 20,
  basis: "percent",
  held: 0,
  ...over,
});
const kinds = (over: Partial<AthleteWaveInput>) =>
  reviewAthleteWave(asked(over), RULE).calls.map((call) => call.kind);

describe("the rule of a wave", () => {
  it("raises by the coach's step where speed rose and few sets were cut", () => {
    const { calls, rule } = reviewAthleteWave(asked({}), RULE);
    expect(calls.map((call) => call.kind)).toEqual(["raise"]);
    expect(calls[0]?.action).toEqual({ type: "base", variantId: "v", fromKg: 100, toKg: 102.5 });
    expect(readIn(calls[0]?.proposal ?? "", "lb")).toBe("Raise the base from 220.5 lb to 226 lb");
    expect(rule[0]).toMatchObject({ holds: "yes" });
    // Without a step the coach says by how much.
    const unset = reviewAthleteWave(asked({}), waveRule({}));
    expect(readIn(unset.calls[0]?.proposal ?? "", "kg")).toContain("by how much, you say");
    expect(unset.rule.find((line) => line.label.startsWith("Stall"))?.holds).toBe("not set");
  });

  it.each([
    ["while the wave runs", { over: false }, []],
    ["with many sets cut", { weeks: [week({ cutSets: 3 })] }, []],
    ["where the sets fade: more rest first", { fade: setFade(sets(20), 8) }, ["rest"]],
    ["where speed leads: the load follows by itself", { basis: "speed" as const }, []],
    ["with a pain that no coach has cleared", { held: 1 }, ["hold"]],
    ["without a max", { max: undefined }, []],
  ])("does not raise %s", (_, over, wanted) => {
    expect(kinds(over)).toEqual(wanted);
  });

  it("lowers where speed fell, and asks for a test where the max is stale or missing", () => {
    const speed = speedOf(-0.08);
    expect(kinds({ speed })).toEqual(["lower"]);
    expect(kinds({ speed, over: false })).toEqual([]);
    const stale = { kg: 100, variantId: "v", ageDays: 71, stale: true };
    expect(kinds({ speed, max: stale })).toEqual(["test"]);
    expect(kinds({ speed, max: undefined })).toEqual(["test"]);
  });

  it("calls a stall by the coach's exposures alone, and names faults that are back", () => {
    const speed = speedOf(-0.01, 18);
    expect(kinds({ speed })).toEqual(["variation"]);
    expect(kinds({ speed, exposures: 5 })).toEqual([]);
    const returns = [
      { fault: "Knees in", on: WORLD_START, seen: 3, sets: 8, cleanDays: 4, percent: 60 },
    ];
    expect(kinds({ returns, over: false })).toEqual(["fault"]);
  });

  it("says unclear, and how many more days would tell, where one wave is all there is", () => {
    const one = reviewAthleteWave(asked({ speed: speedOf(0, 3), exposures: 3 }), RULE);
    expect(one.calls).toEqual([]);
    expect(readIn(one.standing, "kg")).toMatch(/^Unclear; about \d+ more sessions would tell$/);
    const none = reviewAthleteWave(
      asked({ speed: { ok: false, reason: "one-day" }, weeks: [], fade: setFade([], 8) }),
      RULE,
    );
    expect(readIn(none.standing, "kg")).toContain("Not comparable");
    expect(none.rule.filter((line) => line.holds === "unknown").length).toBeGreaterThan(2);
  });

  it("ranks what guards before what moves loads, and the surer first", () => {
    const calls = [
      { kind: "raise" as const, sure: 0.96, about: "1" },
      { kind: "profile" as const, sure: 1, about: "2" },
      { kind: "raise" as const, sure: 0.99, about: "3" },
      { kind: "hold" as const, sure: 1, about: "4" },
    ];
    expect(rankCalls(calls).map((call) => call.about)).toEqual(["4", "3", "1", "2"]);
  });
});

describe("what became of a call", () => {
  const level = { loadKg: 60, speedMps: 0.8, sdMps: 0.01 };
  const days = (speeds: number[]): MeasuredSet[] =>
    speeds.flatMap((bestMps, i) =>
      [0, 1, 2].map((before) => ({
        date: addDays(WORLD_START, 7 * i),
        loadKg: 60,
        before,
        bestMps,
      })),
    );
  const known = (speeds: number[]) =>
    equalSpeed(days(speeds), {
      slope: { slopeMpsPerKg: -0.012, sdMpsPerKg: 0.002 },
      daySdMps: 0.03,
    });
  const decided = addDays(WORLD_START, 10);

  it("is told from the days since, against what was so then, and too early before any", () => {
    const rose = whatBecame(level, decided, known([0.8, 0.8, 0.95, 0.96, 0.95]));
    expect(rose).toMatchObject({ known: true, days: 3, verdict: "rose" });
    const same = whatBecame(level, decided, known([0.8, 0.8, 0.81, 0.8, 0.8]));
    expect(same).toMatchObject({ known: true, verdict: "no-clear-change" });
    expect(whatBecame(level, decided, known([0.8, 0.8, 0.6, 0.62, 0.61]))).toMatchObject({
      verdict: "fell",
    });
    expect(whatBecame(level, addDays(WORLD_START, 40), known([0.8, 0.8]))).toEqual({
      known: false,
      why: "too-early",
    });
    expect(whatBecame(undefined, decided, known([0.8, 0.8]))).toMatchObject({
      why: "not-comparable",
    });
  });

  it("is carried to the load that the decision stood on", () => {
    const lighter = whatBecame({ ...level, loadKg: 70 }, decided, known([0.8, 0.8, 0.8, 0.8]));
    // At 70 kg the same days would have been slower.
    expect(lighter).toMatchObject({ known: true, verdict: "fell" });
  });
});
