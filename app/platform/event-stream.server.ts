/** What writes to one reader of an event stream. */
export interface EventWriter {
  /** Whether anybody still reads. */
  readonly open: boolean;
  /** One message; nothing, once the reader is gone. */
  write(text: string): void;
  /** Ends the stream. Any number of times, at any time. */
  close(): void;
}

/**
 * A stream of events to one reader. A reader may leave at any moment: while the stream is being
 * begun, between a read and its write, or while it is closed here. None of it may throw where
 * nobody catches, which would end the process for everybody.
 * @param begin starts what writes, and gives what ends it; that is called once, whoever ends first
 */
export function eventStream(
  signal: AbortSignal,
  begin: (out: EventWriter) => Promise<() => void>,
): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let open = true;
  let end: (() => void) | undefined;
  let gone = () => {};
  /** The reader's side is over; true the first time. */
  const leave = (): boolean => {
    if (!open) return false;
    open = false;
    signal.removeEventListener("abort", gone);
    end?.();
    return true;
  };
  return new ReadableStream<Uint8Array>({
    async start(controller) {
      const close = () => {
        if (!leave()) return;
        try {
          controller.close();
        } catch {
          // The reader closed it a moment before.
        }
      };
      gone = close;
      signal.addEventListener("abort", gone);
      if (signal.aborted) close();
      const out: EventWriter = {
        get open() {
          return open;
        },
        write(text) {
          if (!open) return;
          try {
            controller.enqueue(encoder.encode(text));
          } catch {
            leave();
          }
        },
        close,
      };
      try {
        const ending = await begin(out);
        if (open) end = ending;
        else ending();
      } catch (error) {
        if (leave()) controller.error(error);
      }
    },
    cancel() {
      leave();
    },
  });
}
