import { formatVelocity } from "../../core/units/velocity";

export interface StripRep {
  number: number;
  velocityMps: number;
}

export interface SpeedStripProps {
  reps: readonly StripRep[];
  target: { lowMps: number; highMps: number } | undefined;
  lossLineMps?: number;
  floorMps?: number;
  /** 24 px is a line in a table; from 80 px on it carries its axis and words. */
  height: number;
  width?: number;
  /** In words, for those who do not see the picture. */
  label: string;
  /** One scale for all strips of a view, m/s; by its own figures where left out. */
  scale?: { low: number; high: number };
}

/** An axis that holds some speeds with room beside them, m/s. */
export function scaleOf(values: readonly number[]): { low: number; high: number } {
  const low = Math.max(0, Math.floor((Math.min(...values, 1) - 0.08) * 10) / 10);
  return { low, high: Math.max(low + 0.4, Math.ceil((Math.max(...values, low) + 0.08) * 10) / 10) };
}

/**
 * One set on a velocity axis: a tick a rep in order (the later, the taller its number stands),
 * the wanted range, the loss line, the floor.
 */
export function SpeedStrip(props: SpeedStripProps) {
  const { reps, target, lossLineMps, floorMps, height, width = 640, label } = props;
  const full = height >= 80;
  const values = [
    ...reps.map((rep) => rep.velocityMps),
    ...(target ? [target.lowMps, target.highMps] : []),
    ...(lossLineMps === undefined ? [] : [lossLineMps]),
    ...(floorMps === undefined ? [] : [floorMps]),
  ];
  const { low, high } = props.scale ?? scaleOf(values);
  const pad = full ? 14 : 2;
  const x = (mps: number) => pad + ((mps - low) / (high - low)) * (width - 2 * pad);
  const axisY = full ? height - 26 : height - 3;
  const top = full ? 30 : 2;
  const crowded = reps.length > 4;
  const labels = spread(reps.map((rep) => ({ number: rep.number, x: x(rep.velocityMps) })));

  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="block w-full"
      style={{ height, maxWidth: full ? undefined : width }}
      role="img"
      aria-label={label}
      preserveAspectRatio={full ? "xMidYMid meet" : "xMinYMid meet"}
    >
      {target ? (
        <>
          <rect
            x={x(target.lowMps)}
            y={top}
            width={x(target.highMps) - x(target.lowMps)}
            height={axisY - top}
            className="fill-wash stroke-primary"
            strokeWidth={full ? 1 : 0.5}
          />
          {full ? (
            <text
              x={(x(target.lowMps) + x(target.highMps)) / 2}
              y={18}
              textAnchor="middle"
              className="fill-primary text-[16px] font-medium"
            >
              wanted {formatVelocity(target.lowMps)} to {formatVelocity(target.highMps)}
            </text>
          ) : null}
        </>
      ) : null}
      <line x1={pad} x2={width - pad} y1={axisY} y2={axisY} className="stroke-control" />
      {full
        ? axisTicks(low, high).map((tick) => (
            <g key={tick}>
              <line
                x1={x(tick)}
                x2={x(tick)}
                y1={axisY}
                y2={axisY + 5}
                className="stroke-control"
              />
              <text
                x={x(tick)}
                y={axisY + 21}
                textAnchor="middle"
                className="fill-muted text-[16px]"
              >
                {tick.toFixed(1)}
              </text>
            </g>
          ))
        : null}
      {lossLineMps !== undefined ? (
        <g>
          <line
            x1={x(lossLineMps)}
            x2={x(lossLineMps)}
            y1={top}
            y2={axisY}
            className="stroke-secondary"
            strokeWidth={full ? 2.5 : 1.5}
            strokeDasharray={full ? "3 4" : "2 2"}
          />
          {full ? (
            <text
              x={x(lossLineMps) - 6}
              y={top + 14}
              textAnchor="end"
              className="fill-secondary text-[16px]"
            >
              loss line
            </text>
          ) : null}
        </g>
      ) : null}
      {floorMps !== undefined ? (
        <g>
          <line
            x1={x(floorMps)}
            x2={x(floorMps)}
            y1={top}
            y2={axisY}
            className="stroke-accent"
            strokeWidth={full ? 2.5 : 1.5}
          />
          {full ? (
            <text
              x={x(floorMps) - 6}
              y={top + 32}
              textAnchor="end"
              className="fill-accent text-[16px]"
            >
              floor
            </text>
          ) : null}
        </g>
      ) : null}
      {full ? null : <SmallTicks reps={reps} target={target} x={x} axisY={axisY} height={height} />}
      {/* Later reps are taller and drawn first, so that an equal earlier one stays in sight. */}
      {(full ? [...reps.entries()].reverse() : []).map(([i, rep]) => {
        const under = target !== undefined && rep.velocityMps < target.lowMps;
        const rise = Math.min(axisY - top - 30, 26 + i * (crowded ? 8 : 14));
        const at = x(rep.velocityMps);
        const labelX = labels.get(rep.number) ?? at;
        return (
          <g key={rep.number} className={under ? "fill-accent" : "fill-base-content"}>
            <rect x={at - 4} y={axisY - rise} width={8} height={rise} className="stroke-base-100" />
            <line
              x1={at}
              y1={axisY - rise}
              x2={labelX}
              y2={top + 20}
              className={under ? "stroke-accent" : "stroke-base-content"}
              strokeWidth={1}
            />
            <text x={labelX} y={top + 15} textAnchor="middle" className="text-[16px] font-bold">
              {rep.number}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** The ticks of a strip in a table: one path for all of a kind, for a day has hundreds of strips. */
function SmallTicks({
  reps,
  target,
  x,
  axisY,
  height,
}: Pick<SpeedStripProps, "reps" | "target" | "height"> & {
  x: (mps: number) => number;
  axisY: number;
}) {
  const isUnder = (rep: StripRep) => target !== undefined && rep.velocityMps < target.lowMps;
  const path = (of: readonly StripRep[]) =>
    of.map((rep) => `M${x(rep.velocityMps).toFixed(1)} ${axisY}v${8 - height}`).join("");
  const under = reps.filter(isUnder);
  const others = reps.filter((rep) => !isUnder(rep));
  return (
    <>
      {others.length > 0 ? (
        <path d={path(others)} className="stroke-base-content" strokeWidth={3} />
      ) : null}
      {under.length > 0 ? <path d={path(under)} className="stroke-accent" strokeWidth={3} /> : null}
    </>
  );
}

/** Least distance between two rep numbers, px. */
const LABEL_GAP = 18;

/** Places for the reps' numbers near their ticks, in the ticks' order and never over another. */
export function spread(ticks: ReadonlyArray<{ number: number; x: number }>): Map<number, number> {
  const sorted = [...ticks].sort((a, b) => a.x - b.x || a.number - b.number);
  const places = sorted.map((tick) => tick.x);
  for (let pass = 0; pass < 8; pass++) {
    for (let i = 1; i < places.length; i++) {
      const short = LABEL_GAP - ((places[i] as number) - (places[i - 1] as number));
      if (short <= 0) continue;
      places[i] = (places[i] as number) + short / 2;
      places[i - 1] = (places[i - 1] as number) - short / 2;
    }
  }
  return new Map(sorted.map((tick, i) => [tick.number, places[i] as number]));
}

function axisTicks(low: number, high: number): number[] {
  const step = high - low > 1.2 ? 0.2 : 0.1;
  const ticks: number[] = [];
  for (let i = Math.ceil(low / step - 1e-6); i * step <= high + 1e-6; i++) {
    ticks.push(Math.round(i * step * 10) / 10);
  }
  return ticks;
}

/** "Reps 0.84, 0.86, 0.81 m/s; wanted 0.78 to 0.92." */
export function stripWords(
  reps: readonly StripRep[],
  target: { lowMps: number; highMps: number } | undefined,
): string {
  const speeds = reps.map((rep) => formatVelocity(rep.velocityMps)).join(", ");
  const wanted = target
    ? `wanted ${formatVelocity(target.lowMps)} to ${formatVelocity(target.highMps)}`
    : "wanted speed not set";
  return reps.length === 0 ? `No reps yet; ${wanted}.` : `Reps ${speeds} m/s; ${wanted}.`;
}
