import fc from "fast-check";
import { describe, expect, it, test } from "vitest";
import { day } from "../units/fixtures/day";
import type { LocalDate } from "../units/time";
import { DEFAULT_FACTORS, MAX_KINDS, type MaxRecord, recordWarnings, workingMax } from "./records";

const record = (
  kind: MaxRecord["kind"],
  kg: number,
  date: LocalDate = "2026-02-01",
): MaxRecord => ({
  id: "r",
  load: { amount: kg, unit: "kg" },
  date,
  kind,
  note: "",
});

const max = (one: MaxRecord, factor?: number, today: LocalDate = "2026-03-10") =>
  workingMax({ liftName: "bench", record: one, factor, today });

describe("working max", () => {
  test.each([
    ["competition", 178.5, 169.575],
    ["tested", 132.5, 132.5],
    ["rep-max-estimate", 100, 95],
    ["velocity-estimate", 100, 95],
    ["coach", 100, 100],
  ] as const)("%s of %s kg gives %s kg by default", (kind, kg, expected) => {
    expect(max(record(kind, kg)).kg).toBeCloseTo(expected, 9);
  });

  it("takes the coach's factor over the default and says so", () => {
    const own = max(record("competition", 200), 0.9);
    expect(own.kg).toBe(180);
    expect(own.factorIsDefault).toBe(false);
    expect(own.working.lines.find((line) => line.label === "Factor")?.detail).toBe(
      "set by a coach",
    );
  });

  test.each([
    ["2026-01-13", 56, false],
    ["2026-01-12", 57, true],
    ["2026-03-10", 0, false],
  ])("a record of %s is %s days old, stale: %s", (date, age, stale) => {
    const result = max(record("tested", 100, day(date)));
    expect(result.ageDays).toBe(age);
    expect(result.stale).toBe(stale);
  });

  it("reads 225 lb as 225 lb in the working for ever", () => {
    const inPounds = max({ ...record("tested", 1), load: { amount: 225, unit: "lb" } });
    expect(inPounds.working.lines[0]?.value).toBe("225 lb");
    expect(inPounds.kg).toBeCloseTo(102.05828325, 9);
  });

  it("never exceeds its record at the default factors", () => {
    fc.assert(
      fc.property(fc.constantFrom(...MAX_KINDS), fc.integer({ min: 20, max: 400 }), (kind, kg) => {
        expect(max(record(kind, kg)).kg).toBeLessThanOrEqual(kg);
        expect(DEFAULT_FACTORS[kind]).toBeGreaterThan(0);
      }),
    );
  });
});

describe("a second look", () => {
  const history = [record("tested", 100, "2026-01-01"), record("tested", 90, "2025-10-01")];
  const at = (kg: number, date: LocalDate = "2026-03-01") =>
    recordWarnings(history, { load: { amount: kg, unit: "kg" }, date }, "2026-03-10");

  it("is asked for over ten percent, up or down, against the record before", () => {
    expect(at(110)).toEqual([]);
    expect(at(111)[0]?.code).toBe("large-jump");
    expect(at(89)[0]?.code).toBe("large-jump");
  });

  it("compares with the record before its own date, not with a later one", () => {
    expect(at(95, "2025-12-01")).toEqual([]);
    expect(at(100, "2025-12-01")[0]).toMatchObject({ code: "large-jump", fromKg: 90, toKg: 100 });
  });

  it("refuses tomorrow", () => {
    expect(at(100, "2026-03-11").map((warning) => warning.code)).toContain("future-date");
  });

  it("asks nothing of a first record", () => {
    expect(
      recordWarnings([], { load: { amount: 300, unit: "kg" }, date: "2026-03-01" }, "2026-03-10"),
    ).toEqual([]);
  });
});
