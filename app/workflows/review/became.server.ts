import { type Outcome as Became, whatBecame } from "../../../core/review/outcome";
import type { WaveRow } from "../../../core/review/squad-wave";
import type { LocalDate } from "../../../core/units/time";
import type { StoredCall } from "../../../db/queries/reviews.server";
import type { decidedOf } from "../lifters/shown-call.server";

/** A kept decision with what became of it. */
export interface BecameRow {
  call: ReturnType<typeof decidedOf>;
  name: string;
  became: Became | { known: true; fadeBefore: number; fadeNow: number };
}

/** What became of a decision, by the days of the lift since. */
export function becameFor(call: StoredCall, row: WaveRow): BecameRow["became"] {
  const { level } = call.evidence;
  const newest = row.weeks.findLast((week) => week.present)?.date;
  if (
    call.kind === "rest" &&
    level?.fadePercent !== undefined &&
    row.fade.ok &&
    newest &&
    newest > call.date
  )
    return { known: true, fadeBefore: level.fadePercent, fadeNow: row.fade.percent };
  return whatBecame(level, call.date as LocalDate, row.speed);
}
