import { useEffect, useState, useSyncExternalStore } from "react";
import type { LogEntry } from "../../core/floor/entries";
import type { FrozenSession } from "../../core/floor/frozen";
import { browserOutbox, startSending, tellClock } from "./browser";
import { DeviceClock } from "./clock";
import { deviceClock, newEntry } from "./device";
import { followSession } from "./live";
import { Outbox } from "./outbox";
import { SessionLog, type SessionView } from "./session-log";

/** A session's log on this page, and its view: this hook only connects them to React. */
export function useSessionLog(input: {
  sessionId: string;
  frozen: FrozenSession;
  entries: LogEntry[];
  serverNowMs: number;
  ended: boolean;
  heard?: number | undefined;
}): { log: SessionLog; view: SessionView } {
  const [log] = useState(() => openLog(input));
  useEffect(() => {
    startSending();
    void tellClock(log.sessionId);
    return log.start((heard, hear) => followSession(log.sessionId, heard, hear));
  }, [log]);
  const view = useSyncExternalStore(
    (watch) => log.subscribe(watch),
    () => log.view(),
    () => log.view(),
  );
  return { log, view };
}

function openLog(input: Parameters<typeof useSessionLog>[0]): SessionLog {
  const { sessionId, frozen, entries, ended, heard } = input;
  const shared = { sessionId, frozen, entries, ended, heard, stamp: newEntry };
  if (typeof window === "undefined") return new SessionLog({ ...shared, ...onServer(input) });
  const clock = deviceClock();
  const [page] = performance.getEntriesByType("navigation");
  const answeredMs = page instanceof PerformanceNavigationTiming ? page.responseStart : 0;
  const nowMs = performance.now();
  // As far as a page knows before it has asked: the server wrote its clock on the way here.
  clock.learn(input.serverNowMs, answeredMs > 0 ? Math.min(answeredMs, nowMs) : nowMs, nowMs);
  return new SessionLog({ ...shared, clock, outbox: browserOutbox() });
}

/** The page's first picture is drawn on the server: nothing waits there, and nothing is sent. */
function onServer(input: { serverNowMs: number }) {
  const clock = new DeviceClock(
    { wallMs: () => input.serverNowMs, monoMs: () => 0 },
    () => "server",
    "server",
  );
  const nothing = async () => [];
  const outbox = new Outbox({
    store: {
      keep: async () => {},
      waiting: nothing,
      settle: async () => {},
      refuse: async () => {},
      refused: nothing,
      forgetRefused: async () => {},
    },
    post: async () => ({ kind: "away" }),
  });
  return { clock, outbox };
}
