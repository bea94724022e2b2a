import { principalOf } from "../../platform/guard.server";
import { readFrozen, readWorking } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/session";

/**
 * What a session stands on, for a browser that still holds entries of it; with a slot, an athlete
 * and a set, the working of that set's load.
 */
export async function loader({ context, params, request }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const asked = new URL(request.url).searchParams;
  const [slotId, athleteId, setKey] = [
    asked.get("slot"),
    asked.get("athlete"),
    asked.get("set"),
  ] as const;
  const result =
    slotId !== null && athleteId !== null && setKey !== null
      ? await readWorking(principal, params.sessionId, { slotId, athleteId, setKey })
      : await readFrozen(principal, params.sessionId);
  return Response.json(result, { status: result.ok ? 200 : 404 });
}
