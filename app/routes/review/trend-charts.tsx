import { useCallback } from "react";
import type { DateOrder } from "../../../core/units/date-order";
import { formatKg, kgToGrains, massIn } from "../../../core/units/mass";
import { Chart, type ChartColors } from "../../ui/chart";
import { useDateOrder } from "../../ui/dates";
import { useUnit } from "../../ui/unit";
import type { TrendsPage } from "../../workflows/review/read-trends.server";

type Athlete = NonNullable<TrendsPage["athlete"]>;
type Lift = NonNullable<Athlete["lift"]>;

const time = (date: string) => Date.parse(`${date}T00:00:00Z`);

const AXIS_DAYS: Record<DateOrder, string> = {
  ymd: "{MM}-{dd}",
  dmy: "{d} {MMM}",
  mdy: "{MMM} {d}",
};

const timeAxis = (colors: ChartColors, order: DateOrder) => ({
  type: "time" as const,
  axisLine: { lineStyle: { color: colors.rule } },
  axisLabel: { color: colors.muted, fontSize: 12, formatter: AXIS_DAYS[order] },
  splitLine: { show: false },
});

/** From the least to the most that is drawn, in whole steps. */
const reach = (lows: readonly number[], highs: readonly number[], step: number) => ({
  min: Math.floor(Math.min(...lows) / step) * step,
  max: Math.ceil(Math.max(...highs) / step) * step,
});

const valueAxis = (colors: ChartColors, name: string, range: { min: number; max: number }) => ({
  type: "value" as const,
  name,
  ...range,
  nameTextStyle: { color: colors.muted, fontSize: 12, align: "left" as const },
  axisLabel: { color: colors.muted, fontSize: 12 },
  splitLine: { lineStyle: { color: colors.rule, opacity: 0.5 } },
});

const MARK_LETTERS = { competition: "C", away: "A", plan: "P" } as const;

const markLine = (colors: ChartColors, marks: Athlete["marks"]) => ({
  symbol: "none",
  silent: true,
  lineStyle: { color: colors.muted, type: "dotted" as const },
  label: { color: colors.muted, fontSize: 11, formatter: "{b}" },
  data: marks.map((mark) => ({ xAxis: time(mark.date), name: MARK_LETTERS[mark.kind] })),
});

/** A line of estimates inside the 90 % that is known of them. */
const band = (
  colors: ChartColors,
  days: ReadonlyArray<{ date: string; low: number; high: number }>,
) => ({
  type: "custom" as const,
  silent: true,
  renderItem: (
    params: { dataIndexInside: number },
    api: { coord: (at: [number, number]) => [number, number] },
  ) => {
    if (params.dataIndexInside > 0) return null;
    const up = days.map((day) => api.coord([time(day.date), day.high]));
    const down = [...days].reverse().map((day) => api.coord([time(day.date), day.low]));
    return {
      type: "polygon",
      shape: { points: [...up, ...down] },
      style: { fill: colors.wash },
    };
  },
  data: days.map((day) => [time(day.date), day.low]),
  z: 1,
});

/** The estimated max over time with its interval; records as diamonds. */
export function MaxChart({ lift, marks }: { lift: Lift; marks: Athlete["marks"] }) {
  const unit = useUnit();
  const order = useDateOrder();
  const { max, records } = lift;
  const build = useCallback(
    (colors: ChartColors) => {
      const at = (kg: number) => Number(massIn(kgToGrains(kg), unit).toFixed(2));
      const days = (max?.days ?? []).map((day) => ({
        date: day.date,
        estimate: at(day.estimate),
        low: at(day.low),
        high: at(day.high),
      }));
      const shown = records
        .filter((one) => days.length === 0 || one.date >= (days[0]?.date ?? ""))
        .map((one) => ({ date: one.date, kg: at(one.kg) }));
      return {
        grid: { left: 48, right: 16, top: 24, bottom: 28 },
        tooltip: { trigger: "axis" },
        xAxis: timeAxis(colors, order),
        yAxis: valueAxis(
          colors,
          unit,
          reach(
            [...days.map((day) => day.low), ...shown.map((one) => one.kg)],
            [...days.map((day) => day.high), ...shown.map((one) => one.kg)],
            5,
          ),
        ),
        series: [
          band(colors, days),
          {
            type: "line",
            name: "Estimated max",
            symbolSize: 5,
            lineStyle: { color: colors.primary, width: 2 },
            itemStyle: { color: colors.primary },
            data: days.map((day) => [time(day.date), day.estimate]),
            markLine: markLine(colors, marks),
            z: 3,
          },
          {
            type: "scatter",
            name: "Record",
            symbol: "diamond",
            symbolSize: 11,
            itemStyle: { color: colors.paper, borderColor: colors.ink, borderWidth: 2 },
            data: shown.map((one) => [time(one.date), one.kg]),
            z: 4,
          },
        ],
      };
    },
    [max, records, marks, unit, order],
  );
  if (!max) return null;
  return (
    <Chart
      label={`Estimated max: ${max.days.map((day) => `${day.date} ${formatKg(day.estimate, unit, 0)}`).join(", ")}`}
      height={230}
      drawnPx={936}
      build={build}
    />
  );
}

/** Speed at one load by day, the form of the day and the readings as bars. */
export function SpeedChart({ lift, marks }: { lift: Lift; marks: Athlete["marks"] }) {
  const order = useDateOrder();
  const { speed } = lift;
  const build = useCallback(
    (colors: ChartColors) => ({
      grid: { left: 48, right: 16, top: 24, bottom: 28 },
      tooltip: { trigger: "axis" },
      xAxis: timeAxis(colors, order),
      yAxis: valueAxis(
        colors,
        "m/s",
        reach(
          (speed?.days ?? []).map((day) => day.speedMps - 1.645 * day.sdMps),
          (speed?.days ?? []).map((day) => day.speedMps + 1.645 * day.sdMps),
          0.05,
        ),
      ),
      series: [
        {
          type: "custom",
          silent: true,
          renderItem: (
            params: { dataIndex: number },
            api: { coord: (at: [number, number]) => [number, number] },
          ) => {
            const day = speed?.days[params.dataIndex];
            if (!day) return null;
            const [x, top] = api.coord([time(day.date), day.speedMps + 1.645 * day.sdMps]);
            const [, bottom] = api.coord([time(day.date), day.speedMps - 1.645 * day.sdMps]);
            return {
              type: "line",
              shape: { x1: x, y1: top, x2: x, y2: bottom },
              style: { stroke: colors.muted },
            };
          },
          data: (speed?.days ?? []).flatMap((day) => [[time(day.date), day.speedMps]]),
        },
        {
          type: "line",
          name: "Speed",
          symbolSize: 6,
          lineStyle: { color: colors.primary },
          itemStyle: { color: colors.primary },
          data: (speed?.days ?? []).map((day) => [time(day.date), Number(day.speedMps.toFixed(3))]),
          markLine: markLine(colors, marks),
        },
      ],
    }),
    [speed, marks, order],
  );
  if (!speed) return null;
  return (
    <Chart
      label={`Speed at one load: ${speed.days.map((day) => `${day.date} ${day.speedMps.toFixed(2)}`).join(", ")}`}
      height={200}
      drawnPx={936}
      build={build}
    />
  );
}
