import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { LoadingGear } from "../barload/loading-gear";
import { analyseProfile, type ProfileRep, type ProfileWarning } from "./analysis";
import { compareProfiles, weakerSide } from "./compare";
import { forcePower } from "./power";
import { testSteps } from "./steps";
import { velocityThreshold } from "./threshold";

const reps = (points: Array<[number, number]>): ProfileRep[] =>
  points.map(([loadKg, velocityMps], i) => ({ id: String(i), loadKg, velocityMps }));
const TEST = reps([
  [40, 1.21],
  [60, 0.99],
  [80, 0.78],
  [100, 0.55],
  [110, 0.46],
]);
const threshold = (mps: number) =>
  velocityThreshold({ lift: "squat", metric: "MCV", teamMps: mps, singles: [] });

function analysed(list: ProfileRep[], mvt: number | null = 0.3) {
  const result = analyseProfile({
    reps: list,
    metric: "MCV",
    threshold: mvt === null ? undefined : threshold(mvt),
  });
  if (!result.ok) throw new Error(result.reason);
  return result;
}

describe("a profile test", () => {
  it("equals the reference with both intervals, the planning one wider", () => {
    const { oneRepMax, spanKg, line } = analysed(TEST);
    expect(spanKg).toBe(70);
    expect(line.l0Kg).toBeCloseTo(151.897, 3);
    expect(oneRepMax?.kg).toBeCloseTo(124.116, 3);
    const { lineOnly, planning } = oneRepMax ?? {};
    if (!lineOnly?.ok || !planning?.ok) throw new Error("no interval");
    expect([lineOnly.low, lineOnly.high].map((kg) => kg.toFixed(2))).toEqual(["122.05", "126.34"]);
    expect(planning.low).toBeLessThan(lineOnly.low);
    expect(planning.high).toBeGreaterThan(lineOnly.high);
  });

  it("gives as planning ends the loads where line and threshold can just be told apart", () => {
    const { oneRepMax, fit } = analysed(TEST);
    if (!oneRepMax?.planning.ok) throw new Error("no interval");
    // Student's t of 0.975 on 3 degrees, from tables.
    const t = 3.182446305284263;
    for (const kg of [oneRepMax.planning.low, oneRepMax.planning.high]) {
      const see = fit.see ?? 0;
      const variance = see ** 2 * (1 + 1 / fit.n + (kg - fit.meanX) ** 2 / fit.sxx) + 0.03 ** 2;
      const distance = Math.abs(fit.intercept + fit.slope * kg - 0.3);
      expect(distance / Math.sqrt(variance)).toBeCloseTo(t, 8);
    }
  });

  it("takes the fastest rep of a load, and leaves out what a coach excluded", () => {
    const slow = { id: "s", loadKg: 80, velocityMps: 0.6 };
    const wild = { id: "w", loadKg: 100, velocityMps: 0.9, excluded: "bar bounced" };
    expect(analysed([...TEST, slow, wild]).line).toEqual(analysed(TEST).line);
    expect(analysed([...TEST, { ...wild, excluded: undefined }]).line.l0Kg).not.toBe(
      analysed(TEST).line.l0Kg,
    );
  });

  it("knows no 1RM without a threshold of the same metric", () => {
    expect(analysed(TEST, null).oneRepMax).toBeUndefined();
    const peak = { lift: "squat" as const, metric: "PV" as const, teamMps: undefined };
    expect(velocityThreshold({ ...peak, singles: [] })).toBeUndefined();
  });

  it.each<[ProfileWarning, Array<[number, number]>]>([
    [
      "two-loads",
      [
        [40, 1.2],
        [100, 0.5],
      ],
    ],
    [
      "short-span",
      [
        [80, 0.9],
        [90, 0.8],
        [95, 0.74],
      ],
    ],
    [
      "slow-start",
      [
        [80, 0.75],
        [100, 0.55],
        [120, 0.35],
      ],
    ],
    [
      "extrapolating",
      [
        [40, 1.2],
        [60, 1.0],
        [80, 0.8],
      ],
    ],
    [
      "poor-fit",
      [
        [40, 1.2],
        [60, 0.8],
        [80, 0.78],
        [100, 0.3],
      ],
    ],
    [
      "lighter-slower",
      [
        [40, 1.0],
        [60, 1.1],
        [100, 0.5],
        [120, 0.32],
      ],
    ],
  ])("warns of %s", (code, points) => {
    expect(analysed(reps(points)).warnings.map((one) => one.code)).toContain(code);
  });

  it("has nothing to warn of in a good test", () => {
    expect(analysed(TEST).warnings).toEqual([]);
  });

  it.each([
    ["no-reps", []],
    [
      "one-load",
      [
        [60, 0.9],
        [60, 0.95],
      ],
    ],
    [
      "not-falling",
      [
        [60, 0.7],
        [80, 0.9],
      ],
    ],
    [
      "not-finite",
      [
        [60, 0.7],
        [80, Number.POSITIVE_INFINITY],
      ],
    ],
  ] as Array<[string, Array<[number, number]>]>)("refuses as %s", (reason, points) => {
    const list = reps(points);
    expect(analyseProfile({ reps: list, metric: "MCV", threshold: undefined })).toEqual({
      ok: false,
      reason,
    });
  });
});

