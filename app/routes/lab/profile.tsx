import { useMemo, useState } from "react";
import { redirect, useFetcher } from "react-router";
import { describeSide, loadBar } from "../../../core/barload/load";
import { isFirstTime } from "../../../core/maxes/records";
import { analyseProfile } from "../../../core/profile/analysis";
import { forcePower } from "../../../core/profile/power";
import { formatKg, massKg, readMass } from "../../../core/units/mass";
import type { VelocityMetric } from "../../../core/units/velocity";
import { formatVelocity } from "../../../core/units/velocity";
import { PROCESSING_VERSION } from "../../../core/velocity/stream";
import { ProfileTestForm } from "../../forms/profile-test";
import { fieldProblems } from "../../forms/recipe";
import { readSpeed } from "../../forms/speed";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { Field, Select } from "../../ui/field";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { LoadedBar } from "../../ui/loaded-bar";
import { Notice, Page } from "../../ui/page";
import { ProfileChart } from "../../ui/profile-chart";
import { ProfileFigures } from "../../ui/profile-figures";
import { useAddress } from "../../ui/use-address";
import { Figure, Figures } from "../../ui/working";
import { readProfileBench, saveProfileTest } from "../../workflows/lab/profile.server";
import type { Route } from "./+types/profile";
import { TakenReps } from "./taken-reps";
import { type ProfileTestRun, useProfileTest } from "./use-profile-test";

export function meta() {
  return [{ title: "Profile test · Sprezza" }];
}

export async function loader({ context, url }: Route.LoaderArgs) {
  const param = (name: string) => url.searchParams.get(name) || undefined;
  const result = await readProfileBench(principalOf(context), {
    athleteId: param("athlete"),
    variantId: param("variant"),
    rackId: param("rack"),
  });
  if (!result.ok) throw notThere(result);
  return result.value;
}

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = ProfileTestForm.safeParse(await request.json());
  if (!parsed.success) {
    const [problem] = Object.values(fieldProblems(parsed.error));
    return { ok: false as const, message: problem ?? "This test could not be read." };
  }
  const saved = await saveProfileTest(principalOf(context), parsed.data);
  if (!saved.ok) return { ok: false as const, message: saved.message };
  throw redirect(`/athletes/${parsed.data.athleteId}/profiles/${saved.value.testId}`);
}

export async function clientAction({ serverAction, request }: Route.ClientActionArgs) {
  const sent = (await request.clone().json()) as { athleteId: string; variantId: string };
  try {
    return await keepForm(serverAction);
  } catch (thrown) {
    // The redirect says that the test is kept: only now the draft may go.
    if (thrown instanceof Response && thrown.status >= 300 && thrown.status < 400) {
      localStorage.removeItem(`sprezza/profile-test/${sent.athleteId}/${sent.variantId}`);
    }
    throw thrown;
  }
}

export const shouldRevalidate = revalidateUnlessFailed;

export default function ProfileBench({ loaderData }: Route.ComponentProps) {
  const { params, set } = useAddress();
  const { person, variant } = loaderData;
  const metric = (["MPV", "PV"] as const).find((one) => one === params.get("metric")) ?? "MCV";
  const key = `${person?.id ?? "nobody"}/${variant.id}`;
  return <Bench key={key} draft={key} data={loaderData} metric={metric} set={set} />;
}

