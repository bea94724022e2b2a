import { type Block, daysOf, type SectionKind } from "../../../../core/plan/block";

/** What the coach has in hand on the board; the margin speaks of it. */
export type Picked =
  | { kind: "cell"; slotId: string; week: number }
  | { kind: "day"; dayId: string }
  | { kind: "week"; week: number }
  | { kind: "new"; dayId: string; section: SectionKind }
  | { kind: "block" };

export const cellId = (slotId: string, week: number) => `cell-${slotId}-${week}`;

/** A phone holds one week beside the names; the others are picked above it. */
export const onPhone = (week: number, phoneWeek: number) =>
  week === phoneWeek ? "" : "max-sm:hidden";

/** What is in hand as the block stands now: what is gone meanwhile is held no more. */
export function pickedIn(
  block: Block,
  inHand: Picked | undefined,
  slotId: string | undefined,
): Picked {
  const first = daysOf(block)[0];
  const instead: Picked =
    slotId !== undefined
      ? { kind: "cell", slotId, week: block.slots[slotId]?.fromWeek ?? 1 }
      : first
        ? { kind: "new", dayId: first.id, section: "main" }
        : { kind: "block" };
  if (!inHand) return instead;
  switch (inHand.kind) {
    case "cell":
      return block.slots[inHand.slotId] && inHand.week <= block.weeks ? inHand : instead;
    case "day":
    case "new":
      return block.days[inHand.dayId] ? inHand : instead;
    case "week":
      return inHand.week <= block.weeks ? inHand : instead;
    case "block":
      return inHand;
  }
}
