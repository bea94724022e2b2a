import { describe, expect, it } from "vitest";
import { seededRandom } from "../numeric/random";
import { loadedJump } from "./loaded-jump";

describe("jump height over load", () => {
  it("equals a line worked by hand, and its inverse", () => {
    const found = loadedJump({
      points: [
        { loadKg: 0, heightCm: 44 },
        { loadKg: 20, heightCm: 36 },
        { loadKg: 40, heightCm: 28 },
      ],
      atKg: 30,
      wantedCm: 34,
    });
    if (!found.ok) throw new Error(found.reason);
    expect(found.lossCmPerKg).toBeCloseTo(0.4, 10);
    expect(found.height.ok && found.height.estimate).toBeCloseTo(32, 10);
    expect(found.load?.ok && found.load.estimate).toBeCloseTo(25, 10);
    expect(found.outside).toBe(false);
  });

  it("holds nine of ten new jumps in its interval", () => {
    const random = seededRandom(11);
    let held = 0;
    const tries = 3000;
    for (let i = 0; i < tries; i++) {
      const jump = (kg: number) => 45 - 0.35 * kg + 1.2 * random.normal();
      const found = loadedJump({
        points: [0, 0, 20, 20, 40, 40].map((loadKg) => ({ loadKg, heightCm: jump(loadKg) })),
        atKg: 30,
      });
      if (!found.ok || !found.height.ok) continue;
      const next = jump(30);
      if (next >= found.height.low && next <= found.height.high) held++;
    }
    expect(held / tries).toBeGreaterThan(0.88);
    expect(held / tries).toBeLessThan(0.92);
  });

  it("says where a load lies outside what was jumped, and what cannot be told", () => {
    const points = [
      { loadKg: 10, heightCm: 40 },
      { loadKg: 30, heightCm: 33 },
    ];
    const two = loadedJump({ points, atKg: 50 });
    expect(two.ok && two.outside).toBe(true);
    expect(two.ok && two.height).toEqual({ ok: false, reason: "no-freedom" });
    expect(loadedJump({ points: points.slice(1), atKg: 20 })).toEqual({
      ok: false,
      reason: "too-few",
    });
    const same = points.map((one) => ({ ...one, loadKg: 10 }));
    expect(loadedJump({ points: same, atKg: 10 })).toEqual({ ok: false, reason: "one-load" });
  });
});
