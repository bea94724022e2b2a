import { describe, expect, it } from "vitest";
import { changedPairings } from "./pairing-changes";

const pairing = (complexId: string, over: object = {}) => ({
  dayId: "d1",
  complexId,
  fromWeek: 1,
  ...over,
});

describe("what became of pairings since a publication", () => {
  it("is named: put on, taken off, on another day, from another week, and nothing else", () => {
    const before = {
      pairings: {
        a: pairing("A"),
        b: pairing("B"),
        c: pairing("C"),
        d: pairing("D"),
        e: pairing("E"),
      },
    };
    const now = {
      pairings: {
        a: pairing("A"),
        c: pairing("C", { dayId: "d2" }),
        d: pairing("D", { fromWeek: 3 }),
        e: pairing("X"),
        f: pairing("F"),
      },
    };
    expect(changedPairings(before, now).map((one) => `${one.complexId} ${one.kind}`)).toEqual([
      "B taken off",
      "C another day",
      "D another week",
      "X put on",
      "F put on",
    ]);
    expect(changedPairings({}, {})).toEqual([]);
    expect(changedPairings(before, before)).toEqual([]);
  });
});
