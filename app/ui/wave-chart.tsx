/** The wave set by set over its real dates: a bar a set, height by percentage. */
export interface WaveColumn {
  title: string;
  date: string;
  sets: Array<{ key: string; percent: number; shade: number; label: string | undefined }>;
}

const HEIGHT = 132;
const BASE = 104;
const HEAD = 30;

export function WaveColumnPicture({
  column,
  least,
  most,
}: {
  column: WaveColumn;
  least: number;
  most: number;
}) {
  const width = 240;
  const slot = (width - 16) / Math.max(9, column.sets.length);
  const y = (percent: number) => BASE - ((percent - least) / (most - least)) * (BASE - HEAD);
  return (
    <svg
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="block w-full"
      role="img"
      aria-label={`${column.title}: ${column.sets.map((set) => `${set.percent} %`).join(", ")}`}
      preserveAspectRatio="none"
      style={{ height: HEIGHT }}
    >
      {column.sets.map((set, i) => (
        <g key={set.key}>
          <rect
            x={8 + i * slot}
            y={y(set.percent)}
            width={slot - 3}
            height={BASE - y(set.percent)}
            className="fill-primary"
            opacity={1 - 0.2 * set.shade}
          />
          {set.label ? (
            <text
              x={8 + i * slot + (slot - 3) / 2}
              y={y(set.percent) - 5}
              textAnchor="middle"
              className="fill-muted text-[12px]"
            >
              {set.label}
            </text>
          ) : null}
        </g>
      ))}
      <line x1={0} x2={width} y1={BASE} y2={BASE} className="stroke-rule" />
    </svg>
  );
}
