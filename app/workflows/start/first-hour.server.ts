import { endFirstHour, firstHourFacts, setAside } from "../../../db/queries/first-hour.server";
import { listSchools } from "../../../db/queries/plan-library.server";
import { listRooms } from "../../../db/queries/squads.server";
import type { FirstHourStep } from "../../../db/schema";
import { inTeam } from "../../platform/database.server";
import { done, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { firstHourStates } from "../lifters/first-hour.server";

/** The steps from a new team to its first session, each with its state. */
export function readFirstHour(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const facts = await firstHourFacts(tx);
    const schools = await listSchools(tx);
    return {
      steps: firstHourStates(facts),
      over: facts.hour.over === true,
      schoolId: facts.schoolId,
      schools: schools.map(({ id, school }) => ({
        id,
        name: school.name,
        assumes: school.assumes,
      })),
      roomId: (await listRooms(tx))[0]?.id,
    };
  });
}

export function putAside(
  principal: Principal,
  step: FirstHourStep,
  aside: boolean,
): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    await setAside(tx, step, aside);
    return done(null);
  });
}

/** Puts the page away although something is left. */
export function leaveFirstHour(principal: Principal): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    await endFirstHour(tx);
    return done(null);
  });
}
