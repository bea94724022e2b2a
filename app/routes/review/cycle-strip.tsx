import type { CycleWeek } from "../../../core/review/cycle-week";
import { formatKg, type MassUnit, plainNumber } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";

const COLUMN = 92;
const LEFT = 64;
const BARS = 96;
const SPEED_TOP = 16;
const SPEED_H = 64;
const SEAT_TOP = SPEED_TOP + SPEED_H + 14 + BARS + 8;
const SEAT_H = 44;
const HEIGHT = SEAT_TOP + SEAT_H + 34;

/** A mark that stands for one tagged fault; past five, the number says it. */
const MOST_MARKS = 5;

/**
 * A cycle drawn a column a week: speed as a dash on its own scale, load as a block from zero, the
 * seat to scale under it, a notch a fault. The table below holds the same in figures.
 */
export function CycleStrip({ weeks, unit }: { weeks: readonly CycleWeek[]; unit: MassUnit }) {
  const loads = weeks.flatMap((one) => one.loadKg ?? []);
  const speeds = weeks.flatMap((one) => one.speedMps ?? []);
  const seats = weeks.flatMap((one) => one.heightCm ?? []);
  const mostKg = Math.max(1, ...loads);
  const low = Math.min(...speeds) - 0.03;
  const span = Math.max(0.1, Math.max(...speeds) + 0.03 - low);
  const mostCm = Math.max(1, ...seats);
  const loadY = SPEED_TOP + SPEED_H + 14;
  const words = weeks
    .map((one) =>
      one.loadKg === undefined
        ? `week ${one.week}: not there`
        : `week ${one.week}: ${formatKg(one.loadKg, unit)}${one.speedMps === undefined ? "" : ` at ${formatVelocity(one.speedMps)} m/s`}`,
    )
    .join("; ");
  return (
    <div className="overflow-x-auto">
      <svg
        role="img"
        aria-label={`The cycle by week: ${words}`}
        width={LEFT + COLUMN * weeks.length + 8}
        height={HEIGHT}
        className="block text-[13px] tabular-nums"
      >
        <title>The cycle by week</title>
        {(
          [
            ["m/s", SPEED_TOP + SPEED_H / 2],
            [unit, loadY + BARS / 2],
            ["seat, cm", SEAT_TOP + SEAT_H / 2],
            ["faults", SEAT_TOP + SEAT_H + 18],
          ] as const
        ).map(([name, y]) => (
          <text key={name} x={0} y={y + 4} className="fill-[var(--muted)]">
            {name}
          </text>
        ))}
        {weeks.map((one, i) => {
          const x = LEFT + i * COLUMN;
          const middle = x + COLUMN / 2;
          const marks = one.faults.reduce((sum, fault) => sum + fault.times, 0);
          const bar = one.loadKg === undefined ? 0 : (one.loadKg / mostKg) * (BARS - 18);
          const seat = one.heightCm === undefined ? 0 : (one.heightCm / mostCm) * (SEAT_H - 14);
          const y =
            one.speedMps === undefined
              ? undefined
              : SPEED_TOP + SPEED_H - ((one.speedMps - low) / span) * SPEED_H;
          return (
            <g key={one.date}>
              <line
                x1={x}
                x2={x}
                y1={0}
                y2={HEIGHT}
                className="stroke-[var(--color-base-300)]"
                strokeWidth={1}
              />
              <text x={middle} y={12} textAnchor="middle" className="fill-[var(--muted)]">
                week {one.week}
                {one.kind === "work" ? "" : `, ${one.kind}`}
              </text>
              {y === undefined || one.speedMps === undefined ? null : (
                <>
                  <rect
                    x={middle - 22}
                    y={y - 1.5}
                    width={44}
                    height={3}
                    className="fill-primary"
                  />
                  <text
                    x={middle}
                    y={y > SPEED_TOP + 20 ? y - 6 : y + 15}
                    textAnchor="middle"
                    className="fill-base-content"
                  >
                    {formatVelocity(one.speedMps)}
                  </text>
                </>
              )}
              {one.loadKg === undefined ? (
                <text
                  x={middle}
                  y={loadY + BARS / 2}
                  textAnchor="middle"
                  className="fill-[var(--muted)]"
                >
                  not there
                </text>
              ) : (
                <>
                  <rect
                    x={middle - 22}
                    y={loadY + BARS - bar}
                    width={44}
                    height={bar}
                    className="fill-secondary"
                  />
                  <text
                    x={middle}
                    y={loadY + BARS - bar - 4}
                    textAnchor="middle"
                    className="fill-base-content font-bold"
                  >
                    {formatKg(one.loadKg, unit, 1).replace(/ .*/, "")}
                  </text>
                </>
              )}
              {one.heightCm === undefined ? null : (
                <>
                  <rect
                    x={middle - 22}
                    y={SEAT_TOP + SEAT_H - seat}
                    width={44}
                    height={seat}
                    fill="none"
                    className="stroke-base-content"
                    strokeWidth={1.5}
                  />
                  <text
                    x={middle}
                    y={SEAT_TOP + SEAT_H - seat / 2 + 4}
                    textAnchor="middle"
                    className="fill-base-content"
                  >
                    {plainNumber(one.heightCm, 1)}
                  </text>
                </>
              )}
              {marks > MOST_MARKS ? (
                <text
                  x={middle}
                  y={SEAT_TOP + SEAT_H + 22}
                  textAnchor="middle"
                  className="fill-accent font-bold"
                >
                  {marks}
                </text>
              ) : (
                Array.from({ length: marks }, (_, mark) => (
                  <path
                    // biome-ignore lint/suspicious/noArrayIndexKey: the marks are alike
                    key={mark}
                    d={`M${middle - 5 * (marks - 1) + 10 * mark - 4} ${SEAT_TOP + SEAT_H + 12} l8 0 l-4 9 z`}
                    className="fill-accent"
                  />
                ))
              )}
            </g>
          );
        })}
      </svg>
    </div>
  );
}
