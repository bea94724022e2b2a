import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { exportReview } from "../../workflows/review/export-review.server";
import type { Route } from "./+types/review-file";

/** A session's sets as a file to take away. */
export async function loader({ context, params }: Route.LoaderArgs) {
  if (params.reviewFile !== "sets.csv")
    throw new Response("There is no such file.", { status: 404 });
  const found = await exportReview(principalOf(context), params.sessionId);
  if (!found.ok) throw notThere(found);
  return new Response(found.value.text, {
    headers: {
      "content-type": "text/csv; charset=utf-8",
      "content-disposition": `attachment; filename="${found.value.name}"`,
    },
  });
}
