import type { MassUnit } from "../../../core/units/mass";
import { frameOf, keepUnit } from "../../../db/queries/people.server";
import { inTeam } from "../../platform/database.server";
import type { Principal, Role } from "../../platform/rights";

/** What every page of the frame shows: the team, the person, the role. */
export function readFrame(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const frame = await (principal.kind === "person"
      ? frameOf(tx, principal.userId, principal.athleteId)
      : frameOf(tx, undefined));
    return {
      ...frame,
      person: principal.name,
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
