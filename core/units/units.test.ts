import { describe, expect, it, test } from "vitest";
import { day } from "./fixtures/day";
import { formatPercent } from "./percent";
import { addDays, dateAt, daysBetween, formatClock } from "./time";
import { formatAgainst, formatVelocity, keepVelocity } from "./velocity";

describe("clocks and dates", () => {
  test.each([
    [0, "0:00"],
    [9.99, "0:09"],
    [75, "1:15"],
    [600, "10:00"],
    [-5, "-0:05"],
  ])("%s s reads %s", (seconds, text) => {
    expect(formatClock(seconds)).toBe(text);
  });

  test.each([
    ["2026-02-28", 1, "2026-03-01"],
    ["2028-02-28", 1, "2028-02-29"],
    ["2026-12-29", 7, "2027-01-05"],
    ["2026-03-29", 1, "2026-03-30"],
    ["2026-03-10", -7, "2026-03-03"],
  ])("%s and %s days is %s", (from, days, to) => {
    expect(addDays(day(from), days)).toBe(to);
    expect(daysBetween(day(from), day(to))).toBe(days);
  });

  // Auckland, thirteen hours on, has the day before Greenwich; Los Angeles after. Kiritimati is 14 h
  // on; Havana changes its clock at midnight.
  it.each([
    ["Pacific/Auckland", "2026-03-10T16:30:00Z", "2026-03-11"],
    ["America/Los_Angeles", "2026-03-11T06:59:00Z", "2026-03-10"],
    ["Pacific/Kiritimati", "2026-12-31T10:00:00Z", "2027-01-01"],
    ["America/Havana", "2026-03-08T05:30:00Z", "2026-03-08"],
    ["UTC", "1931-05-05T23:59:59Z", "1931-05-05"],
  ])("in %s, %s is in %s", (zone, at, date) => {
    expect(dateAt(zone, new Date(at))).toBe(date);
  });

  it("refuses what is not a date", () => {
    expect(() => addDays("10.3.2026" as never, 1)).toThrow(/YYYY-MM-DD/);
  });
});

describe("velocities and percentages", () => {
  it("shows two decimals and keeps three", () => {
    expect(formatVelocity(0.8249)).toBe("0.82");
    expect(keepVelocity(0.82449)).toBe(0.824);
  });

  it("shows a third decimal where two would hide a difference", () => {
    expect(formatAgainst(0.698, 0.701)).toEqual(["0.698", "0.701"]);
    expect(formatAgainst(0.7, 0.7)).toEqual(["0.70", "0.70"]);
    expect(formatAgainst(0.66, 0.7)).toEqual(["0.66", "0.70"]);
  });

  it("drops empty decimals of a percentage", () => {
    expect(formatPercent(42.5)).toBe("42.5 %");
    expect(formatPercent(50)).toBe("50 %");
    expect(formatPercent(47.169, 1)).toBe("47.2 %");
  });
});
