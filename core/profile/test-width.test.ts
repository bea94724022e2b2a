import { describe, expect, it } from "vitest";
import { seededRandom } from "../numeric/random";
import { fitLine } from "../numeric/regression";
import { testWidth } from "./test-width";

const asked = { oneRmKg: 120, v0Mps: 1.6, thresholdMps: 0.3 };
const loads = [40, 60, 80, 95, 105];

describe("the width of a 1RM before it is tested", () => {
  it("holds nine of ten simulated tests", () => {
    const width = testWidth({ ...asked, loadsKg: loads });
    if (!width.ok) throw new Error(width.reason);
    const random = seededRandom(7);
    const slope = (asked.thresholdMps - asked.v0Mps) / asked.oneRmKg;
    let held = 0;
    const tests = 4000;
    for (let i = 0; i < tests; i++) {
      const fit = fitLine(
        loads.map((x) => ({ x, y: asked.v0Mps + slope * x + 0.03 * random.normal() })),
      );
      if (!fit.ok) continue;
      const found = (asked.thresholdMps - fit.intercept) / fit.slope;
      if (found >= width.lowKg && found <= width.highKg) held++;
    }
    expect(held / tests).toBeGreaterThan(0.88);
    expect(held / tests).toBeLessThan(0.92);
  });

  it("shrinks most by a heavier top, and says that two loads give no bound of their own", () => {
    const of = (loadsKg: number[]) => {
      const found = testWidth({ ...asked, loadsKg });
      return found.ok ? found : undefined;
    };
    const five = of(loads)?.halfKg ?? 0;
    expect(of([...loads, 50])?.halfKg).toBeLessThan(five);
    expect(of([...loads, 115])?.halfKg).toBeLessThan(of([...loads, 50])?.halfKg ?? 0);
    expect(of([40, 100])?.fromOwnKg).toBe(2000);
    expect(testWidth({ ...asked, loadsKg: [60, 60] })).toEqual({ ok: false, reason: "no-line" });
    expect(testWidth({ ...asked, loadsKg: [60] })).toEqual({ ok: false, reason: "too-few" });
  });
});
