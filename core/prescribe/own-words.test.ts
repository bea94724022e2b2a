import { describe, expect, it } from "vitest";
import { testedLine } from "./fixtures/base";
import { type LiftFacts, NO_LIFT_FACTS } from "./lifter";
import { guardWords } from "./own-words";

const asked = {
  loadsKg: [100, undefined],
  facts: NO_LIFT_FACTS,
  basis: "percent",
  unit: "kg",
  addRestS: 0,
  floorMps: undefined,
  coachSpeed: false,
} as const;
function tested(source: string | undefined) {
  const line = testedLine("2026-03-01");
  const facts: LiftFacts = { ...NO_LIFT_FACTS, profile: line && { ...line, source } };
  return { ...asked, facts };
}

describe("what is said beside an athlete's loads", () => {
  it("is nothing where nothing is to be asked", () => {
    expect(guardWords(asked)).toEqual([]);
    for (const source of ["sensor", "typed", undefined])
      expect(guardWords(tested(source))).toEqual([]);
  });

  it("is that speeds, and loads by speed, are from a film's test", () => {
    expect(guardWords(tested("video")).join()).toMatch(/^Wanted speeds are from a film's test/);
    expect(guardWords(tested("mixed, with video")).length).toBe(1);
    // The coach's own range asks no profile for a speed; a load by speed asks it all the same.
    expect(guardWords({ ...tested("video"), coachSpeed: true })).toEqual([]);
    const bySpeed = { ...tested("video"), basis: "speed", coachSpeed: true } as const;
    expect(guardWords(bySpeed).join()).toMatch(/^Loads by speed are from a film's test/);
  });
});
