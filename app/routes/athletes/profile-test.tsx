import { useMemo } from "react";
import { Link } from "react-router";
import { NOT_COMPARABLE } from "../../../core/profile/compare";
import { WAVE_RISE_MPS } from "../../../core/review/speed-trend";
import { formatKg, plainNumber } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { idFrom, idOrNone } from "../../forms/primitives/id";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Dated, Day } from "../../ui/dates";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { ForcePowerChart, ProfileChart } from "../../ui/profile-chart";
import { ProfileFigures } from "../../ui/profile-figures";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { Figure, Figures } from "../../ui/working";
import { changeExclusion, readProfileTest } from "../../workflows/athletes/profile-test.server";
import type { Route } from "./+types/profile-test";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `Profile, ${loaderData?.person.name ?? ""} · Sprezza` }];
}

export async function loader({ context, params, url }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const result = await readProfileTest(principal, {
    athleteId: params.athleteId,
    testId: params.testId,
    againstId: idOrNone(url.searchParams.get("against")),
  });
  if (!result.ok) throw notThere(result);
  return {
    ...result.value,
    mayEdit: mayWrite(principal, "/athletes/:athleteId/profiles/:testId"),
  };
}

export async function action({ request, context, params }: Route.ActionArgs) {
  const form = await readForm(request);
  const repId = idFrom(form.get("repId"));
  const result = await changeExclusion(principalOf(context), {
    ...params,
    repId,
    reason: form.get("intent") === "exclude" ? String(form.get("reason") ?? "") : undefined,
  });
  return result.ok
    ? { ok: true as const, repId }
    : { ok: false as const, repId, message: result.message };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

/** One profile test: its reps, its line, force and power, and another test set against it. */
export default function ProfileTestPage({ loaderData, actionData }: Route.ComponentProps) {
  const { person, variant, band, test, against, compared, others, days, trend, mayEdit } =
    loaderData;
  const points = useMemo(() => days.flatMap((day) => day.loads), [days]);
  const unit = useUnit();
  const address = useAddress();
  const { result, power } = test;
  return (
    <Page
      title={`Profile of ${test.date}`}
      facts={
        <>
          <Link className="underline" to={`/athletes/${person.id}`}>
            {person.name}
          </Link>
          {` · ${variant.name} · ${test.metric}, ${test.source} · by ${test.enteredBy}`}
        </>
      }
      actions={
        <Link className="btn" to={`/lab/profile?athlete=${person.id}&variant=${variant.id}`}>
          Test again
        </Link>
      }
    >
      <Figures label="Profile">
        <div className="grid gap-x-8 gap-y-3 xl:grid-cols-[3fr_2fr]">
          <div>
            <ProfileChart
              title={`${variant.name}, ${test.date}`}
              reps={test.reps}
              result={result}
              thresholdMps={test.threshold?.mps}
              drawnPx={545}
              earlier={
                against?.line
                  ? { date: against.date, line: against.line, used: against.used }
                  : undefined
              }
              days={points}
              height={300}
            />
            <p className="text-sm text-muted">
              Filled: the fastest of each load. Hollow: slower reps. Cross: left out. On the
              threshold the 95 % interval of the 1RM: thick the line only, thin for planning.
              <Dated>{against ? ` Dashed with squares: ${against.date}.` : ""}</Dated>
              {days.length > 0 ? " Triangles: the fastest of each load in training since." : ""}
            </p>
            {result.ok && power ? (
              <div className="mt-3 grid gap-4 sm:grid-cols-2">
                <section aria-labelledby="power-title">
                  <h2 id="power-title">
                    Power over load{power.peakPower.measured ? "" : ", estimated"}
                  </h2>
                  <ForcePowerChart power={power} line={result.line} what="power" />
                </section>
                {power.peakForce ? (
                  <section aria-labelledby="force-title">
                    <h2 id="force-title">Force over load</h2>
                    <ForcePowerChart power={power} line={result.line} what="force" />
                  </section>
                ) : null}
              </div>
            ) : null}
          </div>
          <div>
            <ProfileFigures
              id="test"
              result={result}
              threshold={test.threshold}
              power={power}
              band={band}
            />
            {others.length > 0 ? (
              <section aria-labelledby="against-title" className="mt-4">
                <h2 id="against-title">Set against another test</h2>
                <PageSelect
                  label="The other test"
                  value={against?.id ?? ""}
                  onChange={(event) => address.set("against", event.target.value)}
                >
                  {against ? null : <option value="">choose</option>}
                  {others.map((one) => (
                    <option key={one.id} value={one.id}>
                      <Day of={one.date} />, {one.metric}, {one.source}
                    </option>
                  ))}
                </PageSelect>
                {compared?.ok ? (
                  <>
                    <p className="mt-2 font-bold">
                      <Figure id="compare" working={compared.working}>
                        {compared.words}
                      </Figure>
                    </p>
                    <table className="ledger mt-1">
                      <thead>
                        <tr>
                          <th scope="col">At</th>
                          <th scope="col" className="!text-right">
                            Shift, m/s
                          </th>
                          <th scope="col" className="!text-right">
                            90 %
                          </th>
                          <th scope="col">So</th>
                        </tr>
                      </thead>
                      <tbody>
                        {compared.atLoads.map(({ loadKg, shift }) => (
                          <tr key={loadKg}>
                            <th scope="row">{formatKg(loadKg, unit, 1)}</th>
                            <td className="text-right">{signed(shift.estimate)}</td>
                            <td className="text-right text-muted">
                              {signed(shift.low)} to {signed(shift.high)}
                            </td>
                            <td>{shift.beyondNoise ? "beyond noise" : "within noise"}</td>
                          </tr>
                        ))}
                      </tbody>
                    </table>
                  </>
                ) : compared ? (
                  <p className="mt-2 text-muted">{NOT_COMPARABLE[compared.reason]}</p>
                ) : null}
              </section>
            ) : null}
          </div>
        </div>
      </Figures>
      <DaysSince days={days} trend={trend} metric={test.metric} />
      <Reps
        test={test}
        mayEdit={mayEdit}
        problem={
          actionData && !actionData.ok && "repId" in actionData
            ? { repId: actionData.repId, message: actionData.message }
            : undefined
        }
      />
    </Page>
  );
}

/** Every rep of the test, with whether it is in the line; a rep is left out with a reason. */
function Reps({
  test,
  mayEdit,
  problem,
}: {
  test: Route.ComponentProps["loaderData"]["test"];
  mayEdit: boolean;
  /** Why a rep could not be left out. */
  problem: { repId: string | undefined; message: string } | undefined;
}) {
  const unit = useUnit();
  const used = new Set(test.result.ok ? test.result.used.map((rep) => rep.id) : []);
  return (
    <section aria-labelledby="reps-title" className="mt-4">
      <h2 id="reps-title">Reps</h2>
      <div className="overflow-x-auto">
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col" className="!text-right">
                Load
              </th>
              <th scope="col" className="!text-right">
                {test.metric}, m/s
              </th>
              <th scope="col" className="!text-right">
                Force, N
              </th>
              <th scope="col" className="!text-right">
                Power, W
              </th>
              <th scope="col">In the line</th>
            </tr>
          </thead>
          <tbody>
            {test.reps.map((rep) => (
              <tr key={rep.id}>
                <td className="text-right">{formatKg(rep.loadKg, unit, 1)}</td>
                <td className="text-right font-bold">{formatVelocity(rep.velocityMps)}</td>
                <td className="text-right text-muted">
                  {rep.forceN === undefined ? "" : plainNumber(rep.forceN, 0)}
                </td>
                <td className="text-right text-muted">
                  {rep.powerW === undefined ? "" : plainNumber(rep.powerW, 0)}
                </td>
                <td>
                  {rep.excluded === undefined ? (
                    used.has(rep.id) ? (
                      "fastest of its load"
                    ) : (
                      <span className="text-muted">slower</span>
                    )
                  ) : (
                    <span className="text-accent">
                      left out by {rep.excludedBy}: {rep.excluded}
                    </span>
                  )}
                  {mayEdit ? (
                    <Exclude
                      repId={rep.id}
                      name={`${formatKg(rep.loadKg, unit, 1)} at ${formatVelocity(rep.velocityMps)}`}
                      excluded={rep.excluded !== undefined}
                      problem={problem?.repId === rep.id ? problem.message : undefined}
                    />
                  ) : null}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {test.note ? <Notice kind="note" title={test.note} /> : null}
    </section>
  );
}

/** What training has measured of the lift since the test: the line stays, a day is its shift. */
function DaysSince({
  days,
  trend,
  metric,
}: {
  days: Route.ComponentProps["loaderData"]["days"];
  trend: Route.ComponentProps["loaderData"]["trend"];
  metric: string;
}) {
  const unit = useUnit();
  if (days.length === 0) return null;
  return (
    <section aria-labelledby="days-title" className="mt-4">
      <h2 id="days-title">Measured in training since</h2>
      <p className="text-sm text-muted">
        Every counted rep of a day against this line, within its loads. The line is not moved by
        them; test again where the shift stays.
      </p>
      {trend?.ok ? (
        <Figures label="Trend">
          <p className="my-1">
            <Figure id="trend" working={trend.working}>
              {signed(trend.perWave.estimate)} m/s a wave
            </Figure>
            , 90 % {signed(trend.perWave.low)} to {signed(trend.perWave.high)}:{" "}
            <b>{TREND_WORDS[trend.verdict]}</b>, with a chance of{" "}
            {Math.round(100 * trend.chanceRises)} % that it rises. {settleWords(trend)}
          </p>
        </Figures>
      ) : null}
      <div className="overflow-x-auto">
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col">Day</th>
              <th scope="col">Fastest of each load, {metric}</th>
              <th scope="col" className="!text-right">
                Shift, m/s
              </th>
              <th scope="col" className="!text-right">
                90 %
              </th>
              <th scope="col">Source</th>
            </tr>
          </thead>
          <tbody>
            {days.map((day) => (
              <tr key={day.sessionId}>
                <th scope="row">
                  <Link className="underline" to={`/review/${day.sessionId}`}>
                    <Day of={day.date} />
                  </Link>
                </th>
                <td>
                  {day.loads
                    .map((one) => `${formatKg(one.loadKg, unit, 1)} ${formatVelocity(one.bestMps)}`)
                    .join(", ")}
                </td>
                <td className="text-right">
                  {day.shift ? signed(day.shift.estimate) : "tells nothing"}
                </td>
                <td className="text-right text-muted">
                  {day.shift ? `${signed(day.shift.low)} to ${signed(day.shift.high)}` : ""}
                </td>
                <td className="text-muted">{day.sources.join(", ")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

const TREND_WORDS = { rises: "it rises", falls: "it falls", unclear: "unclear" } as const;

/** When an unclear trend would be settled, in words. */
function settleWords({
  verdict,
  sessionsMore,
}: {
  verdict: string;
  sessionsMore?: number;
}): string {
  if (verdict !== "unclear" || sessionsMore === 0) return "";
  return sessionsMore === undefined
    ? "No number of weekly sessions would settle a usual rise."
    : `A true rise of ${WAVE_RISE_MPS} m/s a wave would be settled after some ${sessionsMore} weekly sessions more.`;
}

function signed(mps: number): string {
  return `${mps >= 0 ? "+" : "−"}${Math.abs(mps).toFixed(3)}`;
}

function Exclude({
  repId,
  name,
  excluded,
  problem,
}: {
  repId: string;
  name: string;
  excluded: boolean;
  problem: string | undefined;
}) {
  if (excluded) {
    return (
      <Form method="post" preventScrollReset className="ml-3 inline">
        <input type="hidden" name="repId" value={repId} />
        <button type="submit" name="intent" value="include" className="underline">
          Take in again
        </button>
      </Form>
    );
  }
  return (
    <details className="ml-3 inline-block" open={problem !== undefined || undefined}>
      <summary className="cursor-pointer text-sm text-muted underline">Leave out</summary>
      <Form method="post" preventScrollReset className="flex items-end gap-2 py-1" noValidate>
        <input type="hidden" name="repId" value={repId} />
        <Field label={`Why leave out ${name}`} name="reason" problem={problem} />
        <button type="submit" name="intent" value="exclude" className="btn">
          Leave out
        </button>
      </Form>
    </details>
  );
}
