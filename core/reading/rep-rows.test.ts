import { describe, expect, it } from "vitest";
import { guessColumns, withRole } from "./columns";
import { PROBLEMS_KEPT } from "./line-problems";
import { REP_HEADERS, type RepImportSettings, RepRows } from "./rep-rows";

const HEADER = ["Athlete", "Lift", "Date", "Load (kg)", "Set", "Rep", "Mean velocity"];
const settings: RepImportSettings = {
  mapping: guessColumns(HEADER, REP_HEADERS),
  metric: "MCV",
  unit: "kg",
  today: "2026-03-10",
  athletes: [{ id: "a1", name: "Éva Strand" }],
  variants: [{ id: "v1", name: "Bench, paused" }],
  athleteId: undefined,
  variantId: undefined,
  date: undefined,
};
const GOOD = ["Eva  strand", "bench, Paused", "2026-03-01", "60", "1", "1", "0.95"];
const cell = (at: number, text: string) => GOOD.map((one, i) => (i === at ? text : one));

function read(rows: string[][], over: Partial<RepImportSettings> = {}) {
  const reader = new RepRows({ ...settings, ...over });
  for (const [i, row] of rows.entries()) reader.push(row, i + 2);
  const tests = reader.finish();
  return { tests, problems: reader.problems.kept, count: reader.problems.count };
}

describe("a file of reps", () => {
  it("guesses the columns from their headers", () => {
    expect(settings.mapping).toEqual({
      athlete: 0,
      lift: 1,
      date: 2,
      load: 3,
      set: 4,
      rep: 5,
      MCV: 6,
    });
    expect(guessColumns(["foo", "", "PV (m/s)"], REP_HEADERS)).toEqual({});
    expect(guessColumns(["Peak velocity"], REP_HEADERS)).toEqual({ PV: 0 });
  });

  it("makes one test of an athlete's lift and day; decimal commas and pounds are read", () => {
    const { tests, problems } = read([
      GOOD,
      cell(5, "2").map((c, i) => (i === 6 ? "0,91" : i === 3 ? "132.5 lb" : c)),
      ["", ""],
    ]);
    expect(problems).toEqual([]);
    expect(tests).toHaveLength(1);
    expect(tests[0]).toMatchObject({ athleteId: "a1", variantId: "v1", date: "2026-03-01" });
    expect(tests[0]?.reps.map((rep) => rep.velocityMps)).toEqual([0.95, 0.91]);
    expect(tests[0]?.reps[1]?.loadKg).toBeCloseTo(60.1, 2);
  });

  it.each([
    [0, "Nobody", 'No athlete "Nobody" in this team.'],
    [0, "", "No athlete."],
    [1, "Curl", 'No lift "Curl" in this team.'],
    [2, "2026-03-11", "Date 2026-03-11 is still to come."],
    [2, "2026-02-30", 'Date "2026-02-30" is not written year-month-day.'],
    [2, "1.3.2026", 'Date "1.3.2026" is not written year-month-day.'],
    [3, "heavy", 'Load "heavy" is not a load.'],
    [3, "0", "Load 0: the bar itself has a mass."],
    [3, "-20", 'Load "-20" is not a load.'],
    [3, "6000", "Load 6000 is over 1000 kg."],
    [3, "", "No load."],
    [5, "one", 'Rep "one" is not a number.'],
    [6, "fast", 'MCV "fast" is not a number.'],
    [6, "", "No MCV."],
    [6, "-0.4", "MCV -0.4: a rep moves up, over 0 m/s."],
    [6, "95", "MCV 95 is over 5 m/s. In cm/s, or another column?"],
    [6, "NaN", 'MCV "NaN" is not a number.'],
    [6, "1,234.5", 'MCV "1,234.5" is not a number.'],
  ])("names column %s %j by its line", (at, text, words) => {
    expect(read([GOOD, cell(at, text)]).problems).toEqual([{ line: 3, text: words }]);
  });

  it("names every fault of a line, and never the same rep twice", () => {
    expect(read([cell(3, "x").map((one, i) => (i === 6 ? "y" : one))]).problems[0]?.text).toBe(
      'Load "x" is not a load. MCV "y" is not a number.',
    );
    expect(read([GOOD, GOOD]).problems).toEqual([
      { line: 3, text: "The same set and rep as line 2." },
    ]);
  });

  it("says when load and velocity look reversed, and when nothing is there", () => {
    const reversed = GOOD.map((one, i) => (i === 3 ? "0.95" : i === 6 ? "60" : one));
    expect(read([reversed]).problems[0]).toMatchObject({ line: 0 });
    expect(read([reversed]).problems[0]?.text).toContain("look reversed");
    expect(read([]).problems[0]?.text).toContain("holds no reps");
  });

  it("takes athlete, lift and date from the page where the file lacks them", () => {
    const short = [["60", "0.95"]];
    const mapping = guessColumns(["load", "mcv"], REP_HEADERS);
    expect(read(short, { mapping }).problems[0]?.text).toContain("No athlete: choose one above");
    const given = { mapping, athleteId: "a1", variantId: "v1", date: "2026-03-02" as const };
    expect(read(short, given).tests[0]?.reps).toHaveLength(1);
  });

  it("counts every fault and keeps the first of them", () => {
    const { problems, count } = read(Array.from({ length: 500 }, () => cell(3, "x")));
    expect(count).toBe(500);
    expect(problems).toHaveLength(PROBLEMS_KEPT);
  });
});

describe("another role for a column", () => {
  const mapping = { athlete: 0, load: 1, MCV: 2 };
  it("leaves the role that the column had, and takes it from the column that had it", () => {
    expect(withRole(mapping, 1, "MCV")).toEqual({ athlete: 0, MCV: 1 });
  });
  it("puts a column aside", () => {
    expect(withRole(mapping, 0, "")).toEqual({ load: 1, MCV: 2 });
  });
});
