import { Link } from "react-router";
import { signedMps } from "../../../core/review/equal-load";
import { formatKg, plainNumber } from "../../../core/units/mass";
import { filmedWords, formatVelocity } from "../../../core/units/velocity";
import { idFrom } from "../../forms/primitives/id";
import { principalOf } from "../../platform/guard.server";
import { Day } from "../../ui/dates";
import { Empty, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { Figure, Figures } from "../../ui/working";
import { readTrends, type TrendsPage } from "../../workflows/review/read-trends.server";
import type { Route } from "./+types/trends";
import { ReviewNav } from "./review-nav";
import { MaxChart, SpeedChart } from "./trend-charts";
import { Ledgers, WeekTable } from "./trend-tables";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `Trends, ${loaderData?.athlete?.name ?? ""} · Sprezza` }];
}

export function loader({ context, url }: Route.LoaderArgs) {
  const get = (name: string) => idFrom(url.searchParams.get(name) ?? "");
  return readTrends(principalOf(context), {
    groupId: get("group"),
    athleteId: get("athlete"),
    variantId: get("lift"),
  });
}

type Athlete = NonNullable<TrendsPage["athlete"]>;

/** One athlete over the year: max, speed at one load, weeks, doses, what lay beside. */
export default function Trends({ loaderData }: Route.ComponentProps) {
  const { people, groups, groupId, athlete } = loaderData;
  const address = useAddress();
  if (!athlete)
    return (
      <Page title="Trends">
        <ReviewNav />
        <Empty>No athlete yet.</Empty>
      </Page>
    );
  return (
    <Page
      title={`${athlete.name}, ${athlete.lift?.name ?? "no lift yet"}`}
      facts={athlete.lift ? `${athlete.lift.days} days since ${athlete.lift.from}` : undefined}
      actions={
        <>
          <button type="button" className="btn no-print" onClick={() => window.print()}>
            Print
          </button>
          <Link className="btn no-print" to={`/athletes/${athlete.id}`}>
            Athlete
          </Link>
        </>
      }
      margin={
        athlete.recovery ? <Recovery athlete={athlete} recovery={athlete.recovery} /> : undefined
      }
    >
      <ReviewNav />
      <div className="no-print mb-3 flex flex-wrap items-end gap-4">
        <div className="w-48">
          <PageSelect
            label="Squad"
            value={groupId}
            onChange={(event) =>
              address.setAll({ group: event.target.value, athlete: "", lift: "" })
            }
          >
            {groups.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </PageSelect>
        </div>
        <div className="w-56">
          <PageSelect
            label="Athlete"
            value={athlete.id}
            onChange={(event) => address.setAll({ athlete: event.target.value, lift: "" })}
          >
            {people.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </PageSelect>
        </div>
        {athlete.lifts.length > 0 ? (
          <div className="w-72">
            <PageSelect
              label="Lift"
              value={athlete.lift?.variantId ?? ""}
              onChange={(event) =>
                address.setAll({ athlete: athlete.id, lift: event.target.value })
              }
            >
              {athlete.lifts.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </PageSelect>
          </div>
        ) : null}
      </div>
      {athlete.lift ? (
        <LiftTrend athlete={athlete} lift={athlete.lift} />
      ) : (
        <Empty>No lift was logged in the last year. Trends begin with the first session.</Empty>
      )}
      <WeekTable weeks={athlete.weeks} />
      <Ledgers weeks={athlete.weeks} />
    </Page>
  );
}

function LiftTrend({ athlete, lift }: { athlete: Athlete; lift: NonNullable<Athlete["lift"]> }) {
  const unit = useUnit();
  const { max, speed } = lift;
  return (
    <Figures label="Trends">
      <h2>
        Estimated max{" "}
        {max ? (
          <Figure id="trend/max" working={max.working}>
            {formatKg(max.now.estimate, unit, 1)}
          </Figure>
        ) : null}{" "}
        {max ? (
          <span className="text-base font-normal text-muted">
            90 % {formatKg(max.now.low, unit, 0)} to {formatKg(max.now.high, unit, 0)}
          </span>
        ) : null}
      </h2>
      <p className="text-sm text-muted">
        {lift.bySpeed
          ? "From each day's speeds by the newest profile, and from tested singles (diamonds); the curve drifts as maxes do, and widens in a pause."
          : "From tested singles alone: a profile test lets each day's speeds tell too."}
        {athlete.marks.length > 0 ? " Dotted: C competition, A away, P a new plan." : ""}
      </p>
      {max ? (
        <MaxChart lift={lift} marks={athlete.marks} />
      ) : (
        <p className="text-muted">No tested single and no profile: nothing to draw.</p>
      )}
      {speed ? (
        <>
          <h2 className="mt-4">
            Speed at {formatKg(speed.loadKg, unit, 1)}
            {filmedWords(speed)}
          </h2>
          <p>
            {signedMps(speed.perWave.estimate)} m/s a wave{" "}
            <span className="text-muted">
              (90 % {signedMps(speed.perWave.low)} to {signedMps(speed.perWave.high)};{" "}
              {plainNumber(100 * speed.chanceRises, 0)} % that it rises). Days differ by{" "}
              {formatVelocity(speed.daySdMps)} m/s; a set loses{" "}
              {formatVelocity(speed.fade.estimate)} on the one before it.
            </span>
          </p>
          <SpeedChart lift={lift} marks={athlete.marks} />
        </>
      ) : (
        <p className="mt-3 text-muted">Speed was measured on fewer than two days.</p>
      )}
      <details className="mt-2">
        <summary className="cursor-pointer text-muted">In figures</summary>
        <TrendTable lift={lift} />
      </details>
      {athlete.marks.length > 0 ? (
        <ul className="mt-2 text-sm">
          {athlete.marks.map((mark) => (
            <li key={mark.date + mark.kind + mark.words}>
              <span className="text-muted">
                <Day of={mark.date} />
              </span>{" "}
              {mark.kind}: {mark.words}
            </li>
          ))}
        </ul>
      ) : null}
    </Figures>
  );
}

function TrendTable({ lift }: { lift: NonNullable<Athlete["lift"]> }) {
  const unit = useUnit();
  const speeds = new Map(lift.speed?.days.map((day) => [day.date, day]));
  const maxes = new Map(lift.max?.days.map((day) => [day.date, day]));
  const days = [...new Set([...maxes.keys(), ...speeds.keys()])].sort();
  return (
    <table className="ledger">
      <thead>
        <tr>
          <th scope="col">Day</th>
          <th scope="col" className="!text-right">
            Max
          </th>
          <th scope="col">90 %</th>
          <th scope="col" className="!text-right">
            m/s
          </th>
        </tr>
      </thead>
      <tbody>
        {days.map((date) => {
          const max = maxes.get(date);
          const speed = speeds.get(date);
          return (
            <tr key={date}>
              <th scope="row">
                <Day of={date} />
              </th>
              <td className="text-right">{max ? formatKg(max.estimate, unit, 1) : ""}</td>
              <td>
                {max ? `${formatKg(max.low, unit, 0)} to ${formatKg(max.high, unit, 0)}` : ""}
              </td>
              <td className="text-right">{speed ? formatVelocity(speed.speedMps) : ""}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** Sleep and body mass beside heavy days: for who coaches, on no paper. */
function Recovery({
  athlete,
  recovery,
}: {
  athlete: Athlete;
  recovery: NonNullable<Athlete["recovery"]>;
}) {
  const unit = useUnit();
  const { sleep, masses } = recovery;
  const heavy = athlete.weeks.slice(-4).reduce((sum, week) => sum + week.heavyDays, 0);
  const slept = sleep.slice(0, 7);
  const mean = slept.reduce((sum, one) => sum + one.hours, 0) / Math.max(1, slept.length);
  const newest = masses[0];
  const oldest = masses.at(-1);
  return (
    <section aria-labelledby="recovery" className="no-print">
      <h2 id="recovery">Recovery beside heavy work</h2>
      <dl className="grid grid-cols-[1fr_auto] gap-x-3 gap-y-1">
        <dt>Heavy days, last 4 weeks</dt>
        <dd className="text-right font-bold">{heavy}</dd>
        <dt>Sleep, last {slept.length} notes</dt>
        <dd className="text-right">
          {slept.length > 0 ? `${plainNumber(mean, 1)} h` : "none noted"}
        </dd>
        <dt>Body mass</dt>
        <dd className="text-right">{newest ? formatKg(newest.kg, unit, 1) : "none noted"}</dd>
        {newest && oldest && newest !== oldest ? (
          <>
            <dt>
              since <Day of={oldest.date} />
            </dt>
            <dd className="text-right">
              {newest.kg >= oldest.kg ? "+" : "−"}
              {formatKg(Math.abs(newest.kg - oldest.kg), unit, 1)}
            </dd>
          </>
        ) : null}
        {athlete.lift?.max && newest ? (
          <>
            <dt>Max over body mass</dt>
            <dd className="text-right">
              {plainNumber(athlete.lift.max.now.estimate / newest.kg, 2)} ×
            </dd>
          </>
        ) : null}
      </dl>
      <p className="mt-2 text-sm text-muted">
        Evidence for you to weigh, and no medical advice. It stands on no print and in no file.
      </p>
    </section>
  );
}
