import { describeSide } from "../../core/barload/load";
import { type Mass, massKg, plainNumber } from "../../core/units/mass";

/** Height of a plate against the largest (450 mm for 20 kg and over), by its mass. */
function plateHeight(mass: Mass): number {
  const kg = massKg(mass);
  if (kg >= 19) return 1;
  if (kg >= 14) return 0.88;
  if (kg >= 9) return 0.72;
  if (kg >= 4) return 0.55;
  if (kg >= 2) return 0.44;
  return 0.36;
}

function plateWidth(mass: Mass): number {
  return Math.max(16, Math.min(36, 12 + massKg(mass)));
}

/** Numbers that do not fit on their plate stand above and below in turn, so that they never
 * meet. */
function outsideY(index: number, middle: number, plateHeight: number): number {
  return index % 2 === 0 ? middle - plateHeight / 2 - 5 : middle + plateHeight / 2 + 16;
}

const SHAFT = 150;
const COLLAR = 12;

/**
 * One sleeve in side view, plates to scale with their number on them; plates that have to go on
 * for this lifter are drawn in the accent.
 */
export function LoadedBar({
  side,
  added,
  width = 640,
  height = 150,
}: {
  side: readonly Mass[];
  /** How many plates, from the outside in, are new since the lifter before. */
  added: number;
  width?: number;
  height?: number;
}) {
  const middle = height / 2;
  const largest = height - 44;
  let x = SHAFT + COLLAR + 3;
  const drawn = side.map((mass, i) => {
    const w = plateWidth(mass);
    const h = largest * plateHeight(mass);
    const plate = { mass, x, w, h, fresh: i >= side.length - added };
    x += w + 3;
    return plate;
  });
  const words = side.length === 0 ? "Empty bar." : `Each side, inside out: ${describeSide(side)}.`;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="block w-full"
      style={{ height }}
      role="img"
      aria-label={words}
      preserveAspectRatio="xMinYMid meet"
    >
      <rect x={0} y={middle - 5} width={SHAFT} height={10} className="fill-iron" />
      <rect x={SHAFT} y={middle - 14} width={COLLAR} height={28} className="fill-iron" />
      <rect
        x={SHAFT + COLLAR}
        y={middle - 8}
        width={width - SHAFT - COLLAR - 4}
        height={16}
        className="fill-iron-soft"
      />
      {drawn.map((plate, i) => {
        const text = plainNumber(plate.mass.amount, 3);
        const inside = plate.w >= 26 && text.length < 4;
        return (
          <g
            // biome-ignore lint/suspicious/noArrayIndexKey: the place on the sleeve is the identity
            key={i}
          >
            <rect
              x={plate.x}
              y={middle - plate.h / 2}
              width={plate.w}
              height={plate.h}
              rx={3}
              className={plate.fresh ? "fill-primary" : "fill-iron"}
            />
            <text
              x={plate.x + plate.w / 2}
              y={inside ? middle + 5 : outsideY(i, middle, plate.h)}
              textAnchor="middle"
              className={`text-[16px] font-bold ${inside ? "fill-base-100" : "fill-base-content"}`}
            >
              {text}
            </text>
          </g>
        );
      })}
      <rect x={x + 1} y={middle - 15} width={12} height={30} rx={2} className="fill-secondary" />
    </svg>
  );
}
