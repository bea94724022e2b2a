import { RunEntries } from "../../forms/complex";
import { cursorFrom } from "../../forms/primitives/cursor";
import { principalOf } from "../../platform/guard.server";
import { readJson } from "../../platform/submission.server";
import { logPairing, pairingEntries } from "../../workflows/floor/pairing.server";
import type { Route } from "./+types/pairing";

/** The taps of a pairing after a number, for those who have it open. */
export async function loader({ request, context, params }: Route.LoaderArgs) {
  const after = cursorFrom(new URL(request.url).searchParams.get("after")) ?? 0;
  const found = await pairingEntries(principalOf(context), params.runId, after);
  return found.ok
    ? Response.json(found.value)
    : Response.json({ message: found.message }, { status: 404 });
}

/** Takes taps; says which are stored. Sending one again does no harm. */
export async function action({ request, context, params }: Route.ActionArgs) {
  const raw: unknown = await readJson(request);
  const parsed = RunEntries.safeParse(raw);
  if (!parsed.success)
    return Response.json({ message: "These taps could not be read." }, { status: 400 });
  const entries = JSON.parse(JSON.stringify(parsed.data.entries)) as typeof parsed.data.entries;
  const done = await logPairing(
    principalOf(context),
    params.runId,
    entries as Parameters<typeof logPairing>[2],
  );
  return done.ok
    ? Response.json(done.value)
    : Response.json({ message: done.message }, { status: 404 });
}
