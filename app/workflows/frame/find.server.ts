import { listPlans } from "../../../db/queries/plans.server";
import { listSessions } from "../../../db/queries/sessions.server";
import { listAthletes } from "../../../db/queries/squads.server";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";

export interface Findable {
  label: string;
  detail: string;
  to: string;
}

/** What the command palette can go to, besides the places. */
export function readFindable(principal: Principal): Promise<Findable[]> {
  return inTeam(principal, async (tx) => {
    const athletes = await listAthletes(tx);
    const plans = await listPlans(tx);
    const sessions = await listSessions(tx, 12);
    return [
      ...athletes.map((one) => ({
        label: one.name,
        detail: "Athlete",
        to: `/athletes/${one.id}`,
      })),
      ...plans.map((row) => ({
        label: `${row.plan.name}, ${row.squadName}`,
        detail: `Plan from ${row.plan.startDate}`,
        to: `/plan/${row.plan.id}`,
      })),
      ...sessions.map((one) => ({
        label: one.title,
        detail: `Session of ${one.date}`,
        to: one.status === "running" ? `/floor/${one.id}` : `/review/${one.id}`,
      })),
    ];
  });
}
