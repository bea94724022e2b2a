import { describe, expect, it } from "vitest";
import { resistanceForShare } from "./share";

describe("kilograms for a share, before a piece is chosen", () => {
  it("parts what is felt at lockout into bar and resistance", () => {
    const found = resistanceForShare({ totalKg: 80, sharePercent: 25, of: "lockout" });
    expect(found).toMatchObject({ ok: true, pullKg: 20, perSideKg: 10, barKg: 60 });
  });

  it("takes the share of the working max where it is asked so", () => {
    const found = resistanceForShare({ totalKg: 80, sharePercent: 20, of: "max", maxKg: 120 });
    expect(found).toMatchObject({ ok: true, pullKg: 24, barKg: 56 });
  });

  it("refuses what leaves no bar, and a share of nothing", () => {
    expect(resistanceForShare({ totalKg: 30, sharePercent: 40, of: "max", maxKg: 120 })).toEqual({
      ok: false,
      reason: "over-total",
    });
    expect(resistanceForShare({ totalKg: 30, sharePercent: 40, of: "max" })).toEqual({
      ok: false,
      reason: "no-load",
    });
    expect(resistanceForShare({ totalKg: 30, sharePercent: 100, of: "lockout" })).toEqual({
      ok: false,
      reason: "no-share",
    });
  });
});
