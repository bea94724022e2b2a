import { useMemo } from "react";
import { redirect } from "react-router";
import { z } from "zod";
import { isClean } from "../../../core/units/text";
import { packLog } from "../../forms/pack-session-log";
import { unpackLog } from "../../forms/session-log";
import { notThere } from "../../platform/answers.server";
import { localDate, now } from "../../platform/clock.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { keepForm } from "../../ui/keep-form";
import { useUnit } from "../../ui/unit";
import { finishSession, openAgain, readChanges } from "../../workflows/floor/end-session.server";
import { readSession } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/session";
import { FloorScreen } from "./floor-screen";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.title ?? "Floor"} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const result = await readSession(principal, params.sessionId);
  if (!result.ok) throw notThere(result);
  const { frozen, entries, names, sessionId, status } = result.value;
  // A pairing by itself has a page of its own.
  if (frozen.slots.every((slot) => slot.kind === "pairing" && !slot.from))
    throw redirect(`/floor/pairing/${sessionId}`);
  return {
    sessionId,
    status,
    title: frozen.title,
    log: packLog({ frozen, entries, names }),
    leftOut: result.value.leftOut,
    times: result.value.times,
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
  const packed = useMemo(() => unpackLog(loaderData.log), [loaderData.log]);
  const unit = useUnit();
  const problem = actionData && "message" in actionData ? actionData.message : undefined;
  return (
    <FloorScreen
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
      times={loaderData.times}
      unit={unit}
    />
  );
}
