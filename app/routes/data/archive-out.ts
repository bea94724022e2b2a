import { principalOf } from "../../platform/guard.server";
import { archiveOut } from "../../workflows/data/archive.server";
import type { Route } from "./+types/archive-out";

/** The team's own archive, as a file. */
export async function loader({ context }: Route.LoaderArgs) {
  const { stream, bytes, name } = await archiveOut(principalOf(context));
  return new Response(stream, {
    headers: {
      "content-type": "application/zip",
      "content-length": String(bytes),
      "content-disposition": `attachment; filename="${name}"`,
      "cache-control": "no-store, no-transform",
    },
  });
}
