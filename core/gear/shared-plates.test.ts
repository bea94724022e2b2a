import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { PlateStock } from "../barload/loading-gear";
import { pairsOf, sharedAfter } from "./shared-plates";

const plate = (amount: number, pairs: number, unit: "kg" | "lb" = "kg"): PlateStock => ({
  mass: { amount, unit },
  pairs,
  thicknessMm: 20,
});

describe("shared plates", () => {
  it("take what comes off a rack, and give what is hung on", () => {
    const off = sharedAfter([plate(1.25, 2)], [plate(1.25, 1)], []);
    expect(off).toEqual({ ok: true, shared: [plate(1.25, 1)] });
    const on = sharedAfter([plate(1.25, 1)], [plate(1.25, 2)], [plate(1.25, 1)]);
    expect(on).toEqual({ ok: true, shared: [plate(1.25, 0)] });
  });

  it("have too few of a size, which is said; pounds are no kilograms", () => {
    const asked = sharedAfter([plate(5, 1)], [plate(5, 3)], [plate(5, 1), plate(5, 9, "lb")]);
    expect(asked).toMatchObject({ ok: false, lacks: { mass: { amount: 5, unit: "kg" } } });
  });

  it("and the rack have as many pairs as before, whatever is hung", () => {
    const plates = fc
      .uniqueArray(fc.constantFrom(1.25, 2.5, 5, 10, 20), { maxLength: 5 })
      .chain((sizes) => fc.tuple(...sizes.map((kg) => fc.nat(6).map((pairs) => plate(kg, pairs)))));
    fc.assert(
      fc.property(plates, plates, plates, (before, after, shared) => {
        const found = sharedAfter(before, after, shared);
        for (const size of [1.25, 2.5, 5, 10, 20].map((kg) => plate(kg, 0))) {
          const had = pairsOf(before, size) + pairsOf(shared, size);
          if (found.ok) expect(pairsOf(after, size) + pairsOf(found.shared, size)).toBe(had);
          else if (size.mass.amount === found.lacks.mass.amount)
            expect(pairsOf(after, size)).toBeGreaterThan(had);
        }
      }),
    );
  });
});
