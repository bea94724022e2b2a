import { type GapAnalysis, gapWords } from "../../core/contrast/gap-test";

/** Change over the gaps with its error, and the line that a change has to pass. */
export function GapPicture({
  analysis,
  unit,
  most,
  width = 640,
  height = 180,
}: {
  analysis: Extract<GapAnalysis, { ok: true }>;
  unit: string;
  /** The largest change that the axis holds, in the unit of the trial. */
  most: number;
  /** px */
  width?: number;
  height?: number;
}) {
  const last = Math.max(...analysis.changes.map((one) => one.gapMin), 1);
  const x = (min: number) => 50 + (min / last) * (width - 70);
  const y = (value: number) => height / 2 - (value / most) * (height / 2 - 24);
  const path = analysis.changes
    .map((one, i) => `${i === 0 ? "M" : "L"}${x(one.gapMin)},${y(one.smoothed)}`)
    .join(" ");
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="mt-2 w-full max-w-2xl"
      role="img"
      aria-label={`Change in ${unit} after each gap, with its standard error`}
    >
      <line x1={50} x2={width - 10} y1={y(0)} y2={y(0)} className="stroke-[var(--control)]" />
      <line
        x1={50}
        x2={width - 10}
        y1={y(analysis.worthwhile)}
        y2={y(analysis.worthwhile)}
        strokeDasharray="5 4"
        className="stroke-[var(--color-secondary)]"
      />
      <text
        x={width - 10}
        y={y(analysis.worthwhile) - 5}
        textAnchor="end"
        className="fill-[var(--color-secondary)] text-[12px]"
      >
        counts from here
      </text>
      <text x={4} y={y(0) + 4} className="fill-[var(--muted)] text-[12px]">
        baseline
      </text>
      <path d={path} fill="none" strokeWidth={2} className="stroke-[var(--color-primary)]" />
      {analysis.changes.map((one) => (
        <g key={one.gapMin}>
          <line
            x1={x(one.gapMin)}
            x2={x(one.gapMin)}
            y1={y(one.change - one.error)}
            y2={y(one.change + one.error)}
            className="stroke-current"
          />
          <circle cx={x(one.gapMin)} cy={y(one.change)} r={4} className="fill-current" />
          <text
            x={x(one.gapMin)}
            y={height - 4}
            textAnchor="middle"
            className="fill-[var(--muted)] text-[12px]"
          >
            {gapWords(one.gapMin)}
          </text>
        </g>
      ))}
    </svg>
  );
}
