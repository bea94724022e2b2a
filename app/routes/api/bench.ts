import { principalOf } from "../../platform/guard.server";
import { readBenchFacts } from "../../workflows/lab/read-bench.server";
import type { Route } from "./+types/bench";

/** An athlete's numbers for the bench's fields. */
export async function loader({ context, params }: Route.LoaderArgs) {
  const found = await readBenchFacts(principalOf(context), params.athleteId, params.variantId);
  return Response.json(found, { status: found.ok ? 200 : 404 });
}
