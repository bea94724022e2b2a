import { type Sizes, sizesFor } from "../../../core/racks/lift-problem";
import { Field } from "../../ui/field";
import type { LiftToGroup } from "../../workflows/floor/propose-groups.server";

/** What is tried before the day begins; nothing of it is kept. */
export interface DayWhatIf {
  /** Racks that are left out, by id. */
  racksOut: readonly string[];
  /** From one lifter to the next where nothing is changed, s. */
  turnS: number;
  /** By lift: how many racks are used; as is best where left out. */
  sizeOf: Readonly<Record<string, number | undefined>>;
  /** By lift: another wanted rest. */
  restOf: Readonly<Record<string, { leastS: number; mostS: number } | undefined>>;
}

/** Sizes that a lift's groups may have under what is tried, with so many racks. */
export function sizesUnder(lift: LiftToGroup, racks: number, whatIf: DayWhatIf): Sizes[] {
  const lifters = lift.problem.lifters.length;
  const use = whatIf.sizeOf[lift.slotId];
  if (use !== undefined && use <= racks)
    return [{ use, least: Math.floor(lifters / use), most: Math.ceil(lifters / use) }];
  return sizesFor({
    lifters,
    racks,
    rest: whatIf.restOf[lift.slotId] ?? lift.rest,
    turn: { setS: Math.max(0, ...lift.setS), changeS: whatIf.turnS },
  });
}

/** One rack fewer, a slower change: what of the day is tried. */
export function WhatIfDay({
  lifts,
  whatIf,
  change,
}: {
  lifts: readonly LiftToGroup[];
  whatIf: DayWhatIf;
  change: (next: DayWhatIf) => void;
}) {
  const racks = [
    ...new Map(lifts.flatMap((lift) => lift.problem.racks).map((rack) => [rack.id, rack])).values(),
  ];
  const out = new Set(whatIf.racksOut);
  if (racks.length === 0) return null;
  return (
    <details className="mt-2">
      <summary className="inline-flex min-h-11 cursor-pointer items-center underline">
        What if: a rack fewer, slower changes
      </summary>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2 border-l-[3px] border-rule pl-3">
        <fieldset className="flex flex-wrap gap-x-4">
          <legend className="text-sm text-muted">Racks that are used</legend>
          {racks.map((rack) => (
            <label key={rack.id} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm border-control"
                checked={!out.has(rack.id)}
                disabled={!out.has(rack.id) && out.size === racks.length - 1}
                onChange={() =>
                  change({
                    ...whatIf,
                    racksOut: out.has(rack.id)
                      ? whatIf.racksOut.filter((id) => id !== rack.id)
                      : [...whatIf.racksOut, rack.id],
                  })
                }
              />
              {rack.name}
            </label>
          ))}
        </fieldset>
        <Field
          label="To the next lifter, s"
          type="number"
          min={0}
          max={120}
          className="w-28"
          value={whatIf.turnS}
          onChange={(event) => {
            const turnS = event.target.valueAsNumber;
            if (turnS >= 0 && turnS <= 120) change({ ...whatIf, turnS });
          }}
        />
      </div>
    </details>
  );
}
