import { z } from "zod";
import { keyField } from "../../forms/primitives/key";
import { principalOf } from "../../platform/guard.server";
import { readFrozen, readWorking } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/session";

const Asked = z.object({
  of: z.enum(["load", "set", "tonnage"]),
  slot: keyField(60),
  athlete: z.uuid(),
  set: keyField(60).optional(),
});

/**
 * What a session stands on, for a browser that still holds entries of it; with a slot and an
 * athlete, one working: of a set's load, of what the set came to, of the tonnage.
 */
export async function loader({ context, params, request }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const asked = Object.fromEntries(new URL(request.url).searchParams);
  if (Object.keys(asked).length === 0) return answer(await readFrozen(principal, params.sessionId));
  const parsed = Asked.safeParse(asked);
  if (!parsed.success)
    return Response.json({ ok: false, message: "This asks for no working." }, { status: 400 });
  const { of: kind, slot: slotId, athlete: athleteId, set: setKey = "" } = parsed.data;
  return answer(
    await readWorking(principal, params.sessionId, { kind, slotId, athleteId, setKey }),
  );
}

const answer = (result: { ok: boolean }) =>
  Response.json(result, { status: result.ok ? 200 : 404 });
