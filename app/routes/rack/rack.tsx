import { useMemo, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Link } from "react-router";
import type { LogEntry } from "../../../core/floor/entries";
import type { LifterState, SetState } from "../../../core/floor/state";
import { pack, unpack } from "../../forms/json";
import { isThisPage } from "../../offline/device";
import { type SessionLog, useSessionLog } from "../../offline/use-session-log";
import { notThere } from "../../platform/answers.server";
import { now } from "../../platform/clock.server";
import { principalOf } from "../../platform/guard.server";
import { CallCard, callEntry } from "../../ui/calls";
import { useNow } from "../../ui/use-now";
import { readRack } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/rack";
import { FaultList } from "./fault-list";
import { Queue } from "./queue";
import { Earlier, Head, Load, Strip } from "./set-view";
import { TypeSpeed } from "./type-speed";
import { useSetRunner } from "./use-set-runner";

export const handle = { theme: "cellar" as const };

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `Rack ${loaderData?.name ?? ""} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const result = await readRack(principal, params.sessionId, params.rackId);
  if (!result.ok) throw notThere(result);
  const { frozen, entries, simulated, sessionId, status } = result.value;
  return {
    sessionId,
    status,
    name: frozen.racks[0]?.name,
    log: pack({ frozen, entries, simulated }),
    serverNowMs: now().getTime(),
    fixed: principal.kind === "rack",
  };
}

/** Everything is in the log: a loaded rack screen never needs its loader again. */
export function shouldRevalidate() {
  return false;
}

export default function Rack({ loaderData }: Route.ComponentProps) {
  const { sessionId } = loaderData;
  const { frozen, entries, simulated } = useMemo(() => unpack(loaderData.log), [loaderData.log]);
  const log = useSessionLog({
    sessionId,
    frozen,
    entries,
    serverNowMs: loaderData.serverNowMs,
    ended: loaderData.status === "ended",
  });
  const clock = useNow(log.nowMs, loaderData.serverNowMs, TICK_MS);
  const rack = log.floor.racks[0];
  // A finished set stays on the screen with its verdict until somebody goes on.
  const [held, setHeld] = useState<{ athleteId: string; setKey: string }>();
  const [panel, setPanel] = useState<"type" | "fault">();

  const heldOne = rack?.lifters.find((one) => one.lifter.athleteId === held?.athleteId);
  const one = heldOne ?? rack?.lifters.find((other) => other.lifter.athleteId === rack.upId);
  const set =
    heldOne?.sets.find((other) => other.prescription.key === held?.setKey) ??
    (one?.current === undefined ? undefined : one.sets[one.current]);
  const rested = one && set?.stage !== "done" ? restedSeconds(one, clock) : undefined;

  const runner = useSetRunner({
    session: frozen,
    log,
    one,
    set,
    truth: one ? simulated[one.lifter.athleteId] : undefined,
    sessionId,
    restedS: rested,
  });
  const hold = () =>
    one && set && setHeld({ athleteId: one.lifter.athleteId, setKey: set.prescription.key });
  const next = () => {
    setPanel(undefined);
    setHeld(undefined);
  };
  const begin = () => {
    hold();
    runner.begin();
  };
  const call =
    set?.stage === "done"
      ? log.floor.calls.find(
          (other) =>
            other.athleteId === one?.lifter.athleteId && other.setKey === set.prescription.key,
        )
      : undefined;
  const hasSensor = one !== undefined && simulated[one.lifter.athleteId] !== undefined;
  const undo = () => {
    const last = lastOwnEntry(log.entries);
    if (!last || last.body.kind === "void") return;
    log.append({ kind: "void" }, [last.id]);
    setHeld({ athleteId: last.body.athleteId, setKey: last.body.setKey });
  };

  const keysOff = { enabled: panel === undefined };
  useHotkeys("n", next, keysOff);
  useHotkeys(
    "space",
    () => {
      if (set?.stage === "done") return next();
      if (set?.stage === "running" || runner.lifting) return runner.end();
      begin();
    },
    { ...keysOff, preventDefault: true },
  );
  useHotkeys("f", () => setPanel("fault"), { ...keysOff, preventDefault: true });
  useHotkeys("u", undo, keysOff);
  useHotkeys(
    "0,1,2,3,4,5,6,7,8,9",
    () => {
      if (set && set.stage !== "done") setPanel("type");
    },
    keysOff,
  );

  if (!rack) return null;
  return (
    <div className="grid min-h-dvh text-[17px] md:h-dvh md:grid-cols-[minmax(0,1fr)_300px]">
      <main className="flex min-w-0 flex-col overflow-auto p-4 md:p-6">
        {one && set ? (
          <>
            <Head one={one} set={set} total={one.sets.length} />
            <Load
              one={one}
              set={set}
              onBar={set.stage === "to-come" ? rack.onBar : undefined}
              rested={rested}
              restWanted={frozen.rest.leastS + one.addedRestS}
            />
            <Strip set={set} session={frozen} lifting={runner.lifting} trace={runner.trace} />
            <Earlier one={one} set={set} />
            <div className="mt-auto grid grid-cols-2 gap-2.5 pt-3 lg:grid-cols-4">
              <MainButton
                stage={runner.lifting ? "running" : set.stage}
                hasSensor={hasSensor}
                noLoad={set.loadKg === undefined}
                nextName={nextName(rack.lifters, rack.upId)}
                onBegin={begin}
                onEnd={runner.end}
                onNext={next}
              />
              <button type="button" className={BIG} onClick={() => setPanel("fault")}>
                Fault
              </button>
              <button
                type="button"
                className={BIG}
                disabled={set.stage === "done" || set.loadKg === undefined}
                onClick={() => setPanel("type")}
              >
                Type a speed
              </button>
              <button type="button" className={BIG} onClick={undo}>
                Undo
              </button>
            </div>
          </>
        ) : (
          <Finished sessionId={sessionId} fixed={loaderData.fixed} />
        )}
      </main>
      <aside className="flex flex-col gap-3 overflow-auto border-rule bg-base-200 p-4 md:border-l">
        <p className="flex items-baseline justify-between">
          <span className="text-[52px] leading-none font-bold">
            <span className="sr-only">Rack </span>
            {rack.rack.name}
          </span>
          <span role="status" className="text-right text-[17px]">
            {savedWords(log)}
          </span>
        </p>
        <Queue
          rack={rack}
          shownId={one?.lifter.athleteId}
          nowMs={clock}
          rest={frozen.rest}
          rested={restedSeconds}
        />
        {call ? (
          <div className="border-t border-rule pt-3">
            <CallCard
              key={call.setKey}
              call={call}
              keyHint="1"
              large
              decide={(decided, decision, action, reason) =>
                log.append(callEntry(frozen.slotId, decided, decision, action, reason))
              }
            />
          </div>
        ) : null}
        {log.refused.length > 0 ? (
          <p role="alert" className="border-l-[3px] border-accent pl-3">
            {log.refused.length} not taken: {log.refused[0]?.reason}
          </p>
        ) : null}
        <div className="mt-auto text-[17px] text-muted">
          {one?.lifter.instructions.map((text) => (
            <p key={text} className="mb-2 border-l-[3px] border-secondary pl-3 text-base-content">
              {text}
            </p>
          ))}
          <p>{frozen.cautions[0]}</p>
          {loaderData.fixed ? null : (
            <Link className="mt-2 inline-block underline" to={`/floor/${sessionId}`}>
              Back to the floor
            </Link>
          )}
        </div>
      </aside>
      {panel === "type" && set ? (
        <TypeSpeed
          onClose={() => setPanel(undefined)}
          onSpeed={(velocity) => {
            hold();
            runner.typeRep(velocity);
          }}
          repsLeft={set.prescription.reps - set.reps.length}
        />
      ) : null}
      {panel === "fault" ? (
        <FaultList
          faults={frozen.faults}
          onClose={() => setPanel(undefined)}
          onFault={(fault, cut) => {
            hold();
            runner.tagFault(fault, cut);
          }}
        />
      ) : null}
    </div>
  );
}

const TICK_MS = 250;

const BIG = "btn min-h-[72px] border-2 text-[19px]";

function MainButton({
  stage,
  hasSensor,
  noLoad,
  nextName: name,
  onBegin,
  onEnd,
  onNext,
}: {
  stage: SetState["stage"];
  hasSensor: boolean;
  noLoad: boolean;
  nextName: string | undefined;
  onBegin: () => void;
  onEnd: () => void;
  onNext: () => void;
}) {
  const look = `${BIG} btn-primary`;
  if (stage === "done" || noLoad) {
    return (
      <button type="button" className={look} onClick={onNext}>
        {name ? `Next: ${name}` : "Go on"}
      </button>
    );
  }
  if (stage === "running") {
    return (
      <button type="button" className={look} onClick={onEnd}>
        End the set
      </button>
    );
  }
  return (
    <button type="button" className={look} onClick={onBegin} disabled={!hasSensor}>
      {hasSensor ? "Lift (simulated)" : "No sensor"}
    </button>
  );
}

function nextName(lifters: readonly LifterState[], upId: string | undefined): string | undefined {
  return lifters.find((one) => one.lifter.athleteId === upId)?.lifter.name.split(" ")[0];
}

function Finished({ sessionId, fixed }: { sessionId: string; fixed: boolean }) {
  return (
    <div className="m-auto max-w-md">
      <h1 className="text-[40px]">All sets at this rack are done</h1>
      <p className="mt-2 text-muted">
        Strip the bar, put the plates away. What was logged is in the review.
      </p>
      {fixed ? null : (
        <p className="mt-4">
          <Link className={BIG} to={`/review/${sessionId}`}>
            Open the review
          </Link>
        </p>
      )}
    </div>
  );
}

function savedWords(log: Pick<SessionLog, "link" | "unsent" | "unkept" | "ended">): string {
  const { link, unsent, unkept, ended } = log;
  if (unkept > 0) return `${unkept} NOT saved on this tablet: keep this page open`;
  if (ended) return "the session has ended";
  if (link === "sign-in") return `sign in again; ${unsent} kept here`;
  if (link === "away") return `no link; ${unsent} kept here`;
  return unsent > 0 ? `saved here, sending ${unsent}` : "saved here and sent";
}

/** Seconds since this athlete's last set: by this page's own clock where it measured it. */
function restedSeconds(one: LifterState, nowMs: number): number | undefined {
  const end = one.sets.filter((set) => set.end).at(-1)?.end;
  if (!end) return undefined;
  if (typeof performance !== "undefined" && isThisPage(end)) {
    return Math.max(0, (performance.now() - end.monoMs) / 1000);
  }
  return Math.max(0, (nowMs - Date.parse(end.wallTime)) / 1000);
}

/** The newest entry that this page wrote and nothing has taken back. */
function lastOwnEntry(entries: readonly LogEntry[]): LogEntry | undefined {
  const taken = new Set(entries.flatMap((entry) => entry.supersedes));
  return entries
    .filter((entry) => isThisPage(entry) && entry.body.kind !== "void" && !taken.has(entry.id))
    .sort((a, b) => b.deviceSeq - a.deviceSeq)[0];
}
