import { describe, expect, it } from "vitest";
import { seededRandom } from "../numeric/random";
import { addDays } from "../units/time";
import { type FloorDay, floorCalls, ownFloor } from "./own-floor";

const days = (bestMps: number, count: number, seed = 1, shiftSd = 0.05): FloorDay[] => {
  const random = seededRandom(seed);
  return Array.from({ length: count }, (_, i) => {
    const shift = shiftSd * random.normal();
    return {
      date: addDays("2026-01-05", 7 * i),
      bestsMps: Array.from({ length: 6 }, () => bestMps + shift + 0.025 * random.normal()),
    };
  });
};
const asked = (own: FloorDay[], floorMps: number | undefined) =>
  floorCalls({
    athleteId: "a",
    planId: "p",
    slotId: "s",
    variantId: "v",
    run: 2,
    floorMps,
    underPercent: 15,
    days: own,
    under: { sets: 5, of: 12 },
  });

describe("a floor of an athlete's own", () => {
  it("stands as far under the own best as the team lets a set lose", () => {
    const exact = Array.from({ length: 4 }, (_, i) => ({
      date: addDays("2026-01-05", 7 * i),
      bestsMps: [0.8, 0.8, 0.8],
    }));
    const own = ownFloor(exact, 15);
    expect(own).toMatchObject({ ok: true, days: 4, sets: 12 });
    expect(own.ok && own.floorMps).toBeCloseTo(0.68, 10);
    // t(0.95, 3) = 2.353; 0.85 × 2.353 × √(0.05² + 0.03²/3) / 2
    expect(own.ok && own.high - own.floorMps).toBeCloseTo(0.053, 3);
  });

  it("is not learnt from few days, nor from what is no speed", () => {
    expect(ownFloor(days(0.8, 3), 15)).toEqual({ ok: false, reason: "few-days" });
    for (const bad of [Number.NaN, -1, 0, Number.POSITIVE_INFINITY])
      expect(ownFloor([{ date: "2026-01-05", bestsMps: [bad] }], 15)).toEqual({
        ok: false,
        reason: "not-finite",
      });
    for (const percent of [0, 100, Number.NaN])
      expect(ownFloor(days(0.8, 6), percent)).toEqual({ ok: false, reason: "not-finite" });
  });

  it("asks nothing where no floor holds, or the floor that holds is theirs within noise", () => {
    expect(asked(days(0.8, 9), undefined)).toEqual([]);
    let called = 0;
    for (let seed = 1; seed <= 500; seed++)
      if (asked(days(0.8, 9, seed), 0.68).length > 0) called++;
    expect(called / 500).toBeLessThan(0.1);
  });

  it("finds a floor that is wrong for an athlete, and names both figures", () => {
    const found = (floorMps: number, count: number) => {
      let called = 0;
      for (let seed = 1; seed <= 500; seed++)
        if (asked(days(0.8, count, seed), floorMps).length > 0) called++;
      return called / 500;
    };
    expect(found(0.75, 9)).toBeGreaterThan(0.9);
    expect(found(0.6, 9)).toBeGreaterThan(0.9);
    const [call] = asked(days(0.8, 9, 1, 0), 0.75);
    expect(call).toMatchObject({
      kind: "floor",
      action: { type: "floor", planId: "p", slotId: "s", floorMps: 0.68 },
    });
    expect(call?.evidence.lines[1]).toBe("In this wave 5 of 12 sets went under the floor");
  });
});
