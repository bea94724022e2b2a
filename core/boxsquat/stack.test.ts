import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  BOX_OVER_CM,
  bestTurns,
  boxHeightFromTrial,
  type MatStock,
  type SeatBase,
  seatFor,
  seatsForGroup,
} from "./stack";

const BOX: SeatBase = { id: "b", name: "Box", heightsCm: [30, 35, 40, 45] };
const BENCH: SeatBase = {
  id: "f",
  name: "Flat bench",
  heightsCm: [43],
  substitute: { caution: "End-on, on a dry floor.", limitKg: 80 },
};
const MATS: MatStock[] = [
  { id: "m1", name: "Thin mat", thicknessCm: 1.5, count: 2 },
  { id: "m2", name: "Thick mat", thicknessCm: 4, count: 1 },
];

describe("box height", () => {
  it("goes down by what the crease is over the knee, and up by what it is under", () => {
    expect(boxHeightFromTrial({ seatCm: 40, creaseOverKneeCm: 3 })).toBe(37);
    expect(boxHeightFromTrial({ seatCm: 40, creaseOverKneeCm: -2.5 })).toBe(42.5);
    expect(boxHeightFromTrial({ seatCm: 40, creaseOverKneeCm: 0, offsetCm: 2 })).toBe(42);
  });
});

describe("the seat of one athlete", () => {
  it("takes the fewest pieces within tolerance, a box before a bench", () => {
    const at = (targetCm: number) => seatFor({ targetCm, bases: [BENCH, BOX], mats: MATS });
    expect(at(39)).toMatchObject({ ok: true, build: { pinCm: 40, pieces: 1, offCm: 1 } });
    expect(at(41)).toMatchObject({ ok: true, build: { base: BENCH, pieces: 1 } });
    expect(at(36)).toMatchObject({ ok: true, build: { pinCm: 35, mats: [1, 0], heightCm: 36.5 } });
    expect(at(60)).toMatchObject({
      ok: false,
      reason: "none-fits",
      nearest: { heightCm: 52, offCm: -8 },
    });
    expect(seatFor({ targetCm: 40, bases: [], mats: MATS })).toEqual({
      ok: false,
      reason: "no-boxes",
    });
  });

  it("never sits anybody low while something fits, and says so otherwise", () => {
    fc.assert(
      fc.property(fc.double({ min: 25, max: 55, noNaN: true }), (targetCm) => {
        const found = seatFor({ targetCm, bases: [BOX], mats: MATS });
        if (found.ok) {
          expect(found.build.offCm).toBeGreaterThanOrEqual(-1e-9);
          expect(found.build.offCm).toBeLessThanOrEqual(BOX_OVER_CM + 1e-9);
        } else expect(found.reason).toBe("none-fits");
      }),
    );
  });
});

describe("a whole group", () => {
  it("keeps one base height and moves the fewest mats, as brute force finds it", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 34, max: 44 }), { minLength: 1, maxLength: 3 }),
        (targetsCm) => {
          const bases = [BOX];
          const found = seatsForGroup({ targetsCm, bases, mats: MATS });
          if (!found) throw new Error("no seats");
          let best: number[] | undefined;
          const layings = [0, 1, 2].flatMap((a) => [0, 1].map((b) => [a, b] as const));
          for (const pin of BOX.heightsCm) {
            const walk = (i: number, chosen: Array<readonly [number, number]>) => {
              if (i === targetsCm.length) {
                let error = 0;
                let changes = 0;
                let pieces = 0;
                chosen.forEach((laid, j) => {
                  const next = chosen[(j + 1) % chosen.length] as readonly [number, number];
                  const off = pin + 1.5 * laid[0] + 4 * laid[1] - (targetsCm[j] as number);
                  error += Math.max(0, -off, off - BOX_OVER_CM);
                  changes += Math.abs(laid[0] - next[0]) + Math.abs(laid[1] - next[1]);
                  pieces += 1 + laid[0] + laid[1];
                });
                const cost = [error, changes, pieces];
                const less =
                  best === undefined ||
                  cost.some(
                    (value, k) =>
                      value < (best?.[k] ?? 0) - 1e-9 &&
                      cost.slice(0, k).every((one, m) => Math.abs(one - (best?.[m] ?? 0)) < 1e-9),
                  );
                if (less) best = cost;
                return;
              }
              for (const laid of layings) walk(i + 1, [...chosen, laid]);
            };
            walk(0, []);
          }
          expect(found.allFit).toBe((best?.[0] ?? 1) < 1e-9);
          expect(found.changes).toBe(best?.[1]);
          expect(found.pieces).toBe(best?.[2]);
          expect(new Set(found.builds.map((one) => one.pinCm)).size).toBe(1);
        },
      ),
      { numRuns: 60 },
    );
  });

  it("orders the turns with the fewest mats moved, as trying every order finds it", () => {
    const orders = (items: number[]): number[][] =>
      items.length <= 1
        ? [items]
        : items.flatMap((one) => orders(items.filter((x) => x !== one)).map((o) => [one, ...o]));
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 34, max: 44 }), { minLength: 1, maxLength: 5 }),
        (targetsCm) => {
          const found = bestTurns({ targetsCm, bases: [BOX], mats: MATS });
          const tried = orders(targetsCm.map((_, i) => i)).map(
            (order) =>
              seatsForGroup({
                targetsCm: order.map((i) => targetsCm[i] as number),
                bases: [BOX],
                mats: MATS,
              })?.changes ?? 0,
          );
          expect(found?.seats.changes).toBe(Math.min(...tried));
          expect([...(found?.order ?? [])].sort()).toEqual(targetsCm.map((_, i) => i));
          expect(found?.order[0]).toBe(0);
        },
      ),
      { numRuns: 40 },
    );
  });

  it("goes by height, and says that it is not proven, for a long queue", () => {
    const targetsCm = [44, 36, 40, 38, 42, 37, 41, 39, 43];
    const found = bestTurns({ targetsCm, bases: [BOX], mats: MATS });
    expect(found?.proven).toBe(false);
    expect(found?.order.map((i) => targetsCm[i])).toEqual([...targetsCm].sort((a, b) => a - b));
  });

  it("stays quick with every mat of a large store, and says what was not looked at", () => {
    const mats = Array.from({ length: 9 }, (_, i) => ({
      id: `m${i}`,
      name: `Mat ${i}`,
      thicknessCm: 0.5 + 0.37 * i,
      count: 8,
    }));
    // Work is counted in what comes out: a tree of 9⁹ ways would never come back.
    const one = seatFor({ targetCm: 71.3, bases: [BOX], mats });
    expect(one.ok && Math.abs(one.build.offCm) <= 2.5).toBe(true);
    const found = bestTurns({ targetsCm: [38, 41, 36, 44, 40, 43], bases: [BOX], mats });
    expect(found?.proven).toBe(false);
    expect(found?.seats.allFit).toBe(true);
  });

  it("has no answer for nobody or without boxes", () => {
    expect(seatsForGroup({ targetsCm: [], bases: [BOX], mats: MATS })).toBeUndefined();
    expect(seatsForGroup({ targetsCm: [40], bases: [], mats: MATS })).toBeUndefined();
  });
});
