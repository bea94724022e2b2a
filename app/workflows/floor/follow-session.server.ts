import type { Principal } from "../../platform/rights";
import { followTail } from "./session-tail.server";

export type SessionNews =
  | { kind: "entries"; message: Uint8Array }
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
      const chunk = await tail.after(cursor);
      if (chunk.last !== undefined) {
        cursor = chunk.last;
        yield { kind: "entries", message: chunk.message };
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
