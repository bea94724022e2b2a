import { principalOf } from "../../platform/guard.server";
import { readFindable } from "../../workflows/frame/find.server";
import type { Route } from "./+types/find";

export async function loader({ context }: Route.LoaderArgs) {
  return Response.json(await readFindable(principalOf(context)));
}
