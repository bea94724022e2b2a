import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { LogEntry } from "../../core/floor/entries";

/**
 * What this browser logged and the server has not yet acknowledged. An entry is here before it
 * is sent and leaves only when it was read back; a refused one is set aside with its reason.
 */
interface OutboxSchema extends DBSchema {
  unsent: {
    key: string;
    value: { sessionId: string; entry: LogEntry };
    indexes: { session: string };
  };
  refused: {
    key: string;
    value: { sessionId: string; entry: LogEntry; reason: string };
    indexes: { session: string };
  };
}

let opened: Promise<IDBPDatabase<OutboxSchema>> | undefined;

function store() {
  opened ??= openDB<OutboxSchema>("sprezza-outbox", 1, {
    upgrade(database) {
      for (const name of ["unsent", "refused"] as const) {
        database
          .createObjectStore(name, { keyPath: "entry.id" })
          .createIndex("session", "sessionId");
      }
    },
  });
  return opened;
}

export async function keepUnsent(sessionId: string, entry: LogEntry): Promise<void> {
  await (await store()).put("unsent", { sessionId, entry });
}

export async function unsentOf(sessionId: string): Promise<LogEntry[]> {
  const rows = await (await store()).getAllFromIndex("unsent", "session", sessionId);
  return rows.map((row) => row.entry).sort((a, b) => a.deviceSeq - b.deviceSeq);
}

export async function acknowledge(entryId: string): Promise<void> {
  await (await store()).delete("unsent", entryId);
}

export async function setAside(sessionId: string, entry: LogEntry, reason: string): Promise<void> {
  const transaction = (await store()).transaction(["unsent", "refused"], "readwrite");
  await transaction.objectStore("refused").put({ sessionId, entry, reason });
  await transaction.objectStore("unsent").delete(entry.id);
  await transaction.done;
}

export async function refusedOf(sessionId: string) {
  return (await store()).getAllFromIndex("refused", "session", sessionId);
}
