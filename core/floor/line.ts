import type { ClockMark } from "../units/clock";
import { type EntryBody, type LogEntry, markOf } from "./entries";

/**
 * An entry that counts. A correction stands where what it corrects stood: it came from the same
 * detector, at the same moment, whoever wrote the correction and when.
 */
export interface LineEntry<Body extends EntryBody = EntryBody> {
  entry: LogEntry;
  body: Body;
  /** What it corrects in the end; itself where it corrects nothing. */
  root: LogEntry;
}

export const momentOf = (one: LineEntry): ClockMark => markOf(one.root);
