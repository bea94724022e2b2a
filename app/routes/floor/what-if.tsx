import { useState } from "react";
import { type Sizes, sizesFor } from "../../../core/racks/lift-problem";
import type { OpenProblem } from "../../../core/racks/problem";
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
  /** Who is to be together or apart, by ids, over every lift of the day. */
  pairs: ReadonlyArray<{ a: string; b: string; apart: boolean }>;
  /** Who lifts only with somebody beside. */
  needSpotter: readonly string[];
  /** By lift: another wanted rest. */
  restOf: Readonly<Record<string, { leastS: number; mostS: number } | undefined>>;
}

/** Sizes that a lift's groups may have under what is tried, with so many racks. */
export function sizesUnder(
  lift: LiftToGroup,
  racks: number,
  whatIf: Pick<DayWhatIf, "sizeOf" | "restOf" | "turnS">,
): Sizes[] {
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

/** A lift's problem with the racks that are left, and who is together, apart or spotted. */
export function problemUnder(
  lift: LiftToGroup,
  whatIf: Pick<DayWhatIf, "racksOut" | "pairs" | "needSpotter">,
): OpenProblem {
  return {
    ...lift.problem,
    racks: lift.problem.racks.filter((rack) => !whatIf.racksOut.includes(rack.id)),
    lifters: lift.problem.lifters.map((one) =>
      whatIf.needSpotter.includes(one.id) ? { ...one, needsSpotter: true } : one,
    ),
    together: whatIf.pairs.flatMap((pair) => (pair.apart ? [] : [[pair.a, pair.b]])),
    apart: whatIf.pairs.flatMap((pair) => (pair.apart ? [[pair.a, pair.b] as const] : [])),
  };
}

/** Partners, and who lifts only with somebody beside: what the groups keep. */
export function Partners({
  people,
  whatIf,
  change,
}: {
  people: ReadonlyArray<{ id: string; name: string }>;
  whatIf: DayWhatIf;
  change: (next: DayWhatIf) => void;
}) {
  const [a, setA] = useState("");
  const [b, setB] = useState("");
  const nameOf = (id: string) => people.find((one) => one.id === id)?.name ?? "Somebody";
  const add = (apart: boolean) => {
    if (a === "" || b === "" || a === b) return;
    const others = whatIf.pairs.filter(
      (pair) => !([pair.a, pair.b].includes(a) && [pair.a, pair.b].includes(b)),
    );
    change({ ...whatIf, pairs: [...others, { a, b, apart }] });
    setA("");
    setB("");
  };
  const options = (
    <>
      <option value="">choose</option>
      {people.map((one) => (
        <option key={one.id} value={one.id}>
          {one.name}
        </option>
      ))}
    </>
  );
  return (
    <section aria-labelledby="partners" className="mt-4">
      <h2 id="partners">Partners and spotters</h2>
      <div className="grid gap-2">
        <Select label="Lifter" value={a} onChange={(event) => setA(event.target.value)}>
          {options}
        </Select>
        <Select label="and" value={b} onChange={(event) => setB(event.target.value)}>
          {options}
        </Select>
        <div className="flex flex-wrap gap-2">
          <button type="button" className="btn" onClick={() => add(false)}>
            Together
          </button>
          <button type="button" className="btn" onClick={() => add(true)}>
            Apart
          </button>
          <button
            type="button"
            className="btn"
            onClick={() => {
              if (a === "") return;
              const needSpotter = [...new Set([...whatIf.needSpotter, a])];
              change({ ...whatIf, needSpotter });
              setA("");
            }}
          >
            Needs a spotter
          </button>
        </div>
      </div>
      <ul className="mt-1">
        {whatIf.pairs.map((pair) => (
          <Kept
            key={`${pair.a} ${pair.b}`}
            words={`${nameOf(pair.a)} and ${nameOf(pair.b)} ${pair.apart ? "apart" : "together"}`}
            remove={() => change({ ...whatIf, pairs: whatIf.pairs.filter((one) => one !== pair) })}
          />
        ))}
        {whatIf.needSpotter.map((id) => (
          <Kept
            key={id}
            words={`${nameOf(id)} with a spotter`}
            remove={() =>
              change({
                ...whatIf,
                needSpotter: whatIf.needSpotter.filter((one) => one !== id),
              })
            }
          />
        ))}
      </ul>
    </section>
  );
}

function Kept({ words, remove }: { words: string; remove: () => void }) {
  return (
    <li className="flex items-center justify-between gap-2 border-b border-faint">
      {words}
      <button
        type="button"
        className="min-h-11 underline"
        aria-label={`No more: ${words}`}
        onClick={remove}
      >
        no more
      </button>
    </li>
  );
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
