import type { LogEntry } from "../../core/floor/entries";
import { deviceClock, deviceId } from "./device";
import { oldTaps } from "./old-taps";
import { Outbox, type OutboxNews } from "./outbox";
import { browserStore } from "./outbox-store";
import { postLog } from "./post-log";

/** This browser's one outbox, put together from its parts. In the browser only. */
let outbox: Outbox | undefined;

export function browserOutbox(): Outbox {
  if (outbox) return outbox;
  const channel = new BroadcastChannel("sprezza-outbox");
  outbox = new Outbox({
    store: browserStore(),
    post: postLog(deviceClock()),
    tabs: {
      tell: (news) => channel.postMessage(news),
      hear: (take) => {
        channel.onmessage = (event: MessageEvent<OutboxNews>) => take(event.data);
      },
    },
    inTurn: (work) => (navigator.locks ? navigator.locks.request("sprezza-send", work) : work()),
  });
  return outbox;
}

let started = false;

/** Sends what this browser holds of any session, on whatever page it is. */
export function startSending(): void {
  if (started) return;
  started = true;
  const own = browserOutbox();
  own.start();
  void adoptOldTaps(own);
  addEventListener("online", () => void own.flush());
}

/** Taps from before pairings joined the log; each is forgotten once the outbox has taken it. */
async function adoptOldTaps(own: Outbox): Promise<void> {
  try {
    for (const { key, kept } of oldTaps(localStorage, deviceId())) {
      for (const { sessionId, entry } of kept) await own.put(sessionId, entry);
      const { unkept } = own.state();
      if (kept.every(({ entry }) => !unkept.has(entry.id))) localStorage.removeItem(key);
    }
  } catch {
    // A browser that keeps nothing has no old taps.
  }
}

/** Tells the server this page's clocks, and learns the server's; nothing is logged by it. */
export async function tellClock(sessionId: string): Promise<void> {
  const none: LogEntry[] = [];
  await postLog(deviceClock())(sessionId, none);
}
