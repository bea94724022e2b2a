import { useCallback } from "react";
import type { ProfileRep, ProfileResult } from "../../core/profile/analysis";
import { type LoadVelocityLine, velocityAt } from "../../core/profile/line";
import { estimatedPowerW, type ForcePower } from "../../core/profile/power";
import { responseAt } from "../../core/profile/prediction";
import { formatKg, plainNumber } from "../../core/units/mass";
import type { LocalDate } from "../../core/units/time";
import { formatVelocity } from "../../core/units/velocity";
import { Chart, type ChartColors } from "./chart";
import { useMassIn, useUnit } from "./unit";

export interface EarlierTest {
  date: LocalDate;
  line: LoadVelocityLine;
  used: ReadonlyArray<{ loadKg: number; velocityMps: number }>;
}

const axis = (colors: ChartColors, name: string) => ({
  type: "value" as const,
  name,
  nameLocation: "middle" as const,
  nameTextStyle: { color: colors.muted, fontSize: 12 },
  axisLine: { show: true, lineStyle: { color: colors.rule } },
  axisLabel: { color: colors.muted, fontSize: 12, hideOverlap: true },
  splitLine: { lineStyle: { color: colors.rule, opacity: 0.5 } },
});

const NO_DAYS: ReadonlyArray<{ loadKg: number; bestMps: number }> = [];

/** Velocity over load: reps, line, its interval, the threshold, and an earlier test behind. */
export function ProfileChart({
  reps,
  result,
  thresholdMps,
  earlier,
  days = NO_DAYS,
  height = 260,
  drawnPx,
  title,
}: {
  reps: readonly ProfileRep[];
  result: ProfileResult;
  thresholdMps: number | undefined;
  earlier?: EarlierTest | undefined;
  /** Fastest reps of training since, by load. */
  days?: ReadonlyArray<{ loadKg: number; bestMps: number }>;
  height?: number;
  /** The width that it has at a desk, px. */
  drawnPx: number;
  title: string;
}) {
  const unit = useUnit();
  const at = useMassIn();
  const build = useCallback(
    (colors: ChartColors) => {
      const used = result.ok ? new Set(result.used.map((rep) => rep.id)) : new Set<string>();
      const kind = (rep: ProfileRep) =>
        rep.excluded !== undefined
          ? "excluded"
          : used.has(rep.id) || !result.ok
            ? "used"
            : "slower";
      const of = (wanted: string) =>
        reps
          .filter((rep) => kind(rep) === wanted)
          .map((rep) => ({ id: rep.id, value: [at(rep.loadKg), rep.velocityMps], rep }));
      const endKg = result.ok
        ? Math.max(result.fit.maxX, Math.min(result.line.l0Kg, result.oneRepMax?.kg ?? 0))
        : Math.max(20, ...reps.map((rep) => rep.loadKg));
      const startKg = result.ok ? Math.max(0, result.fit.minX * 0.75) : 0;
      const band = result.ok ? bandOf(result, startKg, endKg) : [];
      const max = result.ok ? result.oneRepMax : undefined;
      return {
        grid: { left: 46, right: 14, top: 12, bottom: 40 },
        tooltip: {
          trigger: "item",
          formatter: (one: { data?: { rep?: ProfileRep } }) => {
            const rep = one.data?.rep;
            if (!rep) return "";
            const force =
              rep.forceN === undefined
                ? ""
                : `<br>${plainNumber(rep.forceN, 0)} N, ${plainNumber(rep.powerW ?? 0, 0)} W`;
            return `${formatKg(rep.loadKg, unit, 1)}, ${formatVelocity(rep.velocityMps)} m/s${force}${rep.excluded === undefined ? "" : "<br>left out"}`;
          },
        },
        xAxis: {
          ...axis(colors, `Load, ${unit}`),
          nameGap: 24,
          min: Math.floor(at(startKg) / 10) * 10,
          max: Math.ceil((at(endKg) * 1.06) / 10) * 10,
        },
        yAxis: { ...axis(colors, "m/s"), nameGap: 32, min: 0, max: topOf(reps, result) },
        series: [
          {
            type: "line",
            data: band.map((one) => [at(one.kg), one.low]),
            lineStyle: { opacity: 0 },
            symbol: "none",
            stack: "band",
            stackStrategy: "all",
            silent: true,
            z: 1,
          },
          {
            type: "line",
            data: band.map((one) => [at(one.kg), one.high - one.low]),
            lineStyle: { opacity: 0 },
            areaStyle: { color: colors.wash, opacity: 1 },
            symbol: "none",
            stack: "band",
            stackStrategy: "all",
            silent: true,
            z: 1,
          },
          ...(earlier
            ? [
                {
                  type: "line",
                  data: [
                    [at(startKg), velocityAt(earlier.line, startKg)],
                    [
                      at(Math.min(endKg, earlier.line.l0Kg)),
                      velocityAt(earlier.line, Math.min(endKg, earlier.line.l0Kg)),
                    ],
                  ],
                  symbol: "none",
                  lineStyle: { color: colors.secondary, type: "dashed", width: 1.5 },
                  silent: true,
                },
                {
                  type: "scatter",
                  data: earlier.used.map((one) => [at(one.loadKg), one.velocityMps]),
                  symbol: "rect",
                  symbolSize: 7,
                  itemStyle: {
                    color: colors.paper,
                    borderColor: colors.secondary,
                    borderWidth: 1.5,
                  },
                  silent: true,
                },
              ]
            : []),
          ...(result.ok
            ? [
                {
                  type: "line",
                  data: [
                    [at(startKg), velocityAt(result.line, startKg)],
                    [at(endKg), velocityAt(result.line, endKg)],
                  ],
                  symbol: "none",
                  lineStyle: { color: colors.primary, width: 2 },
                  silent: true,
                  z: 3,
                  markLine:
                    thresholdMps === undefined
                      ? undefined
                      : {
                          symbol: "none",
                          silent: true,
                          lineStyle: { color: colors.accent, type: "dotted", width: 1.5 },
                          label: {
                            formatter: `threshold ${formatVelocity(thresholdMps)}`,
                            position: "insideStartTop",
                            color: colors.accent,
                            fontSize: 12,
                          },
                          data: [{ yAxis: thresholdMps }],
                        },
                },
              ]
            : []),
          ...(max && thresholdMps !== undefined
            ? [
                interval(max.planning, at, thresholdMps, colors.muted, 1.5),
                interval(max.lineOnly, at, thresholdMps, colors.ink, 4),
              ]
            : []),
          {
            type: "scatter",
            data: of("slower"),
            z: 5,
            symbolSize: 6,
            itemStyle: { color: colors.paper, borderColor: colors.muted, borderWidth: 1 },
          },
          {
            type: "scatter",
            data: days.map((one) => [at(one.loadKg), one.bestMps]),
            z: 4,
            symbol: "triangle",
            symbolSize: 8,
            itemStyle: { color: "transparent", borderColor: colors.secondary, borderWidth: 1.5 },
            silent: true,
          },
          {
            type: "scatter",
            data: of("used"),
            z: 6,
            symbolSize: 10,
            itemStyle: { color: colors.ink },
          },
          {
            type: "scatter",
            data: of("excluded"),
            z: 6,
            symbol: "path://M0,0L10,10M10,0L0,10",
            symbolSize: 9,
            itemStyle: { color: "transparent", borderColor: colors.accent, borderWidth: 2 },
          },
        ],
      };
    },
    [reps, result, thresholdMps, earlier, days, unit, at],
  );
  const words = result.ok
    ? `${title}: ${reps.length} reps, line from ${formatVelocity(result.line.v0Mps)} m/s at no load to ${formatKg(result.line.l0Kg, unit, 1)} at no speed.`
    : `${title}: ${reps.length} reps, no line.`;
  return <Chart label={words} height={height} drawnPx={drawnPx} build={build} />;
}

