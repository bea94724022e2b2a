import { useCallback } from "react";
import {
  byConventions,
  CONVENTION_NAMES,
  type ResistanceCurve,
} from "../../../../core/resistance/setup";
import { formatKg, type MassUnit } from "../../../../core/units/mass";
import { Chart, type ChartColors } from "../../../ui/chart";
import { useMassIn, useUnit } from "../../../ui/unit";

/** The pull of bands and chains over the bar's way, both sides together. */
export function ResistanceChart({
  curve,
  bottomM,
  lockoutM,
}: {
  curve: ResistanceCurve;
  bottomM: number;
  lockoutM: number;
}) {
  const unit = useUnit();
  const at = useMassIn();
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
        name: `${unit} on the bar`,
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
          data: Array.from({ length: 61 }, (_, i) => {
            const h = bottomM + ((lockoutM - bottomM) * i) / 60;
            return [h, at(curve.at(h))];
          }),
        },
      ],
    }),
    [curve, bottomM, lockoutM, unit, at],
  );
  return (
    <Chart
      label="Resistance over bar height, both sides"
      height={200}
      drawnPx={454}
      build={build}
    />
  );
}

/** What a percentage comes to on the bar by what it counts in. */
export function Conventions({
  curve,
  maxKg,
  percent,
  unit,
}: {
  curve: ResistanceCurve;
  maxKg: number;
  percent: number;
  unit: MassUnit;
}) {
  return (
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
  );
}
