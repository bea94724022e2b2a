import { principalOf } from "../../platform/guard.server";
import { readNewer } from "../../workflows/plan/read-plan.server";
import type { Route } from "./+types/plan";

/** Whether a plan was edited after a sequence number. */
export async function loader({ request, context, params }: Route.LoaderArgs) {
  const after = Number(new URL(request.url).searchParams.get("after") ?? "0");
  if (!Number.isSafeInteger(after) || after < 0) {
    return Response.json({ message: "`after` is a sequence number." }, { status: 400 });
  }
  const found = await readNewer(principalOf(context), params.planId, after);
  if (!found) return Response.json({ message: "No such plan in your team." }, { status: 404 });
  return Response.json(found);
}
