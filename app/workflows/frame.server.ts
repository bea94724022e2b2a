import type { MassUnit } from "../../core/units/mass";
import { keepUnit, unitOf } from "../../db/queries/people.server";
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
      unit: await unitOf(tx, principal.kind === "person" ? principal.userId : undefined),
      role: (principal.kind === "person" ? principal.role : "assistant") as Role,
    };
  });
}

/** The unit in which this person reads loads from now on; what was written keeps its own. */
export async function chooseUnit(principal: Principal, unit: MassUnit): Promise<void> {
  if (principal.kind !== "person") return;
  const { userId } = principal;
  await inTeam(principal, (tx) => keepUnit(tx, userId, unit));
}
