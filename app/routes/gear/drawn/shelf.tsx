import { Link } from "react-router";
import { type GearItem, ofKind } from "../../../../core/gear/kinds";
import { formatMass, grains, massKg } from "../../../../core/units/mass";

type Kept = GearItem & { id: string };

/** What stands on the shelf: hand weights by mass in their rack, jump and throw pieces by height. */
export function Shelf({ items }: { items: readonly Kept[] }) {
  const weights = [...ofKind(items, "weight")].sort(
    (a, b) => grains(a.values.mass) - grains(b.values.mass),
  );
  const pieces = ofKind(items, "jump");
  if (weights.length + pieces.length === 0) return null;
  return (
    <div className="flex flex-wrap items-end gap-x-6 gap-y-2 border-b border-rule py-2">
      {weights.length > 0 ? (
        <div>
          <h2>Hand weights, in their rack</h2>
          <ul className="flex flex-wrap items-end border-b-2 border-iron">
            {weights.map((one) => {
              const size = 10 + 5 * Math.cbrt(massKg(one.values.mass));
              return (
                <li key={one.id} className="px-1.5 text-center text-sm">
                  <Link to={`?item=${one.id}`} replace preventScrollReset className="block">
                    <svg
                      role="img"
                      aria-label={`${one.count} ${one.values.what}${one.count === 1 ? "" : "s"} of ${formatMass(one.values.mass)}`}
                      width={size * 1.6}
                      height={size}
                      className="mx-auto block"
                    >
                      {one.values.what === "dumbbell" ? (
                        <path
                          d={`M0 0h${size * 0.5}v${size}h-${size * 0.5}zM${size * 1.1} 0h${size * 0.5}v${size}h-${size * 0.5}zM${size * 0.5} ${size * 0.4}h${size * 0.6}v${size * 0.2}h-${size * 0.6}z`}
                          className="fill-iron"
                        />
                      ) : (
                        <>
                          <circle
                            cx={size * 0.8}
                            cy={size * 0.64}
                            r={size * 0.36}
                            className="fill-iron"
                          />
                          <path
                            d={`M${size * 0.55} ${size * 0.4}V${size * 0.06}h${size * 0.5}V${size * 0.4}`}
                            className="fill-none stroke-iron"
                            strokeWidth={2}
                          />
                        </>
                      )}
                    </svg>
                    {formatMass(one.values.mass)}
                    <span className="block text-muted">×{one.count}</span>
                  </Link>
                </li>
              );
            })}
          </ul>
        </div>
      ) : null}
      {pieces.length > 0 ? (
        <div>
          <h2>Jumps and throws, on the shelf</h2>
          <ul className="flex items-end gap-4 border-b-2 border-iron">
            {pieces.map((one) => (
              <li key={one.id} className="text-center text-sm">
                <Link to={`?item=${one.id}`} replace preventScrollReset className="block">
                  <PieceShape what={one.values.what} cm={one.values.height} />
                  <b>{one.count}</b> {one.name}
                </Link>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
    </div>
  );
}

function PieceShape({ what, cm }: { what: string; cm: number | undefined }) {
  const height = Math.max(14, Math.min(54, (cm ?? 22) * 0.7));
  const line = "fill-none stroke-iron";
  return (
    <svg aria-hidden="true" width={44} height={56} className="mx-auto block">
      {what === "throwing ball" ? (
        <circle cx={22} cy={42} r={11} className="fill-iron" />
      ) : what === "hurdle" ? (
        <path d={`M6 54V${56 - height}h32V54`} className={line} strokeWidth={3} />
      ) : what === "vest" ? (
        <path d="M12 54V24l6 -4v8h8v-8l6 4v30z" className={line} strokeWidth={2} />
      ) : what === "sled" ? (
        <path d="M4 54h36M10 54V30M4 42h12" className={line} strokeWidth={3} />
      ) : (
        <rect x={8} y={55 - height} width={28} height={height} className={line} strokeWidth={1.5} />
      )}
    </svg>
  );
}
