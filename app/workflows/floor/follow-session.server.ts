import { sessionHead } from "../../../db/queries/sessions.server";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { followTail } from "./session-tail.server";

export type SessionNews =
  | { kind: "entries"; message: Uint8Array }
  /** It has ended, or was opened again. */
  | { kind: "status"; ended: boolean }
  /** Nothing new for a while: the line is still there. */
  | { kind: "beat" };

const HEARTBEAT_MS = 15_000;

/**
 * A cursor from before a restored database would wait for numbers that are long gone. One that is
 * only ahead of the tail is right: its reader read the log a moment ago, and the tail has not.
 */
async function knownCursor(
  principal: Principal,
  sessionId: string,
  after: number,
  known: number,
): Promise<number> {
  if (after <= known) return after;
  const head = await inTeam(principal, (tx) => sessionHead(tx, sessionId));
  return Math.min(after, head?.lastSeq ?? 0);
}

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
  let toldEnded = false;
  try {
    let cursor = await knownCursor(principal, sessionId, after, tail.last);
    while (!stop.aborted) {
      const chunk = await tail.after(cursor);
      if (chunk.last !== undefined) {
        cursor = chunk.last;
        yield { kind: "entries", message: chunk.message };
        continue;
      }
      if (tail.ended !== toldEnded) {
        toldEnded = tail.ended;
        yield { kind: "status", ended: toldEnded };
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
