import { addDays } from "../../../core/units/time";
import { recipeWarnings } from "../../../core/wave/recipe";
import { racksOf } from "../../../db/queries/gear.server";
import { listPlans, planById } from "../../../db/queries/plans.server";
import { sessionsOfPlan } from "../../../db/queries/sessions.server";
import { localDate } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readAnswers } from "../lab/send-answer.server";
import { planAthletes, planOverrides, prescribePlan, sessionPlan } from "./prescribe-plan.server";

export function readPlans(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const rows = await listPlans(tx);
    return rows.map((row) => {
      const weeks = row.plan.recipe.weeks.length;
      const today = localDate(row.zone);
      const lastDate = addDays(row.plan.startDate, 7 * (weeks - 1));
      return {
        id: row.plan.id,
        name: row.plan.name,
        squadName: row.squadName,
        liftName: row.variant.name,
        roomName: row.roomName,
        weeks,
        startDate: row.plan.startDate,
        lastDate,
        standing: lastDate < today ? "past" : row.plan.startDate > today ? "to come" : "now",
      };
    });
  });
}

/** A plan with every athlete's numbers for every week. */
export function readPlan(principal: Principal, planId: string) {
  return inTeam(principal, async (tx) => {
    const row = await planById(tx, planId);
    if (!row) return failed("no-plan", "This plan is not there. Open the plan list.");
    const today = localDate(row.zone);
    const racks = await racksOf(tx, row.plan.roomId);
    const rack = racks[0];
    if (!rack) {
      return failed(
        "no-rack",
        `${row.roomName} has no rack with a bar yet, so no load can be built.`,
      );
    }
    const plan = sessionPlan(row);
    const athletes = await planAthletes(tx, row, today);
    const overrides = await planOverrides(tx, planId);
    const weeks = prescribePlan({ plan, athletes, gear: rack.gear, overrides });
    const sessions = await sessionsOfPlan(tx, planId);
    return done({
      plan,
      roomName: row.roomName,
      updatedBy: row.plan.updatedBy,
      today,
      gearName: `${rack.gear.bar.name}, rack ${rack.number}`,
      answers: await readAnswers(tx, { planId }),
      warnings: recipeWarnings(plan.recipe),
      athletes: athletes.map((athlete) => ({
        id: athlete.id,
        name: athlete.name,
        unit: athlete.unit,
        maxKg: athlete.workingMax?.kg,
        maxWorking: athlete.workingMax?.working,
        stale: athlete.workingMax?.stale ?? false,
        ageDays: athlete.workingMax?.ageDays,
        trainingYears: athlete.trainingYears,
        instructions: athlete.instructions,
      })),
      weeks: weeks.map(({ week, byAthlete }) => {
        const session = sessions.find((one) => one.week === week.number);
        return {
          number: week.number,
          weekId: week.weekId,
          date: addDays(row.plan.startDate, 7 * (week.number - 1)),
          sets: week.sets,
          byAthlete,
          session: session && { id: session.id, status: session.status },
        };
      }),
    });
  });
}
