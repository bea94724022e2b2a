import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type EarlierContext, readEarlierSheet } from "./earlier-rows";
import { liftNamed } from "./lift-names";

const context: EarlierContext = {
  today: "2026-03-10",
  unit: "kg",
  athletes: [
    { id: "a", name: "Ada Vik" },
    { id: "b", name: "Bo Ström" },
  ],
  variants: [
    { id: "bench", name: "Bench press, straight bar" },
    { id: "wide", name: "Bench press, wide grip" },
    { id: "squat", name: "Back squat, straight bar" },
    { id: "trap", name: "Trap-bar deadlift" },
  ],
  mapping: undefined,
  lifts: {},
  slash: undefined,
};
const read = (text: string, more: Partial<EarlierContext> = {}) =>
  readEarlierSheet(
    text.split("\n").map((line) => line.split("|")),
    { ...context, ...more },
  );
const HEADER = "Date|Athlete|Lift|Sets|Reps|Load|Speed";

describe("a sheet of earlier sessions", () => {
  it("is read line by line", () => {
    const sheet = read(
      `${HEADER}\n2026-01-05|Ada Vik|Back squat|5|3|80|0.82\n6.1.2026|bo strom|trap bar|4x2||225 lb|`,
    );
    expect(sheet.problems).toEqual([]);
    expect(sheet.lines.map((one) => one.problems)).toEqual([[], []]);
    expect(sheet.lines[0]?.set).toMatchObject({
      athleteId: "a",
      variantId: "squat",
      date: "2026-01-05",
      sets: 5,
      reps: 3,
      load: { amount: 80, unit: "kg" },
      velocityMps: 0.82,
    });
    expect(sheet.lines[1]?.set).toMatchObject({
      athleteId: "b",
      variantId: "trap",
      date: "2026-01-06",
      sets: 4,
      reps: 2,
      load: { amount: 225, unit: "lb" },
      velocityMps: undefined,
    });
  });

  it("asks once which number is the day, unless some line shows it", () => {
    const both = `${HEADER}\n3/4/2025|Ada Vik|Back squat|5|3|80|`;
    expect(read(both)).toMatchObject({ askDates: true, lines: [{ set: undefined, problems: [] }] });
    expect(read(both, { slash: "day-first" }).lines[0]?.set?.date).toBe("2025-04-03");
    expect(read(both, { slash: "month-first" }).lines[0]?.set?.date).toBe("2025-03-04");
    const shown = read(`${both}\n13/4/2025|Ada Vik|Back squat|5|3|82.5|`);
    expect(shown.askDates).toBe(false);
    expect(shown.lines.map((one) => one.set?.date)).toEqual(["2025-04-03", "2025-04-13"]);
    // What a line shows stands over what was said.
    expect(
      read("Date|Athlete|Lift|Reps|Load\n3/14/2025|Ada Vik|Back squat|1|80", {
        slash: "day-first",
      }).lines[0]?.set?.date,
    ).toBe("2025-03-14");
  });

  it("asks once for a lift's name that fits several", () => {
    const text = `${HEADER}\n2026-01-05|Ada Vik|Bench|5|3|80|\n2026-01-06|Ada Vik|bench|5|3|82.5|`;
    expect(read(text).lifts.map((one) => one.choices.length)).toEqual([2]);
    const answered = read(text, { lifts: { bench: "bench" } });
    expect(answered.lifts).toEqual([]);
    expect(answered.lines.map((one) => one.set?.variantId)).toEqual(["bench", "bench"]);
  });

  it.each([
    ["|Ada Vik|Back squat|5|3|80|", "No date."],
    ["2026-13-05|Ada Vik|Back squat|5|3|80|", "is not written"],
    ["2027-01-05|Ada Vik|Back squat|5|3|80|", "still to come"],
    ["2026-01-05||Back squat|5|3|80|", "No athlete."],
    ["2026-01-05|Nobody|Back squat|5|3|80|", "add them first"],
    ["2026-01-05|Ada Vik||5|3|80|", "No lift."],
    ["2026-01-05|Ada Vik|Curl|5|3|80|", "is no lift"],
    ["2026-01-05|Ada Vik|Back squat|||80|", "No sets and no reps."],
    ["2026-01-05|Ada Vik|Back squat|5.5|3|80|", "are not between 1 and 50"],
    ["2026-01-05|Ada Vik|Back squat|5|300|80|", "are not between 1 and 100"],
    ["2026-01-05|Ada Vik|Back squat|5|3||", "No load."],
    ["2026-01-05|Ada Vik|Back squat|5|3|heavy|", "is no load"],
    ["2026-01-05|Ada Vik|Back squat|5|3|80|fast", "is not a number"],
    ["2026-01-05|Ada Vik|Back squat|5|3|80|82", "is not between 0 and 5"],
  ])("says what is wrong with %j", (line, words) => {
    const [only] = read(`${HEADER}\n${line}`).lines;
    expect(only?.set).toBeUndefined();
    expect(only?.problems.join()).toContain(words);
  });

  it("names a line that stands twice, and columns that are missing", () => {
    const line = "2026-01-05|Ada Vik|Back squat|5|3|80|";
    expect(read(`${HEADER}\n${line}\n${line}`).lines[1]?.problems).toEqual(["The same as line 2."]);
    expect(read("Date|Athlete\n1|2").problems).toHaveLength(3);
    expect(read("").problems).toEqual(["The sheet is empty."]);
  });

  it("never fails, and takes or names every line", () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string({ maxLength: 10 }), { maxLength: 7 }), { maxLength: 6 }),
        (rows) => {
          const sheet = readEarlierSheet([HEADER.split("|"), ...rows], context);
          for (const one of sheet.lines)
            expect(one.set !== undefined || one.problems.length > 0 || sheet.askDates).toBe(true);
        },
      ),
    );
  });
});

describe("a lift by its name", () => {
  it.each([
    ["Bench press, straight bar", ["bench"]],
    ["bench press straight", ["bench"]],
    ["wide", ["wide"]],
    ["trap bar", ["trap"]],
    ["Bench", ["bench", "wide"]],
    ["bar", ["bench", "squat", "trap"]],
    ["", []],
    ["curl", []],
  ])("%j is %j", (text, ids) => {
    const named = liftNamed(text, context.variants, {});
    const found =
      named.is === "one"
        ? [named.variant.id]
        : named.is === "several"
          ? named.variants.map((one) => one.id)
          : [];
    expect(found).toEqual(ids);
  });

  it("takes an answer only where it is one of those asked about", () => {
    expect(liftNamed("bench", context.variants, { bench: "wide" })).toMatchObject({ is: "one" });
    expect(liftNamed("bench", context.variants, { bench: "squat" })).toMatchObject({
      is: "several",
    });
  });
});
