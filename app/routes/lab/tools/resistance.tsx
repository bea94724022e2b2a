import { useCallback } from "react";
import { checkResistance } from "../../../../core/resistance/rig-checks";
import {
  BAND_WORDS,
  byConventions,
  CONVENTION_NAMES,
  resistanceCurve,
} from "../../../../core/resistance/setup";
import { formatKg, plainNumber } from "../../../../core/units/mass";
import { Chart, type ChartColors } from "../../../ui/chart";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolChoice, ToolField, useAnswer } from "./fields";
import { RoomPieces, roomPieces } from "./resistance-room";
import { WrittenPiece, writtenPiece } from "./resistance-written";
import { RigSheet } from "./rig-sheet";
import { type ToolProps, valueAt } from "./tool";

/** What bands or chains add over the range, both sides together, and what a percentage means. */
export function Resistance(props: ToolProps) {
  const { address, bench, unit } = props;
  const { get } = address;
  const rack = bench.racks.find((one) => one.id === get("rack"));
  const at = (name: string, start: number | undefined, kind?: "mass" | "m") =>
    valueAt(address, name, start, kind ?? "number");
  const bottomM = at("bottom", 0.85, "m");
  const lockoutM = at("lockout", 1.4, "m");
  const barKg = at("bar", 80, "mass");
  const maxKg = at("max", 150, "mass");
  const percent = at("percent", 60);
  const pieces = rack ? roomPieces(address, rack) : writtenPiece(address);
  const heights =
    bottomM !== undefined && lockoutM !== undefined
      ? { bottomM, lockoutM, measured: get("measured") !== "no" }
      : undefined;
  const found = pieces.length > 0 && heights ? resistanceCurve(pieces, heights) : undefined;
  const curve =
    found?.ok && Number.isFinite(found.curve.lockoutKg) && barKg !== undefined
      ? found.curve
      : undefined;
  const anchorKg = at("anchorkg", rack?.anchorKg, "mass");
  const checks =
    curve && heights
      ? checkResistance({
          pieces,
          heights,
          curve,
          barKg: barKg ?? 0,
          upperBody: get("upper") === "yes",
          anchorKg,
          bolted: rack?.bolted,
          leastAnchorKg: at("leastanchor", bench.coachValues.leastAnchorKg, "mass"),
          steppingOutKg: at("stepout", bench.coachValues.steppingOutKg, "mass"),
          walkout: get("walkout") === "yes",
          experienced: get("novice") !== "yes",
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
  const share = curve && (100 * curve.lockoutKg) / (curve.lockoutKg + (barKg ?? 0));
  useAnswer(
    curve && share !== undefined
      ? `${pieces.map((one) => `${one.perSide} × ${one.what.name} a side`).join(", ")}: ${formatKg(curve.bottomKg, unit, 1)} at the bottom, ${formatKg(curve.lockoutKg, unit, 1)} at lockout, ${plainNumber(share, 0)} % there`
      : undefined,
  );
  const shared = { address, unit };
  return (
    <>
      <form
        className="no-print grid max-w-5xl gap-3 sm:grid-cols-4"
        onSubmit={(event) => event.preventDefault()}
      >
        <ToolChoice
          address={address}
          label="Bands and chains of"
          name="rack"
          options={[
            ["", "nowhere: written here"],
            ...bench.racks.map((one) => [one.id, one.label] as const),
          ]}
        />
        <ToolChoice
          address={address}
          label="Lift"
          name="upper"
          options={[
            ["no", "lower body"],
            ["yes", "upper body"],
          ]}
        />
        <ToolChoice
          address={address}
          label="Athlete"
          name="novice"
          options={[
            ["no", "experienced"],
            ["yes", "not yet experienced"],
          ]}
        />
        <ToolChoice
          address={address}
          label="Out of the hooks"
          name="walkout"
          options={[
            ["no", "no step: lifted where it hangs"],
            ["yes", "stepped out"],
          ]}
        />
        {rack ? null : <WrittenPiece {...props} />}
        <ToolField {...shared} label="Bar at the bottom" name="bottom" kind="m" start={0.85} />
        <ToolField {...shared} label="Bar at lockout" name="lockout" kind="m" start={1.4} />
        <ToolChoice
          address={address}
          label="Bar heights are"
          name="measured"
          options={[
            ["yes", "measured on the athlete"],
            ["no", "estimated"],
          ]}
        />
        <ToolField {...shared} label="Bar and plates" name="bar" kind="mass" start={80} />
        <ToolField {...shared} label="Working max" name="max" kind="mass" start={150} />
        <ToolField {...shared} label="Percent" name="percent" start={60} />
        {pieces.some((one) => one.what.kind === "band") || rack ? (
          <ToolField
            key={rack?.id}
            {...shared}
            label="Anchor holds, a side"
            name="anchorkg"
            kind="mass"
            start={rack?.anchorKg}
            optional
            hint={rack?.bolted ? "bolted: the rated attachment only" : undefined}
          />
        ) : null}
        {rack && !rack.bolted ? (
          <ToolField
            {...shared}
            label="Least anchor weight you allow"
            name="leastanchor"
            kind="mass"
            start={bench.coachValues.leastAnchorKg}
            optional
            hint={
              bench.coachValues.leastAnchorKg === undefined
                ? "yours to set"
                : "as your team has set"
            }
          />
        ) : null}
        {get("walkout") === "yes" ? (
          <ToolField
            {...shared}
            label="Step out against at most"
            name="stepout"
            kind="mass"
            start={bench.coachValues.steppingOutKg}
            optional
            hint={
              bench.coachValues.steppingOutKg === undefined
                ? "yours to set"
                : "as your team has set"
            }
          />
        ) : null}
      </form>
      {rack && heights ? (
        <RoomPieces {...props} rack={rack} heights={heights} barKg={barKg ?? 0} />
      ) : null}
      {found && !found.ok && (rack || found.reason === "no-range") ? (
        <Notice
          kind="problem"
          title={
            found.reason === "no-range"
              ? "Lockout lies above the bottom: write both bar heights in metres."
              : BAND_WORDS[found.reason]
          }
        />
      ) : null}
      {curve && maxKg !== undefined && percent !== undefined && share !== undefined ? (
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
                      ...pieces.map((one) => ({
                        label: one.what.name,
                        value: `${one.perSide} a side, ${2 * one.perSide} in all`,
                      })),
                      { label: "At the bottom", value: formatKg(curve.bottomKg, "kg", 2) },
                      { label: "At lockout", value: formatKg(curve.lockoutKg, "kg", 2) },
                      {
                        label: "Mean over the range",
                        value: formatKg(curve.meanKg, "kg", 2),
                        emphasis: "answer",
                      },
                    ],
                    sources: [
                      "Chains: density × length off the floor. Bands: monotone cubic through the scale's readings (Fritsch & Carlson 1980)",
                    ],
                    changes: ["Measured bar heights, another leader or anchor."],
                  }}
                >
                  {plainNumber(curve.bottomKg, 1)} → {plainNumber(curve.lockoutKg, 1)} kg, mean{" "}
                  {plainNumber(curve.meanKg, 1)}
                </Figure>{" "}
                <span className="text-muted">{plainNumber(share, 0)} % of the lockout load</span>
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
                {percent} % of {formatKg(maxKg, unit)} by each convention
              </caption>
              <thead>
                <tr>
                  <th scope="col">What counts</th>
                  {["Bar", "Bottom", "Mean", "Lockout"].map((name) => (
                    <th key={name} scope="col" className="!text-right">
                      {name}
                    </th>
                  ))}
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
                      <td key={i} className="text-right whitespace-nowrap">
                        {formatKg(kg, unit, 1)}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <RigSheet
            pieces={pieces}
            rack={rack}
            curve={curve}
            bottomM={bottomM ?? 0}
            lockoutM={lockoutM ?? 0}
            barKg={barKg ?? 0}
            anchorKg={anchorKg}
            refused={checks.some((one) => one.level === "refused")}
            unit={unit}
          />
          <p className="mt-2 text-sm text-muted">
            Bands inspected before use and never let go under tension; anchors bolted or weighted;
            collars on. Measured bar speed decides.
          </p>
        </Figures>
      ) : null}
    </>
  );
}
