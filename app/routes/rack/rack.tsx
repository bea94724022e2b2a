import { useMemo } from "react";
import type { ShouldRevalidateFunctionArgs } from "react-router";
import { packLog } from "../../forms/pack-session-log";
import { unpackLog } from "../../forms/session-log";
import { notThere } from "../../platform/answers.server";
import { now } from "../../platform/clock.server";
import { principalOf } from "../../platform/guard.server";
import { readStation } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/rack";
import { StationScreen } from "./station-screen";

export const handle = { theme: "cellar" as const };

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.name ?? "Station"} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const result = await readStation(principal, params.sessionId, params.rackId);
  if (!result.ok) throw notThere(result);
  const { frozen, entries, sensors, noSensor, names, repsOf, sessionId, status } = result.value;
  return {
    sessionId,
    rackId: params.rackId,
    status,
    name: result.value.name,
    log: packLog({ frozen, entries, sensors, noSensor, names, repsOf }),
    serverNowMs: now().getTime(),
    fixed: principal.kind === "rack",
  };
}

/** Everything is in the log: a loaded rack screen needs its loader for another rack only. */
export function shouldRevalidate({ currentParams, nextParams }: ShouldRevalidateFunctionArgs) {
  return (
    currentParams.sessionId !== nextParams.sessionId || currentParams.rackId !== nextParams.rackId
  );
}

export default function Rack({ loaderData }: Route.ComponentProps) {
  const { sessionId, rackId, serverNowMs, status, fixed } = loaderData;
  const packed = useMemo(() => unpackLog(loaderData.log), [loaderData.log]);
  return (
    <StationScreen
      key={`${sessionId}/${rackId}`}
      sessionId={sessionId}
      stationId={rackId}
      {...packed}
      serverNowMs={serverNowMs}
      ended={status === "ended"}
      fixed={fixed}
    />
  );
}