function Bench({
  draft,
  data,
  metric,
  set,
}: {
  draft: string;
  data: Route.ComponentProps["loaderData"];
  metric: VelocityMetric;
  set: (name: string, value: string) => void;
}) {
  const { person, variant, steps, system } = data;
  const unit = person?.unit ?? "kg";
  const run = useProfileTest({
    key: draft,
    metric,
    start: variant.start,
    truth: data.truth,
    addedKg: system.addedKg,
  });
  const threshold = data.thresholds.find((one) => one.metric === metric)?.threshold;
  const result = useMemo(
    () => analyseProfile({ reps: run.profileReps, metric, threshold }),
    [run.profileReps, metric, threshold],
  );
  const power = useMemo(
    () =>
      result.ok
        ? forcePower({
            used: result.used,
            line: result.line,
            addedKg: system.addedKg,
            systemName: system.name,
          })
        : undefined,
    [result, system],
  );
  return (
    <Page
      title="Profile test"
      facts="A load at a time, light to heavy, every rep as fast as it goes."
      margin={
        <Keep
          run={run}
          data={data}
          metric={metric}
          warnings={result.ok ? result.warnings.length : 0}
          line={result.ok}
        />
      }
    >
      <form
        className="grid gap-3 sm:grid-cols-2 lg:grid-cols-4"
        onSubmit={(event) => event.preventDefault()}
      >
        <Select
          label="Athlete"
          value={person?.id ?? ""}
          onChange={(event) => set("athlete", event.target.value)}
        >
          <option value="">nobody: a test that is not kept</option>
          {data.people.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        <Select
          label="Lift"
          value={variant.id}
          onChange={(event) => set("variant", event.target.value)}
        >
          {data.variants.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        <Select
          label="Rack and bar"
          value={data.rack.id}
          onChange={(event) => set("rack", event.target.value)}
        >
          {data.racks.map((one) => (
            <option key={one.id} value={one.id}>
              {one.label}
            </option>
          ))}
        </Select>
        <Select
          label="Velocity"
          value={metric}
          onChange={(event) => set("metric", event.target.value)}
        >
          <option value="MCV">mean concentric (MCV)</option>
          <option value="MPV">mean propulsive (MPV)</option>
          <option value="PV">peak (PV)</option>
        </Select>
      </form>
      {data.refused.map((text) => (
        <Notice key={text} kind="warning" title={`Refused by default. ${text}`}>
          A light profile that stops well short of the max may be allowed: a coach decides and
          writes why. Local rules and licensed practitioners come first.
        </Notice>
      ))}
      {data.mark?.refused ? <Notice kind="warning" title={data.mark.words} /> : null}
      {!data.trusted ? (
        <Notice kind="warning" title="Under a year of barbell training">
          The max is information only: a ramp from the empty bar, as long as it is still fast.
        </Notice>
      ) : null}
      {run.restored ? (
        <Notice kind="note" title={`${run.reps.length} reps of an unfinished test are back.`}>
          <button type="button" className="underline" onClick={run.clear}>
            Throw them away and start over
          </button>
        </Notice>
      ) : null}
      <div className="mt-3 grid gap-x-6 gap-y-4 lg:grid-cols-[minmax(0,19rem)_minmax(0,1fr)]">
        <Step run={run} data={data} steps={steps} metric={metric} />
        <Figures label="Profile">
          <ProfileChart
            title={variant.name}
            reps={run.profileReps}
            result={result}
            thresholdMps={threshold?.mps}
            height={250}
          />
          <ProfileFigures
            id="bench"
            result={result}
            threshold={threshold}
            power={power}
            unit={unit}
          />
          {system.missing ? (
            <p className="text-sm text-secondary">
              This lift moves the body too, and no body mass is known: force and power count the bar
              only.
            </p>
          ) : null}
        </Figures>
      </div>
      <TakenReps run={run} metric={metric} unit={unit} />
    </Page>
  );
}

/** The load on the bar now: suggested steps, the guard, and the two ways to take a rep. */
function Step({
  run,
  data,
  steps,
  metric,
}: {
  run: ProfileTestRun;
  data: Route.ComponentProps["loaderData"];
  steps: Route.ComponentProps["loaderData"]["steps"];
  metric: VelocityMetric;
}) {
  const unit = data.person?.unit ?? "kg";
  const [at, setAt] = useState(0);
  const [own, setOwn] = useState("");
  const [speed, setSpeed] = useState("");
  const [problem, setProblem] = useState<string>();
  const [allowed, setAllowed] = useState<number>();
  const typed = readMass(own, unit);
  const step = steps[Math.min(at, steps.length - 1)];
  const askedKg = own === "" ? step?.loadKg : typed.ok ? massKg(typed.mass) : undefined;
  const loading = askedKg === undefined ? undefined : loadBar(data.rack.gear, askedKg, "nearest");
  const loadKg = loading?.ok ? loading.totalKg : undefined;
  const firstTime = loadKg !== undefined && isFirstTime(loadKg, data.bestKg);
  const held = firstTime && allowed !== loadKg;
  const capKg = data.cap !== undefined && data.max ? (data.cap / 100) * data.max.kg : undefined;
  const overCap = capKg !== undefined && loadKg !== undefined && loadKg > capKg + 1e-9;
  const here = run.profileReps.filter((rep) => rep.loadKg === loadKg);
  const wanted = own === "" ? (step?.reps ?? 2) : 2;

  const enter = () => {
    const velocity = readSpeed(speed);
    if (velocity === undefined || loadKg === undefined) {
      setProblem("A speed from 0.05 to 4 m/s: 82 or 0.82.");
      return;
    }
    setProblem(undefined);
    setSpeed("");
    run.type(loadKg, velocity);
  };
  return (
    <section aria-label="The load now">
      <fieldset className="flex flex-wrap gap-1">
        <legend className="sr-only">Steps</legend>
        {steps.map((one, i) => {
          const taken = run.profileReps.filter((rep) => rep.loadKg === one.loadKg).length;
          return (
            <button
              key={one.loadKg}
              type="button"
              aria-pressed={own === "" && i === at}
              className={`btn min-h-11 px-2 ${own === "" && i === at ? "btn-primary" : ""}`}
              onClick={() => {
                setAt(i);
                setOwn("");
              }}
            >
              {formatKg(one.loadKg, unit, 1)}
              {taken > 0 ? ` ✓${taken}` : ""}
            </button>
          );
        })}
      </fieldset>
      <div className="mt-2">
        <Field
          label="Another load"
          value={own}
          placeholder="87.5 or 190 lb"
          onChange={(event) => setOwn(event.target.value)}
          problem={
            own !== "" && !typed.ok
              ? "A load, for example 87.5."
              : loading && !loading.ok
                ? "This rack cannot build that."
                : undefined
          }
        />
      </div>
      {loading?.ok ? (
        <>
          <p className="mt-2 text-4xl font-bold" data-testid="test-load">
            {formatKg(loading.totalKg, unit, 2)}
          </p>
          <p className="text-muted">
            {data.max && data.trusted ? (
              <Figure id="bench/max" working={data.max.working}>
                {((100 * loading.totalKg) / data.max.kg).toFixed(0)} % of{" "}
                {formatKg(data.max.kg, unit, 1)}
              </Figure>
            ) : (
              "no trusted max"
            )}{" "}
            · each side {describeSide(loading.side.plates)}
          </p>
          <LoadedBar side={loading.side.plates} added={0} width={420} height={100} />
        </>
      ) : null}
      {overCap ? (
        <Notice kind="warning" title={`Over this athlete's ${data.cap} % limit.`}>
          An instruction caps the load at {formatKg(capKg ?? 0, unit, 1)}.
        </Notice>
      ) : null}
      {held && loadKg !== undefined ? (
        <Notice
          kind="warning"
          title={`First time at ${formatKg(loadKg, unit, 1)}: the best so far is ${formatKg(data.bestKg ?? 0, unit, 1)}.`}
        >
          <p>Ask the athlete first. Stopping here is a note, not a failure.</p>
          <button type="button" className="btn mt-1 min-h-11" onClick={() => setAllowed(loadKg)}>
            Asked: go on
          </button>
        </Notice>
      ) : loadKg !== undefined ? (
        <div className="mt-2 grid gap-2">
          {data.truth ? (
            run.lifting ? (
              <button type="button" className="btn min-h-16 text-lg" onClick={run.stop}>
                Stop
              </button>
            ) : (
              <button
                type="button"
                className="btn btn-primary min-h-16 text-lg"
                onClick={() => run.lift(loadKg, wanted)}
              >
                Lift {wanted} (simulated sensor)
              </button>
            )
          ) : (
            <p className="text-sm text-muted">No sensor for this athlete and lift: type speeds.</p>
          )}
          <form
            className="flex items-end gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              enter();
            }}
          >
            <Field
              label={`Speed of a rep, ${metric}`}
              value={speed}
              inputMode="decimal"
              placeholder="82 or 0.82"
              problem={problem}
              onChange={(event) => setSpeed(event.target.value)}
            />
            <button type="submit" className="btn min-h-9">
              Add
            </button>
          </form>
          <p aria-live="polite" className="min-h-6 font-bold">
            {here.length > 0
              ? `${here.length} here, fastest ${formatVelocity(Math.max(...here.map((rep) => rep.velocityMps)))} m/s`
              : ""}
          </p>
          {at < steps.length - 1 && own === "" ? (
            <button
              type="button"
              className="btn min-h-11"
              disabled={run.lifting}
              onClick={() => setAt(at + 1)}
            >
              Next load: {formatKg(steps[at + 1]?.loadKg ?? 0, unit, 1)}
            </button>
          ) : null}
        </div>
      ) : null}
      <p className="mt-2 text-sm text-muted">{data.variant.caution}</p>
    </section>
  );
}