describe("velocity threshold", () => {
  const single = (velocityMps: number, metric: "MCV" | "PV" = "MCV") => ({
    loadKg: 100,
    velocityMps,
    metric,
    date: "2026-03-01" as const,
  });
  const of = (...singles: ReturnType<typeof single>[]) =>
    velocityThreshold({ lift: "bench", metric: "MCV", teamMps: undefined, singles });

  it("moves from the group's towards the athlete's own by their number, and keeps both", () => {
    expect(of()).toMatchObject({ mps: 0.17, singles: 0, ownMps: undefined });
    expect(of(single(0.11))).toMatchObject({ mps: 0.14, defaultMps: 0.17, ownMps: 0.11 });
    expect(of(single(0.11), single(0.11), single(0.11))?.mps).toBeCloseTo(0.125, 12);
    expect(of(single(0.4, "PV"))?.mps).toBe(0.17);
  });
});

describe("force and power over load", () => {
  const { line } = analysed(TEST);
  it("estimates peak power at (L0 − c)/2, the vertex of the estimate", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 80, noNaN: true }), (addedKg) => {
        const { peakPower, peakForce } = forcePower({ used: TEST, line, addedKg, systemName: "" });
        expect(peakPower.loadKg).toBeCloseTo((line.l0Kg - addedKg) / 2, 9);
        const power = (kg: number) =>
          (kg + addedKg) * (line.interceptMps + line.slopeMpsPerKg * kg);
        expect(power(peakPower.loadKg)).toBeGreaterThan(power(peakPower.loadKg + 1));
        expect(power(peakPower.loadKg)).toBeGreaterThan(power(peakPower.loadKg - 1));
        expect(peakPower.measured).toBe(false);
        expect(peakForce).toBeUndefined();
      }),
    );
  });

  it("names the tested point of peak force, and says where it was not reached", () => {
    const withForce = (forces: number[]) =>
      TEST.map((rep, i) => ({ ...rep, forceN: forces[i] as number, powerW: forces[i] as number }));
    const at = (forces: number[]) =>
      forcePower({ used: withForce(forces), line, addedKg: 0, systemName: "bar only" });
    expect(at([500, 700, 900, 880, 870]).peakForce).toMatchObject({ loadKg: 80, reached: true });
    const rising = at([500, 700, 900, 950, 1000]);
    expect(rising.peakForce).toMatchObject({ loadKg: 110, velocityMps: 0.46, reached: false });
    // 880 of 900 N is 2.2 % less, of no max where none is given.
    expect(at([500, 700, 900, 880, 880]).peakForce).toMatchObject({ percentOfMax: undefined });
    expect(at([500, 700, 900, 880, 880]).peakForce?.fallAfterPercent).toBeCloseTo(2.222, 3);
    expect(rising.peakForce?.fallAfterPercent).toBeUndefined();
    expect(rising.peakForce?.working.lines.at(-1)?.label).toContain("Not reached");
  });
});

