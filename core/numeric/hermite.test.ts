import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type HermiteCurve, hermiteAt, hermiteCurve } from "./hermite";

function curveOf(points: Array<{ x: number; y: number }>): HermiteCurve {
  const curve = hermiteCurve(points);
  if ("ok" in curve) throw new Error(curve.reason);
  return curve;
}

/** Strictly rising x, any steps in y. */
const risingPoints = (rising: boolean) =>
  fc
    .array(
      fc.record({
        dx: fc.double({ min: 0.05, max: 2, noNaN: true }),
        dy: fc.double({ min: rising ? 0.01 : -5, max: 5, noNaN: true }),
      }),
      { minLength: 2, maxLength: 8 },
    )
    .map((steps) => {
      let x = 0;
      let y = 0;
      return steps.map(({ dx, dy }) => {
        x += dx;
        y += dy;
        return { x, y };
      });
    });

describe("a cubic through points", () => {
  it("passes through each of them, and joins without a step in value or slope", () => {
    fc.assert(
      fc.property(risingPoints(false), (points) => {
        const curve = curveOf(points);
        for (const { x, y } of points) {
          expect(hermiteAt(curve, x)).toBeCloseTo(y, 9);
          // The steepest bend here turns the slope by 48,000 a unit: under 0.005 over both steps.
          const h = 1e-7;
          const before = (hermiteAt(curve, x) - hermiteAt(curve, x - h)) / h;
          const after = (hermiteAt(curve, x + h) - hermiteAt(curve, x)) / h;
          expect(Math.abs(before - after)).toBeLessThan(1e-2);
        }
      }),
    );
  });

  it("stays a number where a step is the smallest that there is", () => {
    const curve = curveOf([
      { x: 0.05, y: 0 },
      { x: 0.1, y: -5e-324 },
      { x: 0.15, y: -0.00125 },
      { x: 0.2, y: -0.00125 },
    ]);
    for (let x = 0; x <= 0.25; x += 0.01) {
      const here = hermiteAt(curve, x);
      expect(here).toBeLessThanOrEqual(0);
      expect(here).toBeGreaterThanOrEqual(-0.0013);
    }
  });

  it("rises wherever its points rise", () => {
    fc.assert(
      fc.property(risingPoints(true), (points) => {
        const curve = curveOf(points);
        const first = points[0]?.x ?? 0;
        const last = points[points.length - 1]?.x ?? 0;
        let before = hermiteAt(curve, first);
        for (let i = 1; i <= 200; i++) {
          const here = hermiteAt(curve, first + ((last - first) * i) / 200);
          expect(here).toBeGreaterThanOrEqual(before - 1e-9);
          before = here;
        }
      }),
    );
  });

  it("is the straight line through points on a line, and goes on straight beyond them", () => {
    const curve = curveOf([0, 1, 2.5, 4].map((x) => ({ x, y: 3 + 2 * x })));
    for (const x of [-1, 0.3, 1.7, 3.9, 6]) expect(hermiteAt(curve, x)).toBeCloseTo(3 + 2 * x, 12);
  });

  it("is level at a turn of direction and along equal points", () => {
    const curve = curveOf([
      { x: 0, y: 0 },
      { x: 1, y: 2 },
      { x: 2, y: 1 },
      { x: 3, y: 1 },
    ]);
    expect(curve.tangents[1]).toBe(0);
    expect(hermiteAt(curve, 2.5)).toBeCloseTo(1, 12);
  });

  it("refuses one point, and x that stands still or goes back", () => {
    expect(hermiteCurve([{ x: 0, y: 0 }])).toEqual({ ok: false, reason: "under-two-points" });
    for (const x of [0, -1]) {
      expect(
        hermiteCurve([
          { x: 0, y: 0 },
          { x, y: 1 },
        ]),
      ).toEqual({ ok: false, reason: "x-not-rising" });
    }
  });
});