function bandOf(result: Extract<ProfileResult, { ok: true }>, fromKg: number, toKg: number) {
  const band: Array<{ kg: number; low: number; high: number }> = [];
  for (let i = 0; i <= 24; i++) {
    const kg = fromKg + ((toKg - fromKg) * i) / 24;
    const one = responseAt(result.fit, kg, 0.95);
    if (one.ok) band.push({ kg, low: Math.max(0, one.low), high: Math.max(0, one.high) });
  }
  return band;
}

/** The axis ends a little over the fastest rep: a wide interval must not flatten the points. */
function topOf(reps: readonly ProfileRep[], result: ProfileResult): number {
  const fastest = Math.max(0.8, ...reps.map((rep) => rep.velocityMps));
  const line = result.ok ? velocityAt(result.line, Math.max(0, result.fit.minX * 0.75)) : 0;
  return Math.ceil(Math.max(fastest * 1.08, line) * 5) / 5;
}

/** An interval of the 1RM as a bar lying on the threshold. */
function interval(
  range: { ok: true; low: number; high: number } | { ok: false },
  at: (kg: number) => number,
  mps: number,
  color: string,
  width: number,
) {
  return {
    type: "line",
    data: range.ok
      ? [
          [at(range.low), mps],
          [at(range.high), mps],
        ]
      : [],
    symbol: "none",
    lineStyle: { color, width },
    silent: true,
    z: 4,
  };
}

/** Force, or power, over load: the tested points, and the estimate's curve where there is one. */
export function ForcePowerChart({
  power,
  line,
  what,
}: {
  power: ForcePower;
  line: LoadVelocityLine;
  what: "force" | "power";
}) {
  const unit = useUnit();
  const at = useMassIn();
  const build = useCallback(
    (colors: ChartColors) => {
      const points = power.points.flatMap((point) => {
        const value = what === "force" ? point.forceN : point.powerW;
        return value === undefined ? [] : [[at(point.loadKg), value]];
      });
      const peak = what === "force" ? power.peakForce : power.peakPower;
      const estimated = what === "power" && !power.peakPower.measured;
      const curve = estimated
        ? Array.from({ length: 31 }, (_, i) => {
            const kg = (line.l0Kg * i) / 30;
            return [at(kg), estimatedPowerW(line, power.addedKg, kg)];
          })
        : points;
      return {
        grid: { left: 52, right: 12, top: 12, bottom: 38 },
        xAxis: { ...axis(colors, `Load, ${unit}`), nameGap: 22, min: 0 },
        yAxis: {
          ...axis(colors, what === "force" ? "N" : "W"),
          nameGap: 40,
          scale: what === "force",
        },
        series: [
          {
            type: "line",
            data: curve,
            symbol: "none",
            lineStyle: { color: colors.primary, width: 1.5, type: estimated ? "dashed" : "solid" },
            silent: true,
          },
          {
            type: "scatter",
            data: points,
            symbolSize: 7,
            itemStyle: {
              color: estimated ? colors.paper : colors.ink,
              borderColor: colors.ink,
              borderWidth: 1.5,
            },
            silent: true,
          },
          {
            type: "scatter",
            data: peak ? [[at(peak.loadKg), peak.value]] : [],
            symbol: "diamond",
            symbolSize: 15,
            itemStyle: {
              color: peak?.reached ? colors.primary : colors.paper,
              borderColor: colors.primary,
              borderWidth: 2,
            },
            silent: true,
          },
        ],
      };
    },
    [power, line, what, unit, at],
  );
  return (
    <Chart label={`Mean propulsive ${what} over load`} height={170} drawnPx={266} build={build} />
  );
}
