import { formatVelocity } from "../../../core/units/velocity";
import { Day, useDated } from "../../ui/dates";

interface SpeedDay {
  date: string;
  speedMps: number;
  sdMps: number;
}

const WIDTH = 284;
const HEIGHT = 116;
const LEFT = 34;
const Z90 = 1.645;

/** Speed at one load over the days, each with the 90 % that day's form and readings leave open. */
export function DayChart({
  days,
  label,
  from,
}: {
  days: readonly SpeedDay[];
  label: string;
  from?: string;
}) {
  const dated = useDated();
  if (days.length === 0) return null;
  const lows = days.map((day) => day.speedMps - Z90 * day.sdMps);
  const highs = days.map((day) => day.speedMps + Z90 * day.sdMps);
  const low = Math.floor(Math.min(...lows) * 20) / 20;
  const high = Math.ceil(Math.max(...highs) * 20) / 20;
  const y = (mps: number) => 6 + ((high - mps) / (high - low)) * (HEIGHT - 28);
  const x = (i: number) =>
    LEFT + 8 + (days.length === 1 ? 0 : (i / (days.length - 1)) * (WIDTH - LEFT - 20));
  const words = days.map((day) => `${day.date} ${formatVelocity(day.speedMps)}`).join(", ");
  const lines = Array.from({ length: Math.round((high - low) / 0.05) + 1 }, (_, i) =>
    Number((low + 0.05 * i).toFixed(2)),
  ).filter((_, i, all) => all.length < 8 || i % 2 === 0);
  return (
    <svg
      role="img"
      aria-label={dated(`${label}: ${words}`)}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block w-full max-w-[420px] text-[12px] tabular-nums"
    >
      {lines.map((mps) => (
        <g key={mps}>
          <line
            x1={LEFT}
            x2={WIDTH}
            y1={y(mps)}
            y2={y(mps)}
            className="stroke-[var(--color-base-300)]"
          />
          <text x={LEFT - 4} y={y(mps) + 4} textAnchor="end" className="fill-[var(--muted)]">
            {mps.toFixed(2)}
          </text>
        </g>
      ))}
      <polyline
        points={days.map((day, i) => `${x(i)},${y(day.speedMps)}`).join(" ")}
        className="fill-none stroke-primary"
        strokeWidth={1.5}
      />
      {days.map((day, i) => (
        <g key={day.date}>
          <line
            x1={x(i)}
            x2={x(i)}
            y1={y(day.speedMps + Z90 * day.sdMps)}
            y2={y(day.speedMps - Z90 * day.sdMps)}
            className="stroke-[var(--muted)]"
          />
          {from !== undefined && day.date >= from ? (
            <circle cx={x(i)} cy={y(day.speedMps)} r={4} className="fill-primary" />
          ) : (
            <circle cx={x(i)} cy={y(day.speedMps)} r={3} className="fill-base-100 stroke-primary" />
          )}
        </g>
      ))}
      <text x={LEFT} y={HEIGHT - 4} className="fill-[var(--muted)]">
        <Day short of={days[0]?.date} />
      </text>
      <text x={WIDTH - 2} y={HEIGHT - 4} textAnchor="end" className="fill-[var(--muted)]">
        <Day short of={days.at(-1)?.date} />
      </text>
    </svg>
  );
}

/** The newest day's sets at one load: a dot a set, a cross where it was cut. */
export function SetChart({
  sets,
  width = WIDTH,
  height = 84,
}: {
  sets: ReadonlyArray<{ number: number; bestMps: number; cut: boolean }>;
  width?: number;
  height?: number;
}) {
  if (sets.length === 0) return null;
  const speeds = sets.map((set) => set.bestMps);
  const low = Math.min(...speeds) - 0.02;
  const high = Math.max(...speeds) + 0.02;
  const small = height < 40;
  const left = small ? 4 : LEFT;
  const bottom = small ? 4 : 16;
  const y = (mps: number) => 4 + ((high - mps) / (high - low)) * (height - bottom - 8);
  const x = (i: number) =>
    left + 6 + (sets.length === 1 ? 0 : (i / (sets.length - 1)) * (width - left - 14));
  return (
    <svg
      role="img"
      aria-label={`Best of each set, m/s: ${sets.map((set) => `${set.number} ${formatVelocity(set.bestMps)}${set.cut ? ", cut" : ""}`).join("; ")}`}
      viewBox={`0 0 ${width} ${height}`}
      className="block max-w-full text-[12px] tabular-nums"
      style={small ? { width, height } : undefined}
    >
      {small ? null : (
        <>
          <text
            x={left - 4}
            y={y(Math.max(...speeds)) + 4}
            textAnchor="end"
            className="fill-[var(--muted)]"
          >
            {formatVelocity(Math.max(...speeds))}
          </text>
          <text
            x={left - 4}
            y={y(Math.min(...speeds)) + 4}
            textAnchor="end"
            className="fill-[var(--muted)]"
          >
            {formatVelocity(Math.min(...speeds))}
          </text>
        </>
      )}
      <polyline
        points={sets.map((set, i) => `${x(i)},${y(set.bestMps)}`).join(" ")}
        className="fill-none stroke-[var(--muted)]"
      />
      {sets.map((set, i) =>
        set.cut ? (
          <path
            key={set.number}
            d={`M${x(i) - 4} ${y(set.bestMps) - 4}l8 8m0 -8l-8 8`}
            className="stroke-accent"
            strokeWidth={2}
          />
        ) : (
          <circle
            key={set.number}
            cx={x(i)}
            cy={y(set.bestMps)}
            r={small ? 2 : 3}
            className="fill-base-content"
          />
        ),
      )}
      {small
        ? null
        : sets.map((set, i) => (
            <text
              key={set.number}
              x={x(i)}
              y={height - 3}
              textAnchor="middle"
              className="fill-[var(--muted)]"
            >
              {set.number}
            </text>
          ))}
    </svg>
  );
}
