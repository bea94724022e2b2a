import { setTeamSchool } from "../../../db/queries/first-hour.server";
import { listSchools } from "../../../db/queries/plan-library.server";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

/** The school that new plans start with, and that stands where no plan says another. */
export function chooseSchool(
  principal: Principal,
  schoolId: string,
): Promise<Outcome<{ id: string }>> {
  return inTeam(principal, async (tx) => {
    if (!(await listSchools(tx)).some((one) => one.id === schoolId))
      return failed("no-school", "This school is not in your library any more.");
    await setTeamSchool(tx, schoolId);
    return done({ id: schoolId });
  });
}
