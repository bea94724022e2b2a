import { ENTRY_SCHEMA_VERSION, type EntryBody, type LogEntry } from "../../core/floor/entries";
import { DeviceClock } from "./clock";
import { newId } from "./new-id";

/**
 * This browser as a writer of the log: its own id for good, its clocks, and a running number. A
 * browser that keeps nothing (private mode) has them for as long as the page is open.
 */
const DEVICE_KEY = "sprezza.device";
const SEQUENCE_KEY = "sprezza.device-seq";

const memory = new Map<string, string>();

function read(key: string): string | undefined {
  try {
    return localStorage.getItem(key) ?? memory.get(key);
  } catch {
    return memory.get(key);
  }
}

function write(key: string, value: string): void {
  memory.set(key, value);
  try {
    localStorage.setItem(key, value);
  } catch {
    // It is kept for this page only.
  }
}

/** This browser's own id. */
export function deviceId(): string {
  const known = read(DEVICE_KEY);
  if (known) return known;
  const id = newId();
  write(DEVICE_KEY, id);
  return id;
}

function nextNumber(): number {
  const next = (Number(read(SEQUENCE_KEY) ?? "0") || 0) + 1;
  write(SEQUENCE_KEY, String(next));
  return next;
}

let clock: DeviceClock | undefined;

/** This page's clocks. In the browser only. */
export function deviceClock(): DeviceClock {
  clock ??= new DeviceClock(
    { wallMs: () => Date.now(), monoMs: () => performance.now() },
    newId,
    deviceId(),
  );
  return clock;
}

/** Stamps a body with this browser's clocks. */
export function newEntry(body: EntryBody, supersedes: string[] = []): LogEntry {
  const { deviceId: device, bootId, monoMs, wallMs } = deviceClock().reading();
  return {
    id: newId(),
    deviceId: device,
    bootId,
    deviceSeq: nextNumber(),
    monoMs,
    wallTime: new Date(wallMs).toISOString(),
    supersedes,
    schemaVersion: ENTRY_SCHEMA_VERSION,
    body,
    madeAt: new Date(deviceClock().nowMs()).toISOString(),
  };
}
