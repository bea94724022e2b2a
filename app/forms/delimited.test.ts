import { describe, expect, it } from "vitest";
import { delimiterOf } from "../../core/reading/delimiter";
import { csvOf, rowsOf } from "./delimited";

describe("pasted and filed text", () => {
  it.each([
    ["tabs", "a\tb\n1,5\t2"],
    ["semicolons and decimal commas", "a;b\n1,5;2"],
    ["bars", "a|b\n1,5|2"],
    ["commas with quotes", 'a,b\n"1,5",2'],
    ["a byte-order mark and Windows line ends", "\uFEFFa;b\r\n1,5;2"],
    ["old line ends", "a;b\r1,5;2"],
  ])("reads %s alike", (_, text) => {
    expect(rowsOf(text)).toEqual([
      ["a", "b"],
      ["1,5", "2"],
    ]);
  });

  it("takes the mark from the header, a comma last", () => {
    expect(delimiterOf("a,b;c\n1;2|3")).toBe(";");
    expect(delimiterOf("a,b\n1;2")).toBe(",");
    expect(delimiterOf("")).toBe(",");
  });

  it("writes no formula, and reads back what it wrote", () => {
    const text = csvOf(
      ["name", "note"],
      [
        ['=1+1 "x", y', "-5"],
        ["@a", -5],
      ],
    );
    // As it stands in the file, a spreadsheet runs none of it.
    expect(text).not.toMatch(/(^|,)"?[=@]/m);
    expect(text).toContain("'=1+1");
    expect(rowsOf(text)).toEqual([
      ["name", "note"],
      ['=1+1 "x", y', "-5"],
      ["@a", "-5"],
    ]);
  });
});
