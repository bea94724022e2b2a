import { BatchSchema } from "../../forms/entries";
import { principalOf } from "../../platform/guard.server";
import { appendEntries } from "../../workflows/floor/append-entries.server";
import { readEntriesAfter } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/log";

/** Entries after a sequence number, for a reader that catches up by itself. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const after = Number(new URL(request.url).searchParams.get("after") ?? "0");
  if (!Number.isSafeInteger(after) || after < 0) {
    return Response.json({ message: "`after` is a sequence number." }, { status: 400 });
  }
  const found = await readEntriesAfter(principalOf(context), params.sessionId, after);
  if (!found) return Response.json({ message: "No such session in your room." }, { status: 404 });
  return Response.json(found);
}

export async function action({ request, params, context }: Route.ActionArgs) {
  let json: unknown;
  try {
    json = await request.json();
  } catch {
    return Response.json({ message: "The body is not JSON." }, { status: 400 });
  }
  const batch = BatchSchema.safeParse(json);
  if (!batch.success) {
    return Response.json({ message: "A batch holds 1 to 200 entries." }, { status: 400 });
  }
  const result = await appendEntries(principalOf(context), params.sessionId, batch.data.entries);
  if (!result.ok) return Response.json(result, { status: 404 });
  return Response.json(result.value);
}
