import { Link } from "react-router";
import { CYCLE_DECISION_NAMES, type CycleDecision } from "../../../core/review/box-cycle";
import type { CycleWeek } from "../../../core/review/cycle-week";
import { signedMps } from "../../../core/review/equal-load";
import { formatKg, type MassUnit, plainNumber } from "../../../core/units/mass";
import { formatPercent } from "../../../core/units/percent";
import { formatVelocity } from "../../../core/units/velocity";
import { Dated, Day } from "../../ui/dates";
import { useUnit } from "../../ui/unit";
import type { BoxCyclePage } from "../../workflows/review/box-cycle.server";

type Cycle = NonNullable<BoxCyclePage["cycle"]>;

export const VERDICTS = { rose: "rose", fell: "fell", "within-noise": "within noise" };

/** One athlete's cycle, a line a week. */
export function WeekTable({
  weeks,
  unit,
  smallestStopS,
}: {
  weeks: readonly CycleWeek[];
  unit: MassUnit;
  smallestStopS: number | undefined;
}) {
  return (
    <div className="mt-2 overflow-x-auto">
      <table className="ledger">
        <thead>
          <tr>
            {[
              "Week",
              "Date",
              "Box",
              "Sets",
              "Load",
              "Speed",
              "Fade",
              "Stop",
              "Contact",
              "Faults",
            ].map((name) => (
              <th key={name} scope="col">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {weeks.map((one) => (
            <tr key={one.date}>
              <th scope="row" className="!text-base-content">
                {one.week}
                {one.kind === "work" ? "" : `, ${one.kind}`}
              </th>
              <td className="whitespace-nowrap">
                <Day of={one.date} />
              </td>
              {one.present ? (
                <>
                  <td className="min-w-28">
                    {one.heightCm === undefined ? "–" : `${plainNumber(one.heightCm, 1)} cm`}
                    {one.style ? <span className="block text-sm text-muted">{one.style}</span> : ""}
                  </td>
                  <td className="whitespace-nowrap">
                    {one.doneSets} of {one.plannedSets}
                    {one.cutSets > 0 ? (
                      <span className="block text-sm text-accent">{one.cutSets} cut</span>
                    ) : null}
                  </td>
                  <td className="whitespace-nowrap">
                    {one.loadKg === undefined ? "–" : formatKg(one.loadKg, unit)}
                    {one.percent === undefined ? null : (
                      <span className="block text-sm text-muted">{formatPercent(one.percent)}</span>
                    )}
                  </td>
                  <td className="whitespace-nowrap">
                    {one.speedMps === undefined
                      ? "not measured"
                      : `${formatVelocity(one.speedMps)} m/s`}
                    {one.judged > 0 ? (
                      <span className="block text-sm text-muted">
                        on speed {one.onSpeed} of {one.judged}
                      </span>
                    ) : null}
                  </td>
                  <td>{one.fadeMps === undefined ? "–" : signedMps(-one.fadeMps)}</td>
                  <td className="whitespace-nowrap">
                    {one.meanStopS === undefined ? "–" : `${one.meanStopS.toFixed(2)} s`}
                    {smallestStopS !== undefined && one.bounces !== undefined ? (
                      <span
                        className={`block text-sm ${one.bounces > 0 ? "text-accent" : "text-muted"}`}
                      >
                        {one.bounces === 0
                          ? "no bounce"
                          : `${one.bounces} under ${smallestStopS.toFixed(2)}`}
                      </span>
                    ) : null}
                  </td>
                  <td className="whitespace-nowrap">
                    {one.meanContactMps === undefined
                      ? "–"
                      : `${formatVelocity(one.meanContactMps)} m/s`}
                    {one.meanToPeakS === undefined ? null : (
                      <span className="block text-sm text-muted">
                        peak after {one.meanToPeakS.toFixed(2)} s
                      </span>
                    )}
                  </td>
                  <td>
                    {one.faults.map((fault) => `${fault.fault} × ${fault.times}`).join(", ") || "–"}
                  </td>
                </>
              ) : (
                <td colSpan={8} className="text-muted">
                  not there; {one.plannedSets} sets were planned
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Everybody of a cycle, a line each. */
export function Everybody({ page, cycle }: { page: BoxCyclePage; cycle: Cycle }) {
  const unit = useUnit();
  return (
    <section aria-labelledby="cycle-all" className="mt-6">
      <h2 id="cycle-all">Everybody in it</h2>
      <div className="overflow-x-auto">
        <table className="ledger">
          <thead>
            <tr>
              {["Athlete", "There", "Load", "Speed at equal load", "Cut", "Last faults"].map(
                (name) => (
                  <th key={name} scope="col">
                    {name}
                  </th>
                ),
              )}
              <th scope="col">Decided</th>
            </tr>
          </thead>
          <tbody>
            {page.people.map((one) => (
              <tr key={one.id}>
                <th scope="row">
                  <Link
                    className="underline"
                    to={`?plan=${cycle.planId}&slot=${cycle.slotId}&athlete=${one.id}`}
                    aria-current={one.id === page.athlete?.id ? "page" : undefined}
                  >
                    {one.name}
                  </Link>
                </th>
                <td>
                  {one.there} of {one.sessions}
                </td>
                <td className="whitespace-nowrap">
                  {one.fromKg === undefined || one.toKg === undefined
                    ? "–"
                    : `${formatKg(one.fromKg, unit, 1)} to ${formatKg(one.toKg, unit, 1)}`}
                </td>
                <td className="whitespace-nowrap">
                  {one.speed
                    ? `${signedMps(one.speed.changeMps)} m/s, ${VERDICTS[one.speed.verdict]}`
                    : "–"}
                </td>
                <td>{one.cut}</td>
                <td>{one.faults.join(", ") || "–"}</td>
                <td className="text-muted">
                  <Dated>
                    {one.decided
                      ? `${CYCLE_DECISION_NAMES[one.decided.decision as CycleDecision]}, ${one.decided.on}`
                      : "–"}
                  </Dated>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
