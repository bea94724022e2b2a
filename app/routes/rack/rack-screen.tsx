import { useEffect, useState } from "react";
import { Link } from "react-router";
import { actName, actWords } from "../../../core/floor/act-words";
import type { LogEntry, SetAddress } from "../../../core/floor/entries";
import { type FrozenSession, type LiftOnFloor, liftsOf } from "../../../core/floor/frozen";
import { decidedCall, type LifterState, type WaitingCall } from "../../../core/floor/lifter-state";
import type { SetState } from "../../../core/floor/set-state";
import type { RackState } from "../../../core/floor/state";
import { lastAct, lastUndone } from "../../../core/floor/undo";
import { secondsBetween } from "../../../core/units/clock";
import type { MassUnit } from "../../../core/units/mass";
import type { SensorSource } from "../../../device/sources";
import { deviceClock, deviceId } from "../../offline/device";
import type { SessionLog, SessionView } from "../../offline/session-log";
import { useSessionLog } from "../../offline/use-session-log";
import { useKeys } from "../../ui/use-keys";
import { useNow } from "../../ui/use-now";
import { Finished, SessionEnded } from "./finished";
import { Later, LaterPart } from "./part";
import { Queue } from "./queue";
import { SavedWords } from "./saved-words";
import { Earlier, Head, Load, Strip } from "./set-view";
import { useSetRunner } from "./use-set-runner";

const TICK_MS = 250;
const LOAD_PARTS_MS = 2000;

/** What is opened over the screen comes a moment after it, and before the network may go. */
const editSet = new LaterPart(async () => (await import("../../ui/edit-set")).EditSet);
const callCard = new LaterPart(async () => (await import("../../ui/calls")).CallCard);
const faultList = new LaterPart(async () => (await import("./fault-list")).FaultList);
const typeSpeed = new LaterPart(async () => (await import("./type-speed")).TypeSpeed);
const LATER = [editSet, callCard, faultList, typeSpeed];

interface RackData {
  sessionId: string;
  frozen: FrozenSession;
  entries: LogEntry[];
  sensors: Record<string, SensorSource>;
  /** Why nothing measures here; undefined where something does. */
  noSensor: string | undefined;
  /** Who writes entries, by the log's own name for them. */
  names: Record<string, string>;
  serverNowMs: number;
  ended: boolean;
  /** Whether this is the rack's own tablet. */
  fixed: boolean;
}

/** One rack of a running session. */
export function RackScreen(props: RackData) {
  const { log, view } = useSessionLog(props);
  const [slot] = useState(() => liftsOf(props.frozen)[0]);
  const [rack] = view.floor.racks;
  if (!rack || !slot) return null;
  return <RackSession {...props} log={log} view={view} rack={rack} slot={slot} />;
}

type Shown = Pick<SetAddress, "athleteId" | "setKey">;

