import { z } from "zod";

/** Whether a text may be looked up in plain data: every object answers to "constructor". */
export function isKey(text: string): boolean {
  return !(text in Object.prototype);
}

/** The key of something within a plan or a set: a slot, a day, a step. */
export function keyField(most: number) {
  return z.string().min(1).max(most).refine(isKey, "This names nothing.");
}
