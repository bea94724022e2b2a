import { useMemo } from "react";
import { LIFT_WORK } from "../../../../core/exercise/lift-work";
import { liftSpeedClass } from "../../../../core/liverules/speed-class";
import { type Block, daysOf, pairingsOf, type Slot, slotsOf } from "../../../../core/plan/block";
import { slotCells } from "../../../../core/plan/block-loads";
import { type BoardRow, boardRow } from "../../../../core/plan/board";
import { type WeekSum, type WorkFacts, weekSum } from "../../../../core/plan/week-sums";
import type { Lifter } from "../../../../core/prescribe/lifter";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";

/** A slot's row with the checks that speak of it. */
export interface SlotOnBoard {
  slot: Slot & { id: string };
  row: BoardRow;
  /** As it is kept, where another recipe is being tried. */
  kept: BoardRow | undefined;
  /** Open checks of the slot as a whole, and by week. */
  checks: PlanPage["checks"];
  byWeek: ReadonlyMap<number, PlanPage["checks"]>;
}

export interface DayOnBoard {
  id: string;
  name: string;
  offset: number;
  slots: SlotOnBoard[];
  pairings: ReturnType<typeof pairingsOf>;
}

/** Names, speed classes and muscles of what slots train, from the page's tables. */
export function workOfPage(data: PlanPage) {
  return (slot: Slot, exerciseId: string | undefined): WorkFacts | undefined => {
    const { work } = slot;
    if (work.kind === "lift") {
      const lift = data.lifts.find((one) => one.id === work.variantId);
      return (
        lift && {
          name: lift.name,
          speedClass: liftSpeedClass(slot.recipe.aim),
          muscles: LIFT_WORK[lift.lift]?.muscles ?? [],
        }
      );
    }
    const found = data.exercises.find((one) => one.id === exerciseId);
    return found && { name: found.name, speedClass: found.speedClass, muscles: found.muscles };
  };
}

const openOf = (data: PlanPage) => data.checks.filter((one) => one.answered === undefined);

/** Checks of the block that speak of a week and of no slot. */
export const weekChecks = (data: PlanPage, week: number) =>
  openOf(data).filter((one) => one.slotId === undefined && one.week === week);

/** The days of a block with everything that the board draws. */
export function useBoard(data: PlanPage, block: Block): DayOnBoard[] {
  const { settings } = data.room;
  const open = useMemo(() => openOf(data), [data]);
  return useMemo(
    () =>
      daysOf(block).map((day) => ({
        ...day,
        pairings: pairingsOf(block, day.id),
        slots: slotsOf(block, day.id).map((slot): SlotOnBoard => {
          const before = data.block.slots[slot.id];
          const own = open.filter((one) => one.slotId === slot.id);
          const byWeek = new Map<number, PlanPage["checks"]>();
          for (const check of own)
            if (check.week !== undefined)
              byWeek.set(check.week, [...(byWeek.get(check.week) ?? []), check]);
          return {
            slot,
            row: boardRow(block, slot, settings),
            kept:
              before && before.recipe !== slot.recipe
                ? boardRow(data.block, before, settings)
                : undefined,
            checks: own.filter((one) => one.week === undefined),
            byWeek,
          };
        }),
      })),
    [block, data.block, settings, open],
  );
}

/** The weeks' sums, with one athlete's tonnage. */
export function useWeekSums(data: PlanPage, block: Block, athlete: Lifter | undefined): WeekSum[] {
  const { room } = data;
  return useMemo(() => {
    const numbers = Array.from({ length: block.weeks }, (_, i) => i + 1);
    const loads = new Map<string, number>();
    for (const slotId of Object.keys(block.slots)) {
      if (!athlete) break;
      for (const { wave, byAthlete } of slotCells({
        block,
        slotId,
        weeks: numbers,
        athletes: [athlete],
        room,
        liftName: "",
      })) {
        let at = 0;
        for (const run of byAthlete[0] ?? [])
          for (let i = 0; i < run.count; i++) {
            const set = wave?.sets[at++];
            if (set && run.loadKg !== undefined) loads.set(`${slotId}/${set.key}`, run.loadKg);
          }
      }
    }
    return numbers.map((week) =>
      weekSum({
        block,
        week,
        settings: room.settings,
        workOf: workOfPage(data),
        loadKg: (slotId, set) => loads.get(`${slotId}/${set.key}`),
      }),
    );
  }, [data, block, room, athlete]);
}
