import { useEffect, useMemo, useState } from "react";
import { Link, redirect, useRevalidator } from "react-router";
import { z } from "zod";
import { type LogEntry, markOf } from "../../../core/floor/entries";
import { type FrozenSession, liftsOf } from "../../../core/floor/frozen";
import type { FloorFold, FloorState } from "../../../core/floor/state";
import { isClean } from "../../../core/units/text";
import { pack, unpack } from "../../forms/json";
import { useSessionLog } from "../../offline/use-session-log";
import { notThere } from "../../platform/answers.server";
import { localDate, now } from "../../platform/clock.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { EditSet } from "../../ui/edit-set";
import { keepForm } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { useNow } from "../../ui/use-now";
import { finishSession, openAgain, readChanges } from "../../workflows/floor/end-session.server";
import { readSession } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/session";
import { Conflicts, LateEntries } from "./disputed";
import { callsWords, Ended, EndSession } from "./end-session";
import { FloorCalls } from "./floor-calls";
import { HeldLifters } from "./held-lifters";
import { LogLine } from "./log-line";
import { FloorStave } from "./stave";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.title ?? "Floor"} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const result = await readSession(principal, params.sessionId);
  if (!result.ok) throw notThere(result);
  const { frozen, entries, names, sessionId, status } = result.value;
  if (liftsOf(frozen).length === 0) throw redirect(`/floor/pairing/${sessionId}`);
  return {
    sessionId,
    status,
    title: frozen.title,
    log: pack({ frozen, entries, names }),
    leftOut: result.value.leftOut,
    serverNowMs: now().getTime(),
    mayEnd: mayWrite(principal, "/floor/:sessionId"),
    itsDay: frozen.date === localDate(frozen.zone),
    changes: await readChanges(principal, sessionId),
  };
}

const ChangeForm = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("end") }),
  z.object({ intent: z.literal("reopen"), reason: z.string().max(400).refine(isClean) }),
]);

