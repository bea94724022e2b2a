import { describe, expect, it } from "vitest";
import { datesIn, formatDay, formatDayShort, orderOfLanguage } from "./date-order";

describe("dates in their reader's order", () => {
  it.each([
    ["ymd", "2026-03-09", "03-09"],
    ["dmy", "9 Mar 2026", "9 Mar"],
    ["mdy", "Mar 9, 2026", "Mar 9"],
  ] as const)("%s", (order, whole, short) => {
    expect(formatDay("2026-03-09", order)).toBe(whole);
    expect(formatDayShort("2026-03-09", order)).toBe(short);
    expect(datesIn("from 2026-03-09 on", order)).toBe(`from ${whole} on`);
  });

  it.each(["", "today", "2026-13-01", "2026-00-10", "2026-03-32", "26-03-09", "2026-03-09T10:00"])(
    "leaves %j as it is",
    (text) => {
      expect(formatDay(text, "dmy")).toBe(text);
      expect(formatDayShort(text, "mdy")).toBe(text);
    },
  );

  it("touches no identifier and no longer number", () => {
    for (const text of ["a1-2026-03-09-b", "12026-03-09", "2026-03-091", "no date"])
      expect(datesIn(text, "dmy")).toBe(text);
  });

  // Unicode's tables (CLDR), as the language's own people write a short date.
  it.each([
    ["en-US,en;q=0.9", "mdy"],
    ["en-GB", "dmy"],
    ["sv-SE,sv", "ymd"],
    ["en-SE", "ymd"],
    ["de", "dmy"],
    ["hu", "ymd"],
    ["*", "ymd"],
    ["not a language;q=1,nb", "dmy"],
    ["", "ymd"],
  ] as const)("%s reads %s", (languages, order) => {
    expect(orderOfLanguage(languages)).toBe(order);
  });
  it("no header is year first", () => expect(orderOfLanguage(null)).toBe("ymd"));
});
