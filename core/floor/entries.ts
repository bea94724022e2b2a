import type { Side } from "../contrast/run";
import type { Eye } from "../liverules/eye";
import type { StopRule } from "../liverules/rep";
import type { CallAction, CallKind } from "../liverules/set";
import type { ClockMark } from "../units/clock";
import type { VelocitySource } from "../units/velocity";

/** Version of the bodies below; older ones are lifted by `upcastBody`. */
export const ENTRY_SCHEMA_VERSION = 3;

/** Sets that no plan asked for, on the way up to the first work set, are named `ramp.1` and on. */
export const RAMP_KEY = "ramp.";
/** The most of them that a lifter does in a slot. */
export const MOST_RAMP_SETS = 30;
export const rampKey = (number: number): string => `${RAMP_KEY}${number}`;
/** The place of a ramp set from 1; undefined for a set of the plan. */
export function rampNumber(setKey: string): number | undefined {
  if (!setKey.startsWith(RAMP_KEY)) return undefined;
  const number = Number(setKey.slice(RAMP_KEY.length));
  return Number.isInteger(number) && number >= 1 && number <= MOST_RAMP_SETS ? number : undefined;
}

/** Where it may hurt, as a tablet asks. */
export const PAIN_PLACES = [
  "back",
  "neck",
  "shoulder",
  "elbow",
  "wrist",
  "hip",
  "knee",
  "ankle",
  "elsewhere",
] as const;
export type PainPlace = (typeof PAIN_PLACES)[number];

/** Whose work in which slot, and where it was done. */
interface Work {
  athleteId: string;
  slotId: string;
  /** The rack or place; version 1 did not name it. */
  stationId: string;
}

/** Which set of whom an entry speaks of. */
export interface SetAddress extends Work {
  setKey: string;
}

/** Which item of which round of a pairing an entry speaks of; both count from the start. */
export interface ItemAddress extends Work {
  /** 1-based. */
  round: number;
  /** 0-based within the round. */
  item: number;
}

type SetBody =
  | ({
      kind: "rep";
      /** 1-based within the set. */
      rep: number;
      mcvMps?: number;
      mpvMps?: number;
      pvMps?: number;
      rangeM?: number;
      pauseS?: number;
      /** Greatest speed down, speed on meeting the box, and time from it to the peak. */
      loweringMps?: number;
      contactMps?: number;
      toPeakS?: number;
      /** The largest rise on the seat before the drive, m: a prompt to look. */
      rockM?: number;
      short?: boolean;
      outcome: "counted" | "failed";
      source: VelocitySource;
      processing?: string;
    } & SetAddress)
  | ({
      kind: "set-done";
      loadKg: number;
      /** Rule that ended it; "hand" where somebody ended it before any rule did. */
      endedBy: StopRule | "hand";
      /** Ended before its planned reps. */
      cut: boolean;
      /** How fast it looked to the coach, where nothing measured it. */
      eye?: Eye;
    } & SetAddress)
  /** What is on the bar for this set, where the plan gave no load or another was put on. */
  | ({ kind: "set-load"; loadKg: number } & SetAddress)
  /** Others go before; the set is still to be done. */
  | ({ kind: "later" } & SetAddress)
  /** The set is left out. */
  | ({ kind: "skip" } & SetAddress)
  /** A rep that bounced off the seat, as somebody saw it. */
  | ({ kind: "bounce"; rep: number } & SetAddress)
  /** The walkout and the way to the seat were rehearsed with the empty bar. */
  | ({ kind: "rehearsed" } & SetAddress)
  /** A set of an exercise: what was done of it, to one side or to both. */
  | ({
      kind: "work";
      side?: Side;
      /** In what the slot counts. */
      reps: number;
      loadKg?: number;
      /** A jump's height, a throw, a time. */
      output?: number;
    } & SetAddress)
  | ({ kind: "fault"; fault: string; cut: boolean } & SetAddress)
  | ({
      kind: "call";
      call: CallKind;
      decision: "take" | "change" | "decline";
      /** What was done: the proposal where taken, the coach's own where changed. */
      action: CallAction;
      reason: string;
    } & SetAddress)
  /**
   * It hurts: no heavier in this lift until a coach has spoken. Where it hurts is told to the
   * server, which keeps it with the reasons of limits: no reader of the log gets it.
   */
  | ({ kind: "pain"; place?: PainPlace } & SetAddress)
  /** A coach's word that the loads may rise again. */
  | ({ kind: "pain-over"; of: string[] } & SetAddress);

