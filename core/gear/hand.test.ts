import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type HandWeight, handKindOf, loadHand } from "./hand";

const dumbbell = (kg: number, count = 2): HandWeight => ({
  what: "dumbbell",
  name: `${kg}`,
  kg,
  count,
});
const stock = [10, 12.5, 15, 20, 25].map((kg) => dumbbell(kg));
const load = (askedKg: number, over: Partial<Parameters<typeof loadHand>[0]> = {}) =>
  loadHand({ askedKg, kind: "dumbbell", hands: 2, stock, mode: "nearest", unit: "kg", ...over });

describe("dumbbells and kettlebells", () => {
  it.each([
    [12, 12.5],
    [11, 10],
    [11.25, 10],
    [17.5, 15],
    [17.6, 20],
    [26, 25],
    [9.5, 10],
  ])("%d asked a hand is %d here", (asked, kg) => {
    expect(load(asked)).toMatchObject({ ok: true, kg });
  });
  it("go down for a novice", () => {
    expect(load(19.9, { mode: "down" })).toMatchObject({ kg: 15 });
  });
  it("need two of a kind for two hands, one for one", () => {
    const odd = [dumbbell(10), dumbbell(22, 1), dumbbell(25)];
    expect(load(22, { stock: odd })).toMatchObject({ kg: 25 });
    expect(load(22, { stock: odd, hands: 1 })).toMatchObject({ kg: 22 });
  });
  it("say what is possible beyond the rack's ends, in the reader's unit", () => {
    expect(load(40)).toMatchObject({
      ok: false,
      reason: expect.stringContaining("the heaviest are 25 kg"),
    });
    expect(load(4, { unit: "lb" })).toMatchObject({ reason: expect.stringContaining("22.05 lb") });
    expect(load(20, { kind: "kettlebell" })).toMatchObject({
      reason: expect.stringContaining("no pair of kettlebells"),
    });
  });
  it("are never heavier than the rack, and never further off than a neighbour", () => {
    fc.assert(
      fc.property(fc.double({ min: 10, max: 25, noNaN: true }), (asked) => {
        const found = load(asked);
        if (!found.ok) throw new Error(found.reason);
        for (const one of stock)
          expect(Math.abs(found.kg - asked)).toBeLessThanOrEqual(Math.abs(one.kg - asked) + 1e-9);
      }),
    );
  });
  it("are what an exercise names among its gear", () => {
    expect(handKindOf(["Dumbbells", "bench"])).toBe("dumbbell");
    expect(handKindOf(["kettlebell"])).toBe("kettlebell");
    expect(handKindOf(["bar", "rack"])).toBeUndefined();
  });
});
