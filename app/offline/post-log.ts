import type { LogEntry } from "../../core/floor/entries";
import type { EntryAnswer } from "../forms/entries";
import type { DeviceClock } from "./clock";

/** What became of a batch. */
export type PostResult =
  | { kind: "answers"; answers: EntryAnswer[] }
  /** Nobody answers, or the server cannot just now: the same again later. */
  | { kind: "away" }
  | { kind: "sign-in" }
  /** The batch as it is will never be taken; a smaller one may be. */
  | { kind: "unreadable"; reason: string };

export type PostLog = (sessionId: string, entries: readonly LogEntry[]) => Promise<PostResult>;

/** A request that nobody answers gives its turn back after this long. */
const GIVE_UP_MS = 15_000;

/** Sends entries of one session, with this page's clocks; what comes back tells the server's. */
export function postLog(clock: DeviceClock): PostLog {
  return async (sessionId, entries) => {
    const sent = clock.reading();
    let response: Response;
    try {
      response = await fetch(`/api/log/${sessionId}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ entries: entries.map(asSent), clock: sent }),
        signal: AbortSignal.timeout(GIVE_UP_MS),
      });
    } catch {
      return { kind: "away" };
    }
    if (response.status === 401 || response.status === 403) return { kind: "sign-in" };
    if (response.status === 404)
      return { kind: "unreadable", reason: "This session is not in your team or room." };
    if (response.status === 400 || response.status === 413)
      return { kind: "unreadable", reason: "The server could not read it." };
    if (!response.ok) return { kind: "away" };
    try {
      const { answers, serverNowMs } = (await response.json()) as {
        answers: EntryAnswer[];
        serverNowMs: number;
      };
      const got = clock.reading();
      if (got.bootId === sent.bootId) clock.learn(serverNowMs, sent.monoMs, got.monoMs);
      return { kind: "answers", answers };
    } catch {
      return { kind: "away" };
    }
  };
}

/** Without what this browser added for itself, and what only the server says. */
function asSent(entry: LogEntry): LogEntry {
  const { madeAt: _, seq: __, doubt: ___, by: ____, ...sent } = entry;
  return sent;
}
