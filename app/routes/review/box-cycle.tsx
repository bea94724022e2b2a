import { Link } from "react-router";
import { signedMps } from "../../../core/review/equal-load";
import { formObject } from "../../forms/athlete";
import { CycleReviewForm } from "../../forms/cycle";
import { idFrom } from "../../forms/primitives/id";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Day } from "../../ui/dates";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Empty, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { Figure, Figures } from "../../ui/working";
import {
  type BoxCyclePage,
  decideCycle,
  readBoxCycle,
} from "../../workflows/review/box-cycle.server";
import type { Route } from "./+types/box-cycle";
import { Decision } from "./cycle-decision";
import { CycleStrip } from "./cycle-strip";
import { Everybody, VERDICTS, WeekTable } from "./cycle-tables";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.page.athlete?.name ?? "Box cycles"} · Sprezza` }];
}

export async function loader({ context, url }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const get = (name: string) => url.searchParams.get(name) ?? "";
  return {
    page: await readBoxCycle(principal, {
      planId: idFrom(get("plan")),
      slotId: get("slot"),
      athleteId: idFrom(get("athlete")),
    }),
    mayDecide: mayWrite(principal, "/review/box"),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = CycleReviewForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success) return { ok: false as const, problems: fieldProblems(parsed.error) };
  return decideCycle(principalOf(context), parsed.data);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof revalidateUnlessFailed>[0]) {
  return revalidateUnlessFailed(args);
}

type Athlete = NonNullable<BoxCyclePage["athlete"]>;
type Cycle = NonNullable<BoxCyclePage["cycle"]>;

/** A cycle on the box over its weeks: one athlete on one page, its review, and everybody. */
export default function BoxCycle({ loaderData, actionData }: Route.ComponentProps) {
  const { page, mayDecide } = loaderData;
  const { cycle, athlete } = page;
  const address = useAddress();
  const result = actionData as { ok: boolean; message?: string } | undefined;
  if (!cycle)
    return (
      <Page title="Box cycles">
        <Empty
          action={
            <Link className="btn btn-primary" to="/plan">
              Open the plans
            </Link>
          }
        >
          No plan has a slot on the box yet. Put a box squat on a day, and its cycle stands here.
        </Empty>
      </Page>
    );
  return (
    <Page
      title={athlete ? `${athlete.name}, ${cycle.name}` : cycle.name}
      facts={[
        cycle.squadName,
        cycle.recipe,
        `${cycle.starts} to ${cycle.ends}`,
        cycle.box ? `${cycle.box.purpose}, ${cycle.box.role}` : "",
      ]
        .filter(Boolean)
        .join(" · ")}
      actions={
        <>
          {athlete ? (
            <Link className="btn no-print" to={`/athletes/${athlete.id}/box`}>
              Set-up card
            </Link>
          ) : null}
          <Link className="btn no-print" to={`/plan/${cycle.planId}?slot=${cycle.slotId}`}>
            Open the plan
          </Link>
        </>
      }
      margin={
        athlete ? (
          <Decision
            key={`${athlete.id}/${athlete.decisions.length}`}
            athlete={athlete}
            cycle={cycle}
            mayDecide={mayDecide}
            problem={result && !result.ok ? result.message : undefined}
          />
        ) : undefined
      }
    >
      <div className="no-print mb-3 flex flex-wrap items-end gap-4">
        <div className="w-[26rem]">
          <PageSelect
            label="Cycle"
            value={`${cycle.planId}/${cycle.slotId}`}
            onChange={(event) => {
              const [plan = "", slot = ""] = event.target.value.split("/");
              address.setAll({ plan, slot, athlete: "" });
            }}
          >
            {page.cycles.map((one) => (
              <option key={`${one.planId}/${one.slotId}`} value={`${one.planId}/${one.slotId}`}>
                {one.name}, from {one.starts}
              </option>
            ))}
          </PageSelect>
        </div>
        <div className="w-56">
          <PageSelect
            label="Athlete"
            value={athlete?.id ?? ""}
            onChange={(event) =>
              address.setAll({
                plan: cycle.planId,
                slot: cycle.slotId,
                athlete: event.target.value,
              })
            }
          >
            {page.people.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </PageSelect>
        </div>
      </div>
      {athlete ? <OneCycle athlete={athlete} cycle={cycle} /> : null}
      <Everybody page={page} cycle={cycle} />
    </Page>
  );
}

function OneCycle({ athlete, cycle }: { athlete: Athlete; cycle: Cycle }) {
  const unit = useUnit();
  const { review } = athlete;
  if (review.weeks.length === 0)
    return (
      <p className="text-muted">
        This cycle begins on {cycle.starts}: nothing is done yet. {athlete.trial}
      </p>
    );
  return (
    <Figures label="The cycle">
      <CycleStrip weeks={review.weeks} unit={unit} />
      <WeekTable weeks={review.weeks} unit={unit} smallestStopS={cycle.box?.smallestStopS} />
      {review.speed.ok ? (
        <p className="mt-2">
          Speed at equal load:{" "}
          <Figure id="cycle/speed" working={review.speed.working}>
            {signedMps(review.speed.changeMps)} m/s
          </Figure>{" "}
          <span className="text-muted">
            ({signedMps(review.speed.lowMps)} to {signedMps(review.speed.highMps)}),{" "}
            {VERDICTS[review.speed.verdict]}
          </span>
        </p>
      ) : (
        <p className="mt-2 text-muted">{review.speed.words}</p>
      )}
      <div className="mt-4 grid gap-x-8 gap-y-4 sm:grid-cols-2">
        <section aria-labelledby="cycle-box">
          <h2 id="cycle-box">Box, ladder and tests</h2>
          <p>{athlete.trial}</p>
          <p>{athlete.ladder}</p>
          <ul>
            {athlete.events.map((one) => (
              <li key={one.on + one.what} className="flex gap-3 border-b border-faint">
                <span className="whitespace-nowrap text-muted">
                  <Day of={one.on} />
                </span>
                <span>{one.what}</span>
              </li>
            ))}
          </ul>
          {athlete.events.length === 0 ? (
            <p className="text-muted">No rung and no test within the cycle.</p>
          ) : null}
        </section>
        <section aria-labelledby="cycle-faults">
          <h2 id="cycle-faults">Faults on record</h2>
          {athlete.faults.length === 0 ? <p className="text-muted">None.</p> : null}
          <ul>
            {athlete.faults.map((one) => (
              <li key={one.fault} className="flex justify-between gap-3 border-b border-faint">
                <span>{one.fault}</span>
                <span className="text-right text-muted">
                  {one.times} ×, last <Day of={one.lastOn} />
                  {one.cured ? ", cured" : ""}
                  {one.back ? `, came back at ${one.back}` : ""}
                </span>
              </li>
            ))}
          </ul>
          <p className="mt-1 text-sm text-muted">{review.depth.words}</p>
        </section>
      </div>
    </Figures>
  );
}
