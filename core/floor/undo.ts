import type { LogEntry } from "./entries";
import type { FloorFold } from "./state";
import { compareEntries } from "./validity";

/** The set on the screen. */
export interface ShownSet {
  slotId: string;
  athleteId: string;
  setKey: string;
  /** Acts at other stations are not taken back from this one; anywhere where left out. */
  stationId?: string;
}

/** An act that can be taken back or done again: the entry to void, and the one that it names. */
export interface UndoStep {
  voids: string;
  /** What is named to the person. */
  of: LogEntry;
}

/** The newest act of this device in the set on the screen, else in the session. */
export function lastAct(
  fold: FloorFold,
  deviceId: string,
  shown: ShownSet | undefined,
): UndoStep | undefined {
  const mine = (entries: readonly LogEntry[]) =>
    entries.filter((one) => one.deviceId === deviceId && canBeTakenBack(one));
  const inSet = shown
    ? newest(mine(fold.countingIn(shown.slotId, shown.athleteId).filter(isOf(shown))))
    : undefined;
  const act =
    inSet ??
    newest(mine(fold.countingAnywhere()).filter((one) => isAtStation(one, shown?.stationId)));
  return act && { voids: act.id, of: act };
}

/**
 * What this device took back last in the set on the screen and nobody has done since: the void
 * to take back. Undefined once something else was done in the set.
 */
export function lastUndone(
  fold: FloorFold,
  deviceId: string,
  shown: ShownSet | undefined,
): UndoStep | undefined {
  if (!shown) return undefined;
  const known = fold.knownIn(shown.slotId, shown.athleteId).filter(isOf(shown));
  const undone = known.flatMap((of) => {
    const by = fold.entry(fold.hiddenBy(of.id) ?? "");
    return by?.body.kind === "void" && by.deviceId === deviceId ? [{ by, of }] : [];
  });
  undone.sort((a, b) => a.by.deviceSeq - b.by.deviceSeq);
  const last = undone.at(-1);
  if (!last) return undefined;
  const since = known.some(
    (entry) => entry.deviceId === deviceId && entry.deviceSeq > last.by.deviceSeq,
  );
  return since ? undefined : { voids: last.by.id, of: last.of };
}

const isAtStation = ({ body }: LogEntry, stationId: string | undefined) =>
  stationId === undefined || ("stationId" in body && body.stationId === stationId);

const isOf = (shown: ShownSet) => (entry: LogEntry) =>
  "setKey" in entry.body && entry.body.setKey === shown.setKey;

/** A pain is no slip of a finger to take back: a coach speaks on it. */
const canBeTakenBack = ({ body }: LogEntry) => body.kind !== "pain" && body.kind !== "pain-over";

const newest = (entries: readonly LogEntry[]): LogEntry | undefined =>
  entries.reduce<LogEntry | undefined>(
    (last, entry) => (last === undefined || isLater(entry, last) ? entry : last),
    undefined,
  );

/** One device's acts follow one another by its own count; the log's order settles the rest. */
function isLater(a: LogEntry, b: LogEntry): boolean {
  return a.deviceId === b.deviceId && a.deviceSeq !== b.deviceSeq
    ? a.deviceSeq > b.deviceSeq
    : compareEntries(a, b) > 0;
}
