import { describe, expect, it } from "vitest";
import { seededRandom } from "../numeric/random";
import { restEffect } from "./rest-effect";

/** Sets of an athlete who gains so much for a minute more, two readings off by 0.03 each. */
function steps(n: number, gainMps: number, seed: number) {
  const random = seededRandom(seed);
  return Array.from({ length: n }, () => {
    const restS = 45 + 180 * random.uniform();
    const noise = 0.03 * (random.normal() - random.normal());
    return { restS, changeMps: gainMps * (restS / 60 - 2) + noise };
  });
}

describe("rest and the next set's speed", () => {
  it("covers the true gain in nine of ten athletes, with and without one", () => {
    for (const gain of [0, 0.02]) {
      let held = 0;
      let called = 0;
      const athletes = 2000;
      for (let i = 0; i < athletes; i++) {
        const found = restEffect({ steps: steps(40, gain, 100 + i), atS: 90 });
        if (!found.ok) continue;
        if (found.perMinute.low <= gain && found.perMinute.high >= gain) held++;
        if (found.verdict !== "unclear") called++;
      }
      expect(held / athletes).toBeGreaterThan(0.87);
      if (gain === 0) expect(called / athletes).toBeLessThan(0.12);
      else expect(called / athletes).toBeGreaterThan(0.6);
    }
  });

  it("names the rest at which a set is as fast as the one before, where the pairs tell it", () => {
    const found = restEffect({ steps: steps(300, 0.03, 3), atS: 60 });
    expect(found.ok && found.verdict).toBe("helps");
    expect(found.ok ? found.evenS : undefined).toBeGreaterThan(95);
    expect(found.ok ? found.evenS : undefined).toBeLessThan(145);
  });

  it("refuses too few pairs and one rest alone", () => {
    expect(restEffect({ steps: steps(3, 0, 1), atS: 60 })).toEqual({
      ok: false,
      reason: "too-few",
    });
    const same = steps(8, 0, 1).map((one) => ({ ...one, restS: 60 }));
    expect(restEffect({ steps: same, atS: 60 })).toEqual({ ok: false, reason: "one-rest" });
  });
});
