import type { LogEntry } from "../../core/floor/entries";

/** What one tab tells the others, and what the server's stream carries. */
export type LiveMessage =
  | { kind: "entries"; entries: LogEntry[] }
  | { kind: "ended" }
  | { kind: "link"; up: boolean };

/**
 * One event stream a browser and session, shared by its tabs (browsers allow six connections to
 * a server over HTTP/1.1). The tab that holds the lock has the stream and passes everything on;
 * when it closes, another takes over from its own cursor.
 */
export function followSession(
  sessionId: string,
  cursor: () => number,
  hear: (message: LiveMessage) => void,
): () => void {
  const channel = new BroadcastChannel(`sprezza-live-${sessionId}`);
  channel.onmessage = (event: MessageEvent<LiveMessage>) => hear(event.data);
  const stop = new AbortController();
  const tell = (message: LiveMessage) => {
    hear(message);
    channel.postMessage(message);
  };

  const hold = () =>
    new Promise<void>((release) => {
      const source = openStream(sessionId, cursor, tell);
      stop.signal.addEventListener("abort", () => {
        source.close();
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

/** An event stream that starts again from the reader's cursor whenever it breaks. */
function openStream(
  sessionId: string,
  cursor: () => number,
  tell: (message: LiveMessage) => void,
): { close(): void } {
  let source: EventSource | undefined;
  let timer: number | undefined;
  let closed = false;
  const open = () => {
    source = new EventSource(`/api/live/${sessionId}?after=${cursor()}`);
    source.onopen = () => tell({ kind: "link", up: true });
    source.addEventListener("entries", (event) => {
      tell({ kind: "entries", entries: JSON.parse(event.data) as LogEntry[] });
    });
    source.addEventListener("ended", () => tell({ kind: "ended" }));
    source.onerror = () => {
      tell({ kind: "link", up: false });
      source?.close();
      if (!closed) timer = window.setTimeout(open, RETRY_MS);
    };
  };
  open();
  return {
    close() {
      closed = true;
      window.clearTimeout(timer);
      source?.close();
    },
  };
}
