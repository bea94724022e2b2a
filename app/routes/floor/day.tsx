import { Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { keyField } from "../../forms/primitives/key";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Empty, Notice, Page } from "../../ui/page";
import { listDay, type PlannedDay } from "../../workflows/floor/list-day.server";
import {
  draftChecks,
  NOT_PUBLISHED,
  startSession,
} from "../../workflows/floor/start-session.server";
import type { Route } from "./+types/day";

export function meta() {
  return [{ title: "Floor · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return listDay(principalOf(context));
}

const StartForm = z.object({
  planId: z.uuid(),
  week: z.coerce.number().int().min(1).max(104),
  slotId: keyField(60).optional(),
  present: z.array(z.uuid()),
  asDraft: z.boolean(),
});

export async function action({ request, context }: Route.ActionArgs) {
  const form = await readForm(request);
  const parsed = StartForm.safeParse({
    planId: form.get("planId"),
    week: form.get("week"),
    slotId: form.get("slotId") ?? undefined,
    present: form.getAll("present"),
    asDraft: form.get("intent") === "draft",
  });
  if (!parsed.success) {
    return {
      ok: false as const,
      message: "The form was not complete. Load the page again.",
      draft: undefined,
    };
  }
  const result = await startSession(principalOf(context), parsed.data);
  if (!result.ok && result.code === NOT_PUBLISHED) {
    const { planId, week, slotId } = parsed.data;
    const checks = await draftChecks(principalOf(context), { planId, slotId });
    return { ok: false as const, message: undefined, draft: { planId, week, slotId, checks } };
  }
  if (!result.ok) return { ok: false as const, message: result.message, draft: undefined };
  throw redirect(`/floor/${result.value.sessionId}`);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export default function Day({ loaderData, actionData }: Route.ComponentProps) {
  const { today, coming, running, recent } = loaderData;
  const open = today.filter((day) => !day.session);
  const draftOf = (day: PlannedDay): DraftChecks => {
    const draft = actionData && "draft" in actionData ? actionData.draft : undefined;
    const isIt =
      draft?.planId === day.planId && draft.week === day.week && draft.slotId === day.slotId;
    return isIt ? draft : undefined;
  };
  return (
    <Page
      title="Floor"
      facts="What runs now, what is planned for today, and what comes."
      actions={
        <Link className="btn" to="/floor/pairing">
          Run a pairing
        </Link>
      }
    >
      {actionData?.message ? <Notice kind="problem" title={actionData.message} /> : null}
      <section aria-labelledby="running">
        <h2 id="running">Running</h2>
        {running.length === 0 ? (
          <Empty>Nothing runs. Start one of today's sessions below.</Empty>
        ) : (
          <ul className="mt-1 border-t border-rule">
            {running.map((session) => (
              <li
                key={session.id}
                className="flex flex-wrap items-center gap-3 border-b border-rule py-3"
              >
                <Link className="font-bold underline" to={`/floor/${session.id}`}>
                  {session.title}
                </Link>
                <span className="text-muted">since {clock(session.startedAt, session.zone)}</span>
                <Link className="btn btn-primary ml-auto" to={`/floor/${session.id}`}>
                  Open the floor
                </Link>
              </li>
            ))}
          </ul>
        )}
      </section>
      <section aria-labelledby="today" className="mt-6">
        <h2 id="today">Today</h2>
        {open.length === 0 ? (
          <Empty
            action={
              <Link className="underline" to="/plan">
                Open the plans
              </Link>
            }
          >
            Nothing more is planned for today.
          </Empty>
        ) : (
          <ul className="mt-1 border-t border-rule">
            {open.map((day) => (
              <StartRow
                key={`${day.planId}${day.week}${day.slotId}`}
                day={day}
                label="Start"
                draft={draftOf(day)}
              />
            ))}
          </ul>
        )}
      </section>
      {coming.length > 0 ? (
        <section aria-labelledby="coming" className="mt-6">
          <h2 id="coming">Missed and coming</h2>
          <ul className="mt-1 border-t border-rule">
            {coming.map((day) => (
              <StartRow
                key={`${day.planId}${day.week}${day.slotId}`}
                day={day}
                label="Do it today"
                draft={draftOf(day)}
              />
            ))}
          </ul>
        </section>
      ) : null}
      {recent.length > 0 ? (
        <section aria-labelledby="recent" className="mt-6">
          <h2 id="recent">Done lately</h2>
          <ul className="mt-1 border-t border-rule">
            {recent.map((session) => (
              <li key={session.id} className="flex gap-4 border-b border-faint py-1.5">
                <span className="w-24 text-muted">{session.date}</span>
                <Link className="underline" to={`/review/${session.id}`}>
                  {session.title}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </Page>
  );
}

function clock(at: Date, zone: string): string {
  return new Intl.DateTimeFormat("en-GB", {
    hour: "2-digit",
    minute: "2-digit",
    timeZone: zone,
  }).format(at);
}

type DraftChecks =
  | {
      planId: string;
      week: number;
      slotId: string | undefined;
      checks: Awaited<ReturnType<typeof draftChecks>>;
    }
  | undefined;

function StartRow({
  day,
  label,
  draft,
}: {
  day: PlannedDay;
  label: string;
  /** Set once this start was refused because the plan was never published. */
  draft: DraftChecks;
}) {
  const busy = useNavigation().state === "submitting";
  return (
    <li className="border-b border-rule py-3">
      <Form method="post" className="flex flex-wrap items-start gap-x-4 gap-y-2">
        <input type="hidden" name="planId" value={day.planId} />
        <input type="hidden" name="week" value={day.week} />
        <input type="hidden" name="slotId" value={day.slotId} />
        <div className="min-w-64 flex-1">
          <p className="font-bold">
            {day.squadName}: {day.planName}
          </p>
          <p className="text-muted">
            {day.date} · week {day.week} of {day.weeks} · {day.liftName} · {day.roomName}
            {day.published ? "" : " · not published"}
          </p>
          <details className="mt-1">
            <summary className="cursor-pointer text-muted underline">
              Who is here: {day.athletes.length} of the squad, change
            </summary>
            <fieldset className="mt-2 grid grid-cols-2 gap-x-6 gap-y-1 sm:grid-cols-3">
              <legend className="sr-only">Who is here</legend>
              {day.athletes.map((athlete) => (
                <label key={athlete.id} className="flex min-h-8 items-center gap-2">
                  <input
                    type="checkbox"
                    name="present"
                    value={athlete.id}
                    defaultChecked
                    className="checkbox checkbox-sm border-control"
                  />
                  {athlete.name}
                </label>
              ))}
            </fieldset>
          </details>
        </div>
        {draft ? (
          <div className="max-w-md" role="alert">
            <p className="font-bold">Never published. It runs as a draft, marked so.</p>
            {draft.checks.length === 0 ? <p>No check speaks against it.</p> : null}
            <ul className="my-1 max-h-48 overflow-auto">
              {draft.checks.map((check) => (
                <li key={check.text} className="border-b border-faint py-0.5">
                  <span className="text-sm text-muted">{check.level} · </span>
                  {check.text}
                </li>
              ))}
            </ul>
            <p className="text-sm text-muted">
              A draft lifts no refusal: whom one names is left out until it is answered.
            </p>
            <div className="mt-1 flex gap-3">
              <button
                type="submit"
                name="intent"
                value="draft"
                className="btn btn-primary"
                disabled={busy}
              >
                Run as a draft
              </button>
              <Link className="btn" to={`/plan/${day.planId}?view=checks`}>
                Open its checks
              </Link>
            </div>
          </div>
        ) : (
          <button type="submit" className="btn" disabled={busy}>
            {label}
          </button>
        )}
      </Form>
    </li>
  );
}
