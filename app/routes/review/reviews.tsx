import { useRef } from "react";
import { Link } from "react-router";
import { CALL_KINDS, CALL_NAMES } from "../../../core/review/calls";
import { signedMps } from "../../../core/review/equal-load";
import { formatKg } from "../../../core/units/mass";
import { readIn } from "../../../core/units/written";
import { formObject } from "../../forms/athlete";
import { idFrom } from "../../forms/primitives/id";
import { fieldProblems } from "../../forms/recipe";
import { ReviewCallForm } from "../../forms/review-call";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { arrows, CallKeys, CallWords, DECISION_WORDS, DecidedLine } from "../../ui/call-keys";
import { Dated, Day } from "../../ui/dates";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Empty, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { useKeys } from "../../ui/use-keys";
import { decideCall, takeBack } from "../../workflows/review/decide-call.server";
import { type CallsPage, readCalls } from "../../workflows/review/read-calls.server";
import type { Route } from "./+types/reviews";
import { becameWords } from "./became";
import { DayChart, SetChart } from "./day-chart";
import { ReviewNav } from "./review-nav";

export function meta() {
  return [{ title: "Review · Sprezza" }];
}

export async function loader({ context, url }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return {
    page: await readCalls(principal, { groupId: idFrom(url.searchParams.get("group") ?? "") }),
    mayDecide: mayWrite(principal, "/review"),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = ReviewCallForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success)
    return {
      ok: false as const,
      message: Object.values(fieldProblems(parsed.error))[0] ?? "Look at the form.",
    };
  const principal = principalOf(context);
  return parsed.data.intent === "decide"
    ? decideCall(principal, parsed.data)
    : takeBack(principal, parsed.data.callId);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof revalidateUnlessFailed>[0]) {
  return revalidateUnlessFailed(args);
}

type Call = CallsPage["calls"][number];

/** What needs a decision, what was agreed, what became of it, and the sessions. */
export default function Reviews({ loaderData, actionData }: Route.ComponentProps) {
  const { page, mayDecide } = loaderData;
  const address = useAddress();
  const result = actionData as { ok: boolean; message?: string } | undefined;
  const opened = page.calls.find((call) => call.about === address.get("call")) ?? page.calls[0];
  const step = (by: number) => {
    const at = page.calls.findIndex((call) => call.about === opened?.about);
    const next = page.calls[Math.min(page.calls.length - 1, Math.max(0, at + by))];
    if (next) address.set("call", next.about);
  };
  const last = page.decided.find((one) => !one.call.undone);
  useKeys(arrows(step), true);
  return (
    <Page
      title="Review"
      facts={`${page.calls.length} ${page.calls.length === 1 ? "call waits" : "calls wait"}`}
      margin={
        opened ? (
          <OpenedCall
            key={opened.about}
            call={opened}
            groupId={page.groupId}
            mayDecide={mayDecide}
            problem={result && !result.ok ? result.message : undefined}
          />
        ) : undefined
      }
    >
      <ReviewNav />
      <div className="no-print mb-2 w-64">
        <PageSelect
          label="Squad"
          value={page.groupId}
          onChange={(event) => address.setAll({ group: event.target.value, call: "" })}
        >
          {page.groups.map((group) => (
            <option key={group.id} value={group.id}>
              {group.name}
            </option>
          ))}
        </PageSelect>
      </div>
      {page.moreBehind ? (
        <p className="text-sm text-muted">
          Earlier sessions are still being summed: load the page again for the rest.
        </p>
      ) : null}
      <Waves page={page} />
      <Calls
        calls={page.calls}
        opened={opened?.about}
        onOpen={(about) => address.set("call", about)}
      />
      <ToDos page={page} mayDecide={mayDecide} />
      <DecidedList page={page} last={last?.call.id} mayDecide={mayDecide} />
      <Sessions page={page} />
    </Page>
  );
}

/** The squad's waves that speak today, each with the squad's mean. */
function Waves({ page }: { page: CallsPage }) {
  if (page.waves.length === 0)
    return (
      <p className="text-muted">
        No wave of this squad runs or ended in the last three weeks. Its calls stand here when one
        does.
      </p>
    );
  return (
    <ul className="mb-3">
      {page.waves.map((wave) => (
        <li
          key={`${wave.planId}/${wave.slotId}/${wave.run}`}
          className="flex flex-wrap gap-x-4 border-b border-faint py-1"
        >
          <Link
            className="font-bold underline"
            to={`/review/wave?plan=${wave.planId}&slot=${wave.slotId}&run=${wave.run}`}
          >
            {wave.name}
          </Link>
          <span className="text-muted">
            {wave.liftName}, <Day of={wave.from} /> to <Day of={wave.to} />
            {wave.over ? "" : ", running"}
          </span>
          {wave.mean ? (
            <span className="ml-auto">
              squad {signedMps(wave.mean.estimate)} m/s{" "}
              <span className="text-muted">
                ({signedMps(wave.mean.low)} to {signedMps(wave.mean.high)})
              </span>
            </span>
          ) : null}
        </li>
      ))}
    </ul>
  );
}

