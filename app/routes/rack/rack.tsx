import { useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Link } from "react-router";
import { plateChange } from "../../../core/barload/load";
import type { LogEntry } from "../../../core/floor/entries";
import type { LifterState, SetState } from "../../../core/floor/state";
import { endedWords, lossLine } from "../../../core/liverules/rep";
import type { FrozenSession } from "../../../core/session/frozen";
import { kgToGrains, type Mass, massIn, plainNumber } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { isThisPage } from "../../offline/device";
import { useSessionLog } from "../../offline/use-session-log";
import { notThere } from "../../platform/answers.server";
import { now } from "../../platform/clock.server";
import { principalOf } from "../../platform/guard.server";
import { CallCard, callEntry } from "../../ui/calls";
import { LoadedBar } from "../../ui/loaded-bar";
import { SpeedStrip, stripWords } from "../../ui/speed-strip";
import { readRack } from "../../workflows/floor/read-session.server";
import type { Route } from "./+types/rack";
import { FaultList } from "./fault-list";
import { Queue } from "./queue";
import { TypeSpeed } from "./type-speed";
import { useNow } from "./use-now";
import { useSetRunner } from "./use-set-runner";

export const handle = { theme: "cellar" as const };

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `Rack ${loaderData?.frozen.racks[0]?.name ?? ""} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const result = await readRack(principal, params.sessionId, params.rackId);
  if (!result.ok) throw notThere(result);
  return {
    ...result.value,
    serverNowMs: now().getTime(),
    fixed: principal.kind === "rack",
  };
}

/** Everything is in the log: a loaded rack screen never needs its loader again. */
export function shouldRevalidate() {
  return false;
}

export default function Rack({ loaderData }: Route.ComponentProps) {
  const { sessionId, frozen, simulated } = loaderData;
  const log = useSessionLog({
    sessionId,
    frozen,
    entries: loaderData.entries,
    serverNowMs: loaderData.serverNowMs,
    ended: loaderData.status === "ended",
  });
  const clock = useNow(log.nowMs, loaderData.serverNowMs);
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
          <span role="status" className="text-right text-[15px]">
            {savedWords(log.link, log.unsent, log.ended)}
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
        <div className="mt-auto text-[15px] text-muted">
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
          lift={frozen.lift}
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

const BIG = "btn min-h-[72px] border-2 text-[19px]";

function Head({ one, set, total }: { one: LifterState; set: SetState; total: number }) {
  const { prescription } = set;
  return (
    <h1 className="flex flex-wrap items-baseline gap-x-4 text-[46px] leading-none font-bold">
      {one.lifter.name.split(" ")[0]}{" "}
      <span className="text-[22px] font-normal text-muted">
        set {prescription.number} of {total} · {prescription.reps} reps
        {prescription.cycleItem ? ` · ${prescription.cycleItem} grip` : ""}
      </span>
    </h1>
  );
}

function Load({
  one,
  set,
  onBar,
  rested,
  restWanted,
}: {
  one: LifterState;
  set: SetState;
  onBar: { athleteName: string; side: Mass[] } | undefined;
  rested: number | undefined;
  restWanted: number;
}) {
  if (set.loadKg === undefined) {
    return (
      <p className="my-4 border-l-[3px] border-accent pl-3 text-[20px]">
        {set.prescription.loadReason}
      </p>
    );
  }
  const { unit } = one.lifter;
  const change = onBar ? plateChange(onBar.side, set.side) : undefined;
  const short = rested !== undefined && rested < 0.8 * restWanted;
  return (
    <>
      <div className="mt-1 flex items-center gap-x-6 max-md:flex-wrap">
        <p className="text-[clamp(88px,14.5vw,148px)] leading-[1.02] font-bold" data-testid="load">
          {plainNumber(massIn(kgToGrains(set.loadKg), unit), 1)}
          <span className="ml-1 text-[36px] font-normal text-muted">{unit}</span>
        </p>
        <div className="min-w-0 text-[20px]">
          {change ? (
            <>
              <p className="text-muted">from {onBar?.athleteName.split(" ")[0]}'s bar, each side</p>
              <p className="text-[22px] leading-tight font-bold" data-testid="change">
                {changeWords(change)}
              </p>
            </>
          ) : set.stage === "to-come" ? (
            <p className="text-muted">build it from the empty bar</p>
          ) : null}
          {rested !== undefined && set.stage === "to-come" ? (
            <p className={short ? "text-secondary" : "text-muted"}>
              rested {formatClock(rested)} of {formatClock(restWanted)}
              {short ? ": under 80 % of the rest" : ""}
            </p>
          ) : null}
          {set.prescription.informationOnly ? (
            <p className="text-secondary">percentage is information only: ramp by speed</p>
          ) : null}
        </div>
      </div>
      <LoadedBar side={set.side} added={change?.on.length ?? 0} height={132} />
    </>
  );
}

function changeWords(change: ReturnType<typeof plateChange>): string {
  const list = (plates: readonly Mass[]) =>
    plates.map((plate) => plainNumber(plate.amount, 3)).join(", ");
  if (change.moves === 0) return "nothing to change";
  const off = change.off.length > 0 ? `off ${list(change.off)}` : "";
  const on = change.on.length > 0 ? `on ${list(change.on)}` : "";
  return [off, on].filter(Boolean).join(" · ");
}

function stripReps(set: SetState) {
  return set.reps.flatMap((rep) =>
    rep.velocityMps === undefined || rep.outcome === "failed"
      ? []
      : [{ number: rep.number, velocityMps: rep.velocityMps }],
  );
}

function Strip({
  set,
  session,
  lifting,
  trace,
}: {
  set: SetState;
  session: FrozenSession;
  lifting: boolean;
  trace: ReadonlyArray<{ timeS: number; heightM: number }>;
}) {
  const reps = stripReps(set);
  const rules = { cap: set.prescription.reps, ...session.stop };
  return (
    <>
      <SpeedStrip
        reps={reps}
        target={set.target}
        lossLineMps={lossLine(
          reps.map((rep) => rep.velocityMps),
          rules,
        )}
        floorMps={session.stop.floorMps}
        height={150}
        label={stripWords(reps, set.target)}
      />
      <div className="flex min-h-[66px] items-start justify-between gap-4">
        <div aria-live="assertive">
          <p className="text-[26px] leading-tight font-bold" data-testid="verdict">
            {verdictWords(set, lifting)}
          </p>
          <p className="text-[18px] text-muted">{evidenceWords(set, session)}</p>
        </div>
        {lifting ? <Trace samples={trace} /> : null}
      </div>
    </>
  );
}

function verdictWords(set: SetState, lifting: boolean): string {
  if (set.stage === "done") return set.verdict?.text ?? "Set done.";
  if (set.advice) return set.advice.text;
  return lifting ? "Measuring." : "Ready.";
}

function evidenceWords(set: SetState, session: FrozenSession): string {
  const advice = set.advice;
  const parts: string[] = [];
  if (set.stage === "done") {
    parts.push(`Ended by ${endedWords(set.endedBy)}${set.cut ? ", cut short" : ""}`);
  }
  if (advice?.best !== undefined && advice.lossPercent !== undefined) {
    const allowed =
      session.stop.lossPercent === undefined ? "" : `, ${session.stop.lossPercent} % allowed`;
    parts.push(`last ${advice.lossPercent.toFixed(0)} % down${allowed}`);
  }
  if (set.faults.length > 0) parts.push(`fault: ${set.faults.join(", ")}`);
  if (parts.length === 0) {
    return set.target ? "The reps appear here as they happen." : "Wanted speed not set.";
  }
  return parts.join(" · ");
}

/** The last seconds of the bar's height: shows that the sensor is alive. */
function Trace({ samples }: { samples: ReadonlyArray<{ timeS: number; heightM: number }> }) {
  const newest = samples[samples.length - 1]?.timeS ?? 0;
  const points = samples
    .filter((_, i) => i % 4 === 0)
    .map(
      (one) =>
        `${(180 - (newest - one.timeS) * 45).toFixed(1)},${(60 - one.heightM * 48).toFixed(1)}`,
    )
    .join(" ");
  return (
    <svg viewBox="0 0 180 60" width={180} height={60} role="img" aria-label="Bar height, live">
      <polyline points={points} fill="none" className="stroke-primary" strokeWidth={2.5} />
    </svg>
  );
}

/** The athlete's last sets, small. */
function Earlier({ one, set }: { one: LifterState; set: SetState }) {
  const earlier = one.sets.filter((other) => other.stage === "done" && other !== set).slice(-4);
  if (earlier.length === 0) return null;
  return (
    <ul className="mt-1 flex gap-4 max-md:hidden" aria-label="Last sets">
      {earlier.map((other) => (
        <li key={other.prescription.key} className="w-[132px] text-[15px] text-muted">
          set {other.prescription.number} ·{" "}
          {plainNumber(massIn(kgToGrains(other.loadKg ?? 0), one.lifter.unit), 1)}
          <SpeedStrip
            reps={stripReps(other)}
            target={other.target}
            height={24}
            width={132}
            label={`Set ${other.prescription.number}. ${stripWords(stripReps(other), other.target)}`}
          />
        </li>
      ))}
    </ul>
  );
}

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

function savedWords(link: string, unsent: number, ended: boolean): string {
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
