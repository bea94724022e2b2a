import { type EntryBody, type LogEntry, type SetAddress, upcastBody } from "./entries";
import type { FrozenSession } from "./frozen";

/** What a reader should know about entries that could not simply be taken. */
export type LogConflict =
  | { code: "same-set-twice"; address: SetAddress; kept: string; other: string }
  | { code: "two-detectors"; address: SetAddress; kept: string; other: string }
  | { code: "double-correction"; of: string; kept: string; other: string };

export interface SetAside {
  entryId: string;
  reason: string;
}

/** The entries that count, after corrections, in the log's order. */
export interface FoldedLog {
  current: LogEntry[];
  conflicts: LogConflict[];
  setAside: SetAside[];
}

/**
 * Puts entries in order (by `seq`, then the unsent ones by device and device sequence), applies
 * corrections, and sets aside what this session does not know. Nothing here depends on the order
 * in which entries arrived, and an entry seen twice counts once.
 */
export function foldLog(session: FrozenSession, entries: Iterable<LogEntry>): FoldedLog {
  const byId = new Map<string, LogEntry>();
  for (const entry of entries) {
    const known = byId.get(entry.id);
    if (!known || (known.seq === undefined && entry.seq !== undefined)) byId.set(entry.id, entry);
  }
  const ordered = [...byId.values()].sort(compareEntries);
  const conflicts: LogConflict[] = [];
  const setAside: SetAside[] = [];

  // The first correction of an entry stands; a second one of the same entry is a conflict.
  const replacedBy = new Map<string, string>();
  const refused = new Set<string>();
  for (const entry of ordered) {
    for (const target of entry.supersedes) {
      const earlier = replacedBy.get(target);
      if (earlier === undefined) replacedBy.set(target, entry.id);
      else {
        conflicts.push({ code: "double-correction", of: target, kept: earlier, other: entry.id });
        refused.add(entry.id);
      }
    }
  }

  const known = knownSets(session);
  const current: LogEntry[] = [];
  for (const entry of ordered) {
    const body = upcastBody(entry.body, entry.schemaVersion);
    if (!body) {
      setAside.push({
        entryId: entry.id,
        reason: `Written by a newer version (${entry.schemaVersion}).`,
      });
      continue;
    }
    const problem = addressProblem(known, session, body);
    if (problem) {
      setAside.push({ entryId: entry.id, reason: problem });
      continue;
    }
    if (refused.has(entry.id) || replacedBy.has(entry.id) || body.kind === "void") continue;
    current.push(body === entry.body ? entry : { ...entry, body });
  }
  return { current, conflicts, setAside };
}

export function compareEntries(a: LogEntry, b: LogEntry): number {
  if (a.seq !== undefined && b.seq !== undefined) return a.seq - b.seq;
  if (a.seq !== undefined) return -1;
  if (b.seq !== undefined) return 1;
  if (a.deviceId !== b.deviceId) return a.deviceId < b.deviceId ? -1 : 1;
  return a.deviceSeq - b.deviceSeq || (a.id < b.id ? -1 : 1);
}

function knownSets(session: FrozenSession): Map<string, Set<string>> {
  const known = new Map<string, Set<string>>();
  for (const rack of session.racks) {
    for (const lifter of rack.lifters) {
      known.set(lifter.athleteId, new Set(lifter.sets.map((set) => set.key)));
    }
  }
  return known;
}

function addressProblem(
  known: Map<string, Set<string>>,
  session: FrozenSession,
  body: EntryBody,
): string | undefined {
  if (body.kind === "void") return undefined;
  const sets = known.get(body.athleteId);
  if (!sets) return "This athlete is not in the session.";
  if (body.slotId !== session.slotId) return "This exercise is not in the session.";
  if (!sets.has(body.setKey)) return "This set is not in the session.";
  return undefined;
}
