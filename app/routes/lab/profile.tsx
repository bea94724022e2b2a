import { useMemo } from "react";
import { redirect } from "react-router";
import { analyseProfile } from "../../../core/profile/analysis";
import { forcePower } from "../../../core/profile/power";
import type { VelocityMetric } from "../../../core/units/velocity";
import { idOrNone } from "../../forms/primitives/id";
import { ProfileTestForm } from "../../forms/profile-test";
import { fieldProblems } from "../../forms/recipe";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { readJson } from "../../platform/submission.server";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { ProfileChart } from "../../ui/profile-chart";
import { ProfileFigures } from "../../ui/profile-figures";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { Figures } from "../../ui/working";
import { readProfileBench, saveProfileTest } from "../../workflows/lab/profile.server";
import type { Route } from "./+types/profile";
import { Keep } from "./profile-keep";
import { Step } from "./profile-step";
import { TakenReps } from "./taken-reps";
import { useProfileTest } from "./use-profile-test";

export function meta() {
  return [{ title: "Profile test · Sprezza" }];
}

export async function loader({ context, url }: Route.LoaderArgs) {
  const param = (name: string) => idOrNone(url.searchParams.get(name));
  const result = await readProfileBench(principalOf(context), {
    athleteId: param("athlete"),
    variantId: param("variant"),
    rackId: param("rack"),
  });
  if (!result.ok) throw notThere(result);
  return result.value;
}

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = ProfileTestForm.safeParse(await readJson(request));
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
  const unit = useUnit();
  const run = useProfileTest({
    key: draft,
    metric,
    start: variant.start,
    sensor: data.sensor,
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
            oneRmKg: result.oneRepMax?.kg,
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
        <PageSelect
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
        </PageSelect>
        <PageSelect
          label="Lift"
          value={variant.id}
          onChange={(event) => set("variant", event.target.value)}
        >
          {data.variants.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </PageSelect>
        <PageSelect
          label="Rack and bar"
          value={data.rack.id}
          onChange={(event) => set("rack", event.target.value)}
        >
          {data.racks.map((one) => (
            <option key={one.id} value={one.id}>
              {one.label}
            </option>
          ))}
        </PageSelect>
        <PageSelect
          label="Velocity"
          value={metric}
          onChange={(event) => set("metric", event.target.value)}
        >
          <option value="MCV">mean concentric (MCV)</option>
          <option value="MPV">mean propulsive (MPV)</option>
          <option value="PV">peak (PV)</option>
        </PageSelect>
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
            drawnPx={649}
          />
          <ProfileFigures
            id="bench"
            result={result}
            threshold={threshold}
            power={power}
            band={data.band}
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
