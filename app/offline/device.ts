import { uuidv7 } from "uuidv7";
import { ENTRY_SCHEMA_VERSION, type EntryBody, type LogEntry } from "../../core/floor/entries";

/**
 * This browser as a writer of the log: its own id for good, a boot id for each start of the page
 * (monotonic times compare only within it), and a running number.
 */
const DEVICE_KEY = "sprezza.device";
const SEQUENCE_KEY = "sprezza.device-seq";

let boot: string | undefined;

/** This browser's own id, for good. */
export function deviceId(): string {
  let id = localStorage.getItem(DEVICE_KEY);
  if (!id) {
    id = crypto.randomUUID?.() ?? uuidv7();
    localStorage.setItem(DEVICE_KEY, id);
  }
  return id;
}

function nextNumber(): number {
  const next = Number(localStorage.getItem(SEQUENCE_KEY) ?? "0") + 1;
  localStorage.setItem(SEQUENCE_KEY, String(next));
  return next;
}

export function bootId(): string {
  boot ??= uuidv7();
  return boot;
}

/** Stamps a body with this browser's clocks. `clockOffsetMs` is the server's clock less ours. */
export function newEntry(body: EntryBody, supersedes: string[], clockOffsetMs: number): LogEntry {
  return {
    id: uuidv7(),
    deviceId: deviceId(),
    bootId: bootId(),
    deviceSeq: nextNumber(),
    monoMs: Math.round(performance.now()),
    wallTime: new Date(Date.now() + clockOffsetMs).toISOString(),
    supersedes,
    schemaVersion: ENTRY_SCHEMA_VERSION,
    body,
  };
}

/** Whether a moment was measured by this very page, so that its monotonic time compares. */
export function isThisPage(mark: { deviceId: string; bootId: string }): boolean {
  return mark.bootId === bootId();
}
