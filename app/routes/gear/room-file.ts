import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { exportRoom } from "../../workflows/gear/room.server";
import type { Route } from "./+types/room-file";

/** A room as a file: room.json or room.csv. */
export async function loader({ context, params }: Route.LoaderArgs) {
  const as =
    params.roomFile === "room.json" ? "json" : params.roomFile === "room.csv" ? "csv" : undefined;
  if (!as) throw new Response("There is no such file. Go back to the room.", { status: 404 });
  const found = await exportRoom(principalOf(context), params.roomId, as);
  if (!found.ok) throw notThere(found);
  return new Response(found.value.text, {
    headers: {
      "content-type": as === "json" ? "application/json; charset=utf-8" : "text/csv; charset=utf-8",
      "content-disposition": `attachment; filename="room-${found.value.name}.${as}"`,
      "cache-control": "no-store",
    },
  });
}
