import { formatKg, type MassUnit } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { Day } from "../../ui/dates";
import type { Route } from "./+types/card";

/** What the athlete's own last days came to: a line a lift, with a stroke for its best speed. */
export function CardPast({
  past,
  unit,
}: {
  past: Route.ComponentProps["loaderData"]["past"];
  unit: MassUnit;
}) {
  if (past.length === 0) return null;
  const most = Math.max(...past.map((one) => one.bestMps ?? 0), 0.1);
  return (
    <section aria-labelledby="card-past" className="mt-6">
      <h2 id="card-past">My last days</h2>
      <ul>
        {past.map((one) => (
          <li
            key={one.key}
            className="grid grid-cols-[4.2rem_1fr_auto] items-center gap-x-2 border-b border-faint py-1.5"
          >
            <span className="text-muted">
              <Day short of={one.date} />
            </span>
            <span className="min-w-0">
              <span className="block truncate">{one.lift.split(",")[0]}</span>
              <span className="block text-sm text-muted">
                {one.sets} {one.sets === 1 ? "set" : "sets"} to {formatKg(one.topKg, unit, 1)}
                {one.cut > 0 ? `, ${one.cut} ended early` : ""}
              </span>
            </span>
            {one.bestMps === undefined ? (
              <span className="text-sm text-muted">not measured</span>
            ) : (
              <span className="flex items-center gap-2">
                <span aria-hidden="true" className="block h-2 w-16 bg-base-200">
                  <span
                    className="block h-2 bg-primary"
                    style={{ width: `${(100 * one.bestMps) / most}%` }}
                  />
                </span>
                <b>{formatVelocity(one.bestMps)}</b>
                <span className="sr-only"> metres a second at best</span>
              </span>
            )}
          </li>
        ))}
      </ul>
      <p className="text-sm text-muted">Best speed of each lift and day, m/s.</p>
    </section>
  );
}
