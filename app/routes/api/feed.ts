import { readFeed } from "../../workflows/plan/export-plan.server";
import type { Route } from "./+types/feed";

/** A followed calendar: the token is the right to read it, until it is revoked. */
export async function loader({ params }: Route.LoaderArgs) {
  const text = await readFeed(params.token.replace(/\.ics$/, ""));
  if (text === undefined) throw new Response("This calendar is not there.", { status: 404 });
  return new Response(text, {
    headers: { "content-type": "text/calendar; charset=utf-8", "cache-control": "no-store" },
  });
}
