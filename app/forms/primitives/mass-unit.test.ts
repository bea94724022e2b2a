import { describe, expect, it } from "vitest";
import { unitNameOf, withFieldUnits } from "./mass-unit";

/** What a server reads of a form that a reader of pounds, or of kilograms, has sent. */
const sent = (unit: "kg" | "lb", load: string) => {
  const form = new FormData();
  form.set(unitNameOf("load"), unit);
  form.set("load", load);
  form.set("reps", "5");
  return Object.fromEntries(withFieldUnits(form));
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
    const form = new FormData();
    form.set(unitNameOf("load"), "stone");
    form.set("load", "12");
    expect(Object.fromEntries(withFieldUnits(form))).toEqual({ load: "12" });
  });
});