/** Calls of a kind together, the weightiest kind first: a line each. */
function Calls({
  calls,
  opened,
  onOpen,
}: {
  calls: readonly Call[];
  opened: string | undefined;
  onOpen: (about: string) => void;
}) {
  const unit = useUnit();
  if (calls.length === 0)
    return <Empty>No call waits. What a wave asks stands here when the evidence speaks.</Empty>;
  return (
    <>
      {CALL_KINDS.map((kind) => {
        const own = calls.filter((call) => call.kind === kind);
        if (own.length === 0) return null;
        return (
          <section key={kind} aria-labelledby={`kind-${kind}`} className="mt-3">
            <h2 id={`kind-${kind}`}>
              {CALL_NAMES[kind]} <span className="font-normal text-muted">{own.length}</span>
            </h2>
            <ul>
              {own.map((call) => (
                <li key={call.about}>
                  <button
                    type="button"
                    aria-pressed={call.about === opened}
                    className={`flex min-h-11 w-full flex-wrap items-baseline gap-x-3 border-b border-faint px-1 py-1.5 text-left ${call.about === opened ? "bg-wash" : ""}`}
                    onClick={() => onOpen(call.about)}
                  >
                    <b className="w-36">{call.name ?? "Squad"}</b>
                    <span className="min-w-0 flex-1">
                      <Dated>{readIn(call.proposal, unit)}</Dated>
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </>
  );
}

function OpenedCall({
  call,
  groupId,
  mayDecide,
  problem,
}: {
  call: Call;
  groupId: string;
  mayDecide: boolean;
  problem: string | undefined;
}) {
  const unit = useUnit();
  const { days, sets } = call.evidence;
  return (
    <section aria-labelledby="opened-call">
      <h2 id="opened-call">{call.name ?? "The squad"}</h2>
      <CallWords call={call} unit={unit} />
      {mayDecide ? <CallKeys call={call} groupId={groupId} keys problem={problem} /> : null}
      {days ? (
        <>
          <h3 className="mt-3 font-bold">Speed at {formatKg(days.loadKg, unit, 1)}, m/s</h3>
          <DayChart days={days.days} label="Speed by day" />
          <EvidenceTable days={days.days} />
        </>
      ) : null}
      {sets ? (
        <>
          <h3 className="mt-3 font-bold">The last day, set by set</h3>
          <SetChart sets={sets} />
        </>
      ) : null}
      {call.athleteId ? (
        <p className="mt-3">
          <Link className="underline" to={`/review/trends?athlete=${call.athleteId}`}>
            Trends
          </Link>{" "}
          ·{" "}
          <Link className="underline" to={`/athletes/${call.athleteId}`}>
            Athlete
          </Link>
        </p>
      ) : null}
    </section>
  );
}

/** The chart's figures, for who reads them. */
function EvidenceTable({ days }: { days: ReadonlyArray<{ date: string; speedMps: number }> }) {
  return (
    <details className="mt-1">
      <summary className="cursor-pointer text-sm text-muted">In figures</summary>
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Day</th>
            <th scope="col" className="!text-right">
              m/s
            </th>
          </tr>
        </thead>
        <tbody>
          {days.map((day) => (
            <tr key={day.date}>
              <th scope="row">
                <Day of={day.date} />
              </th>
              <td className="text-right">{day.speedMps.toFixed(2)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

/** What was agreed and is still to be done. */
function ToDos({ page, mayDecide }: { page: CallsPage; mayDecide: boolean }) {
  if (page.toDo.length === 0) return null;
  return (
    <section aria-labelledby="to-do" className="mt-6">
      <h2 id="to-do">To be done</h2>
      <ul>
        {page.toDo.map((one) => (
          <li key={one.id} className="border-b border-faint py-1">
            <b>{one.name ?? "Squad"}</b>
            <DecidedLine decided={one} keys={false} mayDecide={mayDecide} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function DecidedList({
  page,
  last,
  mayDecide,
}: {
  page: CallsPage;
  last: string | undefined;
  mayDecide: boolean;
}) {
  const list = useRef<HTMLTableElement>(null);
  if (page.decided.length === 0) return null;
  return (
    <section aria-labelledby="decided" className="mt-6">
      <h2 id="decided">Decided, and what became of it</h2>
      <div className="overflow-x-auto">
        <table className="ledger" ref={list}>
          <thead>
            <tr>
              <th scope="col">Athlete</th>
              <th scope="col">Decision</th>
              <th scope="col">Since</th>
            </tr>
          </thead>
          <tbody>
            {page.decided.map(({ call, name, became }) => (
              <tr key={call.id}>
                <th scope="row" className="!text-base-content">
                  {name}
                </th>
                <td>
                  {call.undone ? (
                    <span className="text-muted">
                      {CALL_NAMES[call.kind]}, {DECISION_WORDS[call.decision]}{" "}
                      <Day of={call.date} />, taken back
                    </span>
                  ) : (
                    <DecidedLine decided={call} keys={call.id === last} mayDecide={mayDecide} />
                  )}
                </td>
                <td>{became ? becameWords(became) : ""}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

function Sessions({ page }: { page: CallsPage }) {
  return (
    <section aria-labelledby="sessions" className="mt-6">
      <h2 id="sessions">Sessions</h2>
      {page.sessions.length === 0 ? (
        <Empty
          action={
            <Link className="underline" to="/floor">
              Open the floor
            </Link>
          }
        >
          No session yet. A session's review stands here as soon as it is started.
        </Empty>
      ) : (
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col">Date</th>
              <th scope="col">Session</th>
              <th scope="col">State</th>
            </tr>
          </thead>
          <tbody>
            {page.sessions.map((session) => (
              <tr key={session.id}>
                <td className="whitespace-nowrap">
                  <Day of={session.date} />
                </td>
                <td>
                  <Link className="underline" to={`/review/${session.id}`}>
                    {session.title}
                  </Link>
                  {session.alone ? `, ${session.alone} alone` : ""}
                </td>
                <td className="text-muted">{session.status}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
