import fc from "fast-check";
import { expect, it } from "vitest";
import { SHIPPED_RECIPES } from "../../db/library/recipes";
import { testGear } from "../barload/fixtures/gear";
import { lifterAt, testedLine, testedMax } from "../prescribe/fixtures/base";
import { blockOfLift } from "./block";
import { type BlockRoom, blockLoads } from "./block-loads";
import { heaviestSets } from "./heaviest";

const gear = testGear([25, 20, 15, 10, 5, 2.5, 1.25], 400);
const room: BlockRoom = {
  gear,
  rounding: "nearest",
  metric: "MCV",
  settings: { deloadLoad: 0.8, deloadSets: 0.5 },
  hang: { pieces: [], anchorKg: undefined },
  forLift: {},
  unit: "kg",
  others: [],
  hand: undefined,
  handOf: {},
};

it("is the heaviest of all the loads that the block asks, for every shipped recipe", () => {
  for (const { recipe } of SHIPPED_RECIPES) {
    // Nothing hangs in this room: the bar is the load.
    const plain = { ...recipe, convention: "bar" as const };
    fc.assert(
      fc.property(fc.double({ min: 40, max: 220, noNaN: true }), (maxKg) => {
        const block = blockOfLift({
          name: "B",
          startDate: "2026-03-02",
          variantId: "v",
          recipe: plain,
          schoolId: "",
        });
        const lifter = lifterAt(
          "a",
          "v",
          {
            workingMax: testedMax(maxKg, "2026-03-01"),
            profile: testedLine("2026-02-17"),
            peakForceMps: 0.75,
            peakPowerKg: 55,
            found: { kg: 50, on: "2026-03-01" },
          },
          { bodyKg: 80 },
        );
        const slot = block.slots.main;
        if (!slot || slot.recipe.weeks.some((week) => week.method?.variantId)) return;
        const loads = Object.values(blockLoads({ block, athletes: [lifter], room }).a ?? {});
        const found = heaviestSets({
          block,
          slotId: "main",
          slot,
          athletes: [lifter],
          room,
          liftName: "",
        }).a;
        if (loads.length > 0 && found?.kg !== undefined) expect(found.kg).toBe(Math.max(...loads));
      }),
      { numRuns: 10 },
    );
  }
});
