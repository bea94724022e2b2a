import { describe, expect, it } from "vitest";
import { complexTotals } from "../../core/contrast/complex";
import { checkComplex } from "../../core/contrast/complex-checks";
import { SHIPPED_COMPLEXES } from "./complexes";
import { SHIPPED_SCHOOLS } from "./schools";

describe("the shipped complexes", () => {
  it("are eight or more, each named once, with an aim, a purpose and a shipped school", () => {
    expect(SHIPPED_COMPLEXES.length).toBeGreaterThanOrEqual(8);
    expect(new Set(SHIPPED_COMPLEXES.map((one) => one.name)).size).toBe(SHIPPED_COMPLEXES.length);
    const schools = SHIPPED_SCHOOLS.map((one) => one.name);
    for (const one of SHIPPED_COMPLEXES) {
      expect(one.purpose.length).toBeGreaterThan(10);
      expect(schools).toContain(one.school);
      expect(new Set(one.items.map((item) => item.id)).size).toBe(one.items.length);
    }
  });
  it.each(SHIPPED_COMPLEXES.map((one) => [one.name, one] as const))(
    "%s stands without a warning and under an hour",
    (_, complex) => {
      expect(checkComplex(complex).filter((one) => one.level === "warning")).toEqual([]);
      expect(complexTotals(complex).lengthS).toBeLessThan(3600);
    },
  );
});
