import { describe, expect, it } from "vitest";
import { type DayContext, readTestingDay } from "./testing-day";

const context: DayContext = {
  today: "2026-03-10",
  date: "2026-03-09",
  unit: "kg",
  athletes: [
    { id: "a", name: "Ada Vik" },
    { id: "b", name: "Bo Ström" },
  ],
  variants: [
    { id: "bench", name: "Bench press, straight bar" },
    { id: "wide", name: "Bench press, wide grip" },
    { id: "squat", name: "Back squat, straight bar" },
  ],
  lifts: {},
  tests: [
    { id: "jump", name: "Vertical jump", sides: false },
    { id: "throw", name: "Rotational throw", sides: true },
  ],
  lastKg: (_, variantId) => (variantId === "squat" ? 100 : undefined),
};
const read = (...lines: string[]) =>
  readTestingDay(
    lines.map((line) => line.split("|")),
    context,
  );
const HEADER =
  "Athlete|Back squat|Bench press, straight bar|Body mass|Vertical jump|Rotational throw, left";

describe("a pasted testing day", () => {
  it("reads singles, sets, pounds, body mass and trials of each athlete", () => {
    const day = read(HEADER, "Ada Vik|105|80 x 5|61,5|41.2 40.8|5,2", "bo strom|225 lb||||");
    expect(day.problems).toEqual([]);
    expect(day.lines.map((line) => line.problems)).toEqual([[], []]);
    expect(day.entries).toBe(6);
    const entries = day.lines[0]?.entries.map((one) => one.entry) ?? [];
    expect(entries[0]).toMatchObject({ kind: "record", variantId: "squat", record: "tested" });
    expect(entries[1]).toMatchObject({
      variantId: "bench",
      record: "rep-max-estimate",
      load: { amount: 93.3, unit: "kg" },
    });
    expect(entries[2]).toEqual({ kind: "body-mass", mass: { amount: 61.5, unit: "kg" } });
    expect(entries[3]).toMatchObject({ testId: "jump", trials: [41.2, 40.8] });
    expect(entries[4]).toMatchObject({ testId: "throw", side: "left", trials: [5.2] });
    expect(day.lines[1]?.entries[0]?.entry).toMatchObject({
      load: { amount: 225, unit: "lb" },
    });
    expect(day.lines[1]?.date).toBe("2026-03-09");
  });

  it("asks for a second look at a jump, without stopping the line", () => {
    const day = read(HEADER, "Ada Vik|112");
    expect(day.lines[0]?.problems).toEqual([]);
    expect(day.lines[0]?.entries[0]?.entry).toMatchObject({
      look: "from 100 kg: over 10 %, look twice",
    });
  });

  it.each([
    ["Nobody|100", 'No athlete "Nobody" in this team.'],
    ["|100", "No athlete."],
    ["Ada Vik|heavy", 'Back squat: "heavy" is no load. Write 92.5, 205 lb, or a set as 85 x 3.'],
    ["Ada Vik|0", "Back squat: 0 is no load: the bar itself has a mass."],
    ["Ada Vik|4000", "Back squat: 4000 is over 1000 kg."],
    ["Ada Vik|60 x 20", "Back squat: 60 x 20: over 15 reps no formula holds."],
    ["Ada Vik|||8", 'Body mass: "8" is no body mass.'],
    ["Ada Vik||||41 high", 'Vertical jump: "41 high" are not trials over 0, with blanks between.'],
    ["Ada Vik||||-41", 'Vertical jump: "-41" are not trials over 0, with blanks between.'],
    ["Ada Vik", "No value on this line."],
    ["Ada Vik|100|||||7", '"7" stands under no column.'],
  ])("names what is wrong with %j", (line, words) => {
    const day = read(HEADER, line);
    expect(day.lines[0]?.problems).toEqual([words]);
  });

  it("names dates to come, wrong dates, and an athlete that stands twice", () => {
    const header = "Athlete|Date|Back squat";
    const day = read(
      header,
      "Ada Vik|2026-03-11|100",
      "Bo Ström|9.3.26|100",
      "Ada Vik||90",
      "Ada Vik||95",
    );
    expect(day.lines.map((line) => line.problems)).toEqual([
      ["Date 2026-03-11 is still to come."],
      ['Date "9.3.26" is not written year-month-day.'],
      [],
      ["Ada Vik stands on line 4 already."],
    ]);
  });

  it("names columns it does not know, asks about one that fits two lifts, and a missing header", () => {
    const day = read("Athlete|Curl|Bench press", "Ada Vik|1|2");
    expect(day.problems).toEqual([
      'Column "Curl" is no lift, test, body mass or date of this team.',
    ]);
    expect(day.questions.map((one) => one.text)).toEqual(["Bench press"]);
    expect(read("Ada Vik|100").problems[0]).toContain('No column is called "Athlete"');
    expect(read("Athlete|Back squat").problems).toEqual(["No line under the header."]);
    expect(read("Athlete|Rotational throw", "Ada Vik|5").problems).toHaveLength(1);
  });
});

describe("a lift that is named ambiguously", () => {
  it("is asked once for a column, and once for all lines that name it", () => {
    const wide = readTestingDay(
      [
        ["Athlete", "Bench"],
        ["Ada Vik", "80"],
      ],
      context,
    );
    expect(wide.problems).toEqual([]);
    expect(wide.questions.map((one) => [one.text, one.choices.map((two) => two.id)])).toEqual([
      ["Bench", ["bench", "wide"]],
    ]);
    const rows = [
      ["Athlete", "Lift", "Load"],
      ["Ada Vik", "Bench", "80"],
      ["Bo Ström", "bench", "95 x 3"],
      ["Ada Vik", "Squat", "120"],
    ];
    const long = readTestingDay(rows, context);
    expect(long.questions).toHaveLength(1);
    expect(long.entries).toBe(1);
    const answered = readTestingDay(rows, { ...context, lifts: { bench: "wide" } });
    expect(answered.questions).toEqual([]);
    expect(answered.lines.flatMap((line) => line.problems)).toEqual([]);
    expect(answered.lines.flatMap((line) => line.entries.map((one) => one.entry))).toMatchObject([
      { kind: "record", variantId: "wide", load: { amount: 80 } },
      { kind: "record", variantId: "wide", record: "rep-max-estimate" },
      { kind: "record", variantId: "squat" },
    ]);
  });

  it("is a problem where no lift has that name, or the load has no lift", () => {
    const day = readTestingDay(
      [
        ["Athlete", "Lift", "Load"],
        ["Ada Vik", "Curl", "30"],
        ["Bo Ström", "", "30"],
        ["Ada Vik", "Back squat", "120"],
        ["Ada Vik", "back squat", "125"],
      ],
      context,
    );
    expect(day.lines.map((line) => line.problems.join())).toEqual([
      '"Curl" is no lift of this team.',
      "No lift.",
      "",
      "Ada Vik has back squat on line 4 already.",
    ]);
    expect(
      readTestingDay(
        [
          ["Athlete", "Lift"],
          ["Ada Vik", "Squat"],
        ],
        context,
      ).problems[0],
    ).toContain("belong together");
  });
});
