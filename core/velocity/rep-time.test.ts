import { describe, expect, it } from "vitest";
import { repTime } from "./rep-time";

const rep = { rangeM: 0.6, meanMps: 0.5, lowerS: 1, pauseS: 0.5, reps: 3 };

describe("rep time", () => {
  it("is range over mean speed, with lowering and pause for the set", () => {
    expect(repTime(rep)).toMatchObject({ upS: 1.2, repS: 2.7 });
    expect(repTime(rep)?.setS).toBeCloseTo(8.1, 9);
  });
  it("gives nothing for a range, speed or count that is none", () => {
    for (const wrong of [{ meanMps: 0 }, { rangeM: 60 }, { reps: 2.5 }, { lowerS: -1 }]) {
      expect(repTime({ ...rep, ...wrong })).toBeUndefined();
    }
  });
});
