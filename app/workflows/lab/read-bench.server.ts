import { racksOf } from "../../../db/queries/gear.server";
import { listRooms } from "../../../db/queries/squads.server";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";

/** The gear that the bench's tools can be set to. */
export function readBench(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const rooms = await listRooms(tx);
    return (await racksOf(tx)).map((rack) => ({
      id: rack.rackId,
      label: `${rooms.find((room) => room.id === rack.roomId)?.name}, rack ${rack.number}: ${rack.gear.bar.name}`,
      gear: rack.gear,
    }));
  });
}
