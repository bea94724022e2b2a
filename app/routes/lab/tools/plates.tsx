import {
  describeRefusal,
  describeSide,
  loadBar,
  loadingWorking,
} from "../../../../core/barload/load";
import { formatKg, massKg, plainNumber, readMass } from "../../../../core/units/mass";
import { formatPercent } from "../../../../core/units/percent";
import { Field, Select } from "../../../ui/field";
import { LoadedBar } from "../../../ui/loaded-bar";
import { Empty, Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import type { ToolProps } from "./tool";

const PERCENTS = [30, 35, 40, 45, 50, 55, 60, 65, 70, 75, 80, 85, 90, 95, 100];

/** Percentages of a max as loads that a rack can build, and one load as plates. */
export function Plates({ address: { params, set }, racks }: ToolProps) {
  const rack = racks.find((one) => one.id === params.get("rack")) ?? racks[0];
  const maxText = params.get("max") ?? "100";
  const loadText = params.get("load") ?? "";
  const mode = params.get("round") === "down" ? "down" : "nearest";
  const max = readMass(maxText, "kg");
  const load = readMass(loadText, "kg");
  if (!rack) {
    return <Empty>No rack with a bar yet. The bench needs one to say what can be built.</Empty>;
  }
  const maxKg = max.ok && max.mass.amount > 0 ? massKg(max.mass) : undefined;
  const askedKg = load.ok && load.mass.amount > 0 ? massKg(load.mass) : undefined;
  const loading = askedKg === undefined ? undefined : loadBar(rack.gear, askedKg, mode);

  return (
    <>
      <form
        className="grid max-w-4xl gap-3 sm:grid-cols-[1fr_1fr_2.2fr_1.6fr]"
        onSubmit={(event) => event.preventDefault()}
      >
        <Field
          label="Max"
          name="max"
          defaultValue={maxText}
          onChange={(event) => set("max", event.target.value)}
          problem={max.ok ? undefined : "A load, for example 120 or 265 lb."}
        />
        <Field
          label="One load"
          name="load"
          defaultValue={loadText}
          placeholder="72.5 or 225 lb"
          onChange={(event) => set("load", event.target.value)}
          problem={load.ok || loadText === "" ? undefined : "A load, for example 72.5."}
        />
        <Select
          label="Rack and bar"
          name="rack"
          value={rack.id}
          onChange={(event) => set("rack", event.target.value)}
        >
          {racks.map((one) => (
            <option key={one.id} value={one.id}>
              {one.label}
            </option>
          ))}
        </Select>
        <Select
          label="Rounding"
          name="round"
          value={mode}
          onChange={(event) => set("round", event.target.value)}
        >
          <option value="nearest">nearest, a tie goes down</option>
          <option value="down">always down</option>
        </Select>
      </form>
      <Figures label="Answers" className="mt-4">
        {loading ? (
          <section aria-labelledby="one-load" className="mb-5">
            <h2 id="one-load">On the bar</h2>
            {loading.ok ? (
              <>
                <p className="text-3xl font-bold">
                  <Figure
                    id="lab/load"
                    working={{
                      title: formatKg(loading.totalKg),
                      lines: loadingWorking(loading, maxKg),
                      sources: ["This rack's bar, collars and plates, counted in whole grains"],
                    }}
                  >
                    {formatKg(loading.totalKg)}
                  </Figure>
                </p>
                <p className="text-muted">
                  each side {describeSide(loading.side.plates)}
                  {maxKg === undefined
                    ? ""
                    : ` · ${formatPercent((100 * loading.totalKg) / maxKg)} of ${maxText}`}
                </p>
                <div className="max-w-2xl">
                  <LoadedBar side={loading.side.plates} added={0} />
                </div>
              </>
            ) : (
              <Notice kind="problem" title={describeRefusal(loading)} />
            )}
          </section>
        ) : null}
        {maxKg === undefined ? (
          <Empty>Write a max to see its percentages.</Empty>
        ) : (
          <table className="ledger max-w-3xl">
            <caption className="pb-1 text-left font-bold">Percentages of {maxText}</caption>
            <thead>
              <tr>
                <th scope="col" className="!text-right">
                  Asked
                </th>
                <th scope="col" className="!text-right">
                  Exactly
                </th>
                <th scope="col" className="!text-right">
                  On this bar
                </th>
                <th scope="col" className="!text-right">
                  True
                </th>
                <th scope="col">Each side</th>
              </tr>
            </thead>
            <tbody>
              {PERCENTS.map((percent) => {
                const row = loadBar(rack.gear, (maxKg * percent) / 100, mode);
                return (
                  <tr key={percent}>
                    <th scope="row" className="!text-right !text-base-content">
                      {percent} %
                    </th>
                    <td className="text-right text-muted">
                      {plainNumber((maxKg * percent) / 100, 2)}
                    </td>
                    {row.ok ? (
                      <>
                        <td className="text-right font-bold">
                          <Figure
                            id={`lab/${percent}`}
                            working={{
                              title: `${percent} % of ${maxText}`,
                              lines: loadingWorking(row, maxKg),
                            }}
                          >
                            {formatKg(row.totalKg)}
                          </Figure>
                        </td>
                        <td className="text-right">{formatPercent((100 * row.totalKg) / maxKg)}</td>
                        <td>{describeSide(row.side.plates)}</td>
                      </>
                    ) : (
                      <td colSpan={3} className="text-accent">
                        {describeRefusal(row)}
                      </td>
                    )}
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
      </Figures>
    </>
  );
}
