import type { LiftQuestion } from "../../../core/maxes/lift-names";

/** Lines that a page shows: the faulty first, then as they come. */
const LINES_SHOWN = 200;

/** A sheet that was read and not kept: what is asked, what is wrong, how much is good. */
export interface CheckedSheet<Mapping> {
  header: string[];
  mapping: Mapping;
  problems: string[];
  lifts: LiftQuestion[];
  lines: Array<{ line: number; text: string; problems: string[] }>;
  total: number;
  bad: number;
  good: number;
}

interface Line {
  line: number;
  text: string;
  problems: string[];
}

const isBad = (one: Line) => one.problems.length > 0;

/** @param good how many lines can be kept as they are */
export function checkedSheet<Mapping>(
  sheet: {
    header: string[];
    mapping: Mapping;
    problems: string[];
    lifts: LiftQuestion[];
    lines: readonly Line[];
  },
  good: number,
): CheckedSheet<Mapping> {
  const { header, mapping, problems, lifts } = sheet;
  const shown = [...sheet.lines.filter(isBad), ...sheet.lines.filter((one) => !isBad(one))];
  return {
    header,
    mapping,
    problems,
    lifts,
    lines: shown
      .slice(0, LINES_SHOWN)
      .map(({ line, text, problems }) => ({ line, text, problems })),
    total: sheet.lines.length,
    bad: sheet.lines.filter(isBad).length,
    good,
  };
}
