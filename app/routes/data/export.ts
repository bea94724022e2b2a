import { principalOf } from "../../platform/guard.server";
import { EXPORTS, exportCsv } from "../../workflows/data/export.server";
import type { Route } from "./+types/export";

/** A table of the team as a CSV file. */
export async function loader({ context, params }: Route.LoaderArgs) {
  const what = EXPORTS.find((one) => `${one}.csv` === params.file);
  if (!what) throw new Response("There is no such file. Go back to Data.", { status: 404 });
  return new Response(await exportCsv(principalOf(context), what), {
    headers: {
      "content-type": "text/csv; charset=utf-8",
      "content-disposition": `attachment; filename="sprezza-${what}.csv"`,
      "cache-control": "no-store",
    },
  });
}
