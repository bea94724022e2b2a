import { useEffect, useRef, useState } from "react";
import type { LogEntry } from "../../core/floor/entries";
import type { LinkState } from "./outbox";
import type { SessionLog } from "./session-log";

/**
 * Asks for the earlier entries of who came to a station after its screen was read: it began with
 * the reps of its own athletes alone. Without a link it is asked again when there is one; until
 * then the earlier sets stand there as done, without their speeds.
 */
export function useEntriesOf(
  log: SessionLog,
  link: LinkState,
  began: readonly string[],
  here: readonly string[],
): void {
  const [, askAgain] = useState(0);
  const held = useRef(new Set(began));
  const missing = [...new Set(here)].filter((id) => !held.current.has(id)).join(" ");
  useEffect(() => {
    if (missing === "" || link === "away") return;
    for (const athlete of missing.split(" ")) {
      if (held.current.has(athlete)) continue;
      held.current.add(athlete);
      void entriesOf(log.sessionId, athlete).then((entries) => {
        if (entries) return log.take(entries);
        held.current.delete(athlete);
        setTimeout(() => askAgain((tries) => tries + 1), RETRY_MS);
      });
    }
  }, [log, link, missing]);
}

const RETRY_MS = 4000;

async function entriesOf(sessionId: string, athlete: string): Promise<LogEntry[] | undefined> {
  const asked = new URLSearchParams({ after: "0", athlete });
  const response = await fetch(`/api/log/${sessionId}?${asked}`).catch(() => undefined);
  if (!response?.ok) return undefined;
  return ((await response.json()) as { entries: LogEntry[] }).entries;
}
