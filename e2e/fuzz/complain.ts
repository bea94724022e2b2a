import { appendFileSync } from "node:fs";

/** What a fault is said in at the most. */
const MOST = 1200;

/** Says a fault, here and in the file that `npm test` names what failed from. */
export function complain(line: string): void {
  console.log(line);
  appendFileSync("test-results/fuzz-said.txt", `${line.slice(0, MOST).replaceAll("\n", " ")}\n`);
}
