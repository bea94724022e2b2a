import type { MassUnit } from "./mass";
import { readIn, type Text } from "./written";

/**
 * The working of a computed figure: what the margin shows. The core returns it as part of a
 * result; no page recomputes it.
 */
export interface WorkingLine {
  /** What the line is, in a coach's words: "Working max, bench". */
  label: Text;
  /** The figure with its unit, as it should be read. */
  value: Text;
  /** How it was got, or from where. */
  detail?: Text | undefined;
  /** Weight in the list: the answer is strong, an input is plain. */
  emphasis?: "answer";
}

export interface Working {
  title: Text;
  lines: WorkingLine[];
  /** Sources of the formulas and defaults used. */
  sources?: string[];
  /** What would change the figure. */
  changes?: string[];
}

/** A working as it is read in a unit: every word and figure of it as text. */
export function workingIn(working: Working, unit: MassUnit) {
  return {
    title: readIn(working.title, unit),
    lines: working.lines.map(({ label, value, detail, emphasis }) => ({
      label: readIn(label, unit),
      value: readIn(value, unit),
      ...(detail === undefined ? {} : { detail: readIn(detail, unit) }),
      ...(emphasis ? { emphasis } : {}),
    })),
    ...(working.sources ? { sources: working.sources } : {}),
    ...(working.changes ? { changes: working.changes } : {}),
  };
}
