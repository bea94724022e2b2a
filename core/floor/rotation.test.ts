import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { testGear } from "../barload/fixtures/gear";
import { plateChange } from "../barload/load";
import { grains } from "../units/mass";
import { testSession } from "./fixtures/session";
import type { FrozenLifter } from "./frozen";
import { platesOfRotation } from "./rotation";

const gear = testGear([25, 20, 15, 10, 5, 2.5, 1.25]);
const [made] = testSession(["ann"], 3).slots.flatMap((slot) =>
  slot.kind === "lift" ? slot.groups.flatMap((group) => group.lifters) : [],
);
const lifter = (athleteId: string, loads: Array<number | undefined>): FrozenLifter => {
  const [set] = made?.sets ?? [];
  if (!made || !set) throw new Error("The fixture has sets.");
  return {
    ...made,
    athleteId,
    sets: loads.map((loadKg, i) => ({ ...set, key: `s.${i + 1}`, number: i + 1, loadKg })),
  };
};
const sideKg = (plates: FrozenLifter["plates"], key: string) =>
  (plates?.[key] ?? []).reduce(
    (sum, mass) => sum + grains(mass) / grains({ amount: 1, unit: "kg" }),
    0,
  );

describe("plates of a rotation", () => {
  it("fewer moves than each load by itself, for the same loads", () => {
    // 60 and 65 kg in turn: 20 a side stays on, 2.5 goes on and off.
    const { lifters, moves } = platesOfRotation(gear, [
      lifter("a", [60, 60, 60]),
      lifter("b", [70, 70, 70]),
      lifter("c", [95, 95, 95]),
    ]);
    expect(moves?.moves).toBeLessThan(moves?.alone ?? 0);
    for (const one of lifters)
      for (const set of one.sets)
        expect(20 + 2 * sideKg(one.plates, set.key)).toBeCloseTo(set.loadKg ?? 0, 9);
  });

  it("counts the moves that the lifters make, one after the other, and never more than by itself", () => {
    const loads = fc.array(
      fc.integer({ min: 8, max: 56 }).map((n) => 2.5 * n),
      {
        minLength: 3,
        maxLength: 3,
      },
    );
    fc.assert(
      fc.property(fc.array(loads, { minLength: 1, maxLength: 4 }), (all) => {
        const { lifters, moves } = platesOfRotation(
          gear,
          all.map((own, i) => lifter(String(i), own)),
        );
        let counted = 0;
        let before: Parameters<typeof plateChange>[0] = [];
        for (let set = 0; set < 3; set++)
          for (const one of lifters) {
            const side = one.plates?.[`s.${set + 1}`] ?? [];
            counted += plateChange(before, side).moves;
            before = side;
          }
        expect(counted).toBe(moves?.moves);
        expect(moves?.moves).toBeLessThanOrEqual(moves?.alone ?? 0);
      }),
      { numRuns: 40 },
    );
  });

  it("leaves out sets without a load, and is silent where the rack cannot build one", () => {
    const some = platesOfRotation(gear, [lifter("a", [60, undefined, 60]), lifter("b", [70])]);
    expect(Object.keys(some.lifters[0]?.plates ?? {})).toEqual(["s.1", "s.3"]);
    const none = platesOfRotation(gear, [lifter("a", [60, 61.1])]);
    expect(none).toEqual({ lifters: [lifter("a", [60, 61.1])], moves: undefined });
  });
});
