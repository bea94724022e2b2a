import { z } from "zod";
import { EditSchema } from "../../forms/block";
import { cursorFrom, MOST_CURSOR } from "../../forms/primitives/cursor";
import { principalOf } from "../../platform/guard.server";
import { readJson } from "../../platform/submission.server";
import { editPlan } from "../../workflows/plan/edit-plan.server";
import { readNewer } from "../../workflows/plan/read-plan.server";
import type { Route } from "./+types/plan";

/** Whether a plan was edited after a sequence number. */
export async function loader({ request, context, params }: Route.LoaderArgs) {
  const after = cursorFrom(new URL(request.url).searchParams.get("after"));
  if (after === undefined) {
    return Response.json({ message: "`after` is a sequence number." }, { status: 400 });
  }
  const found = await readNewer(principalOf(context), params.planId, after);
  if (!found) return Response.json({ message: "No such plan in your team." }, { status: 404 });
  return Response.json(found);
}

const Sent = z.object({
  id: z.uuid(),
  base: z.number().int().min(0).max(MOST_CURSOR),
  edit: EditSchema,
});

/** Takes an edit; the same id sent again does no harm. */
export async function action({ request, context, params }: Route.ActionArgs) {
  const raw: unknown = await readJson(request);
  const parsed = Sent.safeParse(raw);
  if (!parsed.success) {
    const message = parsed.error.issues[0]?.message ?? "This edit could not be read.";
    return Response.json({ ok: false, message }, { status: 400 });
  }
  const result = await editPlan(principalOf(context), { planId: params.planId, ...parsed.data });
  return Response.json(result, { status: result.ok ? 200 : 409 });
}
