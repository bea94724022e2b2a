/** A fault of a file, by its line; the header is line 1, and 0 is the file as a whole. */
export interface LineProblem {
  line: number;
  text: string;
}

/** A file can have more faults than anybody reads: this many are kept, all are counted. */
export const PROBLEMS_KEPT = 200;

/** The faults of one file, in order, the whole file's first. */
export class LineProblems {
  #kept: LineProblem[] = [];
  #count = 0;

  add(line: number, text: string): void {
    this.#count++;
    if (line === 0) this.#kept.unshift({ line, text });
    else if (this.#kept.length < PROBLEMS_KEPT) this.#kept.push({ line, text });
  }

  get count(): number {
    return this.#count;
  }

  get kept(): readonly LineProblem[] {
    return this.#kept;
  }
}
