import { type Sizes, sizesFor } from "../../../core/racks/lift-problem";
import { Field, Select } from "../../ui/field";
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
    <section aria-labelledby="what-if">
      <h2 id="what-if">What if</h2>
      <div className="grid gap-2">
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
          value={whatIf.turnS}
          onChange={(event) => {
            const turnS = event.target.valueAsNumber;
            if (turnS >= 0 && turnS <= 120) change({ ...whatIf, turnS });
          }}
        />
        {lifts.map((lift) => (
          <Tried
            key={lift.slotId}
            lift={lift}
            racks={racks.length - out.size}
            whatIf={whatIf}
            change={change}
          />
        ))}
      </div>
    </section>
  );
}

/** Another number of racks for one lift, and another wanted rest. */
function Tried({
  lift,
  racks,
  whatIf,
  change,
}: {
  lift: LiftToGroup;
  racks: number;
  whatIf: DayWhatIf;
  change: (next: DayWhatIf) => void;
}) {
  const { slotId } = lift;
  const rest = whatIf.restOf[slotId] ?? lift.rest;
  const lifters = lift.problem.lifters.length;
  const setRest = (end: "leastS" | "mostS", value: number) => {
    const next = { ...rest, [end]: value };
    if (value >= 0 && value <= 900 && next.leastS <= next.mostS)
      change({ ...whatIf, restOf: { ...whatIf.restOf, [slotId]: next } });
  };
  return (
    <fieldset className="border-t border-rule pt-2">
      <legend className="font-bold">{lift.name}</legend>
      <Select
        label="Racks"
        value={whatIf.sizeOf[slotId] ?? ""}
        onChange={(event) =>
          change({
            ...whatIf,
            sizeOf: { ...whatIf.sizeOf, [slotId]: Number(event.target.value) || undefined },
          })
        }
      >
        <option value="">as the rest asks</option>
        {Array.from({ length: Math.min(racks, lifters) }, (_, i) => i + 1).map((use) => (
          <option key={use} value={use}>
            {use}, groups of {Math.floor(lifters / use)}
            {lifters % use === 0 ? "" : ` to ${Math.ceil(lifters / use)}`}
          </option>
        ))}
      </Select>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <Field
          label="Rest from, s"
          type="number"
          min={0}
          max={900}
          defaultValue={rest.leastS}
          onBlur={(event) => setRest("leastS", event.target.valueAsNumber)}
        />
        <Field
          label="to, s"
          type="number"
          min={0}
          max={900}
          defaultValue={rest.mostS}
          onBlur={(event) => setRest("mostS", event.target.valueAsNumber)}
        />
      </div>
    </fieldset>
  );
}
