import { describe, expect, it } from "vitest";
import { SHIPPED_SCHOOLS } from "../../db/library/schools";
import { SchoolForm } from "./school";

const [first] = SHIPPED_SCHOOLS;
if (!first) throw new Error("There are shipped schools.");
const fields = (over: Record<string, string> = {}): Record<string, string> => ({
  id: "",
  name: first.name,
  assumes: first.assumes,
  loadBy: first.loadBy,
  restLeast: String(first.rest.leastS),
  restMost: String(first.rest.mostS),
  speedReps: String(first.speedReps),
  powerReps: String(first.powerReps),
  powerRestS: String(first.powerRestS),
  order: first.order,
  speedWork: first.speedWork,
  convention: first.convention,
  totals: first.totals ? "yes" : "no",
  reuseGapWaves: String(first.reuseGapWaves),
  deloadAfterWeeks: String(first.deloadAfterWeeks),
  heavySpeedHours: String(first.heavySpeedHours),
  strongFrom: "2,5",
  strongEveryWeeks: String(first.strongEveryWeeks),
  heavyDays: String(first.heavyDays),
  hardLeast: String(first.hardSets.least),
  hardMost: String(first.hardSets.most),
  lossSpeed: "10",
  lossPower: "10",
  lossStrength: "20",
  lossGrowth: "",
  resistance: first.resistance,
  ending: first.ending,
  box: first.box,
  boxStyles: first.boxStyles.join(","),
  relaxAndFire: "no",
  rockingDrill: "no",
  breathing: first.breathing,
  shareLeast: String(first.resistanceShare.leastPercent),
  shareMost: String(first.resistanceShare.mostPercent),
  ...over,
});

describe("a school from its form", () => {
  it("is the shipped one when nothing is changed, unset losses left out", () => {
    expect(SchoolForm.parse(fields()).school).toEqual(first);
  });

  it.each([
    [{ name: "x" }, "name"],
    [{ assumes: "" }, "assumes"],
    [{ restLeast: "90", restMost: "60" }, "restMost"],
    [{ speedReps: "0" }, "speedReps"],
    [{ heavySpeedHours: "many" }, "heavySpeedHours"],
    [{ lossSpeed: "90" }, "lossSpeed"],
    [{ loadBy: "feeling" }, "loadBy"],
    [{ boxStyles: "" }, "boxStyles"],
    [{ boxStyles: "wide,flying" }, "boxStyles"],
    [{ shareLeast: "30", shareMost: "20" }, "shareMost"],
  ])("%j names its field", (over, field) => {
    const parsed = SchoolForm.safeParse(fields(over as Record<string, string>));
    expect(parsed.success).toBe(false);
    expect(parsed.error?.issues.map((one) => one.path[0])).toContain(field);
  });
});
