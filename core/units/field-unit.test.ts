import { describe, expect, it } from "vitest";
import { unitNameOf, withFieldUnits } from "./field-unit";

/** What a server reads of a form that a reader of pounds, or of kilograms, has sent. */
const sent = (unit: "kg" | "lb", load: string) => {
  return Object.fromEntries(
    withFieldUnits([
      [unitNameOf("load"), unit],
      ["load", load],
      ["reps", "5"],
    ]),
  );
};

describe("a mass typed into a field", () => {
  it.each([
    ["lb", "225", "225 lb"],
    ["lb", " 82,5 ", "82,5 lb"],
    ["kg", "100", "100 kg"],
    ["lb", "100 kg", "100 kg"],
    ["lb", "4.5kg", "4.5kg"],
    ["lb", "", ""],
    ["lb", "heavy", "heavy"],
  ] as const)("read in %s, %j is %j", (unit, text, read) => {
    expect(sent(unit, text)).toEqual({ load: read, reps: "5" });
  });
  it("takes no unit that there is not", () => {
    expect(
      withFieldUnits([
        [unitNameOf("load"), "stone"],
        ["load", "12"],
      ]),
    ).toEqual([["load", "12"]]);
  });
});
