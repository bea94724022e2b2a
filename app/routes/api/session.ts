import { principalOf } from "../../platform/guard.server";
import { readFrozen } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/session";

/** What a session stands on, for a browser that still holds entries of it. */
export async function loader({ context, params }: Route.LoaderArgs) {
  const result = await readFrozen(principalOf(context), params.sessionId);
  return Response.json(result, { status: result.ok ? 200 : 404 });
}
