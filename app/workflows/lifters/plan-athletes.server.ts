import type { LoadingGear } from "../../../core/barload/loading-gear";
import {
  type Overrides,
  prescribeWeek,
  type SessionAthlete,
  type SessionPlan,
} from "../../../core/floor/freeze";
import { type Block, isIn, type Slot, slotWeek } from "../../../core/plan/block";
import type { SetPrescription } from "../../../core/prescribe/prescribe";
import type { RecipeSettings, WaveWeek } from "../../../core/recipe/recipe";
import { daysBetween, type LocalDate } from "../../../core/units/time";
import { instructionsOn } from "../../../db/queries/person.server";
import type { PlanRow } from "../../../db/queries/plans.server";
import { newestProfiles } from "../../../db/queries/profiles.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { readMaxes } from "./resolve-maxes.server";

/** A slot of a plan as the numbers need it; undefined where it is no lift of the team. */
export function sessionPlan(
  row: PlanRow,
  slotId: string,
  block: Block = row.plan.block,
  publishedVersion = 0,
): SessionPlan | undefined {
  const slot = block.slots[slotId];
  const work = slot?.work;
  const variant = row.variants.find((one) => work?.kind === "lift" && one.id === work.variantId);
  if (!slot || !variant) return undefined;
  return {
    id: row.plan.id,
    slotId,
    name: block.name,
    squadName: row.squadName,
    weeks: block.weeks,
    version: publishedVersion,
    recipe: slot.recipe,
    variant,
    ...(slot.box ? { box: slot.box } : {}),
    metric: row.plan.metric,
    rounding: row.plan.rounding,
  };
}

/** Years of barbell training, to a tenth. */
export function trainingYears(since: string | null, today: string): number | undefined {
  return since ? Math.floor((10 * daysBetween(since, today)) / 365.25) / 10 : undefined;
}

/** The athletes of a squad with everything that they bring to one lift. */
export async function planAthletes(
  tx: TeamTransaction,
  input: { squadId: string; variantId: string; today: string; block?: Block; date?: LocalDate },
): Promise<SessionAthlete[]> {
  const { squadId, variantId, today, block, date } = input;
  const people = (await listAthletes(tx, squadId)).filter(
    (person) => !block || isIn(block, person.id, date ?? today),
  );
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

/** A slot's overrides by "athlete id/set key". */
export function slotOverrides(block: Block, slotId: string): Overrides {
  return new Map(
    Object.entries(block.overrides).flatMap(([key, { loadKg }]) => {
      const [athleteId, slot, ...set] = key.split("/");
      return slot === slotId ? [[`${athleteId}/${set.join("/")}`, loadKg] as const] : [];
    }),
  );
}

/** One athlete's sets of one week of a slot, with their workings. */
export function prescribeSlot(input: {
  plan: SessionPlan;
  block: Block;
  slot: Slot;
  week: number;
  settings: RecipeSettings;
  athlete: SessionAthlete;
  gear: LoadingGear;
}): { week: WaveWeek; sets: SetPrescription[] } | undefined {
  const week = slotWeek(input.block, input.slot, input.week, input.settings);
  if (!week) return undefined;
  const overrides = slotOverrides(input.block, input.plan.slotId);
  return { week, sets: prescribeWeek({ ...input, week, overrides }) };
}
