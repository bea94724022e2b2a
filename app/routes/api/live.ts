import { z } from "zod";
import { cursorFrom } from "../../forms/primitives/cursor";
import { now } from "../../platform/clock.server";
import { eventStream } from "../../platform/event-stream.server";
import { principalOf } from "../../platform/guard.server";
import { takePlace } from "../../platform/live-places.server";
import { watchPrincipals } from "../../platform/principal-news.server";
import { hearSigns, signsOf, tellSign } from "../../platform/station-signs.server";
import { readRawJson } from "../../platform/submission.server";
import { followSession, type SessionNews } from "../../workflows/floor/follow-session.server";
import { maySeeSession } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/live";

/** A message that its reader does not take for this long ends the stream: it comes back. */
const SLOW_MS = 30_000;

/**
 * The live stream of a session: every entry after the reader's cursor, as it is stored. The
 * database only tells that there is something new; what, is read under isolation.
 */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const { sessionId } = params;
  // Asked for as a page's data it would be read to its end, which never comes.
  if (new URL(request.url).pathname.endsWith(".data")) {
    return new Response("This is a stream. Ask for it by its own address.", { status: 404 });
  }
  const asked =
    request.headers.get("last-event-id") ?? new URL(request.url).searchParams.get("after");
  const after = cursorFrom(asked) ?? 0;
  if (!(await maySeeSession(principal, sessionId))) {
    return new Response("No such session in your room.", { status: 404 });
  }
  if (new URL(request.url).searchParams.has("stations")) {
    const { teamId } = principal;
    await hearSigns();
    return Response.json({ stations: signsOf({ teamId, id: sessionId }, now().getTime()) });
  }
  await watchPrincipals();
  const place = takePlace(principal);
  if (!place) {
    return new Response("Too many screens follow just now. This one tries again by itself.", {
      status: 503,
      headers: { "retry-after": "5" },
    });
  }
  const stream = eventStream(
    AbortSignal.any([request.signal, place.lost]),
    async function* (stop) {
      yield "retry: 2000\n\n";
      for await (const news of followSession(principal, sessionId, after, stop))
        yield inEvents(news);
    },
    { slowMs: SLOW_MS, ended: () => place.giveBack() },
  );
  return new Response(stream, { headers: { "content-type": "text/event-stream" } });
}

const Sign = z.object({
  stationId: z.uuid(),
  batteryPercent: z.number().int().min(0).max(100).optional(),
  unsent: z.number().int().min(0).max(100_000),
});

/** A station's tablet says that it is there: the floor asks with `?stations`. */
export async function action({ request, params, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const sign = Sign.safeParse(await readRawJson(request));
  if (!sign.success)
    return Response.json({ message: "This is no station’s sign." }, { status: 400 });
  if (!(await maySeeSession(principal, params.sessionId)))
    return Response.json(
      { message: "This session is not there, or not in your room." },
      { status: 404 },
    );
  const { stationId, batteryPercent, unsent } = sign.data;
  await tellSign(
    { teamId: principal.teamId, id: params.sessionId },
    { stationId, batteryPercent, unsent },
  );
  return new Response(null, { status: 204 });
}

function inEvents(news: SessionNews): string | Uint8Array {
  switch (news.kind) {
    case "entries":
      return news.message;
    case "status":
      return `event: status\ndata: ${JSON.stringify({ ended: news.ended })}\n\n`;
    case "beat":
      return ": still here\n\n";
  }
}
