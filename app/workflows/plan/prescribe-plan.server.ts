import type { LoadingGear } from "../../../core/barload/gear";
import {
  type Overrides,
  prescribeWeek,
  type SessionAthlete,
  type SessionPlan,
} from "../../../core/session/freeze";
import type { SetPrescription } from "../../../core/session/prescribe";
import { daysBetween } from "../../../core/units/time";
import { expandRecipe, type WaveWeek } from "../../../core/wave/recipe";
import { instructionsOn } from "../../../db/queries/person.server";
import { overridesOf, type PlanRow } from "../../../db/queries/plans.server";
import { newestProfiles } from "../../../db/queries/profiles.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { readMaxes } from "../athletes/resolve-maxes.server";

export function sessionPlan(row: PlanRow): SessionPlan {
  return {
    id: row.plan.id,
    name: row.plan.name,
    squadName: row.squadName,
    version: row.plan.version,
    recipe: row.plan.recipe,
    variant: row.variant,
    metric: row.plan.metric,
    rounding: row.plan.rounding,
  };
}

/** Years of barbell training, to a tenth. */
export function trainingYears(since: string | null, today: string): number | undefined {
  return since ? Math.floor((10 * daysBetween(since, today)) / 365.25) / 10 : undefined;
}

/** The athletes of a plan with everything that they bring to it. */
export async function planAthletes(
  tx: TeamTransaction,
  row: PlanRow,
  today: string,
): Promise<SessionAthlete[]> {
  const { squadId, variantId } = row.plan;
  const people = await listAthletes(tx, squadId);
  const maxes = await readMaxes(tx, () => today);
  const instructions = await instructionsOn(tx, today);
  const profiles = await newestProfiles(tx, { variantId });
  return people.map((person) => {
    const found = maxes(person.id).of(variantId);
    return {
      id: person.id,
      name: person.name,
      unit: person.unit ?? undefined,
      instructions: instructions.get(person.id) ?? [],
      trainingYears: trainingYears(person.trainingSince, today),
      workingMax: "max" in found ? found.max : undefined,
      profile: profiles.find((one) => one.athleteId === person.id),
    };
  });
}

export async function planOverrides(tx: TeamTransaction, planId: string): Promise<Overrides> {
  const rows = await overridesOf(tx, planId);
  return new Map(rows.map((row) => [`${row.athleteId}/${row.setKey}`, row.loadKg]));
}

export interface WeekNumbers {
  week: WaveWeek;
  /** One list of sets for each athlete, in the athletes' order. */
  byAthlete: SetPrescription[][];
}

export function prescribePlan(input: {
  plan: SessionPlan;
  athletes: readonly SessionAthlete[];
  gear: LoadingGear;
  overrides: Overrides;
}): WeekNumbers[] {
  return expandRecipe(input.plan.recipe).map((week) => ({
    week,
    byAthlete: input.athletes.map((athlete) => prescribeWeek({ ...input, week, athlete })),
  }));
}
