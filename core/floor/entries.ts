import type { StopRule } from "../liverules/rep";
import type { CallAction, CallKind } from "../liverules/set";
import type { VelocitySource } from "../units/velocity";

/** Version of the bodies below; older ones are lifted by `upcastBody`. */
export const ENTRY_SCHEMA_VERSION = 1;

/** Which set of whom an entry speaks of. */
export interface SetAddress {
  athleteId: string;
  slotId: string;
  setKey: string;
}

export type EntryBody =
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
  /** Takes back the entries named in `supersedes` and puts nothing in their place. */
  | { kind: "void" };

/** One line of the append-only log. */
export interface LogEntry {
  id: string;
  deviceId: string;
  /** One start of the tablet's page: monotonic time compares only within it. */
  bootId: string;
  deviceSeq: number;
  monoMs: number;
  /** The device's wall clock, ISO 8601; orders nothing. */
  wallTime: string;
  /** Entries this one takes the place of. */
  supersedes: string[];
  schemaVersion: number;
  body: EntryBody;
  /** Allotted by the server; undefined while unsent. */
  seq?: number;
}

/** Lifts an older body to today's shape; undefined where nobody knows that version. */
export function upcastBody(body: EntryBody, schemaVersion: number): EntryBody | undefined {
  return schemaVersion >= 1 && schemaVersion <= ENTRY_SCHEMA_VERSION ? body : undefined;
}
