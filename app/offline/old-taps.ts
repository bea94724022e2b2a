import { ENTRY_SCHEMA_VERSION, type ItemEntryBody, type LogEntry } from "../../core/floor/entries";
import { PAIRING_SLOT } from "../../core/floor/freeze-pairing";
import type { KeptEntry } from "./outbox-store";

/** Where taps of a pairing waited before they were entries of the log. */
const PREFIX = "pairing-unsent/";

interface OldTap {
  id: string;
  kind: string;
  athleteId: string;
  round: number;
  item: number;
  atMs: number;
  device?: string;
  of?: string;
  [more: string]: unknown;
}

/**
 * Taps that this browser held from before, as entries of the log. A tap knew one clock: it stands
 * for the monotonic one too, in a boot of its own that nobody knows anything else of.
 */
export function oldTaps(
  storage: Pick<Storage, "length" | "key" | "getItem">,
  deviceId: string,
): Array<{ key: string; kept: KeptEntry[] }> {
  return Array.from({ length: storage.length }, (_, i) => storage.key(i) ?? "").flatMap((key) => {
    if (!key.startsWith(PREFIX)) return [];
    const sessionId = key.slice(PREFIX.length);
    try {
      const taps = JSON.parse(storage.getItem(key) ?? "[]") as OldTap[];
      return [
        {
          key,
          kept: taps.map((tap, i) => ({ sessionId, entry: entryOf(tap, i, sessionId, deviceId) })),
        },
      ];
    } catch {
      return [];
    }
  });
}

function entryOf(tap: OldTap, i: number, sessionId: string, deviceId: string): LogEntry {
  const { id, kind, atMs, device = deviceId, of, ...rest } = tap;
  const isVoid = kind === "void";
  return {
    id,
    deviceId: device,
    bootId: device,
    deviceSeq: i,
    monoMs: Math.max(0, atMs),
    wallTime: new Date(atMs).toISOString(),
    supersedes: isVoid && of ? [of] : [],
    schemaVersion: ENTRY_SCHEMA_VERSION,
    body: isVoid
      ? { kind: "void" }
      : ({
          ...rest,
          kind: kind === "stop" ? "pairing-stop" : `item-${kind}`,
          slotId: PAIRING_SLOT,
          stationId: sessionId,
        } as ItemEntryBody),
  };
}
