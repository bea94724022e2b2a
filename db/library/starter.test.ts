import { describe, expect, it } from "vitest";
import { loadableTable } from "../../core/barload/loadable";
import { checkRoom, racksOfItems } from "../../core/gear/room";
import { starterRoom } from "./starter-room";
import { SHIPPED_VARIANTS } from "./variants";

describe("what a new team starts with", () => {
  it.each(["kg", "lb"] as const)(
    "has a room in %s that holds together and builds loads",
    (unit) => {
      const items = starterRoom(unit);
      const faults = checkRoom(items, "2026-03-10").filter((one) =>
        /not in this room|written twice/.test(one.text),
      );
      expect(faults).toEqual([]);
      const racks = racksOfItems(items);
      expect(racks).toHaveLength(4);
      for (const rack of racks) expect(loadableTable(rack.gear).totals.length).toBeGreaterThan(40);
    },
  );

  it("has a caution on every lift variant, and no base that is not there", () => {
    const names = SHIPPED_VARIANTS.map((one) => one.name);
    expect(new Set(names).size).toBe(names.length);
    SHIPPED_VARIANTS.forEach((one, at) => {
      expect(one.caution.length, one.name).toBeGreaterThan(40);
      expect((one.baseKind ?? "own") === "own", one.name).toBe(one.baseOf === undefined);
      // The database asks for the base first.
      if (one.baseOf) expect(names.slice(0, at), one.name).toContain(one.baseOf);
    });
  });

  it("has a caution about bands where bands pull", () => {
    for (const one of SHIPPED_VARIANTS)
      if (one.resistance) expect(one.caution, one.name).toContain("Bands looked over");
  });
});
