import type { LogEntry } from "../../core/floor/entries";
import type { EntryAnswer } from "../forms/entries";
import { acknowledge, setAside, unsentOf } from "./outbox";

export type SendResult =
  | { state: "sent"; acknowledged: Array<{ id: string; seq: number }>; refused: number }
  | { state: "away" }
  | { state: "sign-in" };

const BATCH = 100;

/**
 * Sends what is waiting, oldest first; what the server does not acknowledge stays. The outbox is
 * one for all tabs of this browser, so they take turns.
 */
export function sendWaiting(sessionId: string): Promise<SendResult> {
  if (!navigator.locks) return sendAll(sessionId);
  return navigator.locks.request(`sprezza-send-${sessionId}`, () => sendAll(sessionId));
}

/** A request that nobody answers gives its turn back after this long. */
const GIVE_UP_MS = 15_000;

async function sendAll(sessionId: string): Promise<SendResult> {
  const acknowledged: Array<{ id: string; seq: number }> = [];
  let refused = 0;
  for (;;) {
    const waiting = (await unsentOf(sessionId)).slice(0, BATCH);
    if (waiting.length === 0) return { state: "sent", acknowledged, refused };
    let response: Response;
    try {
      response = await fetch(`/api/log/${sessionId}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ entries: waiting }),
        signal: AbortSignal.timeout(GIVE_UP_MS),
      });
    } catch {
      return { state: "away" };
    }
    if (response.status === 401) return { state: "sign-in" };
    if (!response.ok) return { state: "away" };
    const { answers } = (await response.json()) as { answers: EntryAnswer[] };
    const byId = new Map(answers.map((answer) => [answer.id, answer]));
    let settled = 0;
    for (const entry of waiting) {
      const answer = byId.get(entry.id);
      if (!answer) continue;
      settled++;
      if (answer.status === "refused") {
        refused++;
        await setAside(sessionId, entry satisfies LogEntry, answer.reason);
      } else {
        acknowledged.push({ id: entry.id, seq: answer.seq });
        await acknowledge(entry.id);
      }
    }
    if (settled === 0) return { state: "away" };
  }
}
