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
                {speeds.map((mps, i) => {
                  const last = i === speeds.length - 1;
                  const under = set.target && mps < set.target.lowMps;
                  return (
                    <line
                      // biome-ignore lint/suspicious/noArrayIndexKey: reps keep their places
                      key={i}
                      x1={along(scale, mps)}
                      x2={along(scale, mps)}
                      y1={last ? 2 : rowPx / 2}
                      y2={rowPx - 3}
                      className={under ? "stroke-accent" : "stroke-base-content"}
                      strokeWidth={last ? 2.5 : 1.5}
                    />
                  );
                })}
              </svg>
            ) : null}
          </div>
        );
      })}
    </div>
  );
}
