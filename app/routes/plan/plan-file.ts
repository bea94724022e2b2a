import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { exportPlan } from "../../workflows/plan/export-plan.server";
import type { Route } from "./+types/plan-file";

const KINDS: Record<string, "json" | "csv" | "ics"> = {
  "block.json": "json",
  "loads.csv": "csv",
  "calendar.ics": "ics",
};

/** A plan as a file to take away. */
export async function loader({ context, params }: Route.LoaderArgs) {
  const as = Object.hasOwn(KINDS, params.planFile) ? KINDS[params.planFile] : undefined;
  if (!as) throw new Response("There is no such file.", { status: 404 });
  const found = await exportPlan(principalOf(context), params.planId, as);
  if (!found.ok) throw notThere(found);
  const { name, type, text } = found.value;
  return new Response(text, {
    headers: {
      "content-type": `${type}; charset=utf-8`,
      "content-disposition": `attachment; filename="${name}"`,
    },
  });
}
