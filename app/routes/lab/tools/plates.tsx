import { describeSide, loadBar } from "../../../../core/barload/load";
import { loadableTable } from "../../../../core/barload/loadable";
import type { LoadingGear } from "../../../../core/barload/loading-gear";
import { barWorking, describeRefusal } from "../../../../core/barload/loading-words";
import { formatKg, formatMass, grainsToKg, readMass } from "../../../../core/units/mass";
import { formatPercent } from "../../../../core/units/percent";
import { LoadedBar } from "../../../ui/loaded-bar";
import { Empty, Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import {
  NoRack,
  RackChoice,
  RoundingChoice,
  rackOf,
  roundingOf,
  ToolField,
  useAnswer,
} from "./fields";
import { type ToolProps, valueAt } from "./tool";

const PERCENTS = [30, 35, 40, 45, 50, 55, 60, 65, 70, 75, 80, 85, 90, 95, 100];

/** Percentages of a max as loads that a rack can build, and one load as plates. */
export function Plates({ address, bench, unit }: ToolProps) {
  const rack = rackOf(address, bench);
  const mode = roundingOf(address);
  const maxKg = valueAt(address, "max", 100, "mass");
  const askedKg = valueAt(address, "load", undefined, "mass");
  const known = maxKg !== undefined && maxKg > 0;
  const loading = askedKg === undefined || !rack ? undefined : loadBar(rack.gear, askedKg, mode);
  const written = readMass(address.get("max"), "kg");
  const maxText = written.ok ? formatMass(written.mass) : formatKg(100, unit, 1);
  useAnswer(
    loading?.ok
      ? `${formatKg(loading.totalKg, unit)}, each side ${describeSide(loading.side.plates)}`
      : known
        ? `percentages of ${maxText}`
        : undefined,
  );
  if (!rack) {
    return <NoRack />;
  }
  const shared = { address, unit };
  return (
    <>
      <form
        className="grid max-w-4xl gap-3 sm:grid-cols-[1fr_1fr_2.2fr_1.6fr]"
        onSubmit={(event) => event.preventDefault()}
      >
        <ToolField {...shared} label="Max" name="max" kind="mass" start={100} />
        <ToolField
          {...shared}
          label="One load"
          name="load"
          kind="mass"
          start={undefined}
          optional
          hint="72.5 or 225 lb"
        />
        <RackChoice address={address} bench={bench} />
        <RoundingChoice address={address} />
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
                    working={barWorking(formatKg(loading.totalKg, unit), loading, maxKg)}
                  >
                    {formatKg(loading.totalKg, unit)}
                  </Figure>
                </p>
                <p className="text-muted">
                  each side {describeSide(loading.side.plates)}
                  {known
                    ? ` · ${formatPercent((100 * loading.totalKg) / maxKg)} of ${maxText}`
                    : ""}
                </p>
                <p className="text-muted">
                  Around it:{" "}
                  {around(rack.gear, loading.totalKg)
                    .map((kg) => formatKg(kg, unit))
                    .join(" · ")}
                </p>
                <div className="max-w-2xl">
                  <LoadedBar side={loading.side.plates} added={0} />
                </div>
              </>
            ) : (
              <Notice kind="problem" title={describeRefusal(loading, unit)} />
            )}
          </section>
        ) : null}
        {!known ? (
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
                      {formatKg((maxKg * percent) / 100, unit)}
                    </td>
                    {row.ok ? (
                      <>
                        <td className="text-right font-bold">
                          <Figure
                            id={`lab/${percent}`}
                            working={barWorking(`${percent} % of ${maxText}`, row, maxKg)}
                          >
                            {formatKg(row.totalKg, unit)}
                          </Figure>
                        </td>
                        <td className="text-right">{formatPercent((100 * row.totalKg) / maxKg)}</td>
                        <td>{describeSide(row.side.plates)}</td>
                      </>
                    ) : (
                      <td colSpan={3} className="text-accent">
                        {describeRefusal(row, unit)}
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

/** The two loadable totals on either side of one, and itself. */
function around(gear: LoadingGear, totalKg: number): number[] {
  const totals = loadableTable(gear).totals.map(grainsToKg);
  const at = totals.findIndex((one) => Math.abs(one - totalKg) < 1e-9);
  return totals.slice(Math.max(0, at - 2), at + 3);
}
