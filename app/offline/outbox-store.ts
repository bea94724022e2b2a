import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { LogEntry } from "../../core/floor/entries";

/** An entry of this browser with the session it belongs to. */
export interface KeptEntry {
  sessionId: string;
  entry: LogEntry;
}

/** One that the server did not take, with its reason. It stays until a person decides. */
export interface RefusedEntry extends KeptEntry {
  reason: string;
}

/** Where this browser keeps what it logged and the server has not acknowledged. */
export interface OutboxStore {
  /** Resolves only when the entry was read back from the store. */
  keep(kept: KeptEntry): Promise<void>;
  waiting(): Promise<KeptEntry[]>;
  /** The server has them. */
  settle(ids: readonly string[]): Promise<void>;
  refuse(rows: readonly RefusedEntry[]): Promise<void>;
  refused(): Promise<RefusedEntry[]>;
  /** A person decided about them: sent again, moved, or thrown away. */
  forgetRefused(ids: readonly string[]): Promise<void>;
}

interface OutboxSchema extends DBSchema {
  unsent: { key: string; value: KeptEntry; indexes: { session: string } };
  refused: { key: string; value: RefusedEntry; indexes: { session: string } };
}

/** A store that does not answer is a store that refuses. */
const GIVE_UP_MS = 4000;

function inTime<T>(work: Promise<T>): Promise<T> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(() => reject(new Error("The store does not answer.")), GIVE_UP_MS);
    work.then(resolve, reject).finally(() => clearTimeout(timer));
  });
}

/** The browser's own store. Whatever it refuses, rejects. */
export function browserStore(): OutboxStore {
  let opened: Promise<IDBPDatabase<OutboxSchema>> | undefined;
  const open = () => {
    opened ??= openDB<OutboxSchema>("sprezza-outbox", 1, {
      upgrade(database) {
        for (const name of ["unsent", "refused"] as const) {
          database
            .createObjectStore(name, { keyPath: "entry.id" })
            .createIndex("session", "sessionId");
        }
      },
      // Cleared by a person, or taken by the browser: opened again by whoever comes next.
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
    return inTime(now);
  };
  const inOrder = <T extends KeptEntry>(rows: T[]) =>
    rows.sort((a, b) => a.entry.deviceSeq - b.entry.deviceSeq);
  return {
    async keep(kept) {
      const database = await open();
      await inTime(database.put("unsent", kept));
      const back = await inTime(database.get("unsent", kept.entry.id));
      if (JSON.stringify(back) !== JSON.stringify(kept))
        throw new Error("It was not found again in the store.");
    },
    async waiting() {
      return inOrder(await inTime((await open()).getAll("unsent")));
    },
    async settle(ids) {
      const transaction = (await open()).transaction("unsent", "readwrite");
      for (const id of ids) void transaction.store.delete(id);
      await inTime(transaction.done);
    },
    async refuse(rows) {
      const transaction = (await open()).transaction(["unsent", "refused"], "readwrite");
      for (const row of rows) {
        void transaction.objectStore("refused").put(row);
        void transaction.objectStore("unsent").delete(row.entry.id);
      }
      await inTime(transaction.done);
    },
    async refused() {
      return inOrder(await inTime((await open()).getAll("refused")));
    },
    async forgetRefused(ids) {
      const transaction = (await open()).transaction("refused", "readwrite");
      for (const id of ids) void transaction.store.delete(id);
      await inTime(transaction.done);
    },
  };
}
