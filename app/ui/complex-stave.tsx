import { type Complex, complexStave, complexTotals } from "../../core/contrast/complex";
import { formatClock } from "../../core/units/time";

const WIDTH = 900;
const LEFT = 150;
const LINE_H = 30;
const TOP = 20;

/** A complex drawn to time: a line an item, a block a set, gaps and rests to scale. */
export function ComplexStave({ complex }: { complex: Complex }) {
  const blocks = complexStave(complex);
  const { lengthS } = complexTotals(complex);
  const scale = (WIDTH - LEFT - 10) / Math.max(1, lengthS);
  const x = (s: number) => LEFT + s * scale;
  const height = TOP + LINE_H * complex.items.length + 22;
  const stepS = lengthS > 1500 ? 300 : lengthS > 500 ? 120 : 60;
  const ticks = Array.from({ length: Math.floor(lengthS / stepS) + 1 }, (_, i) => i * stepS);
  const cut = (name: string) => (name.length > 21 ? `${name.slice(0, 20)}…` : name);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="w-full"
      role="img"
      aria-label={`${complex.name} to time: ${complex.rounds} rounds of ${complex.items.length} items, ${formatClock(lengthS)} long`}
    >
      {ticks.map((s) => (
        <g key={s}>
          <line
            x1={x(s)}
            x2={x(s)}
            y1={TOP - 4}
            y2={height - 18}
            className="stroke-[var(--faint)]"
          />
          <text
            x={x(s)}
            y={height - 4}
            textAnchor="middle"
            className="fill-[var(--muted)] text-[12px]"
          >
            {formatClock(s)}
          </text>
        </g>
      ))}
      {Array.from({ length: complex.rounds }, (_, i) => {
        const first = blocks.find((one) => one.round === i + 1 && one.item === 0);
        return first ? (
          <text
            // biome-ignore lint/suspicious/noArrayIndexKey: the round is the identity
            key={i}
            x={x(first.startS)}
            y={12}
            className="fill-[var(--muted)] text-[12px]"
          >
            {complex.rounds <= 8 ? `round ${i + 1}` : i + 1}
          </text>
        ) : null;
      })}
      {complex.items.map((item, i) => {
        const y = TOP + i * LINE_H;
        return (
          <g key={item.id}>
            <text x={0} y={y + 19} className="fill-current text-[13px]">
              <title>{item.name}</title>
              {cut(item.name)}
            </text>
            <line
              x1={LEFT}
              x2={WIDTH - 8}
              y1={y + LINE_H - 4}
              y2={y + LINE_H - 4}
              className="stroke-[var(--color-base-300)]"
            />
            {blocks
              .filter((one) => one.item === i)
              .map((one) => (
                <g key={one.round}>
                  <rect
                    x={x(one.startS)}
                    y={y + (item.kind === "lift" ? 4 : 10)}
                    width={Math.max(2, one.lengthS * scale)}
                    height={item.kind === "lift" ? LINE_H - 8 : LINE_H - 14}
                    className={
                      item.kind === "lift" ? "fill-[var(--iron)]" : "fill-[var(--color-primary)]"
                    }
                  >
                    <title>{`Round ${one.round}: ${item.name}, ${item.reps}${item.kind === "sprint" ? " m" : item.sides ? " a side" : ""} at ${formatClock(one.startS)}`}</title>
                  </rect>
                </g>
              ))}
          </g>
        );
      })}
    </svg>
  );
}
