import type { Slot } from "../../../core/plan/block";
import { type Run, runsOf } from "../../../core/plan/runs";
import type { LocalDate } from "../../../core/units/time";
import type { VariantRow } from "../../../db/queries/maxes.server";
import type { PlanRow } from "../../../db/queries/plans.server";
import { localDate } from "../../platform/clock.server";

/** A wave: one time through the recipe of a lift's slot. */
export interface Wave {
  row: PlanRow;
  slotId: string;
  slot: Slot;
  variant: VariantRow;
  run: Run;
  today: LocalDate;
}

/** Every wave of the plans that has begun, the newest first. */
export function wavesOf(rows: readonly PlanRow[]): Wave[] {
  return rows
    .flatMap((row): Wave[] => {
      const { block } = row.plan;
      const today = localDate(row.zone);
      return Object.entries(block.slots).flatMap(([slotId, slot]): Wave[] => {
        const { work } = slot;
        const variant =
          work.kind === "lift" ? row.variants.find((one) => one.id === work.variantId) : undefined;
        if (!variant) return [];
        return runsOf(block, slot)
          .filter((run) => run.from <= today)
          .map((run) => ({ row, slotId, slot, variant, run, today }));
      });
    })
    .sort((a, b) => b.run.to.localeCompare(a.run.to) || a.slotId.localeCompare(b.slotId));
}

/** How a list names a wave. */
export const waveName = ({ row, slot, run }: Wave): string =>
  `${slot.recipe.name}${run.run > 1 ? `, ${run.run}` : ""} · ${row.squadName}`;
