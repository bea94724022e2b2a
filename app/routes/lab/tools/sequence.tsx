import { loadBar } from "../../../../core/barload/load";
import { planSequence, warmUpRamp } from "../../../../core/barload/sequence";
import { formatKg, formatMass, massKg, readMass } from "../../../../core/units/mass";
import { Field, Select } from "../../../ui/field";
import { Empty, Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import type { ToolProps } from "./tool";

/** Loads one after the other on one bar, stacked so that the fewest plates are moved. */
export function Sequence({ address: { get, set }, racks }: ToolProps) {
  const rack = racks.find((one) => one.id === get("rack")) ?? racks[0];
  const text = get("loads") || "60 80 100 80 60";
  const asked = text
    .split(/[\s;]+/)
    .filter((part) => part !== "")
    .map((part) => ({ part, reading: readMass(part, "kg") }));
  const wrong = asked.filter((one) => !one.reading.ok);
  if (!rack) return <Empty>No rack with a bar yet.</Empty>;
  const loadings = asked.flatMap(({ part, reading }) =>
    reading.ok ? [{ part, loading: loadBar(rack.gear, massKg(reading.mass)) }] : [],
  );
  const refused = loadings.filter((one) => !one.loading.ok);
  const totals = loadings.flatMap(({ loading }) => (loading.ok ? [loading.totalKg] : []));
  const plan = totals.length > 0 ? planSequence(rack.gear, totals) : undefined;
  const ramp = totals[0] === undefined ? [] : warmUpRamp(rack.gear, Math.max(...totals));
  return (
    <>
      <form
        className="grid max-w-4xl gap-3 sm:grid-cols-[2fr_1.4fr]"
        onSubmit={(event) => event.preventDefault()}
      >
        <Field
          label="Loads in order, blanks between"
          defaultValue={text}
          onChange={(event) => set("loads", event.target.value)}
          problem={wrong[0] ? `"${wrong[0].part}" is not a load.` : undefined}
          hint="A rotation of lifters is their loads in turn."
        />
        <Select
          label="Rack and bar"
          value={rack.id}
          onChange={(event) => set("rack", event.target.value)}
        >
          {racks.map((one) => (
            <option key={one.id} value={one.id}>
              {one.label}
            </option>
          ))}
        </Select>
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
            <Figure
              id="lab/moves"
              working={{
                title: "Plate moves",
                lines: [
                  { label: "Loads", value: String(plan.steps.length) },
                  { label: "Fewest plates each time", value: `${plan.movesOnePlan} moves` },
                  { label: "Planned together", value: `${plan.moves} moves`, emphasis: "answer" },
                ],
                sources: [
                  "A move is one plate put on or off on one side; the first loading counts, the last stripping does not. Plates come off outermost first.",
                ],
                changes: ["Another order of the loads, other plates."],
              }}
            >
              {plan.moves} moves
            </Figure>{" "}
            <span className="text-base font-normal text-muted">
              {plan.movesOnePlan - plan.moves} fewer than load by load
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
                    {formatKg(step.totalKg)}
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
              <span className="text-muted">Warm-up to {formatKg(Math.max(...totals))}: </span>
              {ramp.map((kg) => formatKg(kg)).join(" · ")}
            </p>
          ) : null}
        </Figures>
      ) : null}
    </>
  );
}
