import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { SHIPPED_RECIPES } from "../../db/library/recipes";
import { testGear } from "../barload/fixtures/gear";
import { blockOfLift, NOTHING_OWN, slotWeek } from "../plan/block";
import { type BlockRoom, blockLoads, setInFull, slotCells, variantIn } from "../plan/block-loads";
import { lifterAt, testedLine, testedMax } from "../prescribe/fixtures/base";
import { BASIS_KINDS } from "../recipe/basis";
import type { Recipe } from "../recipe/recipe";
import { testBand } from "../resistance/fixtures/band";
import { freezeSession } from "./freeze";
import { liftsOf } from "./frozen";

/** What each basis asks where a recipe is turned to it, in its own unit. */
const START: Record<(typeof BASIS_KINDS)[number], number> = {
  percent: 60,
  speed: 0.7,
  "peak-force": 0.05,
  "peak-power": 100,
  reserve: 3,
  found: 2.5,
  fixed: 60,
  body: 60,
  eye: 0,
};

/** Every shipped recipe as it is, and the first of each turned to every basis. */
const RECIPES: Array<[string, Recipe]> = [
  ...SHIPPED_RECIPES.map(({ recipe }): [string, Recipe] => [recipe.name, recipe]),
  ...BASIS_KINDS.flatMap((basis) =>
    (["bar", "lockout", "mean"] as const).map((convention): [string, Recipe] => [
      `by ${basis}, ${convention}`,
      {
        ...(SHIPPED_RECIPES[0]?.recipe as Recipe),
        basis,
        start: START[basis],
        weeks: [{ id: "w1", add: 0 }],
        steps: [{ id: "s1", sets: 3, reps: 3, add: 0 }],
        convention,
        resistancePercent: 20,
      },
    ]),
  ),
];
const band = testBand("Light band", 15);

describe("one prescription", () => {
  it.each(RECIPES)("%s: plan cell, publication, working and rack agree", (_, recipe) => {
    fc.assert(
      fc.property(
        fc.record({
          maxKg: fc.option(fc.integer({ min: 40, max: 260 }), { nil: undefined }),
          bodyKg: fc.option(fc.integer({ min: 45, max: 120 }), { nil: undefined }),
          profile: fc.boolean(),
          peaks: fc.boolean(),
          heights: fc.boolean(),
          unit: fc.constantFrom("kg" as const, "lb" as const),
          plates: fc.constantFrom([25, 20, 15, 10, 5, 2.5, 1.25], [20, 10, 5], [20, 15, 10, 2.5]),
          pairs: fc.integer({ min: 0, max: 2 }),
          week: fc.integer({ min: 1, max: 10 }),
          own: fc.option(fc.integer({ min: 8, max: 20 }), { nil: undefined }),
        }),
        (facts) => {
          const gear = testGear(facts.plates, 300);
          const hang = { pieces: [{ what: band, perSide: facts.pairs }], anchorKg: 150 };
          const room: BlockRoom = {
            gear,
            rounding: "nearest",
            metric: "MCV",
            settings: { deloadLoad: 0.8, deloadSets: 0.5 },
            hang,
            forLift: {},
            unit: facts.unit,
            others: [],
            hand: undefined,
            handOf: {},
          };
          const lifter = lifterAt(
            "a",
            "v",
            {
              workingMax: testedMax(facts.maxKg, "2026-03-10"),
              profile: facts.profile ? testedLine("2026-02-17") : undefined,
              peakForceMps: facts.peaks ? 0.75 : undefined,
              peakPowerKg: facts.peaks ? 55 : undefined,
              found: facts.peaks ? { kg: 47.5, on: "2026-03-01" } : undefined,
              heights: facts.heights ? { bottomM: 0.9, lockoutM: 1.4, measured: true } : undefined,
            },
            { bodyKg: facts.bodyKg, unit: facts.unit },
          );
          const block = blockOfLift({
            name: "B",
            startDate: "2026-03-02",
            variantId: "v",
            recipe,
            schoolId: "",
          });
          const slot = block.slots.main;
          const week = slot && slotWeek(block, slot, facts.week, room.settings);
          if (!slot || !week || week.sets.length === 0) return;
          if (variantIn(slot, week) !== "v") return;
          const firstKey = week.sets[0]?.key ?? "";
          if (facts.own !== undefined) {
            block.overrides[`a/main/${firstKey}`] = { loadKg: 5 * facts.own, by: "C" };
          }
          const [cell] = slotCells({
            block,
            slotId: "main",
            weeks: [facts.week],
            athletes: [lifter],
            room,
            liftName: "Bench",
          });
          const published = blockLoads({ block, athletes: [lifter], room }).a ?? {};
          const variant = {
            id: "v",
            name: "Bench",
            lift: "bench",
            start: "top" as const,
            caution: "",
          };
          const frozen = freezeSession({
            plan: {
              id: "p",
              slotId: "main",
              name: "B",
              squadName: "S",
              weeks: block.weeks,
              version: 1,
              recipe,
              variant,
              metric: "MCV",
              rounding: "nearest",
            },
            week,
            athletes: [lifter],
            setups: new Map(),
            racks: [{ rackId: "r", number: 1, gear, hang }],
            own: NOTHING_OWN,
            overrides: new Map(
              facts.own === undefined ? [] : [[`a/${firstKey}`, 5 * facts.own] as const],
            ),
            date: "2026-03-10",
            zone: "UTC",
            roomName: "R",
            coachValues: {},
          });
          const sets = liftsOf(frozen)[0]?.racks[0]?.lifters[0]?.sets ?? [];
          const cells = (cell?.byAthlete[0] ?? []).flatMap((run) =>
            Array.from({ length: run.count }, () => run),
          );
          expect(cells.map((run) => run.loadKg)).toEqual(sets.map((set) => set.loadKg));
          expect(cells.map((run) => run.reason)).toEqual(sets.map((set) => set.loadReason));
          week.sets.forEach((set, i) => {
            expect(published[`main/${facts.week}/${set.key}`]).toBe(sets[i]?.loadKg);
            const full = setInFull({
              block,
              slotId: "main",
              week,
              set,
              athlete: lifter,
              room,
              lift: variant,
            });
            // To the plate, the word, the wanted speed and the working.
            expect(full).toEqual(sets[i]);
          });
        },
      ),
      { numRuns: 15 },
    );
  });
});
