import { signedMps } from "../../../core/review/equal-load";
import type { WavePage } from "../../workflows/review/read-wave.server";

type Row = NonNullable<WavePage["rows"]>[number];
type Mean = WavePage["waveMean"];

const WIDTH = 660;
const LINE = 19;
const PAD = 34;

/** Whether a change is told: the shape and the word beside the colour. */
export const VERDICT_MARKS = { rises: "▲", falls: "▼", unclear: "●" } as const;

const SHAPES = {
  rises: (x: number, y: number) => `M${x - 6} ${y + 5}L${x} ${y - 6}L${x + 6} ${y + 5}Z`,
  falls: (x: number, y: number) => `M${x - 6} ${y - 5}L${x} ${y + 6}L${x + 6} ${y - 5}Z`,
  unclear: (x: number, y: number) => `M${x - 4.5} ${y}a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0 -9 0Z`,
};

/**
 * The squad on one axis of change: each athlete's change a wave with the 90 % it is known to, the
 * squad's mean of this wave below. A table of the same stands under it.
 */
export function WaveAxis({
  rows,
  mean,
  opened,
  onOpen,
}: {
  rows: readonly Row[];
  mean: Mean;
  opened: string | undefined;
  onOpen: (athleteId: string) => void;
}) {
  const known = rows.flatMap((row) => (row.speed ? [{ ...row, speed: row.speed }] : []));
  if (known.length === 0) return null;
  const ends = known.flatMap(({ speed }) => [speed.perWave.low, speed.perWave.high]);
  const reach = Math.max(
    0.06,
    ...ends.map(Math.abs),
    Math.abs(mean?.low ?? 0),
    Math.abs(mean?.high ?? 0),
  );
  const most = Math.ceil(reach * 50) / 50;
  const x = (mps: number) => PAD + ((mps + most) / (2 * most)) * (WIDTH - 2 * PAD);
  const sorted = [...known].sort((a, b) => b.speed.perWave.estimate - a.speed.perWave.estimate);
  const height = 26 + LINE * sorted.length + 44;
  const axisY = 22 + LINE * sorted.length;
  const step = most > 0.12 ? 0.04 : 0.02;
  const ticks = Array.from({ length: 2 * Math.floor(most / step) + 1 }, (_, i) =>
    Number(((i - Math.floor(most / step)) * step).toFixed(2)),
  );
  const words = sorted
    .map(({ name, speed }) => `${name} ${signedMps(speed.perWave.estimate)}`)
    .join(", ");
  return (
    <div className="overflow-x-auto">
      <svg
        role="img"
        aria-label={`Change of speed at equal load a wave, m/s: ${words}`}
        viewBox={`0 0 ${WIDTH} ${height}`}
        width={WIDTH}
        className="block max-w-full min-w-[520px] text-[13px] tabular-nums"
      >
        <line x1={x(0)} x2={x(0)} y1={16} y2={axisY} className="stroke-[var(--muted)]" />
        <text x={PAD} y={11} className="fill-[var(--muted)]">
          slower
        </text>
        <text x={WIDTH - PAD} y={11} textAnchor="end" className="fill-[var(--muted)]">
          faster
        </text>
        {sorted.map(({ athleteId, name, speed }, i) => {
          const y = 28 + LINE * i;
          const { estimate, low, high } = speed.perWave;
          const told = speed.verdict !== "unclear";
          return (
            // biome-ignore lint/a11y/noStaticElementInteractions: as above
            <g key={athleteId} className="cursor-pointer" onClick={() => onOpen(athleteId)}>
              <rect
                x={0}
                y={y - LINE / 2}
                width={WIDTH}
                height={LINE}
                className={athleteId === opened ? "fill-wash" : "fill-transparent"}
              />
              <line
                x1={x(low)}
                x2={x(high)}
                y1={y}
                y2={y}
                strokeWidth={told ? 3 : 1.5}
                className={told ? "stroke-primary" : "stroke-[var(--muted)]"}
              />
              <path
                d={SHAPES[speed.verdict](x(estimate), y)}
                className={told ? "fill-primary" : "fill-base-content"}
              />
              <text
                x={estimate >= 0 ? x(low) - 6 : x(high) + 6}
                y={y + 4.5}
                textAnchor={estimate >= 0 ? "end" : "start"}
                className={told ? "fill-base-content font-bold" : "fill-base-content"}
              >
                {name.split(" ")[0]}
              </text>
            </g>
          );
        })}
        <line
          x1={PAD}
          x2={WIDTH - PAD}
          y1={axisY}
          y2={axisY}
          className="stroke-[var(--color-base-300)]"
        />
        {ticks.map((tick) => (
          <text
            key={tick}
            x={x(tick)}
            y={axisY + 14}
            textAnchor="middle"
            className="fill-[var(--muted)]"
          >
            {tick === 0 ? "0" : signedMps(tick)}
          </text>
        ))}
        {mean ? (
          <>
            <rect
              x={x(mean.low)}
              y={axisY + 22}
              width={Math.max(2, x(mean.high) - x(mean.low))}
              height={8}
              className="fill-base-content"
            />
            <text
              x={x(mean.high) > WIDTH - 210 ? x(mean.low) - 8 : x(mean.high) + 8}
              y={axisY + 31}
              className="fill-base-content font-bold"
              textAnchor={x(mean.high) > WIDTH - 210 ? "end" : "start"}
            >
              squad, this wave {signedMps(mean.estimate)}
            </text>
          </>
        ) : null}
      </svg>
    </div>
  );
}
