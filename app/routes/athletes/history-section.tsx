import { Link } from "react-router";
import { formatKg, formatMass } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { Dated, Day } from "../../ui/dates";
import { useUnit } from "../../ui/unit";
import type { AthletePage } from "./page-data";

/** What came before: profile tests, calls on the day, sessions, imported sets, body mass. */
export function HistorySection({ data }: { data: AthletePage }) {
  const unit = useUnit();
  const tests = data.lifts.flatMap((lift) =>
    lift.tests.map((test) => ({ ...test, liftName: lift.name })),
  );
  return (
    <section id="history" aria-labelledby="history-title" className="mb-6 scroll-mt-24">
      <h2 id="history-title" className="border-b border-rule pb-1">
        History
      </h2>
      <div className="grid gap-x-8 md:grid-cols-2">
        <div>
          <h3 className="pt-2 font-bold">Profile tests</h3>
          <ul>
            {tests.map((test) => (
              <li key={test.id} className="border-b border-faint py-1">
                <Link className="underline" to={`/athletes/${data.person.id}/profiles/${test.id}`}>
                  <Day of={test.date} />
                </Link>{" "}
                {test.liftName}
                <span className="text-muted">
                  {" "}
                  {test.metric}
                  {test.oneRmKg === undefined ? "" : `, 1RM ${formatKg(test.oneRmKg, unit, 1)}`}
                </span>
              </li>
            ))}
          </ul>
          {data.decisions.length > 0 ? (
            <>
              <h3 className="pt-2 font-bold">Calls on the day</h3>
              <ul>
                {data.decisions.map((one) => (
                  <li key={one.id} className="border-b border-faint py-1">
                    <Day of={one.date} />: {formatKg(one.plannedKg, unit, 1)} planned,{" "}
                    {formatKg(one.proposedKg, unit, 1)} proposed, {formatKg(one.decidedKg, unit, 1)}{" "}
                    decided ({one.decision}
                    {one.reason ? `: ${one.reason}` : ""}), {one.by}
                  </li>
                ))}
              </ul>
            </>
          ) : null}
        </div>
        <div>
          <h3 className="pt-2 font-bold">Sessions of the squad</h3>
          <ul>
            {data.sessions.map((session) => (
              <li key={session.id} className="border-b border-faint py-1">
                <Link
                  className="underline"
                  to={
                    session.status === "running" ? `/floor/${session.id}` : `/review/${session.id}`
                  }
                >
                  <Day of={session.date} />
                </Link>{" "}
                {session.title}
              </li>
            ))}
          </ul>
          {data.earlier.length > 0 ? (
            <>
              <h3 className="pt-2 font-bold">Before Sprezza, imported</h3>
              <ul aria-label="Before Sprezza">
                {data.earlier.map((one) => (
                  <li key={one.id} className="border-b border-faint py-1">
                    <Day of={one.date} /> {one.lift}
                    <span className="text-muted">
                      {" "}
                      {one.sets} × {one.reps} @ {formatMass(one.load)}
                      {one.velocityMps === null ? "" : `, ${formatVelocity(one.velocityMps)}`}
                    </span>
                  </li>
                ))}
              </ul>
            </>
          ) : null}
          {data.masses.length > 0 ? (
            <p className="pt-2 text-sm text-muted">
              Body mass:{" "}
              <Dated>
                {data.masses.map((one) => `${formatMass(one.mass)} ${one.date}`).join(", ")}
              </Dated>
            </p>
          ) : null}
        </div>
      </div>
    </section>
  );
}
