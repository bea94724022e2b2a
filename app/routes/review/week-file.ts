import { digestMarkdown } from "../../../core/review/week-digest";
import { idFrom } from "../../forms/primitives/id";
import { principalOf } from "../../platform/guard.server";
import { readWeek } from "../../workflows/review/read-week.server";
import type { Route } from "./+types/week-file";

/** A squad's week as Markdown. */
export async function loader({ context, url, params }: Route.LoaderArgs) {
  if (params.weekFile !== "week.md") throw new Response("There is no such file.", { status: 404 });
  const { digest, unit } = await readWeek(principalOf(context), {
    groupId: idFrom(url.searchParams.get("group") ?? ""),
    on: url.searchParams.get("on") ?? "",
  });
  if (!digest) throw new Response("There is no squad yet.", { status: 404 });
  return new Response(digestMarkdown(digest, unit), {
    headers: {
      "content-type": "text/markdown; charset=utf-8",
      "content-disposition": `attachment; filename="week-${digest.from}.md"`,
    },
  });
}
