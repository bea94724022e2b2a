import { redirect } from "react-router";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { chooseUnit, readFrame } from "../../workflows/frame/frame.server";
import type { Route } from "./+types/unit";

/** The unit in which this person reads loads. */
export async function loader({ context }: Route.LoaderArgs) {
  return Response.json({ unit: (await readFrame(principalOf(context))).unit });
}

/** Another unit from now on; what was written keeps its own. */
export async function action({ request, context }: Route.ActionArgs) {
  const form = await readForm(request);
  await chooseUnit(principalOf(context), form.get("unit") === "lb" ? "lb" : "kg");
  const back = String(form.get("back") ?? "");
  return redirect(/^\/(?![/\\])/.test(back) ? back : "/");
}
