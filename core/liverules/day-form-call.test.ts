import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { testGear } from "../barload/fixtures/gear";
import { readIn } from "../units/written";
import { dayFormCall } from "./day-form-call";
import { nearestWithin } from "./nearest-within";

/** The profile and the day of docs/sources.md, "Day readiness": 0.80 m/s is 73.044 kg that day. */
const TESTED = {
  reps: [
    [40, 1.2],
    [40, 1.21],
    [60, 0.99],
    [60, 0.97],
    [80, 0.78],
    [80, 0.75],
    [100, 0.55],
    [100, 0.53],
  ].map(([loadKg = 0, velocityMps = 0]) => ({ loadKg, velocityMps })),
};
const TODAY = [
  [40, 1.15],
  [40, 1.16],
  [40, 1.12],
  [60, 0.95],
  [60, 0.92],
  [60, 0.92],
].map(([loadKg = 0, velocityMps = 0]) => ({ loadKg, velocityMps }));
const gear = testGear([20, 10, 5, 2.5, 1.25]);
const first = (loadKg: number) => ({ loadKg, target: { lowMps: 0.75, highMps: 0.85 } });

describe("the day's form from the way up", () => {
  it("lowers the first set to what gives the wanted speed today, and says by what", () => {
    const call = dayFormCall({ test: TESTED, wayUp: TODAY, first: first(80), gear });
    expect(call).toMatchObject({
      kind: "day-form",
      action: { type: "load", deltaKg: -7.5, toKg: 72.5 },
    });
    expect(call && readIn(call.proposal, "kg")).toBe(
      "Lower the first set, 80 kg, to 72.5 kg today",
    );
    expect(call && readIn(call.evidence, "kg")).toBe(
      "6 reps on the way up: slower than the profile by 0.04 m/s; 0.80 m/s is 73 kg today, 90 % 71 kg to 75.2 kg. The stored max stays.",
    );
  });

  it("is silent within a loadable step and where nothing can be told", () => {
    expect(dayFormCall({ test: TESTED, wayUp: TODAY, first: first(75), gear })).toBeUndefined();
    expect(dayFormCall({ test: TESTED, wayUp: [], first: first(80), gear })).toBeUndefined();
    const two = { reps: TESTED.reps.slice(0, 4) };
    expect(dayFormCall({ test: two, wayUp: TODAY, first: first(80), gear })).toBeUndefined();
  });

  it("an empty bar that was lifted at ease says nothing of the day", () => {
    const lazy = [...TODAY, { loadKg: 20, velocityMps: 0.7 }, { loadKg: 20, velocityMps: 0.6 }];
    const call = (wayUp: typeof TODAY) =>
      dayFormCall({ test: TESTED, wayUp, first: first(80), gear })?.action;
    expect(call(lazy)).toEqual(call(TODAY));
  });

  it("moves by a loadable step at least and ten percent at most, and what the rack can build", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 12, max: 48 }),
        fc.double({ min: -0.2, max: 0.2, noNaN: true }),
        (steps, shift) => {
          const loadKg = steps * 2.5;
          const wayUp = TODAY.map((rep) => ({ ...rep, velocityMps: rep.velocityMps + shift }));
          const call = dayFormCall({ test: TESTED, wayUp, first: first(loadKg), gear });
          if (call?.action.type !== "load") return;
          const moved = Math.abs(call.action.deltaKg);
          expect(moved).toBeGreaterThan(0);
          expect(moved).toBeLessThanOrEqual(0.1 * loadKg + 1e-9);
          expect((call.action.toKg / 2.5) % 1).toBe(0);
        },
      ),
    );
  });
});

describe("nearest within ten percent", () => {
  it.each([
    [80, -6.96, 72.5],
    [80, 8, 87.5],
    [80, 1, undefined],
    [20, -2, undefined],
  ])("%d kg by %d kg", (fromKg, byKg, wanted) => {
    expect(nearestWithin(gear, fromKg, byKg)?.totalKg).toBe(wanted);
  });
});
