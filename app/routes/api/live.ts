import { principalOf } from "../../platform/guard.server";
import { onNewEntries } from "../../platform/live.server";
import { readEntriesAfter } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/live";

const HEARTBEAT_MS = 15_000;

/**
 * The live stream of a session: every entry after the reader's cursor, as it is stored. The
 * database only tells that there is something new; what, is read under isolation.
 */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const { sessionId } = params;
  const asked = Number(
    request.headers.get("last-event-id") ?? new URL(request.url).searchParams.get("after") ?? "0",
  );
  let cursor = Number.isSafeInteger(asked) && asked > 0 ? asked : 0;
  const first = await readEntriesAfter(principal, sessionId, cursor);
  if (!first) return new Response("No such session in your room.", { status: 404 });

  const encoder = new TextEncoder();
  let close = () => {};
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      let open = true;
      const write = (text: string) => {
        if (open) controller.enqueue(encoder.encode(text));
      };
      let busy = false;
      let more = false;
      const pump = async () => {
        more = true;
        if (busy) return;
        busy = true;
        try {
          while (more && open) {
            more = false;
            const found = await readEntriesAfter(principal, sessionId, cursor);
            const last = found?.entries[found.entries.length - 1];
            if (found && last?.seq !== undefined) {
              cursor = last.seq;
              write(`id: ${cursor}\nevent: entries\ndata: ${JSON.stringify(found.entries)}\n\n`);
            }
            if (found?.ended) write("event: ended\ndata: {}\n\n");
          }
        } catch {
          // The reader opens a new stream from its cursor.
          close();
        } finally {
          busy = false;
        }
      };
      const unsubscribe = await onNewEntries(principal.teamId, sessionId, () => void pump());
      const beat = setInterval(() => write(": still here\n\n"), HEARTBEAT_MS);
      close = () => {
        if (!open) return;
        open = false;
        clearInterval(beat);
        unsubscribe();
        controller.close();
      };
      request.signal.addEventListener("abort", () => close());
      write("retry: 2000\n\n");
      void pump();
    },
    cancel() {
      close();
    },
  });
  return new Response(stream, {
    headers: {
      "content-type": "text/event-stream",
      "cache-control": "no-cache, no-transform",
      connection: "keep-alive",
    },
  });
}
