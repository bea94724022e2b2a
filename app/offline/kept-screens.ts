import { type DBSchema, type IDBPDatabase, openDB } from "idb";

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
  /** As the screen wrote it: text, so that what is read is what was kept. */
  text: string;
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

export async function keptScreen(path: string): Promise<KeptScreen | undefined> {
  return (await open()).get("screen", path);
}

/** Every screen that can be drawn here without the network, the newest first. */
export async function keptScreens(): Promise<KeptScreen[]> {
  const all = await (await open()).getAll("screen");
  return all.sort((a, b) => b.keptAtMs - a.keptAtMs);
}

/** Who signs out leaves no names behind; what was logged and not sent stays in the outbox. */
export async function forgetScreens(): Promise<void> {
  await (await open()).clear("screen");
}
