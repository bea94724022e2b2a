import { useEffect } from "react";
import type { FrozenSession } from "../../core/floor/frozen";
import { keepScreen } from "./kept-screens";
import type { SessionLog } from "./session-log";

/** A log changes with every rep; the screen is kept again this long after the last change, ms. */
const SETTLE_MS = 2000;
const FIRST_MS = 1000;

/** Keeps a session's screen in this browser, with the log as it grows. */
export function useKeptScreen(
  log: SessionLog,
  screen: {
    path: string;
    title: string;
    frozen: FrozenSession;
    /** What else the screen is drawn with. */
    facts: Record<string, unknown>;
  },
): void {
  const { path, title, frozen, facts } = screen;
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const keep = async () => {
      timer = undefined;
      // Needed a moment after the screen: it comes after it.
      const { packLog } = await import("../forms/pack-session-log");
      const entries = log.fold.entries().filter((entry) => entry.seq !== undefined);
      const { ended } = log.view();
      const text = packLog({ ...facts, frozen, entries, ended, serverNowMs: log.nowMs() });
      await keepScreen({ path, title, sessionId: log.sessionId, text });
    };
    // A browser that keeps nothing draws on all the same.
    const keepOrNot = () => void keep().catch(() => {});
    // The screen first: who loads it waits for it.
    timer = setTimeout(keepOrNot, FIRST_MS);
    const stop = log.subscribe(() => {
      timer ??= setTimeout(keepOrNot, SETTLE_MS);
    });
    return () => {
      stop();
      clearTimeout(timer);
    };
  }, [log, path, title, frozen, facts]);
}
