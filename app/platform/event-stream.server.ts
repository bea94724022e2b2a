/** The reader did not take a piece in time: it comes back by itself, from where it has heard to. */
export class SlowReader extends Error {}

interface Options {
  /** A piece that is not taken for this long ends the stream. */
  slowMs: number;
  /** Called once, whoever ends first. */
  ended: () => void;
}

const open = new Set<() => void>();

/** How many readers follow something in this process. */
export const openStreams = () => open.size;

/** Ends every stream of this process: its readers come back, to whoever answers then. */
export function endStreams(): void {
  for (const end of [...open]) end();
}

/**
 * A stream of events to one reader, made piece by piece as the reader takes them: nothing is
 * queued for a reader who is behind, it goes on from its cursor. A reader may leave at any
 * moment, also while the stream is begun or ended here; none of it throws where nobody catches.
 * @param signal the request's own: aborted when the reader has gone
 * @param source makes the pieces (bytes may be those of other readers too); its signal is aborted when nobody wants more
 */
export function eventStream(
  signal: AbortSignal,
  source: (stop: AbortSignal) => AsyncGenerator<string | Uint8Array, void, void>,
  { slowMs, ended }: Options,
): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  const stop = new AbortController();
  const pieces = source(stop.signal);
  let slow: ReturnType<typeof setTimeout> | undefined;
  let over = false;
  let close = () => {};
  /** True the first time. */
  const leave = (): boolean => {
    if (over) return false;
    over = true;
    clearTimeout(slow);
    signal.removeEventListener("abort", close);
    open.delete(close);
    stop.abort();
    // Waits for the step that is under way; what that throws is nobody's any more.
    pieces.return().catch(() => {});
    ended();
    return true;
  };
  return new ReadableStream<Uint8Array>(
    {
      start(controller) {
        close = () => {
          if (!leave()) return;
          try {
            controller.close();
          } catch {
            // The reader closed it a moment before.
          }
        };
        open.add(close);
        signal.addEventListener("abort", close);
        if (signal.aborted) close();
      },
      async pull(controller) {
        clearTimeout(slow);
        if (over) return;
        try {
          const { done, value } = await pieces.next();
          if (over) return;
          if (done) {
            close();
            return;
          }
          controller.enqueue(typeof value === "string" ? encoder.encode(value) : value);
          slow = setTimeout(() => {
            if (leave()) controller.error(new SlowReader("not taken in time"));
          }, slowMs);
        } catch (error) {
          if (leave()) controller.error(error);
        }
      },
      cancel() {
        leave();
      },
    },
    // Nothing ahead of the reader.
    { highWaterMark: 0 },
  );
}
