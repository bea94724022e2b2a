import { readTeam } from "../../db/queries/squads.server";
import { inTeam } from "../platform/database.server";
import type { Principal, Role } from "../platform/rights";

/** What every page of the frame shows: the team, the person, the role. */
export function readFrame(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const team = await readTeam(tx);
    return {
      team: team?.name ?? "",
      person: principal.name,
      role: (principal.kind === "person" ? principal.role : "assistant") as Role,
    };
  });
}
