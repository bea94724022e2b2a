import { useEffect, useMemo, useState } from "react";
import { loadBar } from "../../../../core/barload/load";
import type { LoadingGear } from "../../../../core/barload/loading-gear";
import { movesWorking, type SequencePlan, warmUpRamp } from "../../../../core/barload/sequence";
import { formatKg, formatMass, massKg, readMass } from "../../../../core/units/mass";
import { Field } from "../../../ui/field";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { sequenceInWorker } from "../../../workers/plan-sequence";
import { NoRack, RackChoice, rackOf, ToolField, useAnswer } from "./fields";
import { type ToolProps, valueAt } from "./tool";

/** Loads one after the other on one bar, stacked so that the fewest plates are moved. */
export function Sequence({ address, bench, unit }: ToolProps) {
  const rack = rackOf(address, bench);
  const text = address.get("loads") || "60 80 100 80 60";
  const asked = text
    .split(/[\s;]+/)
    .filter((part) => part !== "")
    .map((part) => ({ part, reading: readMass(part, "kg") }));
  const wrong = asked.filter((one) => !one.reading.ok);
  const rounds = valueAt(address, "rounds", 1);
  const times = rounds !== undefined && Number.isInteger(rounds) && rounds >= 1 ? rounds : 1;
  const loadings = asked.flatMap(({ part, reading }) =>
    reading.ok && rack ? [{ part, loading: loadBar(rack.gear, massKg(reading.mass)) }] : [],
  );
  const refused = loadings.filter((one) => !one.loading.ok);
  const once = loadings.flatMap(({ loading }) => (loading.ok ? [loading.totalKg] : []));
  const totals = Array.from({ length: times }, () => once)
    .flat()
    .slice(0, MOST_LOADS);
  const plan = useSequence(rack?.gear, totals);
  const ramp = rack && once[0] !== undefined ? warmUpRamp(rack.gear, Math.max(...once)) : [];
  useAnswer(plan?.ok ? `${plan.steps.length} loads, ${plan.moves} plate moves` : undefined);
  if (!rack) return <NoRack />;
  return (
    <>
      <form
        className="grid max-w-4xl gap-3 sm:grid-cols-[2fr_0.6fr_1.4fr]"
        onSubmit={(event) => event.preventDefault()}
      >
        <Field
          label="Loads in order, blanks between"
          defaultValue={text}
          onChange={(event) => address.set("loads", event.target.value)}
          problem={wrong[0] ? `"${wrong[0].part}" is not a load.` : undefined}
          hint="A rotation of lifters is their loads in turn."
        />
        <ToolField
          address={address}
          unit={unit}
          label="Rounds"
          name="rounds"
          start={1}
          problem={rounds === times ? undefined : "A whole number from 1."}
        />
        <RackChoice address={address} bench={bench} />
      </form>
      {refused.map(({ part }) => (
        <Notice
          key={part}
          kind="warning"
          title={`${part} cannot be built on this bar: left out.`}
        />
      ))}
      {plan?.ok ? (
        <Figures label="Answers" className="mt-4 overflow-x-auto">
          <p className="text-3xl font-bold">
            <Figure id="lab/moves" working={movesWorking(plan)}>
              {plan.moves} moves
            </Figure>{" "}
            <span className="text-base font-normal text-muted">
              {plan.movesOnePlan - plan.moves} fewer than load by load;{" "}
              {plan.proven
                ? "there is no way with fewer"
                : `no way has fewer than ${plan.leastMoves}`}
            </span>
          </p>
          <table className="ledger mt-2 max-w-3xl">
            <thead>
              <tr>
                <th scope="col" className="!text-right">
                  Load
                </th>
                <th scope="col">Take off each side</th>
                <th scope="col">Put on each side</th>
                <th scope="col">Then, inside out</th>
                <th scope="col" className="!text-right">
                  Moves
                </th>
              </tr>
            </thead>
            <tbody>
              {plan.steps.map((step, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: the place is the identity
                <tr key={i}>
                  <th scope="row" className="!text-right !text-base-content">
                    {formatKg(step.totalKg, unit)}
                  </th>
                  <td>{step.off.map(formatMass).join(", ")}</td>
                  <td>{step.on.map(formatMass).join(", ")}</td>
                  <td className="text-muted">
                    {step.side.map((mass) => mass.amount).join(" · ") || "empty bar"}
                  </td>
                  <td className="text-right">{step.moves}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {ramp.length > 0 ? (
            <p className="mt-3">
              <span className="text-muted">Warm-up to {formatKg(Math.max(...totals), unit)}: </span>
              {ramp.map((kg) => formatKg(kg, unit)).join(" · ")}
            </p>
          ) : null}
        </Figures>
      ) : null}
    </>
  );
}

/** Longest sequence that is drawn: twelve sets of forty athletes. */
const MOST_LOADS = 480;

/** The plan of the newest loads; while one is worked out, the one before stays. */
function useSequence(gear: LoadingGear | undefined, totals: number[]): SequencePlan | undefined {
  const [plan, setPlan] = useState<SequencePlan>();
  const key = totals.join(" ");
  const list = useMemo(() => (key === "" ? [] : key.split(" ").map(Number)), [key]);
  useEffect(() => {
    let stale = false;
    if (!gear || list.length === 0) setPlan(undefined);
    else {
      void sequenceInWorker(gear, list).then((found) => {
        if (!stale) setPlan(found);
      });
    }
    return () => {
      stale = true;
    };
  }, [gear, list]);
  return plan;
}
