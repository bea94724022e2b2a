import type { LoadVelocityLine } from "../../../core/profile/line";
import { formatVelocity } from "../../../core/units/velocity";

const W = 420;
const H = 200;
const LEFT = 40;
const BASE = H - 26;

/** The points of one test and their line. */
export function ProfilePicture({
  profile,
}: {
  profile: {
    testedOn: string;
    line: LoadVelocityLine;
    points: Array<{ loadKg: number; velocityMps: number }>;
    source: string;
  };
}) {
  const { line, points } = profile;
  const mostKg = Math.ceil((Math.max(...points.map((point) => point.loadKg)) * 1.15) / 20) * 20;
  const mostV =
    Math.ceil(Math.max(line.v0Mps, ...points.map((point) => point.velocityMps)) * 5) / 5;
  const x = (kg: number) => LEFT + (kg / mostKg) * (W - LEFT - 20);
  const y = (v: number) => BASE - (v / mostV) * (BASE - 8);
  const at = (kg: number) => Math.max(0, line.interceptMps + line.slopeMpsPerKg * kg);
  const step = mostKg > 120 ? 40 : 20;
  return (
    <>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="block w-full max-w-[460px]"
        role="img"
        aria-label={`Test of ${profile.testedOn}: ${points
          .map((point) => `${point.loadKg} kg ${formatVelocity(point.velocityMps)} m/s`)
          .join(", ")}`}
      >
        {Array.from({ length: Math.floor(mostKg / step) + 1 }, (_, i) => i * step).map((kg) => (
          <g key={kg}>
            <line x1={x(kg)} x2={x(kg)} y1={8} y2={BASE} className="stroke-faint" />
            <text x={x(kg)} y={BASE + 17} textAnchor="middle" className="fill-muted text-[12px]">
              {kg}
            </text>
          </g>
        ))}
        {Array.from({ length: Math.floor(mostV / 0.4) + 1 }, (_, i) => i * 0.4).map((v) => (
          <g key={v}>
            <line x1={LEFT} x2={W - 20} y1={y(v)} y2={y(v)} className="stroke-faint" />
            <text x={LEFT - 6} y={y(v) + 4} textAnchor="end" className="fill-muted text-[12px]">
              {v.toFixed(1)}
            </text>
          </g>
        ))}
        <line
          x1={x(0)}
          y1={y(at(0))}
          x2={x(mostKg)}
          y2={y(at(mostKg))}
          className="stroke-primary"
          strokeWidth={2}
        />
        {points.map((point) => (
          <circle
            key={point.loadKg}
            cx={x(point.loadKg)}
            cy={y(point.velocityMps)}
            r={4.5}
            className="fill-base-content"
          />
        ))}
      </svg>
      <p className="text-sm text-muted">
        {profile.testedOn} · {line.metric} in m/s over kg · fastest rep at each of {line.n} loads ·
        v = {line.interceptMps.toFixed(3)} − {Math.abs(line.slopeMpsPerKg).toFixed(5)} × load · R²{" "}
        {line.rSquared.toFixed(3)} · {profile.source} sensor
      </p>
    </>
  );
}
