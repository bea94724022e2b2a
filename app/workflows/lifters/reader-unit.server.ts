import type { MassUnit } from "../../../core/units/mass";
import { frameOf } from "../../../db/queries/people.server";
import type { TeamTransaction } from "../../../db/team.server";
import type { Principal } from "../../platform/rights";

/** The unit that who asks reads loads in: the own choice, else the team's. */
export async function readerUnit(tx: TeamTransaction, principal: Principal): Promise<MassUnit> {
  if (principal.kind !== "person") return (await frameOf(tx, undefined)).unit;
  return (await frameOf(tx, principal.userId, principal.athleteId)).unit;
}
