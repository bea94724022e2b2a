import type { LogEntry } from "../../core/floor/entries";
import { eachLifter, type FrozenSession } from "../../core/floor/frozen";
import type { SetPrescription } from "../../core/prescribe/prescribe";
import type { Packed } from "./json";
import { type PackedRows, unpackRows } from "./rows";

/** What a session's page is drawn from. */
export interface Log {
  frozen: FrozenSession;
  entries: LogEntry[];
}

/** Its entries and its sets as columns: each is said many times over. */
type Columns<T> = Omit<T, "frozen" | "entries"> & {
  frozen: FrozenSession;
  /** Sets of every lifter, one after the other, and how many each has. */
  sets: PackedRows<SetPrescription>;
  setsEach: number[];
  entries: PackedRows<LogEntry>;
};

/** A session's log as one text. */
export type PackedLog<T> = Packed<Columns<T>>;

export function unpackLog<T extends Log>(packed: PackedLog<T>): T {
  const whole: Columns<Log> = JSON.parse(packed);
  const { sets: columns, setsEach, ...log } = whole;
  const sets = unpackRows(columns);
  let [from, place] = [0, 0];
  const frozen = eachLifter(log.frozen, (lifter) => {
    const own = sets.slice(from, from + (setsEach[place] ?? 0));
    place++;
    from += own.length;
    return { ...lifter, sets: own };
  });
  const unpacked: Log = { ...log, frozen, entries: unpackRows(log.entries) };
  return unpacked as T;
}
