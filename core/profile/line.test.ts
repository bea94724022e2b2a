import fc from "fast-check";
import { describe, expect, it, test } from "vitest";
import { fastestByLoad, type LoadVelocityLine, loadAt, loadVelocityLine, velocityAt } from "./line";
import { GROUP_CURVES, groupPercent, groupVelocity, targetSpeed } from "./target-speed";

const TEST = [
  { loadKg: 40, velocityMps: 1.21 },
  { loadKg: 60, velocityMps: 0.99 },
  { loadKg: 80, velocityMps: 0.78 },
  { loadKg: 100, velocityMps: 0.55 },
  { loadKg: 110, velocityMps: 0.46 },
];

function line(): LoadVelocityLine {
  const fit = loadVelocityLine(TEST, "MCV");
  if (!fit.ok) throw new Error(fit.reason);
  return fit;
}

describe("load–velocity line", () => {
  it("equals the reference", () => {
    const fit = line();
    expect(fit.v0Mps).toBeCloseTo(1.6403, 4);
    expect(fit.l0Kg).toBeCloseTo(151.897, 3);
    expect(fit.rSquared).toBeCloseTo(0.999511, 6);
    expect(fit.seeMps).toBeCloseTo(0.007899, 6);
    expect(loadAt(fit, 0.3)).toBeCloseTo(124.116, 3);
    expect(fit.n).toBe(5);
  });

  it("takes the fastest rep at each load", () => {
    const reps = [...TEST, { loadKg: 60, velocityMps: 0.91 }, { loadKg: 60, velocityMps: 1.0 }];
    expect(fastestByLoad(reps)[1]).toEqual({ loadKg: 60, velocityMps: 1.0 });
    expect(fastestByLoad(reps)).toHaveLength(5);
  });

  test.each([
    [[], "too-few"],
    [[TEST[0]], "one-load"],
    [
      [
        { loadKg: 40, velocityMps: 1 },
        { loadKg: 40, velocityMps: 0.9 },
      ],
      "one-load",
    ],
    [
      [
        { loadKg: 40, velocityMps: 0.5 },
        { loadKg: 60, velocityMps: 0.8 },
      ],
      "not-falling",
    ],
    [
      [
        { loadKg: 40, velocityMps: 0.5 },
        { loadKg: 60, velocityMps: 0.5 },
      ],
      "not-falling",
    ],
    [
      [
        { loadKg: 40, velocityMps: Number.POSITIVE_INFINITY },
        { loadKg: 60, velocityMps: 0.5 },
      ],
      "not-finite",
    ],
  ])("refuses %j as %s", (points, reason) => {
    expect(loadVelocityLine(points as typeof TEST, "MCV")).toEqual({ ok: false, reason });
  });

  it("goes from load to velocity and back", () => {
    const fit = line();
    fc.assert(
      fc.property(fc.double({ min: 1, max: 150, noNaN: true }), (kg) => {
        expect(loadAt(fit, velocityAt(fit, kg))).toBeCloseTo(kg, 8);
      }),
    );
  });
});

describe("group curves", () => {
  test.each([
    ["bench", 1.0, 47.2616],
    ["bench", 0.5, 77.6877],
    ["squat", 1.0, 60.329],
    ["squat", 0.5, 90.1548],
  ] as const)("%s at %s m/s is %s %%1RM", (lift, velocity, percent) => {
    const { c2, c1, c0 } = GROUP_CURVES[lift];
    expect(c2 * velocity ** 2 + c1 * velocity + c0).toBeCloseTo(percent, 3);
    expect(groupVelocity(GROUP_CURVES[lift], percent)).toBeCloseTo(velocity, 5);
  });

  it("goes from velocity to percentage and back, and says where it was held", () => {
    for (const curve of Object.values(GROUP_CURVES)) {
      for (let percent = 31; percent < 100; percent += 7) {
        const found = groupPercent(curve, groupVelocity(curve, percent));
        expect(found.percent).toBeCloseTo(percent, 8);
        expect(found.held).toBe(false);
      }
      expect(groupPercent(curve, 3)).toEqual({ percent: 30, held: true });
      expect(groupPercent(curve, 0.01)).toEqual({ percent: 100, held: true });
    }
  });

  it("falls with the percentage and is held to 30–100 %", () => {
    for (const curve of Object.values(GROUP_CURVES)) {
      let before = Number.POSITIVE_INFINITY;
      for (let percent = 30; percent <= 100; percent += 5) {
        const here = groupVelocity(curve, percent);
        expect(here).toBeLessThan(before);
        before = here;
      }
      expect(groupVelocity(curve, 10)).toBe(groupVelocity(curve, 30));
      expect(groupVelocity(curve, 130)).toBe(groupVelocity(curve, 100));
    }
  });
});

describe("target speed", () => {
  const base = {
    variantId: "bench",
    loadKg: 60,
    metric: "MCV" as const,
    coach: undefined,
    profile: { line: line(), variantId: "bench", testedOn: "2026-02-17" as const },
    percentOfMax: 45,
    groupCurve: GROUP_CURVES.bench,
  };

  it("is the coach's first", () => {
    const target = targetSpeed({ ...base, coach: { lowMps: 0.78, highMps: 0.92 } });
    expect(target).toMatchObject({ lowMps: 0.78, highMps: 0.92, source: "coach" });
  });

  it("is the athlete's own line next, around the line at that load", () => {
    const target = targetSpeed(base);
    expect(target?.source).toBe("profile");
    expect(target?.lowMps).toBeCloseTo(velocityAt(line(), 60) - 0.05, 9);
    expect(target?.working.lines.at(-1)?.emphasis).toBe("answer");
  });

  it("never takes a profile of another variant or metric", () => {
    const other = { ...base.profile, variantId: "squat" };
    expect(targetSpeed({ ...base, profile: other })).toBeUndefined();
    expect(targetSpeed({ ...base, metric: "PV" })).toBeUndefined();
  });

  it("is the labelled group curve where its metric fits", () => {
    const target = targetSpeed({ ...base, metric: "MPV", profile: undefined });
    expect(target?.source).toBe("group");
    expect(target?.working.sources?.[0]).toContain("González-Badillo");
  });

  it("is not set without any of them, and where the own line has run out", () => {
    expect(targetSpeed({ ...base, profile: undefined, groupCurve: undefined })).toBeUndefined();
    expect(targetSpeed({ ...base, loadKg: 170, groupCurve: undefined })).toBeUndefined();
  });
});