describe("two profiles", () => {
  const dated = (list: ProfileRep[], over = {}) => ({
    testedOn: "2026-01-01" as const,
    variantId: "squat",
    metric: "MCV" as const,
    source: "sensor",
    analysis: analysed(list),
    ...over,
  });
  const moved = (light: number, heavy: number) =>
    dated(
      TEST.map((rep) => ({
        ...rep,
        velocityMps: rep.velocityMps + light + ((heavy - light) * (rep.loadKg - 40)) / 70,
      })),
    );

  it.each([
    [0, 0, "kept", "kept", "No shift"],
    [0, 0.12, "up", "kept", "Force up with speed kept"],
    [-0.12, 0.12, "up", "down", "Force up with speed lost"],
    [0.12, 0, "kept", "up", "Speed up with force kept"],
    [0.12, 0.12, "up", "up", "whole window moved up"],
    [-0.12, -0.12, "down", "down", "whole window moved down"],
  ])("light %s, heavy %s: force %s, speed %s", (light, heavy, force, speed, words) => {
    const found = compareProfiles(dated(TEST), moved(light, heavy));
    if (!found.ok) throw new Error(found.reason);
    expect(found).toMatchObject({ force, speed });
    expect(found.words).toContain(words);
    expect(found.atLoads[0]?.shift.estimate).toBeCloseTo(light, 9);
    expect(found.atLoads[2]?.shift.estimate).toBeCloseTo(heavy, 9);
  });

  it("does not call day-to-day noise a change: about one in ten at 90 %", () => {
    // ± 0.03·√2 is the spread of a difference of two tests; 1.645 of them is the border.
    const border = 1.645 * 0.03 * Math.SQRT2;
    const at = (shift: number) => compareProfiles(dated(TEST), moved(shift, shift));
    expect(at(border - 0.004)).toMatchObject({ force: "kept" });
    expect(at(border + 0.01)).toMatchObject({ force: "up" });
  });

  it.each([
    ["other-variant", dated(TEST, { variantId: "bench" })],
    ["other-metric", dated(TEST, { metric: "PV" })],
    ["other-source", dated(TEST, { source: "video" })],
    [
      "no-common-load",
      dated(
        reps([
          [120, 0.6],
          [130, 0.5],
          [140, 0.42],
        ]),
      ),
    ],
    [
      "no-interval",
      dated(
        reps([
          [40, 1.2],
          [100, 0.5],
        ]),
      ),
    ],
  ])("are not compared: %s", (reason, other) => {
    expect(compareProfiles(dated(TEST), other)).toEqual({ ok: false, reason });
  });

  it("finds the weaker side against the squad only beyond one standard deviation", () => {
    const squad = [1, 2, 3, 4, 5].map((i) => ({ v0Mps: 1.3 + i / 20, heavyKg: 80 + 10 * i }));
    expect(weakerSide({ v0Mps: 1.6, heavyKg: 90 }, squad)?.side).toBe("force");
    expect(weakerSide({ v0Mps: 1.35, heavyKg: 130 }, squad)?.side).toBe("speed");
    expect(weakerSide({ v0Mps: 1.45, heavyKg: 110 }, squad)?.side).toBe("neither");
    expect(weakerSide({ v0Mps: 1.45, heavyKg: 110 }, squad.slice(1))).toBeUndefined();
  });
});

describe("suggested steps", () => {
  const kg = (amount: number) => ({ amount, unit: "kg" as const });
  const gear: LoadingGear = {
    bar: { id: "b", name: "Bar", mass: kg(20), rated: kg(300), sleeveMm: 415 },
    collar: kg(0),
    plates: [25, 20, 15, 10, 5, 2.5, 1.25].map((amount) => ({
      mass: kg(amount),
      pairs: 2,
      thicknessMm: 20,
    })),
  };
  const steps = (maxKg: number | undefined, bestKg?: number) =>
    testSteps({ maxKg, bestKg, bodyMassKg: 80, gear, rounding: "nearest" });

  it("climb through what the rack can build and mark loads never lifted", () => {
    expect(steps(140, 100).map((step) => step.loadKg)).toEqual([42.5, 62.5, 85, 105, 122.5]);
    expect(steps(140, 100).map((step) => step.firstTime)).toEqual([
      false,
      false,
      false,
      true,
      true,
    ]);
    expect(steps(30).map((step) => step.loadKg)).toEqual([20, 22.5, 25]);
  });

  it("ramp from the empty bar without a max", () => {
    expect(steps(undefined).map((step) => step.loadKg)).toEqual([20, 32.5, 45, 55, 67.5]);
    expect(steps(undefined).every((step) => step.percent === undefined)).toBe(true);
  });
});
