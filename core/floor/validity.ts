import { type EntryBody, type LogEntry, rampNumber, upcastBody } from "./entries";
import { exercisesOf, type FrozenSession, liftsOf, pairingsOf } from "./frozen";

/** One athlete's work in one slot: its entries are folded together. */
export interface KnownLine {
  /** Where it began; empty for who was not here. */
  stationId: string;
  kind: "lift" | "exercise" | "pairing";
  sets: ReadonlySet<string>;
  /** Rounds and items of a pairing; 0 where the slot is lifted. */
  rounds: number;
  items: number;
}

/** What a session knows: who is in which slot, at which station, with which sets or items. */
export interface KnownWork {
  stations: ReadonlySet<string>;
  athletes: ReadonlySet<string>;
  /** By slot and athlete. */
  slots: ReadonlyMap<string, ReadonlyMap<string, KnownLine>>;
}

export function knownWork(session: FrozenSession): KnownWork {
  const slots = new Map<string, Map<string, KnownLine>>();
  const athletes = new Set<string>();
  const know = (slotId: string, athleteId: string, line: KnownLine) => {
    const lines = slots.get(slotId) ?? new Map<string, KnownLine>();
    slots.set(slotId, lines);
    lines.set(athleteId, line);
    athletes.add(athleteId);
  };
  const doesSets =
    (slotId: string, kind: KnownLine["kind"], stationId: string) =>
    (one: { athleteId: string; sets: ReadonlyArray<{ key: string }> }) =>
      know(slotId, one.athleteId, {
        stationId,
        kind,
        sets: new Set(one.sets.map((set) => set.key)),
        rounds: 0,
        items: 0,
      });
  for (const { slotId, groups, absent } of liftsOf(session)) {
    for (const group of groups) group.lifters.forEach(doesSets(slotId, "lift", group.stationId));
    absent?.forEach(doesSets(slotId, "lift", ""));
  }
  for (const { slotId, groups, absent } of exercisesOf(session)) {
    for (const group of groups)
      group.athletes.forEach(doesSets(slotId, "exercise", group.stationId));
    absent?.forEach(doesSets(slotId, "exercise", ""));
  }
  for (const { slotId, groups, complex } of pairingsOf(session))
    for (const group of groups)
      for (const { athleteId } of group.athletes)
        know(slotId, athleteId, {
          stationId: group.stationId,
          kind: "pairing",
          sets: new Set(),
          rounds: complex.rounds,
          items: complex.items.length,
        });
  return { stations: new Set(session.stations.map((station) => station.id)), athletes, slots };
}

function problemOf(work: KnownWork, body: WorkBody, line: KnownLine | undefined) {
  if (!work.slots.has(body.slotId)) return "This exercise is not in the session.";
  if (!line)
    return work.athletes.has(body.athleteId)
      ? "This athlete does not do this exercise in the session."
      : "This athlete is not in the session.";
  if (!work.stations.has(body.stationId)) return "This rack or place is not in the session.";
  if ("setKey" in body) {
    const known =
      line.sets.has(body.setKey) ||
      (line.kind === "lift" &&
        rampNumber(body.setKey) !== undefined &&
        !OF_THE_PLAN.has(body.kind));
    return known ? undefined : "This set is not in the session.";
  }
  if (!("round" in body)) return undefined;
  const fits =
    body.round >= 1 && body.round <= line.rounds && body.item >= 0 && body.item < line.items;
  return fits ? undefined : "This round is not in the session.";
}

/** What is said of sets of the plan alone. */
const OF_THE_PLAN: ReadonlySet<EntryBody["kind"]> = new Set(["skip", "later", "work"]);

type WorkBody = Extract<EntryBody, { athleteId: string }>;

/** An entry with what the session makes of it, before any correction acts. */
export interface JudgedEntry {
  entry: LogEntry;
  /** In today's shape; undefined where nobody knows its version. */
  body: EntryBody | undefined;
  /** Whose work it speaks of; undefined for voids, words of a coach, and what is set aside. */
  line: KnownLine | undefined;
  /** Why it is set aside; undefined where it may count. */
  problem: string | undefined;
}

export function judge(work: KnownWork, entry: LogEntry): JudgedEntry {
  const stationOf = (slotId: string, athleteId: string) =>
    work.slots.get(slotId)?.get(athleteId)?.stationId;
  const body = upcastBody(entry.body, entry.schemaVersion, stationOf);
  if (!body) {
    const problem = `Written by a newer version (${entry.schemaVersion}).`;
    return { entry, body, line: undefined, problem };
  }
  if (!("athleteId" in body)) return { entry, body, line: undefined, problem: undefined };
  const line = work.slots.get(body.slotId)?.get(body.athleteId);
  const problem = problemOf(work, body, line);
  return { entry, body, line: problem === undefined ? line : undefined, problem };
}

/** By `seq`, then the unsent ones by device and device sequence. */
export function compareEntries(a: LogEntry, b: LogEntry): number {
  if (a.seq !== undefined && b.seq !== undefined) return a.seq - b.seq;
  if (a.seq !== undefined) return -1;
  if (b.seq !== undefined) return 1;
  if (a.deviceId !== b.deviceId) return a.deviceId < b.deviceId ? -1 : 1;
  return a.deviceSeq - b.deviceSeq || (a.id < b.id ? -1 : 1);
}
