import { describe, expect, it, test } from "vitest";
import { fitLine, type LineFit } from "../numeric/regression";
import { studentCdf, studentQuantile } from "../numeric/student-t";
import reference from "./fixtures/lines.json";
import { fiellerAt, type IntervalResult, responseAt } from "./prediction";

function fitOf(load: number[], velocity: number[]): LineFit {
  const fit = fitLine(load.map((x, i) => ({ x, y: velocity[i] as number })));
  if (!fit.ok) throw new Error(fit.reason);
  return fit;
}

function known(result: IntervalResult) {
  if (!result.ok) throw new Error(result.reason);
  return result;
}

const close = (a: number, b: number, tolerance = 1e-8) =>
  expect(Math.abs(a - b)).toBeLessThan(tolerance * Math.max(1, Math.abs(b)));

describe("40 data sets against R", () => {
  test.each(reference.lines.map((one, i) => [i + 1, one] as const))("data set %s", (_i, one) => {
    const fit = fitOf(one.load, one.velocity);
    close(fit.intercept, one.intercept);
    close(fit.slope, one.slope);
    close(fit.rSquared, one.rSquared);
    close(fit.see ?? 0, one.see);
    one.at.forEach((load, i) => {
      const mean = known(responseAt(fit, load, 0.95));
      close(mean.estimate, one.fit[i] as number);
      close(mean.low, one.confLow[i] as number);
      close(mean.high, one.confHigh[i] as number);
      const reading = known(responseAt(fit, load, 0.95, true));
      close(reading.low, one.predLow[i] as number);
      close(reading.high, one.predHigh[i] as number);
    });
    const at = fiellerAt(fit, 0.3, 0.95);
    if (one.g >= 1) expect(at).toEqual({ ok: false, reason: "slope-unclear" });
    else close(known(at).estimate, one.loadAt);
    if (one.fieller) {
      close(known(at).low, one.fieller[0] as number, 1e-7);
      close(known(at).high, one.fieller[1] as number, 1e-7);
    }
  });

  it("has enough of them with a bounded interval", () => {
    expect(reference.lines.filter((one) => one.fieller).length).toBeGreaterThanOrEqual(30);
  });
});

describe("the reference profile", () => {
  const fit = fitOf([40, 60, 80, 100, 110], [1.21, 0.99, 0.78, 0.55, 0.46]);

  it("reaches 0.30 m/s at 124.116 kg, 122.05 to 126.34", () => {
    const at = known(fiellerAt(fit, 0.3, 0.95));
    expect(at.estimate).toBeCloseTo(124.116, 3);
    expect(at.low).toBeCloseTo(122.05, 2);
    expect(at.high).toBeCloseTo(126.34, 2);
  });

  it("gives no interval from two points, and none from a slope that could be level", () => {
    const two = fitOf([40, 100], [1.2, 0.5]);
    expect(fiellerAt(two, 0.3, 0.95)).toEqual({ ok: false, reason: "no-freedom" });
    expect(responseAt(two, 60, 0.95)).toEqual({ ok: false, reason: "no-freedom" });
    const noisy = fitOf([60, 62, 64], [0.8, 0.6, 0.78]);
    expect(fiellerAt(noisy, 0.3, 0.95)).toEqual({ ok: false, reason: "slope-unclear" });
  });
});

describe("Student's t", () => {
  test.each(reference.quantiles as Array<[number, number, number]>)(
    "p %s, %s freedom",
    (p, freedom, t) => {
      close(studentQuantile(p, freedom), t, 1e-10);
      close(studentQuantile(1 - p, freedom), -t, 1e-10);
      close(studentCdf(t, freedom), p, 1e-12);
    },
  );

  it("is a half at nought", () => {
    expect(studentQuantile(0.5, 4)).toBe(0);
    expect(studentCdf(0, 4)).toBeCloseTo(0.5, 14);
  });
});
