import { useMemo } from "react";
import { describeSide, loadBar } from "../../../../core/barload/load";
import { onBarWorking } from "../../../../core/barload/loading-words";
import { analyseProfile, REFUSAL_WORDS } from "../../../../core/profile/analysis";
import { velocityAt } from "../../../../core/profile/line";
import { forcePower } from "../../../../core/profile/power";
import {
  BASIS_ASSUMES,
  BASIS_NAMES,
  BASIS_REFUSALS,
  type BasisFacts,
  basisLoad,
  describeBasis,
  type LoadBasis,
} from "../../../../core/recipe/basis";
import { formatKg } from "../../../../core/units/mass";
import { formatPercent } from "../../../../core/units/percent";
import { formatVelocity } from "../../../../core/units/velocity";
import { Field } from "../../../ui/field";
import { Notice } from "../../../ui/page";
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
import { pointsOf, pointsProblem, type ToolProps, valueAt } from "./tool";

const POINTS = "40 1.21 60 0.99 80 0.78 100 0.55 110 0.46";

/** The same athlete and day under each way of setting the load. */
export function Methods({ address, bench, unit }: ToolProps) {
  const rack = rackOf(address, bench);
  const text = address.get("points") || POINTS;
  const analysis = useMemo(
    () => analyseProfile({ reps: pointsOf(text), metric: "MCV", threshold: undefined }),
    [text],
  );
  const at = (name: string, start: number | undefined, kind?: "mass") =>
    valueAt(address, name, start, kind ?? "number");
  const maxKg = at("max", 120, "mass");
  const reps = at("reps", 3) ?? Number.NaN;
  const line = analysis.ok ? analysis.line : undefined;
  const estimated = analysis.ok
    ? forcePower({ used: analysis.used, line: analysis.line, addedKg: 0, systemName: "bar only" })
        .peakPower.loadKg
    : undefined;
  const facts: BasisFacts = {
    maxKg: maxKg !== undefined && maxKg > 0 ? maxKg : undefined,
    line,
    peakForceMps: at("force", undefined),
    peakPowerKg: at("power", undefined, "mass") ?? estimated,
    foundKg: at("found", undefined, "mass"),
    // No method of this table is of the body: a bar is loaded by it in pairings only.
    bodyKg: undefined,
  };
  const bases: LoadBasis[] = [
    { by: "percent", percent: at("percent", 60) ?? Number.NaN },
    { by: "speed", mps: at("speed", 0.8) ?? Number.NaN },
    { by: "peak-force", slowerMps: at("slower", 0) ?? 0 },
    { by: "peak-power", percent: at("powershare", 100) ?? Number.NaN },
    { by: "reserve", reserve: at("reserve", 3) ?? Number.NaN },
    { by: "found", plusKg: 0 },
    { by: "eye" },
  ];
  const rows = bases.map((basis) => {
    const load = basisLoad(basis, facts, reps);
    const loading =
      load.ok && rack && Number.isFinite(load.kg)
        ? loadBar(rack.gear, load.kg, roundingOf(address))
        : undefined;
    return { basis, load, loading };
  });
  useAnswer(
    rows
      .flatMap(({ basis, loading }) =>
        loading?.ok ? [`${describeBasis(basis, unit)}: ${formatKg(loading.totalKg, unit)}`] : [],
      )
      .join(" · "),
  );
  if (!rack) return <NoRack />;
  const shared = { address, unit };
  return (
    <>
      <form
        className="grid max-w-5xl gap-3 sm:grid-cols-4"
        onSubmit={(event) => event.preventDefault()}
      >
        <ToolField {...shared} label="Working max" name="max" kind="mass" start={120} />
        <ToolField {...shared} label="Percent" name="percent" start={60} />
        <ToolField {...shared} label="Reps" name="reps" start={3} />
        <ToolField {...shared} label="Reps in reserve" name="reserve" start={3} />
        <div className="sm:col-span-2">
          <Field
            label="Load and speed of each point, in pairs"
            defaultValue={text}
            onChange={(event) => address.set("points", event.target.value)}
            problem={pointsProblem(text)}
          />
        </div>
        <ToolField {...shared} label="Wanted speed, m/s" name="speed" start={0.8} />
        <ToolField
          {...shared}
          label="Speed of peak force, m/s"
          name="force"
          start={undefined}
          optional
          hint="from a test with a sensor"
        />
        <ToolField {...shared} label="Slower than that by, m/s" name="slower" start={0} />
        <ToolField
          {...shared}
          label="Load of peak power"
          name="power"
          kind="mass"
          start={undefined}
          optional
          hint="left empty: half of L0, an estimate"
        />
        <RackChoice address={address} bench={bench} />
        <RoundingChoice address={address} />
      </form>
      {analysis.ok ? null : <Notice kind="warning" title={REFUSAL_WORDS[analysis.reason]} />}
      <Figures label="Answers" className="mt-4 overflow-x-auto">
        <table className="ledger max-w-5xl">
          <thead>
            <tr>
              <th scope="col">By</th>
              <th scope="col">Asked</th>
              <th scope="col" className="!text-right">
                On the bar
              </th>
              <th scope="col" className="!text-right">
                Of the max
              </th>
              <th scope="col" className="!text-right">
                Own line, m/s
              </th>
              <th scope="col">Each side</th>
              <th scope="col">Takes for granted</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ basis, load, loading }) => (
              <tr key={basis.by}>
                <th scope="row" className="!text-base-content">
                  {BASIS_NAMES[basis.by]}
                </th>
                <td>{describeBasis(basis, unit)}</td>
                {load.ok && loading?.ok ? (
                  <>
                    <td className="text-right text-lg font-bold whitespace-nowrap">
                      <Figure
                        id={`lab/by-${basis.by}`}
                        working={onBarWorking(load.working, loading)}
                      >
                        {formatKg(loading.totalKg, unit)}
                      </Figure>
                      {load.estimate ? (
                        <span className="block text-sm font-normal text-muted">estimate</span>
                      ) : null}
                    </td>
                    <td className="text-right">
                      {facts.maxKg === undefined
                        ? "–"
                        : formatPercent((100 * loading.totalKg) / facts.maxKg)}
                    </td>
                    <td className="text-right">
                      {line ? formatVelocity(velocityAt(line, loading.totalKg)) : "–"}
                    </td>
                    <td>{describeSide(loading.side.plates)}</td>
                  </>
                ) : (
                  <td colSpan={4} className="text-muted">
                    {load.ok ? "This bar cannot build it." : BASIS_REFUSALS[load.reason]}
                  </td>
                )}
                <td className="text-muted">{BASIS_ASSUMES[basis.by]}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="mt-2 text-sm text-muted">
          One athlete, one day, one lift; nothing is chosen for you. Velocity estimates of a max
          tend to be high, in squats by 10 kg and more (Banyard et al. 2017).
        </p>
      </Figures>
    </>
  );
}
