import type { LoadingGear } from "../../../core/barload/loading-gear";
import { type Overrides, prescribeWeek, type SessionPlan } from "../../../core/floor/freeze";
import { type Block, ownInSlot, type Slot } from "../../../core/plan/block";
import { variantIn } from "../../../core/plan/block-loads";
import type { Lifter } from "../../../core/prescribe/lifter";
import type { WaveWeek } from "../../../core/recipe/recipe";
import type { HangStock } from "../../../core/resistance/rig";
import type { LocalDate } from "../../../core/units/time";
import type { VariantRow } from "../../../db/queries/maxes.server";
import type { PlanRow } from "../../../db/queries/plans.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { type AthleteRow, readLifters } from "./read-lifters.server";

/** The lifts that a slot is done in, the methods of its rotation included. */
const liftsOf = (slot: Slot): string[] => [
  ...(slot.work.kind === "lift" ? [slot.work.variantId] : []),
  ...[...slot.recipe.weeks, ...(slot.recipe.tail ?? [])].flatMap(
    (week) => week.method?.variantId ?? [],
  ),
];

const asksForPeaks = (slot: Slot) =>
  slot.recipe.basis === "peak-force" || slot.recipe.basis === "peak-power";

/** The variant that stands for a lift: one with a max of its own, the plain bar first. */
export function mainVariant(
  variants: readonly VariantRow[],
  lift: string | undefined,
): VariantRow | undefined {
  const ofLift = variants.filter((one) => one.lift === lift);
  return ofLift.find((one) => one.baseKind === "own") ?? ofLift[0];
}

/**
 * Everybody of a plan's squad who is in a block, with what they bring to its lifts; to the squat
 * too where the block has pairings, which ask for it whether the block trains it or not.
 * @param people who is asked about, where it is not the whole squad or was read already
 * @param forToday whether what was decided on today's form counts
 * @param slots the slots asked about, where it is not the whole block
 */
export async function planLifters(
  tx: TeamTransaction,
  row: PlanRow,
  block: Block,
  today: LocalDate,
  people?: readonly AthleteRow[],
  slots: readonly Slot[] = Object.values(block.slots),
  forToday = false,
): Promise<Lifter[]> {
  const squad = people ?? (await listAthletes(tx, row.plan));
  const paired = Object.keys(block.pairings ?? {}).length > 0;
  const squat = paired ? mainVariant(row.variants, "squat") : undefined;
  return readLifters(tx, {
    people: squad.filter((one) => !block.apart[one.id]),
    todayOf: () => today,
    variants: row.variants,
    forToday,
    variantIds: [...new Set([...slots.flatMap(liftsOf), ...(squat ? [squat.id] : [])])],
    peaksOf: [...new Set(slots.filter(asksForPeaks).flatMap(liftsOf))],
  });
}

/**
 * A slot of a plan in one week as the numbers need it; undefined where it is no lift of the team.
 * @param publishedVersion number of the version that is lifted; 0 for a draft
 */
export function sessionPlan(
  row: PlanRow,
  slotId: string,
  block: Block,
  week: WaveWeek,
  publishedVersion: number,
): SessionPlan | undefined {
  const slot = block.slots[slotId];
  const variantId = slot && variantIn(slot, week);
  const variant = row.variants.find((one) => one.id === variantId);
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
  week: WaveWeek;
  athlete: Lifter;
  gear: LoadingGear;
  hang: HangStock;
}): ReturnType<typeof prescribeWeek> {
  const overrides = slotOverrides(input.block, input.plan.slotId);
  const own = ownInSlot(input.block, input.plan.slotId);
  return prescribeWeek({ ...input, overrides, own });
}
