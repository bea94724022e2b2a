import { describe, expect, it } from "vitest";
import { stepsInZone } from "./zone";

describe("steps of a rack where most loads lie", () => {
  it("takes the widest, the zone's ends too", () => {
    const zone = { fromKg: 40, toKg: 60 };
    expect(stepsInZone([20, 40, 45, 50, 55, 60, 80], zone)).toEqual({
      zoneKg: [40, 45, 50, 55, 60],
      widestKg: 5,
    });
    expect(stepsInZone([20, 42.5, 50], zone).widestKg).toBe(10);
    expect(stepsInZone([], zone)).toEqual({ zoneKg: [], widestKg: 20 });
    expect(stepsInZone([50], { fromKg: 60, toKg: 40 })).toEqual({ zoneKg: [], widestKg: 0 });
  });
});
