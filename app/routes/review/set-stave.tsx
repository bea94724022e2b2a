import type { SetSum } from "../../../core/review/set-working";
import { formatKg } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { useUnit } from "../../ui/unit";

const HEIGHT = 40;
const BLOCK_S = 12;
const PX_PER_S = 0.55;
const LEAST_GAP_S = 8;

/**
 * One athlete's sets as they were done: a block a set, its height the load, the gap before it the rest to
 * scale; a rest that was shorter than asked is marked. A rest that no clock measured is drawn dashed.
 */
export function SetStave({
  sets,
  rest,
  mostKg,
}: {
  sets: readonly SetSum[];
  rest: { leastS: number; mostS: number };
  mostKg: number;
}) {
  const unit = useUnit();
  let x = 2;
  const drawn = sets.map((set, i) => {
    const restS = i === 0 ? undefined : set.rest?.seconds;
    const gap = i === 0 ? 0 : Math.max(LEAST_GAP_S, restS ?? rest.leastS) * PX_PER_S;
    const from = x;
    x += gap;
    const at = x;
    x += BLOCK_S * PX_PER_S;
    return { set, restS, from, at, i };
  });
  const words = drawn
    .map(
      ({ set, restS }) =>
        `${set.number}: ${set.loadKg === undefined ? "no load" : formatKg(set.loadKg, unit, 1)}${restS === undefined ? "" : ` after ${formatClock(restS)}`}${set.cut ? ", cut" : ""}`,
    )
    .join("; ");
  return (
    <svg
      role="img"
      aria-label={`Sets and rests to scale: ${words}`}
      width={Math.max(60, x + 4)}
      height={HEIGHT}
      viewBox={`0 0 ${Math.max(60, x + 4)} ${HEIGHT}`}
      preserveAspectRatio="xMinYMid meet"
      className="block text-[11px] tabular-nums print:w-[340px]"
    >
      <line
        x1={0}
        x2={x + 2}
        y1={HEIGHT - 12}
        y2={HEIGHT - 12}
        className="stroke-[var(--color-base-300)]"
      />
      {drawn.map(({ set, restS, from, at, i }) => {
        const tall = 6 + ((set.loadKg ?? 0) / Math.max(1, mostKg)) * (HEIGHT - 22);
        const short = restS !== undefined && restS < rest.leastS - 1;
        return (
          <g key={set.key}>
            {i > 0 ? (
              <line
                x1={from + 1}
                x2={at - 1}
                y1={HEIGHT - 16}
                y2={HEIGHT - 16}
                strokeDasharray={set.rest?.measured ? undefined : "3 2"}
                className={short ? "stroke-accent" : "stroke-[var(--muted)]"}
                strokeWidth={short ? 2 : 1}
              />
            ) : null}
            {short ? (
              <text x={(from + at) / 2} y={HEIGHT - 1} textAnchor="middle" className="fill-accent">
                short
              </text>
            ) : null}
            <rect
              x={at}
              y={HEIGHT - 12 - tall}
              width={BLOCK_S * PX_PER_S}
              height={tall}
              className={set.standing === "under" ? "fill-accent" : "fill-base-content"}
            />
            {set.cut ? (
              <path d={`M${at - 1} 2l8 8m0 -8l-8 8`} className="stroke-accent" strokeWidth={1.5} />
            ) : null}
          </g>
        );
      })}
    </svg>
  );
}
