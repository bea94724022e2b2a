import { environment } from "../../platform/env.server";
import { principalOf } from "../../platform/guard.server";
import { teamCookie } from "../../platform/principal.server";
import { bringTeam } from "../../workflows/people/bring-team.server";
import { asPerson } from "../../workflows/people/person.server";
import type { Route } from "./+types/archive-in";

/** Takes an archive as it is, a file of bytes, and answers with the team that it became. */
export async function action({ request, context }: Route.ActionArgs) {
  const person = asPerson(principalOf(context));
  const name = (new URL(request.url).searchParams.get("name") ?? "").trim().slice(0, 80);
  const brought = await bringTeam(person, request.body, name);
  if (!brought.ok) return Response.json(brought, { status: 422 });
  return Response.json(brought, {
    headers: {
      "set-cookie": teamCookie(brought.value.teamId, environment().TLS_CERT !== undefined),
    },
  });
}
