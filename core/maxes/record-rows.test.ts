import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type RecordContext, readRecordSheet } from "./record-rows";
import { MAX_KIND_NAMES, MAX_KINDS } from "./records";

const context: RecordContext = {
  today: "2026-03-10",
  unit: "kg",
  kind: "tested",
  athletes: [
    { id: "a", name: "Ada Vik" },
    { id: "b", name: "Bo Ström" },
    { id: "c", name: "Cy Twin" },
    { id: "d", name: "Cy Twin" },
  ],
  variants: [
    { id: "bench", name: "Bench press, straight bar" },
    { id: "wide", name: "Bench press, wide grip" },
    { id: "squat", name: "Back squat, straight bar" },
  ],
  mapping: undefined,
  lifts: {},
};
const read = (text: string, more: Partial<RecordContext> = {}) =>
  readRecordSheet(
    text.split("\n").map((line) => line.split("|")),
    { ...context, ...more },
  );
const HEADER = "athlete|lift|date|load|unit|load_kg|kind|note";

describe("a sheet of max records", () => {
  it("is read as records.csv goes out, to the last digit of a load", () => {
    const sheet = read(
      `${HEADER}\nAda Vik|Back squat, straight bar|2026-01-05|315|lb|142.88|Competition|=cup\nBo Ström|Back squat, straight bar|2026-01-06|102.48371|kg|102.48|Velocity estimate|`,
    );
    expect(sheet.problems).toEqual([]);
    expect(sheet.lines.map((one) => one.record)).toEqual([
      {
        athleteId: "a",
        variantId: "squat",
        date: "2026-01-05",
        load: { amount: 315, unit: "lb" },
        kind: "competition",
        note: "=cup",
      },
      {
        athleteId: "b",
        variantId: "squat",
        date: "2026-01-06",
        load: { amount: 102.48371, unit: "kg" },
        kind: "velocity-estimate",
        note: "",
      },
    ]);
  });

  it("takes a sheet of one's own: other titles, a unit in the cell, no kind", () => {
    const sheet = read("Lifter|Exercise|When|Max\nada vik|back squat|5.1.2026|205 lb", {
      kind: "coach",
    });
    expect(sheet.lines[0]?.record).toMatchObject({
      athleteId: "a",
      load: { amount: 205, unit: "lb" },
      kind: "coach",
      date: "2026-01-05",
    });
  });

  it.each([
    ["Ada Vik|Back squat|2026-03-11|100|kg||Competition|", "still to come"],
    ["Ada Vik|Back squat|3/4/2026|100|kg||Competition|", "is not written year-month-day"],
    ["Nobody|Back squat|2026-01-05|100|kg||Competition|", 'No athlete "Nobody" in this team'],
    ["Cy Twin|Back squat|2026-01-05|100|kg||Competition|", '2 athletes are called "Cy Twin"'],
    ["Ada Vik|Snatch|2026-01-05|100|kg||Competition|", '"Snatch" is no lift'],
    ["Ada Vik|Back squat|2026-01-05||kg||Competition|", "No load."],
    ["Ada Vik|Back squat|2026-01-05|1,200|kg||Competition|", "is no load in kg or lb"],
    ["Ada Vik|Back squat|2026-01-05|100|st||Competition|", '"100 st" is no load in kg or lb'],
    ["Ada Vik|Back squat|2026-01-05|-5|kg||Competition|", "is no load in kg or lb"],
    ["Ada Vik|Back squat|2026-01-05|100|kg||Guess|", '"Guess" is no kind: Competition'],
    ["|||||||x", "No athlete."],
  ])("names the fault of %s", (line, words) => {
    const [read1] = read(`${HEADER}\n${line}`).lines;
    expect(read1?.record).toBeUndefined();
    expect(read1?.problems.join(" ")).toContain(words);
  });

  it("takes a note of any usual length", () => {
    const long = `${HEADER}\nAda Vik|Back squat|2026-01-05|100|kg||Competition|${"x".repeat(501)}`;
    expect(read(long).lines[0]?.problems).toEqual(["The note is over 500 characters."]);
  });

  it("asks once for a lift that several names fit, and takes the answer", () => {
    const text = `${HEADER}\nAda Vik|Bench press|2026-01-05|80|kg||Competition|\nBo Ström|bench press|2026-01-05|70|kg||Competition|`;
    const asked = read(text);
    expect(asked.lifts).toHaveLength(1);
    const answered = read(text, { lifts: { [asked.lifts[0]?.key ?? ""]: "wide" } });
    expect(answered.lines.map((one) => one.record?.variantId)).toEqual(["wide", "wide"]);
  });

  it("says which column is missing", () => {
    expect(read("athlete|lift|date\na|b|c").problems).toEqual([
      "No column holds the load: choose it above the lines.",
    ]);
    expect(read("").problems).toEqual(["The sheet is empty."]);
    expect(read(HEADER).problems).toEqual(["No line under the header."]);
  });

  it("brings back any record that it could have been", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 999, noNaN: true }),
        fc.constantFrom("kg" as const, "lb" as const),
        fc.constantFrom(...MAX_KINDS),
        (amount, unit, kind) => {
          const rounded = Number(amount.toPrecision(9));
          const line = `Ada Vik|Back squat, straight bar|2026-01-05|${rounded}|${unit}||${MAX_KIND_NAMES[kind]}|`;
          const [first] = read(`${HEADER}\n${line}`).lines;
          expect(first?.record).toMatchObject({ load: { amount: rounded, unit }, kind });
        },
      ),
    );
  });
});
