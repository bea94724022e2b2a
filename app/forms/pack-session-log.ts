import { eachLifter } from "../../core/floor/frozen";
import type { SetPrescription } from "../../core/prescribe/prescribe";
import { pack } from "./json";
import { packRows } from "./pack-rows";
import type { Log, PackedLog } from "./session-log";

/** A session's log as one text; by itself, for a screen needs it only a moment after it is drawn. */
export function packLog<T extends Log>(log: T): PackedLog<T> {
  const sets: SetPrescription[] = [];
  const setsEach: number[] = [];
  const frozen = eachLifter(log.frozen, (lifter) => {
    sets.push(...lifter.sets);
    setsEach.push(lifter.sets.length);
    return { ...lifter, sets: [] };
  });
  return pack({
    ...log,
    frozen,
    sets: packRows(sets),
    setsEach,
    entries: packRows(log.entries),
  }) as PackedLog<T>;
}
