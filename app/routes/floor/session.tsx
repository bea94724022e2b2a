import { useMemo } from "react";
import { Link, redirect } from "react-router";
import { pack, unpack } from "../../forms/json";
import { useSessionLog } from "../../offline/use-session-log";
import { notThere } from "../../platform/answers.server";
import { now } from "../../platform/clock.server";
import { principalOf } from "../../platform/guard.server";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { useNow } from "../../ui/use-now";
import { finishSession } from "../../workflows/floor/end-session.server";
import { readSession } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/session";
import { FloorCalls } from "./floor-calls";
import { FloorStave } from "./stave";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.title ?? "Floor"} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const result = await readSession(principalOf(context), params.sessionId);
  if (!result.ok) throw notThere(result);
  const { frozen, entries, sessionId, status } = result.value;
  return {
    sessionId,
    status,
    title: frozen.title,
    log: pack({ frozen, entries }),
    serverNowMs: now().getTime(),
  };
}

export async function action({ context, params }: Route.ActionArgs) {
  const result = await finishSession(principalOf(context), params.sessionId);
  if (!result.ok && result.code !== "not-running") return result;
  throw redirect(`/review/${params.sessionId}`);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export default function Session({ loaderData, actionData }: Route.ComponentProps) {
  const { sessionId } = loaderData;
  const { frozen, entries } = useMemo(() => unpack(loaderData.log), [loaderData.log]);
  const log = useSessionLog({
    sessionId,
    frozen,
    entries,
    serverNowMs: loaderData.serverNowMs,
    ended: loaderData.status === "ended",
  });
  const nowMs = useNow(log.nowMs, loaderData.serverNowMs, TICK_MS);
  const { floor } = log;
  const done = floor.racks.flatMap((rack) => rack.lifters).reduce((n, one) => n + one.doneCount, 0);
  const planned = frozen.racks
    .flatMap((rack) => rack.lifters)
    .reduce((n, l) => n + l.sets.length, 0);

  return (
    <Page
      title={frozen.title}
      facts={`${frozen.roomName} · ${frozen.liftName} · rest ${frozen.rest.leastS} to ${frozen.rest.mostS} s · ${done} of ${planned} sets`}
      actions={
        log.ended ? (
          <Link className="btn btn-primary" to={`/review/${sessionId}`}>
            Open the review
          </Link>
        ) : (
          <Form
            method="post"
            onSubmit={(event) => {
              const left = planned - done;
              if (
                left > 0 &&
                !window.confirm(`End the session with ${left} sets not done? What is logged stays.`)
              ) {
                event.preventDefault();
              }
            }}
          >
            <button type="submit" className="btn">
              End the session
            </button>
          </Form>
        )
      }
      margin={
        <>
          <p className="flex justify-between text-muted" role="status">
            <span>{linkWords(log.link, log.unsent)}</span>
            <span>{floor.calls.length} calls wait</span>
          </p>
          <FloorCalls floor={floor} slotId={frozen.slotId} append={log.append} />
          {log.refused.length > 0 ? (
            <Notice kind="problem" title={`${log.refused.length} entries were not taken.`}>
              {log.refused[0]?.reason}
            </Notice>
          ) : null}
          {floor.conflicts.length > 0 ? (
            <Notice kind="warning" title={`${floor.conflicts.length} entries disagree.`}>
              The same set came from two tablets, or was corrected twice. The first one stands.
            </Notice>
          ) : null}
        </>
      }
    >
      {actionData && "message" in actionData ? (
        <Notice kind="problem" title={actionData.message} />
      ) : null}
      {log.ended ? (
        <Notice kind="note" title="This session has ended.">
          What tablets logged before its end is still taken.
        </Notice>
      ) : null}
      <FloorStave
        floor={floor}
        entries={log.entries}
        sessionId={sessionId}
        rest={frozen.rest}
        nowMs={nowMs}
      />
      <section aria-label="Cautions" className="mt-4 text-sm text-muted">
        {frozen.cautions.map((caution) => (
          <p key={caution}>{caution}</p>
        ))}
      </section>
    </Page>
  );
}

function linkWords(link: string, unsent: number): string {
  if (link === "sign-in") return "Sign in again to send";
  if (link === "away") return `No link. ${unsent} kept here`;
  return unsent > 0 ? `Sending ${unsent}` : "All saved";
}

const TICK_MS = 1000;
