import type { LogEntry } from "../../../core/floor/entries";
import { entriesAfter } from "../../../db/queries/sessions.server";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { CHUNK, followTail } from "./session-tail.server";

export type SessionNews =
  | { kind: "entries"; cursor: number; entries: LogEntry[] }
  | { kind: "ended" }
  /** Nothing new for a while: the line is still there. */
  | { kind: "beat" };

const HEARTBEAT_MS = 15_000;

/**
 * Everything of a session after a cursor, then what comes, as the reader takes it. The right to
 * see the session is the caller's to have checked.
 */
export async function* followSession(
  principal: Principal,
  sessionId: string,
  after: number,
  stop: AbortSignal,
): AsyncGenerator<SessionNews, void, void> {
  const tail = await followTail(principal.teamId, sessionId);
  let cursor = after;
  let toldEnd = false;
  try {
    while (!stop.aborted) {
      const entries =
        tail.after(cursor) ??
        (await inTeam(principal, (tx) => entriesAfter(tx, sessionId, cursor, CHUNK)));
      const last = entries.at(-1)?.seq;
      if (last !== undefined) {
        cursor = last;
        yield { kind: "entries", cursor, entries };
        continue;
      }
      // A cursor from before a restored database would wait for numbers that are long gone.
      if (cursor > tail.last) cursor = tail.last;
      if (tail.ended && !toldEnd) {
        toldEnd = true;
        yield { kind: "ended" };
        continue;
      }
      const waited = AbortSignal.any([stop, AbortSignal.timeout(HEARTBEAT_MS)]);
      await tail.changed(waited);
      if (waited.aborted && !stop.aborted) yield { kind: "beat" };
    }
  } finally {
    tail.leave();
  }
}
