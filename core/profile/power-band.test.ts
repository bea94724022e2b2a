import { describe, expect, it } from "vitest";
import { usualPowerBand } from "./power-band";

describe("a group's usual band of peak power", () => {
  it("is the coach's: none until both ends are set, and of the lift's own kind", () => {
    const both = { powerSquatFromPercent: 45, powerSquatToPercent: 60 };
    expect(usualPowerBand("squat", {})).toBeUndefined();
    expect(usualPowerBand("squat", { powerSquatFromPercent: 45 })).toBeUndefined();
    expect(usualPowerBand("box-squat", both)).toEqual({ lowPercent: 45, highPercent: 60 });
    expect(usualPowerBand("bench", both)).toBeUndefined();
    expect(usualPowerBand("deadlift", both)).toBeUndefined();
  });

  it("reads ends that were written the wrong way round", () => {
    expect(usualPowerBand("press", { powerPressFromPercent: 50, powerPressToPercent: 30 })).toEqual(
      { lowPercent: 30, highPercent: 50 },
    );
  });
});
