import { eventStream } from "../../platform/event-stream.server";
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

  const stream = eventStream(request.signal, async (out) => {
    let busy = false;
    let more = false;
    const pump = async () => {
      more = true;
      if (busy) return;
      busy = true;
      try {
        while (more && out.open) {
          more = false;
          const found = await readEntriesAfter(principal, sessionId, cursor);
          const last = found?.entries[found.entries.length - 1];
          if (found && last?.seq !== undefined) {
            cursor = last.seq;
            out.write(`id: ${cursor}\nevent: entries\ndata: ${JSON.stringify(found.entries)}\n\n`);
          }
          if (found?.ended) out.write("event: ended\ndata: {}\n\n");
        }
      } catch {
        // The reader opens a new stream from its cursor.
        out.close();
      } finally {
        busy = false;
      }
    };
    const unsubscribe = await onNewEntries(principal.teamId, sessionId, () => void pump());
    const beat = setInterval(() => out.write(": still here\n\n"), HEARTBEAT_MS);
    out.write("retry: 2000\n\n");
    void pump();
    return () => {
      clearInterval(beat);
      unsubscribe();
    };
  });
  return new Response(stream, {
    headers: {
      "content-type": "text/event-stream",
      "cache-control": "no-cache, no-transform",
      connection: "keep-alive",
    },
  });
}
