import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type PercentTable, readPercentTable, type TableChoices } from "./percent-table";
import { expandRecipe, type Recipe } from "./recipe";

const read = (text: string, choices: TableChoices = {}): PercentTable =>
  readPercentTable(
    text.split("\n").map((line) => line.split("\t")),
    choices,
  );

/** Each week's sets as "reps@percent". */
function sets(table: PercentTable): string[] {
  if (!table.shape) throw new Error(JSON.stringify(table));
  const recipe: Recipe = {
    name: "Own",
    aim: "speed",
    school: "",
    basis: "percent",
    convention: "bar",
    rest: { leastS: 45, mostS: 60 },
    cycle: [],
    lead: "percent",
    stop: { lossFrom: "best" },
    ...table.shape,
  };
  return expandRecipe(recipe).map((week) =>
    week.sets
      .map((set) => `${set.reps}@${set.basis.by === "percent" ? set.basis.percent : "?"}`)
      .join(" "),
  );
}

describe("a coach's table of percentages", () => {
  it.each([
    ["weeks downwards", "3x2 50\n3x2 55\n3x2 60"],
    ["with signs and labels", "Week 1: 3 x 2 @ 50 %\nWeek 2: 3 x 2 @ 55%\nWeek 3: 3 x 2 @ 60%"],
    ["percent first", "50% 3x2\n55% 3x2\n60% 3x2"],
    ["with a title and a column of weeks", "Week\tSpeed squat\n1\t3x2 50\n2\t3x2 55\n3\t3x2 60"],
    ["in words", "3 sets of 2 at 50\n3 sets of 2 at 55\n3 sets of 2 at 60"],
    ["with a times sign", "1. 3×2 50\n2. 3×2 55\n\n3. 3×2 60"],
  ])("is read %s", (_, text) => {
    expect(sets(read(text))).toEqual(["2@50 2@50 2@50", "2@55 2@55 2@55", "2@60 2@60 2@60"]);
  });

  it("asks what a list of percentages means, and reads it as answered", () => {
    const asked = read("4x2 45/50/55");
    expect(asked.shape).toBeUndefined();
    expect(asked.questions).toHaveLength(1);
    // Four sets do not go evenly into three percentages: that reading is not offered.
    expect(asked.questions[0]?.choices.map((one) => one.value)).toEqual(["each", "weeks"]);
    expect(sets(read("4x2 45/50/55", { list: "weeks" }))).toEqual([
      "2@45 2@45 2@45 2@45",
      "2@50 2@50 2@50 2@50",
      "2@55 2@55 2@55 2@55",
    ]);
    expect(sets(read("1x2 45/50/55", { list: "each" }))).toEqual(["2@45 2@50 2@55"]);
    const twoWeeks = "6x2 45/50/55\n6x2 50/55/60";
    expect(read(twoWeeks).questions[0]?.choices.map((one) => one.value)).toEqual(["each", "share"]);
    expect(sets(read(twoWeeks, { list: "share" }))).toEqual([
      "2@45 2@45 2@50 2@50 2@55 2@55",
      "2@50 2@50 2@55 2@55 2@60 2@60",
    ]);
  });

  it("asks which of several columns, by their titles", () => {
    const text = "Week\tSquat\tBench\n1\t10x2 50\t9x3 45\n2\t10x2 55\t9x3 50";
    const asked = read(text);
    expect(asked.questions[0]?.choices.map((one) => one.words)).toEqual(["Squat", "Bench"]);
    expect(sets(read(text, { column: 2 }))[1]).toBe(Array(9).fill("3@50").join(" "));
  });

  it("holds ladders, volume waves, flat weeks, deloads and tests", () => {
    expect(sets(read("3x3 40, 3x3 45, 3x3 50\n3x3 45, 3x3 50, 3x3 55\n9x3 55"))[2]).toBe(
      Array(9).fill("3@55").join(" "),
    );
    const table = read("12x2 50\n10x2 55\n8x2 60\ndeload 5x2 40\ntest\noff");
    expect(table.shape?.weeks.map((week) => week.kind)).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
      "test",
      "off",
    ]);
    expect(sets(table).map((week) => week.split(" ").filter(Boolean).length)).toEqual([
      12, 10, 8, 5, 0, 0,
    ]);
    expect(read("5x3 70\ndeload").shape?.weeks[1]?.kind).toBe("deload");
  });

  it("reads 4x2 the other way round where that is said", () => {
    expect(sets(read("2x4 50", { order: "reps-sets" }))).toEqual(["2@50 2@50 2@50 2@50"]);
  });

  it.each([
    ["", "empty"],
    ["hello", "No line holds"],
    ["4x2 50\nfour by two", 'line 2: "four by two" is not sets'],
    ["4x2 120", "line 1: 120 is over 110 %"],
    ["4x2 45-55", "line 1: A range"],
    ["30x2 50, 30x2 55", "line 1: 60 sets"],
    ["4x60 50", "line 1: Sets and reps lie between"],
    ["3x3 40, 2x2 50\n2x2 40, 3x3 50", "line 2: "],
  ])("says what is wrong with %j", (text, words) => {
    const table = read(text);
    expect(table.shape).toBeUndefined();
    expect(table.problems.map((one) => `line ${one.line}: ${one.text}`).join()).toContain(words);
  });

  it("gives back exactly the sets that were written, or no recipe", () => {
    const group = fc.record({
      sets: fc.integer({ min: 1, max: 6 }),
      reps: fc.integer({ min: 1, max: 6 }),
      percent: fc.integer({ min: 60, max: 200 }).map((half) => half / 2),
    });
    const week = fc.array(group, { minLength: 1, maxLength: 3 });
    fc.assert(
      fc.property(fc.array(week, { minLength: 1, maxLength: 5 }), (weeks) => {
        const text = weeks
          .map((groups) =>
            groups.map((one) => `${one.sets}x${one.reps} ${one.percent}%`).join("; "),
          )
          .join("\n");
        const table = read(text);
        expect(table.questions).toEqual([]);
        if (!table.shape) {
          expect(table.problems.length).toBeGreaterThan(0);
          return;
        }
        expect(sets(table)).toEqual(
          weeks.map((groups) =>
            groups
              .flatMap((one) => Array(one.sets).fill(`${one.reps}@${one.percent}`) as string[])
              .join(" "),
          ),
        );
      }),
    );
  });
});