type ItemBody =
  | ({ kind: "item-start" } & ItemAddress)
  | ({ kind: "item-done" } & ItemAddress)
  /** A jump, a throw, a sprint, a bar speed; the best of an item counts. */
  | ({ kind: "item-output"; value: number; side?: Side } & ItemAddress)
  /** The athlete's own baseline of the item before the work. */
  | ({ kind: "item-baseline"; value: number } & ItemAddress)
  /** Reps that were done to each side, where it was not what was planned. */
  | ({ kind: "item-sides"; left: number; right: number } & ItemAddress)
  /** Another load of the item, from this round on. */
  | ({ kind: "item-load"; kg: number } & ItemAddress)
  | ({ kind: "pairing-stop"; reason: string } & ItemAddress);

/** Why an entry was put in another's place, or took it back; in the words of who did. */
interface Why {
  why?: string;
}

/** Where somebody stands: of the whole slot, not of a set. */
type PlaceBody =
  /** Comes in, or goes to another station: `stationId` is where from now on. */
  | ({
      kind: "move";
      /** Whose turn it is there, before who has a higher number; 0 and on. */
      turn?: number;
    } & Work)
  /** Does no more of this slot. */
  | ({ kind: "off" } & Work);

export type EntryBody = (
  | SetBody
  | ItemBody
  | PlaceBody
  /** A coach's word to every station. */
  | { kind: "note"; reason: string }
  /** The coach stops the floor, or lets it go on. */
  | { kind: "pause"; on: boolean }
  /** Takes back the entries named in `supersedes` and puts nothing in their place. */
  | { kind: "void" }
  /** The coach's word on entries that wait for it: whether they count. The newest word stands. */
  | { kind: "admit"; of: string[]; take: boolean }
) &
  Why;

/** A body that speaks of an athlete's set. */
export type SetEntryBody = SetBody & Why;
/** A body that says where an athlete is. */
export type PlaceEntryBody = PlaceBody & Why;
/** A body that speaks of an athlete's item of a pairing. */
export type ItemEntryBody = ItemBody & Why;

/** Why an entry counts only by the coach's word. */
export type EntryDoubt =
  /** Nobody knows whether it was made before the session had ended. */
  | "time-unknown"
  /** It came from a tablet that had been taken off the team. */
  | "revoked-tablet";

/** One line of the append-only log. */
export interface LogEntry {
  id: string;
  deviceId: string;
  /** One start of the tablet's page: monotonic time compares only within it. */
  bootId: string;
  deviceSeq: number;
  monoMs: number;
  /** The device's wall clock, ISO 8601, however wrong it goes; orders nothing. */
  wallTime: string;
  /** Entries this one takes the place of. */
  supersedes: string[];
  schemaVersion: number;
  body: EntryBody;
  /** Allotted by the server; undefined while unsent. */
  seq?: number;
  /**
   * When it was made, ISO 8601, by device, boot and monotonic time: the server's judgement, while
   * unsent the device's own. Absent in entries from before it was kept.
   */
  madeAt?: string;
  doubt?: EntryDoubt;
  /** Who sent it, as the server knows them: a person's id, or `rack:` and a tablet's. */
  by?: string;
}

/** An entry as screens and files may have it: where it hurts is the server's to keep. */
export function withoutPlace<T extends { body: EntryBody }>(entry: T): T {
  if (entry.body.kind !== "pain" || entry.body.place === undefined) return entry;
  const { place: _, ...body } = entry.body;
  return { ...entry, body };
}

/** The moment at which an entry was made. */
export function markOf(entry: LogEntry): ClockMark {
  return {
    deviceId: entry.deviceId,
    bootId: entry.bootId,
    monoMs: entry.monoMs,
    atMs: Date.parse(entry.madeAt ?? entry.wallTime),
  };
}

/**
 * Lifts an older body to today's shape; undefined where nobody knows that version.
 *
 * @param stationOf where a slot's athlete stands, for version 1, which did not say
 */
export function upcastBody(
  body: EntryBody,
  schemaVersion: number,
  stationOf: (slotId: string, athleteId: string) => string | undefined,
): EntryBody | undefined {
  // Version 2 has the same bodies, fewer kinds of them.
  if (schemaVersion === ENTRY_SCHEMA_VERSION || schemaVersion === 2) return body;
  if (schemaVersion !== 1) return undefined;
  if (!("athleteId" in body)) return body;
  return { ...body, stationId: stationOf(body.slotId, body.athleteId) ?? "" };
}
