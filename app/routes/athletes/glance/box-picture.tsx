import { plainNumber } from "../../../../core/units/mass";
import type { BoxSummary } from "../../../workflows/athletes/box-summary.server";

type Drawn = NonNullable<BoxSummary["drawn"]>;

/** px a cm */
const SCALE = 0.95;
const WIDTH = 172;
const HEIGHT = 108;
/** A box is about so deep, and a foot so long, cm: what is not measured of them. */
const BOX_DEPTH_CM = 40;
const FOOT_CM = 27;
/** Trunk and shank as drawn, cm. */
const TRUNK_CM = 48;

/** The seat as it is built, to scale: from the side, and from above with the heels' distance. */
export function BoxPicture({ drawn }: { drawn: Drawn }) {
  const floor = HEIGHT - 6;
  const cm = (value: number) => value * SCALE;
  const boxRight = WIDTH - 8;
  const boxLeft = boxRight - cm(BOX_DEPTH_CM);
  const seat = floor - cm(drawn.heightCm);
  const heel = boxLeft - cm(drawn.heelCm ?? 12);
  const hip = { x: boxLeft + cm(14), y: seat - cm(7) };
  const knee = { x: heel - cm(4), y: floor - cm(drawn.kneeCm + 5) };
  const shoulder = { x: hip.x - cm(TRUNK_CM * 0.5), y: hip.y - cm(TRUNK_CM * 0.86) };
  let top = floor - cm(drawn.baseCm);
  const words = `Seat of ${plainNumber(drawn.heightCm, 1)} cm: ${drawn.baseName} at ${plainNumber(drawn.baseCm, 1)} cm and ${drawn.matsCm.length} mats; knee height ${plainNumber(drawn.kneeCm, 1)} cm${drawn.heelCm === undefined ? "" : `; heels ${plainNumber(drawn.heelCm, 1)} cm before the box`}.`;
  return (
    <svg
      role="img"
      aria-label={words}
      viewBox={`0 0 ${WIDTH} ${HEIGHT + 48}`}
      className="block w-[172px] shrink-0 text-[11px]"
    >
      <line x1={2} x2={WIDTH - 2} y1={floor} y2={floor} className="stroke-base-content" />
      <rect
        x={boxLeft}
        y={top}
        width={boxRight - boxLeft}
        height={floor - top}
        className="fill-none stroke-base-content"
        strokeWidth={1.5}
      />
      <text
        x={(boxLeft + boxRight) / 2}
        y={(top + floor) / 2 + 4}
        textAnchor="middle"
        className="fill-base-content"
      >
        {plainNumber(drawn.baseCm, 1)}
      </text>
      {drawn.matsCm.map((thick, i) => {
        const height = Math.max(1.5, cm(thick));
        top -= height;
        return (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: mats, from the box up
            key={i}
            x={boxLeft}
            y={top}
            width={boxRight - boxLeft}
            height={height - 0.5}
            className="fill-secondary"
          />
        );
      })}
      <line
        x1={knee.x - 14}
        x2={boxRight}
        y1={floor - cm(drawn.kneeCm)}
        y2={floor - cm(drawn.kneeCm)}
        strokeDasharray="3 3"
        className="stroke-secondary"
      />
      <g className="fill-none stroke-primary" strokeWidth={4} strokeLinecap="round">
        <path
          d={`M${heel - cm(FOOT_CM * 0.6)} ${floor - 2}H${heel}M${heel - cm(3)} ${floor - 3}L${knee.x} ${knee.y}L${hip.x} ${hip.y}L${shoulder.x} ${shoulder.y}`}
        />
      </g>
      <circle cx={shoulder.x - 4} cy={shoulder.y - 11} r={7} className="fill-primary" />
      <circle
        cx={shoulder.x + 4}
        cy={shoulder.y - 3}
        r={4}
        className="fill-base-100 stroke-base-content"
        strokeWidth={1.5}
      />
      <FromAbove drawn={drawn} y={HEIGHT + 2} heel={heel} boxLeft={boxLeft} boxRight={boxRight} />
    </svg>
  );
}

/** From above: the box's edge, the heels before it, the toes turned out. */
function FromAbove({
  drawn,
  y,
  heel,
  boxLeft,
  boxRight,
}: {
  drawn: Drawn;
  y: number;
  heel: number;
  boxLeft: number;
  boxRight: number;
}) {
  const middle = y + 23;
  const foot = FOOT_CM * 0.9;
  return (
    <g>
      <rect
        x={boxLeft}
        y={middle - 19}
        width={boxRight - boxLeft}
        height={38}
        className="fill-none stroke-base-content"
      />
      {[-1, 1].map((side) => (
        <path
          key={side}
          d={`M${heel} ${middle + side * 15}l${-foot} ${side * 6}`}
          className="stroke-primary"
          strokeWidth={7}
          strokeLinecap="round"
        />
      ))}
      <path
        d={`M${heel + 3} ${middle}H${boxLeft - 2}`}
        className="stroke-secondary"
        strokeDasharray="2 2"
      />
      {drawn.heelCm === undefined ? null : (
        <text x={heel - 4} y={middle + 4} textAnchor="end" className="fill-secondary">
          {plainNumber(drawn.heelCm, 1)} cm
        </text>
      )}
    </g>
  );
}