function RackSession({
  sessionId,
  frozen,
  sensors,
  noSensor,
  names,
  serverNowMs,
  fixed,
  log,
  view,
  rack,
  slot,
}: RackData & { log: SessionLog; view: SessionView; rack: RackState; slot: LiftOnFloor }) {
  // The clocks on the screen run: it is drawn again every tick.
  useNow(log.nowMs, serverNowMs, TICK_MS);
  // A finished set stays on the screen with its verdict until somebody goes on.
  const [held, setHeld] = useState<Shown>();
  const [panel, setPanel] = useState<"type" | "fault">();
  const [editing, setEditing] = useState<Shown>();
  const runner = useSetRunner(log, slot);

  const find = (shown: Shown | undefined) => {
    const lifter = rack.lifters.find((one) => one.lifter.athleteId === shown?.athleteId);
    const set = lifter?.sets.find((one) => one.prescription.key === shown?.setKey);
    return lifter && set ? { lifter, set } : undefined;
  };
  const up = rack.lifters.find((one) => one.lifter.athleteId === rack.upId);
  const current = up?.current === undefined ? undefined : up.sets[up.current];
  const shown = find(held) ?? (up && current ? { lifter: up, set: current } : undefined);
  const lifter = shown?.lifter;
  const set = shown?.set;
  const at: SetAddress | undefined = shown && {
    athleteId: shown.lifter.lifter.athleteId,
    slotId: slot.slotId,
    stationId: rack.rack.id,
    setKey: shown.set.prescription.key,
  };
  const isLifting = at !== undefined && sameSet(runner.lifting, at);
  const rested = lifter && set?.stage !== "done" ? restedSeconds(lifter) : undefined;
  const source = lifter && sensors[lifter.lifter.athleteId];
  const call = set?.stage === "done" ? callOf(view, at) : undefined;
  const open = set !== undefined && set.stage !== "done" && !view.ended;
  const typing = panel === "type" && open && set.loadKg !== undefined;

  const hold = () => at && setHeld(at);
  const next = () => {
    setPanel(undefined);
    setHeld(undefined);
  };
  const begin = () => {
    if (!at || !lifter || !set || !source || !open) return;
    hold();
    runner.begin({ at, lifter, set, source, restedS: rested });
  };
  useEffect(() => {
    const timer = setTimeout(() => {
      for (const part of LATER) part.ready().catch(() => {});
    }, LOAD_PARTS_MS);
    return () => clearTimeout(timer);
  }, []);
  const steps = useUndo(log, view, at, setHeld, lifter?.lifter.unit);

  const type = () => open && setPanel("type");
  useKeys(
    {
      n: next,
      " ": () => {
        if (set?.stage === "done") next();
        else if (at && (set?.stage === "running" || isLifting)) runner.end(at);
        else begin();
      },
      f: () => open && setPanel("fault"),
      u: () => steps.undo?.run(),
      ...Object.fromEntries([["U", () => steps.redo?.run()]]),
      ...Object.fromEntries([..."0123456789"].map((digit) => [digit, type])),
    },
    !typing && panel !== "fault" && editing === undefined,
  );

  return (
    <div className="grid min-h-dvh text-[17px] md:h-dvh md:grid-cols-[minmax(0,1fr)_300px]">
      <main className="flex min-w-0 flex-col overflow-auto p-4 md:p-6">
        {view.ended ? <SessionEnded sessionId={sessionId} fixed={fixed} /> : null}
        {lifter && set && at ? (
          <>
            <Head lifter={lifter} set={set} total={lifter.sets.length} />
            {lifter.held.length > 0 ? (
              <p className="mt-1 border-l-[3px] border-accent pl-3 text-[20px] font-bold">
                Held by coach: no heavier until a coach has spoken.
              </p>
            ) : null}
            <Load
              lifter={lifter}
              set={set}
              onBar={set.stage === "to-come" ? rack.onBar : undefined}
              rested={view.ended ? undefined : rested}
              restWanted={slot.rest.leastS + lifter.addedRestS}
            />
            <Strip set={set} slot={slot} lifting={isLifting} trace={runner.trace} />
            <SensorNote away={runner.sensorAway} none={noSensor} stage={set.stage} />
            <Earlier lifter={lifter} set={set} onOpen={setEditing} />
            <RackButtons
              set={set}
              lifting={isLifting}
              open={open}
              ended={view.ended}
              hasSensor={source !== undefined}
              nextName={up?.lifter.name.split(" ")[0]}
              steps={steps}
              on={{
                begin,
                next,
                end: () => runner.end(at),
                fault: () => setPanel("fault"),
                type: () => setPanel("type"),
                correct: () => setEditing(at),
              }}
            />
          </>
        ) : (
          <Finished sessionId={sessionId} fixed={fixed} />
        )}
      </main>
      <aside className="flex flex-col gap-3 overflow-auto border-rule bg-base-200 p-4 md:border-l">
        <p className="flex items-baseline justify-between gap-3">
          <span className="text-[52px] leading-none font-bold">
            <span className="sr-only">Rack </span>
            {rack.rack.name}
          </span>
          <SavedWords view={view} />
        </p>
        <Queue
          rack={rack}
          shownId={lifter?.lifter.athleteId}
          still={view.ended}
          rest={slot.rest}
          rested={restedSeconds}
        />
        {call && !view.ended ? (
          <div className="border-t border-rule pt-3">
            <Later
              key={call.setKey}
              part={callCard}
              of={{
                call,
                keyHint: "1",
                large: true,
                decide: (decided, decision, action, reason) =>
                  log.append(decidedCall(decided, decision, action, reason)),
              }}
            />
          </div>
        ) : null}
        <div className="mt-auto text-[17px] text-muted">
          {lifter?.lifter.instructions.map((text) => (
            <p key={text} className="mb-2 border-l-[3px] border-secondary pl-3 text-base-content">
              {text}
            </p>
          ))}
          <p>{frozen.cautions[0]}</p>
          {fixed ? null : (
            <Link className="mt-2 inline-block underline" to={`/floor/${sessionId}`}>
              Back to the floor
            </Link>
          )}
        </div>
      </aside>
      <Sheets
        runner={runner}
        at={at}
        set={set}
        slot={slot}
        open={typing ? "type" : panel === "fault" ? "fault" : undefined}
        hold={hold}
        close={() => setPanel(undefined)}
      />
      {editing ? (
        <Later
          part={editSet}
          of={{
            fold: log.fold,
            append: (body, supersedes) => log.append(body, supersedes),
            names,
            zone: frozen.zone,
            slot,
            rack: rack.rack,
            lifters: rack.lifters,
            shown: editing,
            large: true,
            onClose: () => setEditing(undefined),
          }}
        />
      ) : null}
    </div>
  );
}

