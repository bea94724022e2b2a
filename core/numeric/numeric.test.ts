import fc from "fast-check";
import { describe, expect, it, test } from "vitest";
import { butterworthLowpass, derivative, filterBothWays, smoothZeroLag } from "./butterworth";
import reference from "./fixtures/filtfilt.json";
import { seededRandom, seedFromText } from "./random";
import { fitLine } from "./regression";
import { cubicBetween } from "./resample";
import { mean, median, quantile, standardDeviation } from "./statistics";

describe("least squares", () => {
  it("equals R's lm on the reference profile", () => {
    const loads = [40, 60, 80, 100, 110];
    const speeds = [1.21, 0.99, 0.78, 0.55, 0.46];
    const fit = fitLine(loads.map((x, i) => ({ x, y: speeds[i] as number })));
    if (!fit.ok) throw new Error(fit.reason);
    expect(fit.intercept).toBeCloseTo(1.640305, 6);
    expect(fit.slope).toBeCloseTo(-0.01079878, 8);
    expect(fit.rSquared).toBeCloseTo(0.999511, 6);
    expect(fit.see).toBeCloseTo(0.007899, 6);
    expect(-fit.intercept / fit.slope).toBeCloseTo(151.897, 3);
  });

  it("finds a line again that was drawn", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.uniqueArray(fc.integer({ min: 0, max: 400 }), { minLength: 2, maxLength: 12 }),
        (a, b, xs) => {
          const fit = fitLine(xs.map((x) => ({ x, y: a + b * x })));
          if (!fit.ok) throw new Error(fit.reason);
          expect(fit.slope).toBeCloseTo(b, 8);
          expect(fit.intercept).toBeCloseTo(a, 6);
        },
      ),
    );
  });

  test.each([
    [[], "under-two-points"],
    [[{ x: 1, y: 1 }], "under-two-points"],
    [
      [
        { x: 1, y: 1 },
        { x: 1, y: 2 },
      ],
      "one-x",
    ],
    [
      [
        { x: 1, y: Number.NaN },
        { x: 2, y: 2 },
      ],
      "not-finite",
    ],
  ])("refuses %j as %s", (points, reason) => {
    expect(fitLine(points)).toEqual({ ok: false, reason });
  });

  it("gives no residual error where two points leave no freedom", () => {
    const fit = fitLine([
      { x: 0, y: 1 },
      { x: 1, y: 0 },
    ]);
    expect(fit.ok && fit.see).toBeUndefined();
  });
});

describe("Butterworth", () => {
  test.each(reference.cases.map((one) => [one.name, one] as const))(
    "equals scipy's filtfilt: %s",
    (_name, one) => {
      const design = butterworthLowpass(one.cutoffHz, one.rateHz);
      one.b.forEach((value, i) => {
        expect(design.b[i]).toBeCloseTo(value, 12);
      });
      one.a.forEach((value, i) => {
        expect(design.a[i]).toBeCloseTo(value, 12);
      });
      const ours = filterBothWays(design, Float64Array.from(one.input), 9);
      one.output.forEach((value, i) => {
        expect(Math.abs((ours[i] as number) - value)).toBeLessThan(1e-9);
      });
    },
  );

  it("leaves a straight line alone and lags nothing", () => {
    const line = Float64Array.from({ length: 200 }, (_, i) => 0.3 + 0.01 * i);
    const out = smoothZeroLag(line, 100, 7);
    for (let i = 0; i < line.length; i++) expect(out[i]).toBeCloseTo(line[i] as number, 6);
  });

  it("halves the amplitude of what lies at its corrected cut-off, to 3 dB", () => {
    const rate = 200;
    const cutoff = 8;
    const wave = Float64Array.from({ length: 2000 }, (_, i) =>
      Math.sin((2 * Math.PI * cutoff * i) / rate),
    );
    const out = smoothZeroLag(wave, rate, cutoff);
    let most = 0;
    for (let i = 500; i < 1500; i++) most = Math.max(most, Math.abs(out[i] as number));
    expect(most).toBeGreaterThan(0.68);
    expect(most).toBeLessThan(0.74);
  });

  it("survives the shortest inputs", () => {
    expect([...smoothZeroLag(Float64Array.from([]), 100, 7)]).toEqual([]);
    expect([...smoothZeroLag(Float64Array.from([2]), 100, 7)]).toEqual([2]);
    expect([...derivative(Float64Array.from([2]), 100)]).toEqual([0]);
  });

  it("differentiates a parabola exactly inside", () => {
    const rate = 50;
    const curve = Float64Array.from({ length: 50 }, (_, i) => (i / rate) ** 2);
    const slope = derivative(curve, rate);
    for (let i = 1; i < 49; i++) expect(slope[i]).toBeCloseTo((2 * i) / rate, 10);
  });
});

describe("cubic between samples", () => {
  const at = (x: number): [number, number] => [x, 2 + 3 * x - x * x];

  it("goes through its points, and draws a parabola between even ones exactly", () => {
    const [a, b, c, d] = [at(0), at(1), at(2), at(3)];
    expect(cubicBetween(...a, ...b, ...c, ...d, 1)).toBe(b[1]);
    expect(cubicBetween(...a, ...b, ...c, ...d, 2)).toBe(c[1]);
    for (const x of [1.1, 1.5, 1.9])
      expect(cubicBetween(...a, ...b, ...c, ...d, x)).toBeCloseTo(at(x)[1], 12);
  });

  it("holds its ends", () => {
    const [b, c] = [at(1), at(2)];
    expect(cubicBetween(...b, ...b, ...c, ...c, 0)).toBe(b[1]);
    expect(cubicBetween(...b, ...b, ...c, ...c, 9)).toBe(c[1]);
  });
});

describe("statistics", () => {
  it("names the empty case instead of giving NaN", () => {
    expect(mean([])).toBeUndefined();
    expect(median([])).toBeUndefined();
    expect(standardDeviation([1])).toBeUndefined();
  });

  it("equals R: mean, sd, quantile type 7", () => {
    const values = [3, 1, 4, 1, 5, 9, 2, 6];
    expect(mean(values)).toBeCloseTo(3.875, 12);
    expect(standardDeviation(values)).toBeCloseTo(2.74837614, 8);
    expect(quantile(values, 0.95)).toBeCloseTo(7.95, 12);
    expect(median(values)).toBe(3.5);
  });
});

describe("seeded chance", () => {
  it("repeats itself from the same seed and differs from another", () => {
    const draw = (seed: number) => {
      const random = seededRandom(seed);
      return [random.uniform(), random.normal(), random.normal(), random.uniform()];
    };
    expect(draw(7)).toEqual(draw(7));
    expect(draw(7)).not.toEqual(draw(8));
  });

  it("is about standard normal and uniform", () => {
    const random = seededRandom(42);
    const normal = Array.from({ length: 20_000 }, () => random.normal());
    const uniform = Array.from({ length: 20_000 }, () => random.uniform());
    expect(Math.abs(mean(normal) ?? 9)).toBeLessThan(0.03);
    expect(Math.abs((standardDeviation(normal) ?? 9) - 1)).toBeLessThan(0.03);
    expect(Math.abs((mean(uniform) ?? 9) - 0.5)).toBeLessThan(0.01);
    expect(Math.min(...uniform)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...uniform)).toBeLessThan(1);
  });

  it("makes a seed of a name", () => {
    expect(seedFromText("Maren")).toBe(seedFromText("Maren"));
    expect(seedFromText("Maren")).not.toBe(seedFromText("Ilse"));
  });
});
