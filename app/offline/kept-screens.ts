import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { LogEntry } from "../../core/floor/entries";
import type { FrozenSession } from "../../core/floor/frozen";
import { type PackedLog, unpackLog } from "../forms/session-log";

/**
 * What a screen of this browser needs to be drawn again without the network: a station's or a
 * floor's session as it was read, with the log so far. Names stand here and in no cache; what is
 * logged and not sent stands in the outbox. Reasons of limits never come to it.
 */
export interface KeptScreen {
  /** The screen's address. */
  path: string;
  /** In words, for whoever looks for it without the network. */
  title: string;
  /** Of a session: to forget what is over. */
  sessionId: string | undefined;
  keptAtMs: number;
  /** As the screen wrote it: text, so that what is read is what was kept; of a session, packed. */
  text: string;
}

/** What every kept screen of a session holds, whatever else it does. */
interface KeptLog {
  frozen: FrozenSession;
  entries: LogEntry[];
}

interface ScreenSchema extends DBSchema {
  screen: { key: string; value: KeptScreen };
}

/** Screens are kept this long after they were last open. */
const KEPT_DAYS = 3;
const DAY_MS = 86_400_000;

let opened: Promise<IDBPDatabase<ScreenSchema>> | undefined;

function open(): Promise<IDBPDatabase<ScreenSchema>> {
  opened ??= openDB<ScreenSchema>("sprezza-screens", 1, {
    upgrade: (database) => void database.createObjectStore("screen", { keyPath: "path" }),
    terminated() {
      opened = undefined;
    },
    blocking() {
      opened?.then((database) => database.close()).catch(() => {});
      opened = undefined;
    },
  });
  const now = opened;
  now.catch(() => {
    if (opened === now) opened = undefined;
  });
  return now;
}

/** Keeps a screen, and forgets those that nobody opened for days. Rejects where nothing is kept. */
export async function keepScreen(screen: Omit<KeptScreen, "keptAtMs">): Promise<void> {
  const database = await open();
  const keptAtMs = Date.now();
  await database.put("screen", { ...screen, keptAtMs });
  for (const one of await database.getAll("screen"))
    if (keptAtMs - one.keptAtMs > KEPT_DAYS * DAY_MS) await database.delete("screen", one.path);
}

/** Every screen that can be drawn here without the network, the newest first. */
async function keptScreens(): Promise<KeptScreen[]> {
  const all = await (await open()).getAll("screen");
  return all.sort((a, b) => b.keptAtMs - a.keptAtMs);
}

/** What stands here for an address, and what else does. */
export interface FoundScreen {
  kept: KeptScreen | undefined;
  others: KeptScreen[];
  /** Of the kept screen's session, from every screen of it: each knows what it heard last. */
  entries: LogEntry[];
  /** Up to which number the kept screen had everything; others' entries may have holes. */
  heard: number;
}

/** @param address with or without its query; a browser that keeps nothing has nothing */
export async function findScreen(address: string): Promise<FoundScreen> {
  const others = await keptScreens().catch((): KeptScreen[] => []);
  const kept = others.find((one) => one.path === address.split("?")[0]);
  const entries = new Map<string, LogEntry>();
  let heard = 0;
  for (const one of others) {
    if (kept?.sessionId === undefined || one.sessionId !== kept.sessionId) continue;
    for (const entry of unpackLog(one.text as PackedLog<KeptLog>).entries) {
      entries.set(entry.id, entry);
      if (one === kept) heard = Math.max(heard, entry.seq ?? 0);
    }
  }
  return { kept, others, entries: [...entries.values()], heard };
}

/** Who signs out leaves no names behind; what was logged and not sent stays in the outbox. */
export async function forgetScreens(): Promise<void> {
  await (await open()).clear("screen");
}
