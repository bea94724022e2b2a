import { databases } from "./database.server";
import { log } from "./log.server";

/** What the database tells: identifiers and a number; readers fetch under isolation. */
interface Told {
  team: string;
  session: string;
  seq: number;
}

type Listener = (seq: number) => void;

const listeners = new Map<string, Set<Listener>>();
let listening: Promise<{ unlisten: () => Promise<void> }> | undefined;

function key(teamId: string, sessionId: string): string {
  return `${teamId}/${sessionId}`;
}

/** One LISTEN a process, started with the first reader; the driver subscribes again by itself
 * after a lost connection, and then every reader looks once for what it may have missed. */
function listen() {
  listening ??= databases()
    .app.client.listen(
      "sprezza_log",
      (payload) => {
        const told = JSON.parse(payload) as Told;
        for (const tell of listeners.get(key(told.team, told.session)) ?? []) tell(told.seq);
      },
      () => {
        for (const set of listeners.values()) for (const tell of set) tell(Number.MAX_SAFE_INTEGER);
      },
    )
    .catch((error: unknown) => {
      listening = undefined;
      log.error({ err: error }, "listening for log entries failed");
      throw error;
    });
  return listening;
}

/** Calls back with the newest sequence number of a session; returns how to stop. */
export async function onNewEntries(
  teamId: string,
  sessionId: string,
  tell: Listener,
): Promise<() => void> {
  await listen();
  const at = key(teamId, sessionId);
  const set = listeners.get(at) ?? new Set();
  listeners.set(at, set);
  set.add(tell);
  return () => {
    set.delete(tell);
    if (set.size === 0) listeners.delete(at);
  };
}
