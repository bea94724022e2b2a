import { prescribeWeek } from "../../../core/session/freeze";
import { addDays, daysBetween } from "../../../core/units/time";
import { expandRecipe } from "../../../core/wave/recipe";
import { racksOf } from "../../../db/queries/gear.server";
import { instructionsOn } from "../../../db/queries/person.server";
import { listPlans } from "../../../db/queries/plans.server";
import { athleteById } from "../../../db/queries/squads.server";
import { localDate } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { planAthletes, planOverrides, sessionPlan } from "../plan/prescribe-plan.server";

/** An athlete's own next session, and nobody else's. */
export function readCard(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const athleteId = principal.kind === "person" ? principal.athleteId : undefined;
    const person = athleteId ? await athleteById(tx, athleteId) : undefined;
    if (!person) {
      return failed("no-card", "Your sign-in has no athlete yet. Ask your coach to connect it.");
    }
    const days = (await listPlans(tx))
      .filter((row) => row.plan.squadId === person.squadId)
      .flatMap((row) =>
        expandRecipe(row.plan.recipe).map((week) => ({
          row,
          week,
          date: addDays(row.plan.startDate, 7 * (week.number - 1)),
        })),
      )
      .filter(({ row, date }) => daysBetween(localDate(row.zone), date) >= 0)
      .sort((a, b) => a.date.localeCompare(b.date));
    const next = days[0];
    const today = localDate(days[0]?.row.zone ?? "UTC");
    const instructions = (await instructionsOn(tx, today, person.id)).get(person.id) ?? [];
    if (!next) return done({ name: person.name, instructions, next: undefined });
    const { row, week, date } = next;
    const athlete = (await planAthletes(tx, row, localDate(row.zone))).find(
      (one) => one.id === person.id,
    );
    const rack = (await racksOf(tx, row.plan.roomId))[0];
    if (!athlete || !rack) return failed("no-rack", `${row.roomName} has no rack with a bar yet.`);
    return done({
      name: person.name,
      instructions,
      next: {
        date,
        today: localDate(row.zone),
        title: row.plan.name,
        week: week.number,
        weeks: row.plan.recipe.weeks.length,
        liftName: row.variant.name,
        roomName: row.roomName,
        caution: row.variant.caution,
        rest: row.plan.recipe.rest,
        unit: athlete.unit ?? ("kg" as const),
        sets: prescribeWeek({
          plan: sessionPlan(row),
          week,
          athlete,
          gear: rack.gear,
          overrides: await planOverrides(tx, row.plan.id),
        }),
      },
    });
  });
}
