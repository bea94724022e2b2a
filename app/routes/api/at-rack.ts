import { principalOf } from "../../platform/guard.server";
import { sessionAtRack } from "../../workflows/tablets/tablets.server";
import type { Route } from "./+types/at-rack";

/** The session that uses a tablet's rack now: where the tablet goes on by itself. */
export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  if (principal.kind !== "rack") return Response.json({ sessionId: null });
  const sessionId = await sessionAtRack(principal);
  return Response.json({ sessionId: sessionId ?? null, rackId: principal.rackId });
}
