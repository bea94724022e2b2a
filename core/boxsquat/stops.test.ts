import { describe, expect, it } from "vitest";
import { boxRepWords } from "./stops";

describe("what the box asks of a rep", () => {
  it.each([
    [0.5, undefined, "at the box 0.50 m/s"],
    [0.5, 0.5, "at the box 0.50 m/s"],
    [0.51, 0.5, "at the box 0.51 m/s · dropped?"],
    [undefined, 0.5, ""],
  ])("met at %s m/s, at most %s", (contactMps, mostContactMps, words) => {
    expect(boxRepWords({ contactMps, mostContactMps })).toBe(words);
  });
});
