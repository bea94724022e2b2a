import { describe, expect, it } from "vitest";
import { seededRandom } from "../core/numeric/random";
import { LIFTS, MVT_DEFAULTS_MPS } from "../core/profile/threshold";
import { analyseStream } from "../core/velocity/analyse";
import { simulateSet, trueVelocities } from "./lifter";
import { SENSOR_DEFAULTS, sampleMovement } from "./sensor";
import { standInLifter } from "./stand-in";

describe("a stand-in for whom nobody has measured", () => {
  it.each(LIFTS)(
    "of %s moves the max at the lift's threshold, and is measured rep by rep",
    (lift) => {
      const lifter = standInLifter(lift, 100, "Ann/squat");
      const at = (loadKg: number) =>
        trueVelocities(
          { ...lifter, spreadMps: 0, repFade: 0 },
          { loadKg, reps: 2, setsBefore: 0, restS: 180, dayShiftMps: 0, seed: 1 },
        )[1] as number;
      expect(at(100)).toBeCloseTo(Math.max(MVT_DEFAULTS_MPS[lift].mps, 0.08), 6);
      expect(at(50)).toBeGreaterThan(at(80));
      const set = simulateSet(lifter, {
        loadKg: 60,
        reps: 3,
        setsBefore: 0,
        restS: 180,
        dayShiftMps: 0,
        seed: 5,
      });
      const samples = sampleMovement(set.movement, SENSOR_DEFAULTS, seededRandom(3));
      const { reps } = analyseStream(
        {
          timesS: samples.map((one) => one.timeS),
          heightsM: samples.map((one) => one.heightM),
        },
        lifter.path === "from-floor" ? { start: "bottom" } : {},
      );
      expect(reps).toHaveLength(3);
    },
  );

  it("is the same for the same words, and stands for an unknown or impossible max too", () => {
    expect(standInLifter("squat", 100, "a")).toEqual(standInLifter("squat", 100, "a"));
    for (const max of [undefined, 0, -5, Number.NaN, Number.POSITIVE_INFINITY, 1e9])
      expect(standInLifter("bench", max, "a").l0Kg).toBeLessThan(200);
  });
});
