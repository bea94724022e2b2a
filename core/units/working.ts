/**
 * The working of a computed figure: what the margin shows. The core returns it as part of a
 * result; no page recomputes it.
 */
export interface WorkingLine {
  /** What the line is, in a coach's words: "Working max, bench". */
  label: string;
  /** The figure with its unit, as it should be read. */
  value: string;
  /** How it was got, or from where. */
  detail?: string;
  /** Weight in the list: the answer is strong, an input is plain. */
  emphasis?: "answer";
}

export interface Working {
  title: string;
  lines: WorkingLine[];
  /** Sources of the formulas and defaults used. */
  sources?: string[];
  /** What would change the figure. */
  changes?: string[];
}