/** What is typed or tagged of the set on the screen. */
function Sheets({
  runner,
  at,
  set,
  slot,
  open,
  hold,
  close,
}: {
  runner: ReturnType<typeof useSetRunner>;
  at: SetAddress | undefined;
  set: SetState | undefined;
  slot: LiftOnFloor;
  open: "type" | "fault" | undefined;
  /** Keeps the set on the screen, whoever ends it. */
  hold: () => void;
  close: () => void;
}) {
  if (!at || !set || open === undefined) return null;
  if (open === "type")
    return (
      <Later
        part={typeSpeed}
        of={{
          onClose: close,
          onSpeed: (velocity) => {
            hold();
            // A rule that ends the set closes the sheet: the next digit is nobody's speed.
            if (runner.typeRep(at, velocity) === "ended") close();
          },
          repsLeft: set.prescription.reps - set.reps.length,
        }}
      />
    );
  return (
    <Later
      part={faultList}
      of={{
        faults: slot.faults,
        onClose: close,
        onFault: (fault, cut) => {
          hold();
          runner.tagFault(at, fault, cut);
        },
        onPain: (place) => {
          hold();
          runner.flagPain(at, place);
        },
      }}
    />
  );
}

interface Step {
  /** Short, for the button. */
  name: string;
  words: string;
  run: () => void;
}

/** What undo takes back and redo does again, named; the set on the screen goes first. */
function useUndo(
  log: SessionLog,
  view: SessionView,
  at: SetAddress | undefined,
  show: (shown: Shown) => void,
  unit: MassUnit | undefined,
): { undo: Step | undefined; redo: Step | undefined } {
  if (typeof window === "undefined" || view.ended) return { undo: undefined, redo: undefined };
  const step = (found: ReturnType<typeof lastAct>): Step | undefined =>
    found && {
      name: actName(found.of.body),
      words: actWords(found.of.body, { unit }),
      run: () => {
        log.append({ kind: "void" }, [found.voids]);
        const { body } = found.of;
        if ("setKey" in body) show({ athleteId: body.athleteId, setKey: body.setKey });
      },
    };
  return {
    undo: step(lastAct(log.fold, deviceId(), at)),
    redo: step(lastUndone(log.fold, deviceId(), at)),
  };
}

