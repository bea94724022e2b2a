import type { MassUnit } from "../../../core/units/mass";
import { frameOf, keepUnit } from "../../../db/queries/people.server";
import { inTeam } from "../../platform/database.server";
import type { Principal, Role } from "../../platform/rights";

import { firstHourLeft } from "../lifters/first-hour.server";

/** What every page of the frame shows: the team, the person, the role. */
export function readFrame(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const frame = await (principal.kind === "person"
      ? frameOf(tx, principal.userId, principal.athleteId)
      : frameOf(tx, undefined));
    const leads = principal.kind === "person" && ["owner", "coach"].includes(principal.role);
    return {
      ...frame,
      /** Steps of a new team's first hour that are left; undefined once it is over. */
      firstHour: leads ? await firstHourLeft(tx) : undefined,
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
