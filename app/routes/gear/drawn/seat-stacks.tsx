import { Link } from "react-router";
import { plainNumber } from "../../../../core/units/mass";

export interface SeatOf {
  athleteId: string;
  name: string;
  wantedCm: number;
  heightCm: number;
  baseCm: number;
  baseName: string;
  matsCm: number[];
  offCm: number;
  fits: boolean;
}

/** px a cm */
const SCALE = 2;
const COLUMN = 46;

/** Box and mats as they are built for each who trains here, to scale, the lowest first. */
export function SeatStacks({ seats }: { seats: readonly SeatOf[] }) {
  if (seats.length === 0)
    return (
      <div>
        <h2>Boxes and mats, built</h2>
        <p className="text-muted">
          Nobody who trains here has a trial seat yet: no height is assumed.
        </p>
      </div>
    );
  const top = Math.max(...seats.map((one) => one.heightCm)) * SCALE + 18;
  const misses = seats.filter((one) => !one.fits);
  return (
    <div className="min-w-0">
      <h2>
        Boxes and mats, built{" "}
        <span className="font-normal text-muted">for each who trains here, cm</span>
      </h2>
      <ul className="flex overflow-x-auto">
        {seats.map((one) => (
          <li
            key={one.athleteId}
            style={{ width: COLUMN }}
            className="shrink-0 text-center text-sm"
          >
            <Link to={`/athletes/${one.athleteId}/box`} className="block hover:bg-base-200">
              <Stack seat={one} top={top} />
              <span className="block truncate font-medium">{one.name.split(" ")[0]}</span>
              <span className={one.fits ? "text-muted" : "font-medium text-accent"}>
                {plainNumber(one.wantedCm, 1)}
                <span className="block">
                  {one.offCm > 0 ? "+" : one.offCm < 0 ? "−" : ""}
                  {plainNumber(Math.abs(one.offCm), 1)}
                </span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
      <p className="text-sm text-muted">Under each: wanted, and how far the stack is off.</p>
      {misses.length > 0 ? (
        <p className="text-sm text-secondary">
          ▲ Nothing fits {misses.map((one) => one.name.split(" ")[0]).join(", ")}: wanted{" "}
          {[...new Set(misses.map((one) => plainNumber(one.wantedCm, 1)))].join(", ")} cm. Another
          box, or mats, would.
        </p>
      ) : null}
    </div>
  );
}

function Stack({ seat, top }: { seat: SeatOf; top: number }) {
  const floor = top;
  let y = floor - seat.baseCm * SCALE;
  return (
    <svg
      role="img"
      aria-label={`${seat.name}: ${seat.baseName} at ${plainNumber(seat.baseCm, 1)} cm and ${seat.matsCm.length} mats make ${plainNumber(seat.heightCm, 1)} cm, wanted ${plainNumber(seat.wantedCm, 1)}.`}
      viewBox={`0 0 ${COLUMN} ${top + 2}`}
      width={COLUMN}
      height={top + 2}
      className="block text-[11px]"
    >
      <line x1={0} x2={COLUMN} y1={floor} y2={floor} className="stroke-base-content" />
      <rect
        x={9}
        y={y}
        width={28}
        height={floor - y}
        className={`fill-none ${seat.fits ? "stroke-base-content" : "stroke-accent"}`}
        strokeWidth={1.5}
      />
      {seat.matsCm.map((thick, i) => {
        const height = Math.max(1.6, thick * SCALE);
        y -= height;
        return (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: mats, from the box up
            key={i}
            x={9}
            y={y}
            width={28}
            height={height - 0.6}
            className="fill-secondary"
          />
        );
      })}
      <path
        d={`M39 ${floor - seat.wantedCm * SCALE}h7`}
        className="stroke-primary"
        strokeWidth={2}
      />
      <text x={23} y={y - 4} textAnchor="middle" className="fill-base-content font-bold">
        {plainNumber(seat.heightCm, 1)}
      </text>
    </svg>
  );
}
