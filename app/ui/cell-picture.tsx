import type { Pattern } from "../../core/exercise/exercise";
import type { Slot } from "../../core/plan/block";
import type { BoardCell } from "../../core/plan/board";

/** How a set of a slot is drawn: a bar, or a mark for work that is no load over a way. */
export type Mark = "bar" | "dots" | "ring" | "arrow" | "box";

export function markFor(recipe: Slot["recipe"], pattern: Pattern | undefined): Mark {
  if (recipe.counts === "contacts") return "dots";
  if (recipe.counts === "metres") return "arrow";
  if (pattern === "throw") return "ring";
  if (pattern === "trunk") return "box";
  return "bar";
}

const WIDTH = 92;
const PLACE = 19;
/** % of the max that fills the height. */
const FULL_PERCENT = 100;
/** Height of a bar whose load is no share of a max, of the whole. */
const EVEN = 0.55;

/**
 * A slot's work of a week: a bar a set, width its reps, height its % of the max from 0, so that area is
 * work. Hollow top: bands or chains; cut foot: paused; slanted: lowered slowly; arrow: up to a top set.
 */
export function CellPicture({
  cell,
  mark,
  height,
  tone,
  was,
}: {
  cell: BoardCell;
  mark: Mark;
  /** px */
  height: number;
  tone: "primary" | "secondary" | "iron";
  /** As it was kept, where another is being tried: dashed outlines. */
  was?: BoardCell | undefined;
}) {
  if (cell.sets.length === 0) return null;
  const fill = { primary: "fill-primary", secondary: "fill-secondary", iron: "fill-iron" }[tone];
  const stroke = { primary: "stroke-primary", secondary: "stroke-secondary", iron: "stroke-iron" }[
    tone
  ];
  const bars = barsOf(cell, height);
  const before = was ? barsOf(was, height) : [];
  return (
    <svg
      aria-hidden="true"
      viewBox={`0 0 ${WIDTH} ${height}`}
      width="100%"
      height={height}
      preserveAspectRatio="xMinYMax meet"
      className="block"
    >
      {bars.map((bar) => (
        <SetMark
          key={bar.i}
          {...bar}
          mark={mark}
          base={height}
          fill={fill}
          stroke={stroke}
          resisted={cell.resisted}
          paused={cell.paused}
          slow={cell.slow}
        />
      ))}
      {before.map((bar) => (
        <rect
          key={`was-${bar.i}`}
          x={bar.x}
          y={height - bar.h}
          width={bar.w}
          height={bar.h}
          className="fill-none stroke-muted"
          strokeDasharray="2 2"
        />
      ))}
    </svg>
  );
}

interface Bar {
  i: number;
  x: number;
  w: number;
  h: number;
  reps: number;
  top: boolean;
}

function barsOf(cell: BoardCell, height: number): Bar[] {
  const reps = cell.sets.reduce((sum, set) => sum + Math.max(1, set.reps), 0);
  const gap = cell.sets.length > 14 ? 0.6 : 1.6;
  // At the right stands the week's place in its cycle.
  const room = WIDTH - PLACE - gap * cell.sets.length - 2;
  // A rep is as wide everywhere, unless the week holds too many of them.
  const perRep = Math.min(3.2, room / Math.max(1, reps));
  let x = 1;
  return cell.sets.map((set, i) => {
    const w = Math.max(1, perRep * Math.max(1, set.reps));
    const share = set.percent === undefined ? EVEN : Math.max(0.06, set.percent / FULL_PERCENT);
    const bar = { i, x, w, h: Math.min(1, share) * (height - 3), reps: set.reps, top: set.top };
    x += w + gap;
    return bar;
  });
}

function SetMark({
  x,
  w,
  h,
  reps,
  top,
  mark,
  base,
  fill,
  stroke,
  resisted,
  paused,
  slow,
}: Bar & {
  mark: Mark;
  base: number;
  fill: string;
  stroke: string;
  resisted: boolean;
  paused: boolean;
  slow: boolean;
}) {
  const middle = base - 6;
  if (mark === "dots") {
    const dots = Math.min(10, Math.max(1, reps));
    return (
      <>
        {Array.from({ length: dots }, (_, i) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: the place is the identity
            key={i}
            cx={x + (w * (i + 0.5)) / dots}
            cy={middle}
            r={Math.min(1.5, w / dots / 2.2)}
            className={fill}
          />
        ))}
      </>
    );
  }
  if (mark === "ring")
    return (
      <circle
        cx={x + w / 2}
        cy={middle}
        r={3}
        className={`fill-none ${stroke}`}
        strokeWidth={1.4}
      />
    );
  if (mark === "arrow")
    return (
      <path
        d={`M${x} ${middle}h${Math.max(4, w - 2)}m-3 -3l3 3l-3 3`}
        className={`fill-none ${stroke}`}
        strokeWidth={1.4}
      />
    );
  if (mark === "box")
    return (
      <rect
        x={x}
        y={middle - 3}
        width={w}
        height={6}
        className={`fill-none ${stroke}`}
        strokeWidth={1.2}
      />
    );
  const foot = paused ? 2.5 : 0;
  const y = base - h;
  const slant = slow ? Math.min(3, w / 2) : 0;
  return (
    <>
      <path
        d={`M${x} ${base - foot}L${x + slant} ${y}H${x + w}V${base - foot}Z`}
        className={fill}
      />
      {paused ? <rect x={x} y={base - 1.2} width={w} height={1.2} className={fill} /> : null}
      {resisted ? (
        <rect
          x={x + 0.8}
          y={y + 0.8}
          width={Math.max(0.6, w - 1.6)}
          height={3}
          className="fill-base-100"
        />
      ) : null}
      {top ? (
        <path
          d={`M${x + w / 2 - 3} ${Math.max(3, y)}l3 -3l3 3`}
          className={`fill-none ${stroke}`}
          strokeWidth={1.4}
        />
      ) : null}
    </>
  );
}