function Keep({
  run,
  data,
  metric,
  warnings,
  line,
}: {
  run: ProfileTestRun;
  data: Route.ComponentProps["loaderData"];
  metric: VelocityMetric;
  warnings: number;
  line: boolean;
}) {
  const fetcher = useFetcher<{ ok: boolean; message?: string }>();
  const [note, setNote] = useState("");
  const [override, setOverride] = useState("");
  const guarded = data.refused.length > 0 || data.mark?.refused === true;
  const sources = new Set(run.reps.map((rep) => rep.source));
  const keep = () =>
    void fetcher.submit(
      {
        athleteId: data.person?.id ?? "",
        variantId: data.variant.id,
        date: data.today,
        metric,
        source: sources.size > 1 ? "mixed" : ([...sources][0] ?? "typed"),
        processing: sources.has("simulated") ? PROCESSING_VERSION : "typed",
        addedKg: data.system.addedKg,
        note,
        override,
        reps: run.profileReps.map(({ id: _, ...rep }) => rep),
      },
      { method: "post", encType: "application/json" },
    );
  return (
    <section aria-labelledby="keep-title" className="grid gap-2">
      <h2 id="keep-title">Keep this test</h2>
      {data.person ? (
        <>
          <p className="text-muted">
            {run.profileReps.length} reps, {new Set(run.profileReps.map((rep) => rep.loadKg)).size}{" "}
            loads{line ? "" : ", no line yet"}
            {warnings > 0 ? `, ${warnings} to know` : ""}.
          </p>
          <Field
            label="Note"
            value={note}
            placeholder="conditions, where it stopped"
            onChange={(event) => setNote(event.target.value)}
          />
          {guarded ? (
            <Field
              label="Why it was done although refused"
              value={override}
              onChange={(event) => setOverride(event.target.value)}
            />
          ) : null}
          {fetcher.data && !fetcher.data.ok ? (
            <Notice kind="problem" title={fetcher.data.message ?? "Not kept."} />
          ) : null}
          <button
            type="button"
            className="btn btn-primary"
            disabled={run.profileReps.length === 0 || run.lifting || fetcher.state !== "idle"}
            onClick={keep}
          >
            Keep for {data.person.name}
          </button>
          <p className="text-sm text-muted">
            Two sessions are never joined in one line: this test stands alone, dated today.
          </p>
        </>
      ) : (
        <p className="text-muted">Choose an athlete to keep a test. Until then it is a trial.</p>
      )}
    </section>
  );
}
