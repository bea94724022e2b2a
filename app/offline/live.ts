import type { LogEntry } from "../../core/floor/entries";

/** What one tab tells the others, and what the server's stream carries. */
export type LiveMessage =
  | { kind: "entries"; entries: LogEntry[] }
  /** The session has ended, or was opened again. */
  | { kind: "status"; ended: boolean }
  | { kind: "link"; up: boolean }
  /** A tab that joins says how far it has heard, in case the stream has gone further. */
  | { kind: "hello"; after: number };

/**
 * One event stream a browser and session, shared by its tabs (browsers allow six connections to
 * a server over HTTP/1.1). The tab that holds the lock has the stream and passes everything on;
 * when it closes, another takes over from where it has heard to.
 *
 * @param heard the highest sequence number that this tab was told by the server or the stream.
 *   What it sent itself and was acknowledged does not count: between that and the last it heard
 *   may lie entries that no tab has seen yet.
 */
export function followSession(
  sessionId: string,
  heard: () => number,
  hear: (message: LiveMessage) => void,
): () => void {
  const channel = new BroadcastChannel(`sprezza-live-${sessionId}`);
  let stream: Stream | undefined;
  channel.onmessage = (event: MessageEvent<LiveMessage>) => {
    if (event.data.kind === "hello") stream?.atLatest(event.data.after);
    else hear(event.data);
  };
  channel.postMessage({ kind: "hello", after: heard() } satisfies LiveMessage);
  const stop = new AbortController();
  const tell = (message: LiveMessage) => {
    hear(message);
    channel.postMessage(message);
  };

  const hold = () =>
    new Promise<void>((release) => {
      const own = openStream(sessionId, heard(), tell);
      stream = own;
      stop.signal.addEventListener("abort", () => {
        own.close();
        release();
      });
    });
  if (navigator.locks) {
    navigator.locks
      .request(`sprezza-live-${sessionId}`, { signal: stop.signal }, hold)
      .catch(() => {});
  } else void hold();

  return () => {
    stop.abort();
    channel.close();
  };
}

const RETRY_MS = 2000;

interface Stream {
  close(): void;
  /** Goes back to a number, where the stream is further than it. */
  atLatest(after: number): void;
}

/** An event stream that starts again from the last entry it passed on whenever it breaks. */
function openStream(
  sessionId: string,
  start: number,
  tell: (message: LiveMessage) => void,
): Stream {
  let source: EventSource | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let closed = false;
  let passedOn = start;
  const open = () => {
    const own = new EventSource(`/api/live/${sessionId}?after=${passedOn}`);
    source = own;
    own.onopen = () => tell({ kind: "link", up: true });
    own.addEventListener("entries", (event) => {
      const entries = JSON.parse(event.data) as LogEntry[];
      passedOn = Math.max(passedOn, ...entries.map((entry) => entry.seq ?? 0));
      tell({ kind: "entries", entries });
    });
    own.addEventListener("status", (event) => {
      const { ended } = JSON.parse(event.data) as { ended: boolean };
      tell({ kind: "status", ended });
    });
    own.onerror = () => {
      tell({ kind: "link", up: false });
      own.close();
      if (!closed && source === own) timer = setTimeout(open, RETRY_MS);
    };
  };
  open();
  return {
    close() {
      closed = true;
      clearTimeout(timer);
      source?.close();
    },
    atLatest(after) {
      if (closed || after >= passedOn) return;
      passedOn = after;
      clearTimeout(timer);
      source?.close();
      open();
    },
  };
}
