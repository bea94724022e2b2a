import { Link } from "react-router";
import { z } from "zod";
import { SECTION_NAMES } from "../../../core/plan/block";
import { formatKg } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { keyField } from "../../forms/primitives/key";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Day } from "../../ui/dates";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { keepHeavy } from "../../workflows/review/keep-heavy.server";
import { readReview } from "../../workflows/review/read-review.server";
import type { Route } from "./+types/review";
import { ExerciseTable, LiftTable, PairingTable } from "./review-tables";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `Review, ${loaderData?.session.date ?? ""} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const result = await readReview(principalOf(context), params.sessionId);
  if (!result.ok) throw notThere(result);
  return { ...result.value, mayKeep: mayWrite(principalOf(context), "/review/:sessionId") };
}

const KeepForm = z.object({
  intent: z.literal("record"),
  slotId: keyField(60),
  athleteId: z.uuid(),
  wasAll: z.literal("yes").optional(),
});

export async function action({ request, context, params }: Route.ActionArgs) {
  const parsed = KeepForm.safeParse(Object.fromEntries(await readForm(request)));
  if (!parsed.success) throw new Response("This form is not one of this page's.", { status: 400 });
  const { slotId, athleteId, wasAll } = parsed.data;
  return keepHeavy(principalOf(context), {
    sessionId: params.sessionId,
    slotId,
    athleteId,
    wasAll: wasAll === "yes",
  });
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

const DECISION = { take: "taken", change: "changed", decline: "declined" };

export default function Review({ loaderData, actionData }: Route.ComponentProps) {
  const unit = useUnit();
  const { session, review, decided, conflicts, setAside } = loaderData;
  const name = (id: string) =>
    review.lifters.find((one) => one.athleteId === id)?.name ?? "Somebody";
  const setNumber = (id: string, key: string) =>
    review.lifters
      .filter((one) => one.athleteId === id)
      .flatMap((one) => one.sets)
      .find((set) => set.key === key)?.number;
  return (
    <Page
      title={session.title}
      facts={`${session.date} · ${session.roomName} · ${session.planVersion > 0 ? `plan version ${session.planVersion}` : "plan not published"} ${session.metrics.map((metric) => ` · ${metric}`).join("")}`}
      actions={
        <>
          <a className="btn no-print" href={`/review/${session.id}/out/sets.csv`} download>
            As CSV
          </a>
          <button type="button" className="btn no-print" onClick={() => window.print()}>
            Print
          </button>
          {session.status === "running" ? (
            <Link className="btn no-print" to={`/floor/${session.id}`}>
              Still running: open the floor
            </Link>
          ) : (
            <Link className="btn no-print" to={`/plan/${session.planId}`}>
              Open the plan
            </Link>
          )}
        </>
      }
      margin={
        <>
          <h2>Calls, {decided.length} decided</h2>
          {review.callsWaiting > 0 ? (
            <p className="text-muted">{review.callsWaiting} were left open.</p>
          ) : null}
          {decided.length === 0 ? <p className="text-muted">No decision was asked for.</p> : null}
          <ul
            // biome-ignore lint/a11y/noNoninteractiveTabindex: a list that scrolls is reached by keyboard
            tabIndex={0}
            className="max-h-[40vh] overflow-auto lg:max-h-[60vh]"
          >
            {decided.map((one) => (
              <li key={one.athleteId + one.setKey} className="border-b border-faint py-1.5">
                <b>{name(one.athleteId)}</b>, set {setNumber(one.athleteId, one.setKey)}:{" "}
                {one.call.replaceAll("-", " ")}, {DECISION[one.decision]}
                {one.decision !== "decline" && one.toKg !== undefined
                  ? ` to ${formatKg(one.toKg, unit, 1)}`
                  : ""}
                {one.decision !== "decline" && one.addS !== undefined ? ` (+${one.addS} s)` : ""}
                {one.reason ? <span className="block text-sm text-muted">{one.reason}</span> : null}
              </li>
            ))}
          </ul>
          <SessionNotes sessionId={session.id} notes={loaderData.notes} />
        </>
      }
    >
      <dl className="flex flex-wrap gap-x-10 gap-y-2 border-b border-rule pb-3">
        <Total label="Sets done" value={`${review.setsDone} of ${review.setsPlanned}`} />
        <Total label="On or over speed" value={`${review.onSpeed} of ${review.judged}`} />
        <Total label="Cut" value={String(review.cut)} />
      </dl>
      {conflicts > 0 ? (
        <Notice kind="warning" title={`${conflicts} entries disagreed.`}>
          The same set came from two tablets, or was corrected twice. The first one counts here.
        </Notice>
      ) : null}
      {setAside.count > 0 ? (
        <Notice kind="warning" title={`${setAside.count} entries were set aside.`}>
          {setAside.reason}
        </Notice>
      ) : null}
      {actionData && "message" in actionData ? (
        <Notice kind="problem" title={actionData.message} />
      ) : null}
      <HeavySets heavy={loaderData.heavy} mayKeep={loaderData.mayKeep} />
      {review.slots.map((slot) => (
        <section key={slot.slotId} aria-labelledby={`slot-${slot.slotId}`} className="mt-4">
          <h2 id={`slot-${slot.slotId}`}>
            {slot.name}{" "}
            {review.slots.length > 1 ? (
              <span className="text-base font-normal text-muted">
                {SECTION_NAMES[slot.section]}
              </span>
            ) : null}
          </h2>
          {slot.kind === "lift" ? (
            <LiftTable slot={slot} sessionId={session.id} />
          ) : slot.kind === "exercise" ? (
            <ExerciseTable slot={slot} />
          ) : (
            <PairingTable slot={slot} />
          )}
        </section>
      ))}
    </Page>
  );
}

/** What was written of the session; a note is written among the notes. */
function SessionNotes({
  sessionId,
  notes,
}: {
  sessionId: string;
  notes: Route.ComponentProps["loaderData"]["notes"];
}) {
  return (
    <section aria-labelledby="session-notes" className="mt-4">
      <h2 id="session-notes">Notes</h2>
      <ul>
        {notes.map((one) => (
          <li key={one.id} className="border-b border-faint py-1.5">
            <span className="whitespace-pre-wrap">{one.words}</span>
            <span className="block text-sm text-muted">
              {one.by}, <Day of={one.date} />
            </span>
          </li>
        ))}
      </ul>
      <Link
        className="no-print mt-1 inline-block underline"
        to={`/review/notes?about=${sessionId}`}
      >
        Write a note on this session
      </Link>
    </section>
  );
}

/** Best sets of heavy slots: each becomes a record on the coach's word, and on nothing else. */
function HeavySets({
  heavy,
  mayKeep,
}: Pick<Route.ComponentProps["loaderData"], "heavy" | "mayKeep">) {
  const unit = useUnit();
  if (heavy.length === 0) return null;
  return (
    <section aria-labelledby="heavy" className="mt-4">
      <h2 id="heavy">Heavy sets</h2>
      <ul className="border-t border-rule">
        {heavy.map((one) => (
          <li
            key={`${one.slotId}/${one.athleteId}`}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-faint py-1.5"
          >
            <span className="font-bold">{one.name}</span>
            <span>
              {one.liftName}: {formatKg(one.loadKg, unit, 1)} × {one.reps}
              {one.kind === "rep-max-estimate"
                ? `, an estimate of ${formatKg(one.recordKg, unit, 1)} for a single`
                : ""}
            </span>
            {one.kept ? (
              <span className="text-muted">is a record</span>
            ) : mayKeep ? (
              <Form method="post" className="ml-auto flex flex-wrap items-center gap-3">
                <input type="hidden" name="slotId" value={one.slotId} />
                <input type="hidden" name="athleteId" value={one.athleteId} />
                {one.singleMps === undefined ? null : (
                  <label className="flex min-h-11 items-center gap-2">
                    <input
                      type="checkbox"
                      name="wasAll"
                      value="yes"
                      className="checkbox border-control"
                    />
                    it was all there was: {formatVelocity(one.singleMps)} m/s joins the own
                    threshold
                  </label>
                )}
                <button type="submit" name="intent" value="record" className="btn btn-sm">
                  Make it {one.name.split(" ")[0]}'s record
                </button>
              </Form>
            ) : null}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Total({ label, value }: { label: string; value: string }) {
  return (
    <div>
      <dt className="text-muted">{label}</dt>
      <dd className="text-2xl font-bold">{value}</dd>
    </div>
  );
}
