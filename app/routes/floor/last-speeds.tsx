import type { LifterState } from "../../../core/floor/lifter-state";
import type { SetState } from "../../../core/floor/set-state";
import type { StationState } from "../../../core/floor/stations";
import { formatVelocity } from "../../../core/units/velocity";

/** One velocity axis for the whole floor, m/s. */
export interface SpeedScale {
  lowMps: number;
  highMps: number;
}

const WIDTH = 96;
const PAD = 3;
const LEAST_SPAN_MPS = 0.4;

/** The set whose reps the floor draws: the one that runs, else the last that is done. */
function shownSet(one: LifterState): SetState | undefined {
  const all = [...one.ramp, ...one.sets];
  return (
    all.find((set) => set.stage === "running") ?? all.filter((set) => set.stage === "done").at(-1)
  );
}

const speedsOf = (set: SetState): number[] =>
  set.reps.flatMap((rep) => (rep.outcome === "counted" ? (rep.velocityMps ?? []) : []));

/** One scale for every lifter who is drawn, so that ticks over one another can be compared. */
export function scaleOf(stations: readonly StationState[]): SpeedScale | undefined {
  const values = stations.flatMap(({ work }) =>
    work.flatMap((one) =>
      one.kind === "lift"
        ? one.rack.lifters.flatMap((lifter) => {
            const set = shownSet(lifter);
            const speeds = set ? speedsOf(set) : [];
            return set && speeds.length > 0
              ? [...speeds, ...(set.target ? [set.target.lowMps, set.target.highMps] : [])]
              : [];
          })
        : [],
    ),
  );
  if (values.length === 0) return undefined;
  const lowMps = Math.max(0, Math.floor((Math.min(...values) - 0.02) * 10) / 10);
  const highMps = Math.ceil((Math.max(...values) + 0.02) * 10) / 10;
  return { lowMps, highMps: Math.max(highMps, lowMps + LEAST_SPAN_MPS) };
}

const along = (scale: SpeedScale, mps: number) =>
  PAD + ((mps - scale.lowMps) / (scale.highMps - scale.lowMps)) * (WIDTH - 2 * PAD);

/** The axis over the column: its two ends. */
export function SpeedAxis({ scale }: { scale: SpeedScale | undefined }) {
  return (
    <span className="flex justify-between pr-2" aria-hidden="true">
      {scale ? (
        <>
          <span>{scale.lowMps.toFixed(1)}</span>
          <span>{scale.highMps.toFixed(1)} m/s</span>
        </>
      ) : null}
    </span>
  );
}

/** The newest reps of each lifter of a rack, a line each: a tick a rep, the last one thick. */
export function LastSpeeds({
  lifters,
  scale,
  rowPx,
}: {
  lifters: readonly LifterState[];
  scale: SpeedScale | undefined;
  rowPx: number;
}) {
  return (
    <div className="max-sm:hidden">
      {lifters.map((one) => {
        const set = shownSet(one);
        const speeds = set ? speedsOf(set) : [];
        return (
          <div key={one.lifter.athleteId} style={{ height: rowPx }}>
            {scale && set && speeds.length > 0 ? (
              <svg
                viewBox={`0 0 ${WIDTH} ${rowPx}`}
                width={WIDTH}
                height={rowPx}
                role="img"
                aria-label={`${one.callName}: ${speeds.map(formatVelocity).join(", ")} m/s${set.target ? `, wanted ${formatVelocity(set.target.lowMps)} to ${formatVelocity(set.target.highMps)}` : ""}`}
              >
                {set.target ? (
                  <rect
                    x={along(scale, set.target.lowMps)}
                    width={along(scale, set.target.highMps) - along(scale, set.target.lowMps)}
                    y={2}
                    height={rowPx - 5}
                    className="fill-wash stroke-primary"
                    strokeWidth={0.5}
                  />
                ) : null}
                <line
                  x1={PAD}
                  x2={WIDTH - PAD}
                  y1={rowPx - 3}
                  y2={rowPx - 3}
                  className="stroke-control"
                  strokeWidth={0.5}
                />
                <Ticks speeds={speeds} lowMps={set.target?.lowMps} scale={scale} rowPx={rowPx} />
              </svg>
            ) : null}
          </div>
        );
      })}
    </div>
  );
}

/** The reps as two paths, on or over and under; the last one is drawn to its full height. */
function Ticks({
  speeds,
  lowMps,
  scale,
  rowPx,
}: {
  speeds: readonly number[];
  lowMps: number | undefined;
  scale: SpeedScale;
  rowPx: number;
}) {
  const pathOf = (isUnder: boolean) =>
    speeds
      .map((mps, i) => ({ mps, top: i === speeds.length - 1 ? 2 : rowPx / 2 }))
      .filter(({ mps }) => (lowMps !== undefined && mps < lowMps) === isUnder)
      .map(({ mps, top }) => `M${along(scale, mps).toFixed(1)} ${rowPx - 3}V${top}`)
      .join("");
  return (
    <>
      <path d={pathOf(false)} className="stroke-base-content" strokeWidth={2} />
      <path d={pathOf(true)} className="stroke-accent" strokeWidth={2} />
    </>
  );
}
