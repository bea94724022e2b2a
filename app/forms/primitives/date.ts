import { z } from "zod";
import { isDate } from "../../../core/units/time";

/** A day of the calendar, 1900 to 2200, as forms send it. */
export function dateField(words: string) {
  return z.string().refine(isDate, words);
}
