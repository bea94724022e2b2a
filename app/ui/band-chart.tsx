import { useCallback } from "react";
import { hermiteAt } from "../../core/numeric/hermite";
import { bandCurve, type Reading } from "../../core/resistance/setup";
import { Chart, type ChartColors } from "./chart";
import { useMassIn, useUnit } from "./unit";

/** Axes of a chart of lengths or heights against kilograms, in the theme's colours. */
export function kilogramAxes(
  colors: ChartColors,
  x: { name: string; min?: number; max?: number },
  yName: string,
) {
  const shared = {
    type: "value",
    nameLocation: "middle",
    axisLabel: { color: colors.muted },
    nameTextStyle: { color: colors.muted },
    splitLine: { lineStyle: { color: colors.rule, opacity: 0.5 } },
  };
  return {
    grid: { left: 50, right: 14, top: 12, bottom: 40 },
    xAxis: { ...shared, ...x, nameGap: 24 },
    yAxis: { ...shared, name: yName, nameGap: 36, min: 0 },
  };
}

/** A band's pull over its length: the hanging scale's readings and the curve through them. */
export function BandChart({ readings, restM }: { readings: readonly Reading[]; restM: number }) {
  const unit = useUnit();
  const at = useMassIn();
  const build = useCallback(
    (colors: ChartColors) => {
      const found = bandCurve({ readings, restM });
      const lengths = readings.map((one) => one.lengthM);
      const low = Math.min(restM, ...lengths);
      const high = Math.max(...lengths);
      return {
        ...kilogramAxes(
          colors,
          { name: "Length, m", min: Number(low.toFixed(2)), max: Number(high.toFixed(2)) },
          `pull, ${unit}`,
        ),
        series: [
          {
            type: "line",
            symbol: "none",
            lineStyle: { color: colors.primary, width: 2 },
            data: found.ok
              ? Array.from({ length: 51 }, (_, i) => {
                  const from = lengths[0] as number;
                  const length = from + ((high - from) * i) / 50;
                  return [length, at(hermiteAt(found.curve, length))];
                })
              : [],
          },
          {
            type: "scatter",
            symbol: "diamond",
            symbolSize: 9,
            itemStyle: { color: colors.ink },
            data: readings.map((one) => [one.lengthM, at(one.tensionKg)]),
          },
        ],
      };
    },
    [readings, restM, unit, at],
  );
  return (
    <Chart
      label="Pull over length, by the hanging scale"
      height={170}
      drawnPx={400}
      build={build}
    />
  );
}
