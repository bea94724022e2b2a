import { describe, expect, it } from "vitest";
import { countdownSignal } from "./countdown";

const signal = (before: Record<string, number>, now: Record<string, number>) =>
  countdownSignal(
    new Map(Object.entries(before)),
    Object.entries(now).map(([id, leftS]) => ({ id, leftS })),
  );

describe("clocks that run down", () => {
  it.each([
    ["ten seconds before", { ann: 10.2 }, { ann: 9.9 }, "soon"],
    ["at the start", { ann: 0.1 }, { ann: -0.1 }, "now"],
    ["in between, nothing", { ann: 8 }, { ann: 7.8 }, undefined],
    ["over already, nothing", { ann: -5 }, { ann: -6 }, undefined],
    ["seen for the first time, nothing", {}, { ann: 9 }, undefined],
    ["begun anew, nothing", { ann: -3 }, { ann: 60 }, undefined],
    ["one is due and one is near: due", { ann: 0.1, bo: 10.1 }, { ann: 0, bo: 9.9 }, "now"],
    ["a jump over both: due", { ann: 60 }, { ann: -2 }, "now"],
  ] as const)("%s", (_, before, now, said) => {
    expect(signal(before, now)).toBe(said);
  });
});
