import { z } from "zod";
import { BatchSchema, MOST_ENTRIES } from "../../forms/entries";
import { cursorFrom } from "../../forms/primitives/cursor";
import { now } from "../../platform/clock.server";
import { principalOf } from "../../platform/guard.server";
import { readRawJson } from "../../platform/submission.server";
import { appendEntries } from "../../workflows/floor/append-entries.server";
import { readEntriesAfter } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/log";

/** Entries after a sequence number, for a reader that catches up by itself. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams;
  const after = cursorFrom(asked.get("after"));
  if (after === undefined) {
    return Response.json({ message: "`after` is a sequence number." }, { status: 400 });
  }
  const of = z
    .uuid()
    .optional()
    .safeParse(asked.get("athlete") ?? undefined);
  if (!of.success) return Response.json({ message: "`athlete` is an id." }, { status: 400 });
  const found = await readEntriesAfter(principalOf(context), params.sessionId, after, of.data);
  if (!found) return Response.json({ message: "No such session in your room." }, { status: 404 });
  return Response.json(found);
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const batch = BatchSchema.safeParse(await readRawJson(request));
  if (!batch.success) {
    const message = `A batch holds up to ${MOST_ENTRIES} entries.`;
    return Response.json({ message }, { status: 400 });
  }
  const { entries, clock } = batch.data;
  const result = await appendEntries(principalOf(context), params.sessionId, entries, clock);
  if (!result.ok) return Response.json(result, { status: 404 });
  return Response.json({ ...result.value, serverNowMs: now().getTime() });
}
