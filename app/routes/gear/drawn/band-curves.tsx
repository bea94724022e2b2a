import { Link } from "react-router";
import type { ItemOf } from "../../../../core/gear/kinds";
import { hermiteAt } from "../../../../core/numeric/hermite";
import { bandCurve } from "../../../../core/resistance/setup";
import { kgToGrains, massIn, plainNumber } from "../../../../core/units/mass";
import { useUnit } from "../../../ui/unit";

const SIZE = { width: 330, height: 170, left: 28, bottom: 18, right: 62 };
const TONES = ["stroke-primary", "stroke-secondary", "stroke-base-content", "stroke-iron"];
const DOTS = ["fill-primary", "fill-secondary", "fill-base-content", "fill-iron"];

/** Each band's pull over its length: readings as points, the curve through them. */
export function BandCurves({ bands }: { bands: ReadonlyArray<ItemOf<"band"> & { id: string }> }) {
  const unit = useUnit();
  const measured = bands.filter((band) => (band.values.readings?.length ?? 0) >= 2);
  const bare = bands.filter((band) => !measured.includes(band));
  const points = measured.flatMap((band) => band.values.readings ?? []);
  const lowM = Math.min(...points.map((one) => one.lengthM)) - 0.05;
  const highM = Math.max(...points.map((one) => one.lengthM)) + 0.05;
  const topKg = 1.1 * Math.max(...points.map((one) => one.tensionKg));
  const x = (m: number) =>
    SIZE.left + ((m - lowM) / (highM - lowM)) * (SIZE.width - SIZE.left - SIZE.right);
  const y = (kg: number) => 6 + (1 - kg / topKg) * (SIZE.height - SIZE.bottom - 6);
  const show = (kg: number) => plainNumber(massIn(kgToGrains(kg), unit), 1);
  const marks = [0, topKg / 2, topKg / 1.1].map((kg) => Math.round(kg));
  return (
    <div>
      <h2>
        Bands, drawn <span className="font-normal text-muted">pull of one, {unit} over m</span>
      </h2>
      {measured.length === 0 ? null : (
        <svg
          role="img"
          aria-label={`Pull over length. ${measured.map((band) => `${band.name}: ${(band.values.readings ?? []).map((one) => `${show(one.tensionKg)} ${unit} at ${plainNumber(one.lengthM, 2)} m`).join(", ")}`).join("; ")}.`}
          viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
          className="block w-full max-w-[360px] text-[11px]"
        >
          {marks.map((kg) => (
            <g key={kg}>
              <line
                x1={SIZE.left}
                x2={SIZE.width - SIZE.right}
                y1={y(kg)}
                y2={y(kg)}
                className="stroke-[var(--color-base-300)]"
              />
              <text
                x={SIZE.left - 4}
                y={y(kg) + 4}
                textAnchor="end"
                className="fill-[var(--muted)]"
              >
                {show(kg)}
              </text>
            </g>
          ))}
          {[lowM + 0.05, (lowM + highM) / 2, highM - 0.05].map((m) => (
            <text
              key={m}
              x={x(m)}
              y={SIZE.height - 4}
              textAnchor="middle"
              className="fill-[var(--muted)]"
            >
              {plainNumber(m, 2)}
            </text>
          ))}
          {measured.map((band, i) => {
            const readings = band.values.readings ?? [];
            const curve = bandCurve({ readings, restM: band.values.rest });
            const from = readings[0]?.lengthM ?? 0;
            const to = readings.at(-1)?.lengthM ?? 0;
            const last = readings.at(-1);
            return (
              <g key={band.id}>
                {curve.ok ? (
                  <polyline
                    points={Array.from({ length: 31 }, (_, k) => {
                      const m = from + ((to - from) * k) / 30;
                      return `${x(m).toFixed(1)},${y(hermiteAt(curve.curve, m)).toFixed(1)}`;
                    }).join(" ")}
                    className={`fill-none ${TONES[i % TONES.length]}`}
                    strokeWidth={1.8}
                  />
                ) : null}
                {readings.map((one) => (
                  <circle
                    key={one.lengthM}
                    cx={x(one.lengthM)}
                    cy={y(one.tensionKg)}
                    r={2.8}
                    className={DOTS[i % DOTS.length]}
                  />
                ))}
                {last ? (
                  <text
                    x={x(last.lengthM) + 6}
                    y={y(last.tensionKg) + 4}
                    className="fill-base-content"
                  >
                    {band.name.replace(/ band$/i, "")}
                  </text>
                ) : null}
              </g>
            );
          })}
        </svg>
      )}
      {bare.map((band) => (
        <p key={band.id} className="text-sm text-secondary">
          {band.name}: not measured{band.values.label ? `, the shop says ${band.values.label}` : ""}
          .{" "}
          <Link to={`?item=${band.id}`} replace preventScrollReset className="underline">
            Measure it
          </Link>
        </p>
      ))}
    </div>
  );
}