function callOf(view: SessionView, at: SetAddress | undefined): WaitingCall | undefined {
  return view.floor.calls.find(
    (call) => call.athleteId === at?.athleteId && call.setKey === at?.setKey,
  );
}

const sameSet = (a: SetAddress | undefined, b: SetAddress) =>
  a?.athleteId === b.athleteId && a.slotId === b.slotId && a.setKey === b.setKey;

/** Seconds since this athlete's last set: by this page's own clock where it measured it. */
function restedSeconds(lifter: LifterState): number | undefined {
  const end = lifter.sets.filter((set) => set.end).at(-1)?.end;
  if (!end || typeof window === "undefined") return undefined;
  return secondsBetween(end, deviceClock().mark()).seconds;
}

const BIG = "btn min-h-[72px] border-2 text-[19px]";

/** What can be done with the set on the screen. */
function RackButtons({
  set,
  lifting,
  open,
  ended,
  hasSensor,
  nextName,
  steps,
  on,
}: {
  set: SetState;
  lifting: boolean;
  /** Whether reps are taken. */
  open: boolean;
  ended: boolean;
  hasSensor: boolean;
  nextName: string | undefined;
  steps: { undo: Step | undefined; redo: Step | undefined };
  on: Record<"begin" | "next" | "end" | "fault" | "type" | "correct", () => void>;
}) {
  return (
    <div className="mt-auto grid grid-cols-2 gap-2.5 pt-3 lg:grid-cols-5">
      <MainButton
        stage={lifting && set.stage !== "done" ? "running" : set.stage}
        hasSensor={hasSensor}
        noLoad={set.loadKg === undefined}
        ended={ended}
        nextName={nextName}
        onBegin={on.begin}
        onEnd={on.end}
        onNext={on.next}
      />
      <button type="button" className={BIG} disabled={ended} onClick={on.fault}>
        Fault or pain
      </button>
      <button
        type="button"
        className={BIG}
        disabled={!open || set.loadKg === undefined}
        onClick={on.type}
      >
        Type a speed
      </button>
      <StepButton name="Undo" step={steps.undo} />
      {steps.redo ? (
        <StepButton name="Redo" step={steps.redo} />
      ) : (
        <button
          type="button"
          className={BIG}
          disabled={set.stage === "to-come"}
          onClick={on.correct}
        >
          Correct
        </button>
      )}
    </div>
  );
}

function StepButton({ name, step }: { name: string; step: Step | undefined }) {
  return (
    <button
      type="button"
      className={`${BIG} h-auto flex-col gap-0 py-1 leading-tight`}
      disabled={!step}
      onClick={() => step?.run()}
      aria-label={step ? `${name}: ${step.words}` : name}
    >
      <span>{name}</span>
      {step ? <span className="text-[17px] font-normal text-muted">{step.name}</span> : null}
    </button>
  );
}

/** Why nothing measures now. */
function SensorNote({
  away,
  none,
  stage,
}: {
  away: boolean;
  none: string | undefined;
  stage: SetState["stage"];
}) {
  if (away && stage !== "done") {
    return (
      <p role="alert" className="border-l-[3px] border-warning pl-3 text-[19px]">
        The sensor is not on this tablet yet, and the link is away. Type the speeds, or lift again
        when the link is back.
      </p>
    );
  }
  return none && stage === "to-come" ? <p className="text-muted">{none}</p> : null;
}

function MainButton({
  stage,
  hasSensor,
  noLoad,
  ended,
  nextName: name,
  onBegin,
  onEnd,
  onNext,
}: {
  stage: SetState["stage"];
  hasSensor: boolean;
  noLoad: boolean;
  ended: boolean;
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
      <button type="button" className={look} onClick={onEnd} disabled={ended}>
        End the set
      </button>
    );
  }
  return (
    <button type="button" className={look} onClick={onBegin} disabled={!hasSensor || ended}>
      {hasSensor ? "Lift (simulated)" : "No sensor"}
    </button>
  );
}