export async function action({ request, context, params }: Route.ActionArgs) {
  const principal = principalOf(context);
  const parsed = ChangeForm.safeParse(Object.fromEntries(await readForm(request)));
  if (!parsed.success) throw new Response("This form is not one of this page's.", { status: 400 });
  if (parsed.data.intent === "reopen") {
    const result = await openAgain(principal, params.sessionId, parsed.data.reason);
    if (!result.ok) return result;
    throw redirect(`/floor/${params.sessionId}`);
  }
  const result = await finishSession(principal, params.sessionId);
  if (!result.ok && result.code !== "not-running") return result;
  throw redirect(`/review/${params.sessionId}`);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export default function Session({ loaderData, actionData }: Route.ComponentProps) {
  const packed = useMemo(() => unpack(loaderData.log), [loaderData.log]);
  const problem = actionData && "message" in actionData ? actionData.message : undefined;
  return (
    <SessionScreen
      // Opened again it begins anew: what this page had taken for the end is over.
      key={`${loaderData.sessionId} ${loaderData.changes.length}`}
      {...packed}
      sessionId={loaderData.sessionId}
      serverNowMs={loaderData.serverNowMs}
      ended={loaderData.status === "ended"}
      mayEnd={loaderData.mayEnd}
      itsDay={loaderData.itsDay}
      changes={loaderData.changes}
      problem={problem}
      leftOut={loaderData.leftOut}
    />
  );
}

/** Why somebody is left out, by the check's code; never a reason of a limit. */
const LEFT_OUT_WORDS: Record<string, string> = {
  "heavy-refused": "heavy work",
  "resistance-refused": "bands and chains",
  "box-relax": "relax and fire",
  cap: "over the instruction",
};

function SessionScreen(props: {
  sessionId: string;
  frozen: FrozenSession;
  entries: LogEntry[];
  names: Record<string, string>;
  serverNowMs: number;
  ended: boolean;
  mayEnd: boolean;
  itsDay: boolean;
  changes: Awaited<ReturnType<typeof readChanges>>;
  problem: string | undefined;
  leftOut: Array<{ name: string; code: string }>;
}) {
  const { sessionId, frozen, names, mayEnd } = props;
  const { log, view } = useSessionLog(props);
  const runningMs = useNow(log.nowMs, props.serverNowMs, TICK_MS);
  const [editing, setEditing] = useState<{ athleteId: string; setKey: string }>();
  const { floor } = view;
  const { revalidate } = useRevalidator();
  const stale = view.ended !== props.ended;
  useEffect(() => {
    // Somebody ended it, or opened it again: who and why is asked for.
    if (stale) void revalidate();
  }, [stale, revalidate]);
  const span = useMemo(() => spanOf(floor, log.fold), [floor, log]);
  // After the end the floor stands still, where the last set was finished.
  const nowMs = view.ended ? (span.lastMs ?? span.firstMs ?? runningMs) : runningMs;
  const lifters = floor.racks.flatMap((rack) => rack.lifters);
  const done = lifters.reduce((n, one) => n + one.doneCount, 0);
  const planned = lifters.reduce((n, one) => n + one.sets.length, 0);
  const [lift] = liftsOf(frozen);
  const edited = floor.racks.find((rack) =>
    rack.lifters.some((one) => one.lifter.athleteId === editing?.athleteId),
  );
  if (!lift) return null;

  return (
    <Page
      title={frozen.title}
      facts={`${frozen.roomName} · ${lift.liftName} · rest ${lift.rest.leastS} to ${lift.rest.mostS} s · ${done} of ${planned} sets`}
      actions={
        view.ended ? (
          <Link className="btn btn-primary" to={`/review/${sessionId}`}>
            Open the review
          </Link>
        ) : mayEnd ? (
          <EndSession floor={floor} />
        ) : null
      }
      margin={
        <>
          <p className="flex justify-between gap-3 text-muted">
            <LogLine view={view} />
            <span>{callsWords(floor.calls.length)}</span>
          </p>
          {view.ended ? null : (
            <FloorCalls floor={floor} append={(body, supersedes) => log.append(body, supersedes)} />
          )}
          <HeldLifters
            floor={floor}
            mayDecide={mayEnd && !view.ended}
            over={(at, of) => log.append({ kind: "pain-over", of, ...at })}
          />
          <LateEntries
            floor={floor}
            names={names}
            zone={frozen.zone}
            mayDecide={mayEnd}
            decide={(of, take) => log.append({ kind: "admit", of, take })}
          />
          <Conflicts floor={floor} fold={log.fold} names={names} open={setEditing} />
        </>
      }
    >
      {props.problem ? <Notice kind="problem" title={props.problem} /> : null}
      {props.leftOut.length > 0 ? (
        <Notice
          kind="warning"
          title={`Left out: ${props.leftOut.map((one) => `${one.name} (${LEFT_OUT_WORDS[one.code] ?? "refused"})`).join(", ")}`}
        >
          Refused by default in this slot. A coach answers it with a reason in the plan's checks, or
          gives them another slot.
        </Notice>
      ) : null}
      {view.ended ? (
        <Ended changes={props.changes} mayReopen={mayEnd && props.itsDay} zone={frozen.zone} />
      ) : null}
      <FloorStave
        floor={floor}
        firstMs={Math.min(span.firstMs ?? nowMs, nowMs)}
        sessionId={sessionId}
        rest={lift.rest}
        nowMs={nowMs}
        open={setEditing}
      />
      <section aria-label="Cautions" className="mt-4 text-sm text-muted">
        {frozen.cautions.map((caution) => (
          <p key={caution}>{caution}</p>
        ))}
      </section>
      {editing && edited ? (
        <EditSet
          fold={log.fold}
          append={(body, supersedes) => log.append(body, supersedes)}
          slot={edited.slot}
          rack={edited.rack}
          lifters={edited.lifters}
          shown={editing}
          names={names}
          zone={frozen.zone}
          onClose={() => setEditing(undefined)}
        />
      ) : null}
    </Page>
  );
}

/** From the first thing that was logged to the last set that was finished, ms. */
function spanOf(floor: FloorState, fold: FloorFold) {
  const made = fold.entries().flatMap((one) => (one.doubt ? [] : markOf(one).atMs));
  const ends = floor.racks.flatMap((rack) =>
    rack.lifters.flatMap((one) => one.sets.flatMap((set) => set.end?.atMs ?? [])),
  );
  const first = made.reduce((least, ms) => Math.min(least, ms), Number.POSITIVE_INFINITY);
  const last = ends.reduce((most, ms) => Math.max(most, ms), Number.NEGATIVE_INFINITY);
  return {
    firstMs: Number.isFinite(first) ? first : undefined,
    lastMs: Number.isFinite(last) ? last : undefined,
  };
}

const TICK_MS = 1000;
