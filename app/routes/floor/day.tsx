import { Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { SECTION_NAMES } from "../../../core/plan/block";
import { keyField } from "../../forms/primitives/key";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { Day } from "../../ui/dates";
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
import { AskedDays, dayKey, daysIn } from "./asked-days";

export function meta() {
  return [{ title: "Floor · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return listDay(principalOf(context));
}

const GroupsField = z
  .record(
    keyField(60),
    z
      .array(z.object({ rackId: z.uuid(), order: z.array(z.uuid()).min(1).max(200) }))
      .min(1)
      .max(60),
  )
  .optional();

/** Groups as the form carries them; nothing where it carries none, and what is no JSON is no form. */
function groupsIn(form: FormData): unknown {
  const text = form.get("groups");
  if (text === null || text === "") return undefined;
  try {
    return JSON.parse(String(text));
  } catch {
    return null;
  }
}

const StartForm = z.object({
  ...AskedDays.shape,
  asDraft: z.boolean(),
  /** Groups that were looked at, by slot. */
  groups: GroupsField,
});

export async function action({ request, context }: Route.ActionArgs) {
  const form = await readForm(request);
  const days = daysIn(form);
  const problem = (message: string) => ({ ok: false as const, message, draft: undefined });
  if (days.some((day) => day.slotIds.length === 0)) {
    return problem("Nothing of this day is ticked. Tick what is run, then start.");
  }
  const parsed = StartForm.safeParse({
    days,
    present: form.getAll("present"),
    asDraft: form.get("intent") === "draft",
    groups: groupsIn(form),
  });
  if (!parsed.success) return problem("The form was not complete. Load the page again.");
  const result = await startSession(principalOf(context), parsed.data);
  if (!result.ok && result.code === NOT_PUBLISHED) {
    if (parsed.data.days.length > 1) {
      return problem(
        "One of these plans was never published. Publish it, or start it by itself as a draft.",
      );
    }
    const checks = await draftChecks(principalOf(context), parsed.data.days);
    const [lead] = parsed.data.days;
    const of = lead ? dayKey(lead) : "";
    const groups = String(form.get("groups") ?? "");
    return { ok: false as const, message: undefined, draft: { of, checks, groups } };
  }
  if (!result.ok) return problem(result.message);
  throw redirect(`/floor/${result.value.sessionId}`);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export default function FloorDay({ loaderData, actionData }: Route.ComponentProps) {
  const { today, coming, running, recent } = loaderData;
  const draftOf = (day: PlannedDay): DraftChecks => {
    const draft = actionData && "draft" in actionData ? actionData.draft : undefined;
    return draft?.of === dayKey(day) ? draft : undefined;
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
                <span className="text-muted">
                  {session.alone ? `${session.alone} trains alone, ` : ""}since{" "}
                  {clock(session.startedAt, session.zone)}
                </span>
                <Link
                  className={session.alone ? "btn ml-auto" : "btn btn-primary ml-auto"}
                  to={`/floor/${session.id}`}
                >
                  {session.alone ? "Look in" : "Open the floor"}
                </Link>
              </li>
            ))}
          </ul>
        )}
      </section>
      <section aria-labelledby="today" className="mt-6">
        <h2 id="today">Today</h2>
        {today.length === 0 ? (
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
            {today.map((day) => (
              <StartRow
                key={`${dayKey(day)}/${day.dayId}`}
                day={day}
                label="Start"
                draft={draftOf(day)}
              />
            ))}
          </ul>
        )}
      </section>
      <Together days={today} />
      {coming.length > 0 ? (
        <section aria-labelledby="coming" className="mt-6">
          <h2 id="coming">Missed and coming</h2>
          <ul className="mt-1 border-t border-rule">
            {coming.map((day) => (
              <StartRow
                key={`${dayKey(day)}/${day.dayId}`}
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
                <span className="w-24 text-muted">
                  <Day of={session.date} />
                </span>
                <Link className="underline" to={`/review/${session.id}`}>
                  {session.title}
                </Link>
                {session.alone ? <span className="text-muted">{session.alone} alone</span> : null}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </Page>
  );
}

/** Days of one room that may run at the same time, in one session. */
function Together({ days }: { days: readonly PlannedDay[] }) {
  const busy = useNavigation().state === "submitting";
  const rooms = [...new Set(days.map((day) => day.roomId))].flatMap((id) => {
    const own = days.filter((day) => day.roomId === id);
    return own.length > 1 ? [own] : [];
  });
  return rooms.map((own) => (
    <details key={own[0]?.roomId} className="mt-3">
      <summary className="cursor-pointer text-muted underline">
        Run several squads together in {own[0]?.roomName}
      </summary>
      <Form method="post" className="mt-2">
        {own.map((day) => (
          <fieldset key={`${dayKey(day)}/${day.dayId}`} className="border-b border-rule py-2">
            <legend className="sr-only">{day.planName}</legend>
            <label className="flex min-h-8 items-center gap-2">
              <input
                type="checkbox"
                name="day"
                value={dayKey(day)}
                className="checkbox checkbox-sm border-control"
              />
              {day.squadName}, {day.planName}
            </label>
            <WhoAndWhat day={day} />
          </fieldset>
        ))}
        <p className="mt-2 text-muted">
          They share one floor; the racks go to each by how many people it has.
        </p>
        <button type="submit" className="btn mt-2" disabled={busy}>
          Start together
        </button>
      </Form>
    </details>
  ));
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
      of: string;
      checks: Awaited<ReturnType<typeof draftChecks>>;
      /** Groups that were looked at, as they came. */
      groups: string;
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
        <input type="hidden" name="day" value={dayKey(day)} />
        <div className="min-w-64 flex-1">
          <p className="font-bold">
            {day.squadName}: {day.planName}
          </p>
          <p className="text-muted">
            <Day of={day.date} /> · week {day.week} of {day.weeks} ·{" "}
            {day.slots.map((slot) => slot.name).join(", ")} · {day.roomName}
            {day.published ? "" : " · not published"}
          </p>
          <WhoAndWhat day={day} />
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
            <input type="hidden" name="groups" value={draft.groups} />
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
          <div className="flex flex-wrap gap-2">
            <button type="submit" className="btn" formMethod="get" formAction="/floor/groups">
              Look at the groups
            </button>
            <button type="submit" className="btn" disabled={busy}>
              {label}
            </button>
          </div>
        )}
      </Form>
    </li>
  );
}

/** Who is here for a day, and what of it is run: everybody and everything until somebody changes it. */
function WhoAndWhat({ day }: { day: PlannedDay }) {
  const tick = "checkbox checkbox-sm border-control";
  return (
    <>
      <details className="mt-1">
        <summary className="cursor-pointer text-muted underline">
          Who is here: {day.athletes.filter((one) => one.alone === undefined).length} of the squad,
          change
        </summary>
        <fieldset className="mt-2 grid grid-cols-2 gap-x-6 gap-y-1 sm:grid-cols-3">
          <legend className="sr-only">Who is here</legend>
          {day.athletes.map((athlete) => (
            <label key={athlete.id} className="flex min-h-8 items-center gap-2">
              <input
                type="checkbox"
                name="present"
                value={athlete.id}
                defaultChecked={athlete.alone === undefined}
                className={tick}
              />
              {athlete.name}
              {athlete.alone ? (
                <span className="text-muted">
                  {athlete.alone === "running" ? "trains alone" : "trained it alone"}
                </span>
              ) : null}
            </label>
          ))}
        </fieldset>
      </details>
      <details className="mt-1">
        <summary className="cursor-pointer text-muted underline">
          What is run: {day.slots.length === 1 ? "one slot" : `all ${day.slots.length} slots`},
          change
        </summary>
        <fieldset className="mt-2 grid gap-y-1">
          <legend className="sr-only">What is run</legend>
          {day.slots.map((slot) => (
            <label key={slot.id} className="flex min-h-8 items-center gap-2">
              <input
                type="checkbox"
                name="slot"
                value={`${dayKey(day)}/${slot.id}`}
                defaultChecked
                className={tick}
              />
              {slot.name} <span className="text-muted">{SECTION_NAMES[slot.section]}</span>
            </label>
          ))}
          {day.onLadder > 0 ? (
            <label className="flex min-h-8 items-center gap-2">
              <input type="checkbox" name="ladder" value={dayKey(day)} className={tick} />
              Teaching ladder <span className="text-muted">{day.onLadder} on a rung</span>
            </label>
          ) : null}
        </fieldset>
      </details>
    </>
  );
}
