import { useCallback } from "react";
import { checkResistance } from "../../../../core/resistance/checks";
import {
  BAND_WORDS,
  byConventions,
  CONVENTION_NAMES,
  type Resistance as Piece,
  resistanceCurve,
} from "../../../../core/resistance/setup";
import { formatKg, plainNumber } from "../../../../core/units/mass";
import { Chart, type ChartColors } from "../../../ui/chart";
import { Field, Select } from "../../../ui/field";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { numberAt, numbersOf, type ToolProps } from "./tool";

/** What bands or chains add over the range, both sides together, and what a percentage means. */
export function Resistance({ address }: ToolProps) {
  const { get, set } = address;
  const kind = get("kind") === "band" ? "band" : "chain";
  const at = (name: string, start: number) => numberAt(address, name, start);
  const bottomM = at("bottom", 0.85);
  const lockoutM = at("lockout", 1.4);
  const perSide = at("each", 1);
  const barKg = at("bar", 80);
  const maxKg = at("max", 150);
  const percent = at("percent", 60);
  const readingsText = get("readings") || "0.7 4 1.0 13 1.3 20 1.5 28";
  const readings = numbersOf(readingsText);
  const piece: Piece | undefined =
    perSide === undefined
      ? undefined
      : kind === "chain"
        ? {
            perSide,
            what: {
              kind: "chain",
              name: "The chain",
              densityKgPerM: at("density", 6) ?? Number.NaN,
              lengthM: at("length", 1.5) ?? Number.NaN,
              touchM: at("touch", 0.2) ?? Number.NaN,
              folded: get("folded") === "yes",
            },
          }
        : {
            perSide,
            what: {
              kind: "band",
              name: "The band",
              restM: at("rest", 0.6) ?? Number.NaN,
              anchorM: at("anchor", 0.05) ?? Number.NaN,
              folded: get("folded") === "yes",
              readings: readings.values.flatMap((lengthM, i) => {
                const tensionKg = readings.values[i + 1];
                return i % 2 === 0 && tensionKg !== undefined ? [{ lengthM, tensionKg }] : [];
              }),
            },
          };
  const found =
    piece && bottomM !== undefined && lockoutM !== undefined
      ? resistanceCurve([piece], { bottomM, lockoutM })
      : undefined;
  const curve =
    found?.ok && Number.isFinite(found.curve.lockoutKg) && barKg !== undefined
      ? found.curve
      : undefined;
  const checks =
    curve && piece && bottomM !== undefined && lockoutM !== undefined
      ? checkResistance({
          pieces: [piece],
          heights: { bottomM, lockoutM, measured: get("measured") !== "no" },
          curve,
          barKg: barKg ?? 0,
          upperBody: get("upper") === "yes",
          anchorKg: get("anchorkg") === "" ? undefined : (at("anchorkg", 0) ?? undefined),
          steppingOutKg: undefined,
          walkout: false,
          experienced: true,
          retired: [],
        })
      : [];
  const build = useCallback(
    (colors: ChartColors) => ({
      grid: { left: 50, right: 14, top: 12, bottom: 40 },
      xAxis: {
        type: "value",
        name: "Bar height, m",
        nameLocation: "middle",
        nameGap: 24,
        min: bottomM,
        max: lockoutM,
        axisLabel: { color: colors.muted },
        nameTextStyle: { color: colors.muted },
        splitLine: { lineStyle: { color: colors.rule, opacity: 0.5 } },
      },
      yAxis: {
        type: "value",
        name: "kg on the bar",
        nameLocation: "middle",
        nameGap: 36,
        min: 0,
        axisLabel: { color: colors.muted },
        nameTextStyle: { color: colors.muted },
        splitLine: { lineStyle: { color: colors.rule, opacity: 0.5 } },
      },
      series: [
        {
          type: "line",
          symbol: "none",
          lineStyle: { color: colors.primary, width: 2 },
          areaStyle: { color: colors.wash },
          data: curve
            ? Array.from({ length: 61 }, (_, i) => {
                const h = (bottomM ?? 0) + (((lockoutM ?? 0) - (bottomM ?? 0)) * i) / 60;
                return [h, curve.at(h)];
              })
            : [],
        },
      ],
    }),
    [curve, bottomM, lockoutM],
  );
  const field = (label: string, name: string, start: string, unit = "") => (
    <Field
      key={name}
      label={unit ? `${label}, ${unit}` : label}
      inputMode="decimal"
      defaultValue={get(name) || start}
      onChange={(event) => set(name, event.target.value)}
      problem={
        start !== "" && numberAt(address, name, 0) === undefined ? "A number is needed." : undefined
      }
    />
  );
  return (
    <>
      <form
        className="grid max-w-5xl gap-3 sm:grid-cols-4"
        onSubmit={(event) => event.preventDefault()}
      >
        <Select label="What hangs on" value={kind} onChange={(e) => set("kind", e.target.value)}>
          <option value="chain">chains</option>
          <option value="band">bands</option>
        </Select>
        {field("On each side", "each", "1", "pieces")}
        <Select
          label="Folded double"
          value={get("folded") === "yes" ? "yes" : "no"}
          onChange={(e) => set("folded", e.target.value === "yes" ? "yes" : "")}
        >
          <option value="no">no</option>
          <option value="yes">yes</option>
        </Select>
        <Select
          label="Lift"
          value={get("upper") === "yes" ? "yes" : "no"}
          onChange={(e) => set("upper", e.target.value === "yes" ? "yes" : "")}
        >
          <option value="no">lower body</option>
          <option value="yes">upper body</option>
        </Select>
        {kind === "chain" ? (
          <>
            {field("Density", "density", "6", "kg/m")}
            {field("Length", "length", "1.5", "m")}
            {field("Touches the floor at", "touch", "0.2", "m")}
          </>
        ) : (
          <>
            <div className="sm:col-span-2">
              <Field
                label="Length (m) and tension (kg) by a hanging scale, in pairs"
                defaultValue={readingsText}
                onChange={(event) => set("readings", event.target.value)}
                problem={
                  readings.wrong[0]
                    ? `"${readings.wrong[0]}" is not a number.`
                    : found && !found.ok && found.reason !== "no-range"
                      ? BAND_WORDS[found.reason]
                      : undefined
                }
              />
            </div>
            {field("Slack under", "rest", "0.6", "m")}
            {field("Anchor at", "anchor", "0.05", "m")}
            {field("Anchor weighs", "anchorkg", "", "kg a side")}
          </>
        )}
        {field("Bar at the bottom", "bottom", "0.85", "m")}
        {field("Bar at lockout", "lockout", "1.4", "m")}
        {field("Bar and plates", "bar", "80", "kg")}
        {field("Working max", "max", "150", "kg")}
        {field("Percent", "percent", "60", "%")}
      </form>
      {found && !found.ok && found.reason === "no-range" ? (
        <Notice
          kind="problem"
          title="Lockout lies above the bottom: write both bar heights in metres."
        />
      ) : null}
      {curve && maxKg !== undefined && percent !== undefined ? (
        <Figures label="Answers" className="mt-3">
          <div className="grid gap-x-8 gap-y-3 lg:grid-cols-2">
            <div>
              <Chart label="Resistance over bar height, both sides" height={200} build={build} />
              <p>
                <Figure
                  id="lab/resistance"
                  className="text-lg font-bold"
                  working={{
                    title: "Resistance, both sides",
                    lines: [
                      { label: "At the bottom", value: formatKg(curve.bottomKg, "kg", 2) },
                      { label: "At lockout", value: formatKg(curve.lockoutKg, "kg", 2) },
                      {
                        label: "Mean over the range",
                        value: formatKg(curve.meanKg, "kg", 2),
                        emphasis: "answer",
                      },
                    ],
                    sources: [
                      kind === "chain"
                        ? "density × length off the floor"
                        : "monotone cubic through the scale's readings (Fritsch & Carlson 1980)",
                    ],
                    changes: ["Measured bar heights, another leader or anchor."],
                  }}
                >
                  {plainNumber(curve.bottomKg, 1)} → {plainNumber(curve.lockoutKg, 1)} kg, mean{" "}
                  {plainNumber(curve.meanKg, 1)}
                </Figure>{" "}
                <span className="text-muted">
                  {plainNumber((100 * curve.lockoutKg) / (curve.lockoutKg + (barKg ?? 0)), 0)} % of
                  the lockout load
                </span>
              </p>
              {checks.map((check) => (
                <Notice
                  key={check.code}
                  kind={
                    check.level === "refused"
                      ? "problem"
                      : check.level === "warning"
                        ? "warning"
                        : "note"
                  }
                  title={check.level === "refused" ? `Refused. ${check.text}` : check.text}
                />
              ))}
            </div>
            <table className="ledger self-start">
              <caption className="pb-1 text-left font-bold">
                {percent} % of {formatKg(maxKg)} by each convention
              </caption>
              <thead>
                <tr>
                  <th scope="col">What counts</th>
                  <th scope="col" className="!text-right">
                    Bar
                  </th>
                  <th scope="col" className="!text-right">
                    Bottom
                  </th>
                  <th scope="col" className="!text-right">
                    Mean
                  </th>
                  <th scope="col" className="!text-right">
                    Lockout
                  </th>
                </tr>
              </thead>
              <tbody>
                {byConventions(curve, maxKg, percent).map((one) => (
                  <tr key={one.convention}>
                    <th scope="row" className="!whitespace-normal">
                      {CONVENTION_NAMES[one.convention]}
                    </th>
                    {[one.barKg, one.bottomKg, one.meanKg, one.lockoutKg].map((kg, i) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: columns keep their places
                      <td key={i} className="text-right">
                        {plainNumber(kg, 1)}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <p className="mt-2 text-sm text-muted">
            Bands inspected before use and never let go under tension; anchors bolted or weighted;
            collars on. Measured bar speed decides.
          </p>
        </Figures>
      ) : null}
    </>
  );
}
