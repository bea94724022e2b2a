import Papa from "papaparse";
import { delimiterOf } from "../../core/reading/delimiter";

/**
 * A text as rows of cells, whatever it was written by: tabs from a spreadsheet, commas,
 * semicolons or bars; with or without a byte-order mark; any line ends.
 */
export function rowsOf(text: string): string[][] {
  const clean = text.replace(/^\uFEFF/, "").replace(/\r\n?/g, "\n");
  const { data } = Papa.parse<string[]>(clean, {
    delimiter: delimiterOf(clean),
    skipEmptyLines: false,
  });
  return data.map((cells) => cells.map(written));
}

/** What a spreadsheet would run as a formula. */
const FORMULA = /^[=+\-@\t\r]/;

/** A cell as it was before it went out: without the apostrophe that kept a spreadsheet from it. */
const written = (cell: string) =>
  cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell;

/** Rows as CSV. Text that a spreadsheet would run as a formula gets a leading apostrophe. */
export function csvOf(
  header: readonly string[],
  rows: ReadonlyArray<ReadonlyArray<string | number>>,
): string {
  const safe = (cell: string | number) =>
    typeof cell === "string" && FORMULA.test(cell) ? `'${cell}` : cell;
  return Papa.unparse([[...header], ...rows.map((row) => row.map(safe))], { newline: "\r\n" });
}
