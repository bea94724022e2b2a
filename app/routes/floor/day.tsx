import { Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { keyField } from "../../forms/primitives/key";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Empty, Notice, Page } from "../../ui/page";
import { listDay, type PlannedDay } from "../../workflows/floor/list-day.server";
import { startSession } from "../../workflows/floor/start-session.server";
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
});

export async function action({ request, context }: Route.ActionArgs) {
  const form = await readForm(request);
  const parsed = StartForm.safeParse({
    planId: form.get("planId"),
    week: form.get("week"),
    slotId: form.get("slotId") ?? undefined,
    present: form.getAll("present"),
  });
  if (!parsed.success) {
    return { ok: false as const, message: "The form was not complete. Load the page again." };
  }
  const result = await startSession(principalOf(context), parsed.data);
  if (!result.ok) return { ok: false as const, message: result.message };
  throw redirect(`/floor/${result.value.sessionId}`);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export default function Day({ loaderData, actionData }: Route.ComponentProps) {
  const { today, coming, running, recent } = loaderData;
  const open = today.filter((day) => !day.session);
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
              <StartRow key={`${day.planId}${day.week}${day.slotId}`} day={day} label="Start" />
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

function StartRow({ day, label }: { day: PlannedDay; label: string }) {
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
        <button type="submit" className="btn" disabled={busy}>
          {label}
        </button>
      </Form>
    </li>
  );
}
