import { describe, expect, it } from "vitest";
import { COACH_VALUES, listCoachValues } from "./coach-values";

describe("what only a coach can set", () => {
  it("has no default anywhere, a range, and says what it decides and what happens without it", () => {
    expect(new Set(COACH_VALUES.map((one) => one.key)).size).toBe(COACH_VALUES.length);
    for (const one of COACH_VALUES) {
      expect(one.low).toBeLessThan(one.high);
      expect(one.why.length).toBeGreaterThan(20);
      expect(Object.keys(one)).not.toContain("start");
    }
  });

  it("lists unset ones first, set ones with their number; zero is a number", () => {
    const [first] = COACH_VALUES;
    if (!first) throw new Error("there are values");
    const list = listCoachValues({ [first.key]: 0 });
    expect(list.at(-1)).toMatchObject({ key: first.key, value: 0 });
    expect(list.filter((one) => one.value === undefined)).toHaveLength(COACH_VALUES.length - 1);
  });
});
