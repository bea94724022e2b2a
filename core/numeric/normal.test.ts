import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { normalCdf, normalQuantile, Z90 } from "./normal";

const cases = JSON.parse(
  readFileSync(new URL("./fixtures/statistics.json", import.meta.url), "utf8"),
) as { pnorm: Array<[z: number, p: number]>; qnorm: Array<[p: number, z: number]> };

describe("the normal distribution", () => {
  it("equals R's pnorm and qnorm", () => {
    expect(cases.pnorm.length).toBeGreaterThan(10);
    for (const [z, p] of cases.pnorm)
      expect(Math.abs(normalCdf(z) - p), `${z}`).toBeLessThan(1e-12 * Math.max(p, 1e-3));
    for (const [p, z] of cases.qnorm) expect(normalQuantile(p), `${p}`).toBeCloseTo(z, 9);
    expect(normalQuantile(0.95)).toBeCloseTo(Z90, 12);
  });

  it("has an end at both sides, and no answer that is no number", () => {
    expect(normalCdf(Number.POSITIVE_INFINITY)).toBe(1);
    expect(normalCdf(Number.NEGATIVE_INFINITY)).toBe(0);
    expect(normalCdf(Number.NaN)).toBe(0.5);
    expect(Number.isFinite(normalQuantile(0))).toBe(true);
  });
});
