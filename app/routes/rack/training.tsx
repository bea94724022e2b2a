import { useMemo } from "react";
import { redirect, type ShouldRevalidateFunctionArgs } from "react-router";
import { packLog } from "../../forms/pack-session-log";
import { unpackLog } from "../../forms/session-log";
import { notThere } from "../../platform/answers.server";
import { now } from "../../platform/clock.server";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { keepForm } from "../../ui/keep-form";
import { finishSession } from "../../workflows/floor/end-session.server";
import { readOwn } from "../../workflows/floor/own-training.server";
import type { Route } from "./+types/training";
import { StationScreen } from "./station-screen";

export const handle = { theme: "cellar" as const };

export function meta() {
  return [{ title: "My training · Sprezza" }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const result = await readOwn(principalOf(context), params.sessionId);
  if (!result.ok) throw notThere(result);
  const { frozen, entries, sensors, noSensor, names, repsOf, sessionId, status, stationId } =
    result.value;
  return {
    sessionId,
    stationId,
    status,
    log: packLog({ frozen, entries, sensors, noSensor, names, repsOf }),
    serverNowMs: now().getTime(),
  };
}

/** Ends the athlete's own training. */
export async function action({ request, context, params }: Route.ActionArgs) {
  const form = await readForm(request);
  if (form.get("intent") !== "end") {
    return { ok: false as const, message: "The form was not complete. Load the page again." };
  }
  const result = await finishSession(principalOf(context), params.sessionId);
  if (!result.ok) return { ok: false as const, message: result.message };
  throw redirect("/card");
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** Everything is in the log: only another training is loaded. */
export function shouldRevalidate({ currentParams, nextParams }: ShouldRevalidateFunctionArgs) {
  return currentParams.sessionId !== nextParams.sessionId;
}

/** A day that an athlete trains alone, on their own phone. */
export default function Training({ loaderData }: Route.ComponentProps) {
  const { sessionId, stationId, serverNowMs, status } = loaderData;
  const packed = useMemo(() => unpackLog(loaderData.log), [loaderData.log]);
  return (
    <StationScreen
      key={sessionId}
      sessionId={sessionId}
      stationId={stationId}
      {...packed}
      serverNowMs={serverNowMs}
      ended={status === "ended"}
      fixed={false}
      alone
    />
  );
}
