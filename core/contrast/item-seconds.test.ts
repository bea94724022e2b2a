import { describe, expect, it } from "vitest";
import { complexLength } from "./item-seconds";

describe("length of a complex from the seconds of its items", () => {
  // Pull × 2 of 3 s, 20 s, jump × 3 of 2 s, 20 s, throw × 3 of 4 s, then 150 s, five rounds.
  const items = [
    { reps: 2, secondsEach: 3, gapS: 20 },
    { reps: 3, secondsEach: 2, gapS: 20 },
    { reps: 3, secondsEach: 4, gapS: 99 },
  ];

  it("adds work, gaps and rests; the last gap is the rest's", () => {
    const found = complexLength({ items, rounds: 5, restS: 150 });
    expect(found).toMatchObject({
      workS: 24,
      roundS: 64,
      wholeS: 920,
      withLastRestS: 1070,
      reps: 40,
    });
  });

  it("is none without items, whole rounds or time", () => {
    expect(complexLength({ items: [], rounds: 5, restS: 150 })).toBeUndefined();
    expect(complexLength({ items, rounds: 1.5, restS: 150 })).toBeUndefined();
    expect(complexLength({ items, rounds: 2, restS: -1 })).toBeUndefined();
  });
});
