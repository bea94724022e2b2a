import { useEffect, useState } from "react";
import { actName, actWords } from "../../../core/floor/act-words";
import { rampNumber, type SetAddress } from "../../../core/floor/entries";
import { decidedCall, type LifterState, type WaitingCall } from "../../../core/floor/lifter-state";
import type { SetState } from "../../../core/floor/set-state";
import type { RackState } from "../../../core/floor/state";
import { lastAct, lastUndone } from "../../../core/floor/undo";
import type { Eye } from "../../../core/liverules/eye";
import { secondsBetween } from "../../../core/units/clock";
import {
  kgToGrains,
  type MassUnit,
  massIn,
  massKg,
  plainNumber,
  readMass,
} from "../../../core/units/mass";
import { readSpeed } from "../../forms/speed";
import { deviceClock, deviceId } from "../../offline/device";
import type { SessionLog, SessionView } from "../../offline/session-log";
import { useKeys } from "../../ui/use-keys";
import { useNow } from "../../ui/use-now";
import { EyeKeys } from "./eye-keys";
import { Finished } from "./finished";
import { KeyPad } from "./key-pad";
import { Metronome } from "./metronome";
import { Later, LaterPart } from "./part";
import { PutOn } from "./put-on";
import { Queue } from "./queue";
import { Earlier, Head, Load, Strip } from "./set-view";
import { StartClock } from "./start-clock";
import { StationFrame, type WorkProps } from "./station-frame";
import { useSetRunner } from "./use-set-runner";
import { useCountdowns } from "./use-signals";

const TICK_MS = 250;
const LOAD_PARTS_MS = 2000;

/** What is opened over the screen comes a moment after it, and before the network may go. */
const editSet = new LaterPart(async () => (await import("../../ui/edit-set")).EditSet);
const callCard = new LaterPart(async () => (await import("../../ui/calls")).CallCard);
const faultList = new LaterPart(async () => (await import("./fault-list")).FaultList);
const LATER = [editSet, callCard, faultList];

type Shown = Pick<SetAddress, "athleteId" | "setKey">;

/** What one lift at one rack goes by: who is shown, what is open, and what can be done with it. */
function useLift({ sensors, serverNowMs, log, view, more }: WorkProps, rack: RackState) {
  const { slot } = rack;
  // The clocks on the screen run: it is drawn again every tick.
  const nowMs = useNow(log.nowMs, serverNowMs, TICK_MS);
  useCountdowns(
    rack.lifters.flatMap((one) => {
      const rested = one.current === undefined ? undefined : restedSeconds(one);
      return rested === undefined
        ? []
        : [{ id: one.lifter.athleteId, leftS: rack.slot.rest.leastS + one.addedRestS - rested }];
    }),
    !view.ended && !view.floor.paused,
  );
  // A finished set stays on the screen with its verdict until somebody goes on.
  const [held, setHeld] = useState<Shown>();
  const [panel, setPanel] = useState<"type" | "fault" | "load">();
  const [typed, setTyped] = useState("");
  const [editing, setEditing] = useState<Shown>();
  /** Who warms up with sets that no plan asked for. */
  const [ramping, setRamping] = useState<string>();
  const runner = useSetRunner(log, slot);

  const shown = shownAt(rack, held, ramping);
  const up = rack.lifters.find((one) => one.lifter.athleteId === rack.upId);
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
  const source = lifter && sensors[`${slot.slotId}/${lifter.lifter.athleteId}`];
  const waiting = callOf(view, at);
  const call =
    set?.stage === "done" || (set?.stage === "to-come" && waiting?.kind === "day-form")
      ? waiting
      : undefined;
  const open = set !== undefined && set.stage !== "done" && !view.ended;
  const hasLoad = set?.loadKg !== undefined;
  const typing = panel !== undefined && open;

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
  const count = (reps: number, eye?: Eye) => {
    if (!at || !open || !hasLoad) return;
    hold();
    runner.countReps(at, reps, eye);
  };
  const all = (eye?: Eye) => set && count(set.prescription.reps, eye);
  useEffect(() => {
    const timer = setTimeout(() => {
      for (const part of LATER) part.ready().catch(() => {});
    }, LOAD_PARTS_MS);
    return () => clearTimeout(timer);
  }, []);
  const steps = useUndo(log, view, at, setHeld, lifter?.lifter.unit);
  const type = (start: string) => {
    if (!open) return;
    setTyped(start);
    setPanel(hasLoad ? "type" : "load");
  };
  useKeys(
    {
      n: next,
      " ": () => {
        if (set?.stage === "done") next();
        else if (at && (set?.stage === "running" || isLifting)) runner.end(at);
        else begin();
      },
      "+": () => all("fast"),
      "=": () => all("on"),
      "-": () => all("slow"),
      f: () => open && setPanel("fault"),
      u: () => steps.undo?.run(),
      ...Object.fromEntries([
        ["U", () => steps.redo?.run()],
        ["Enter", () => (set?.stage === "done" ? next() : all())],
      ]),
      ...Object.fromEntries([..."0123456789"].map((digit) => [digit, type])),
    },
    !typing && editing === undefined,
  );
  const openMore = () =>
    more({
      slotId: slot.slotId,
      who: lifter && { athleteId: lifter.lifter.athleteId, name: lifter.callName },
      set:
        at && set && open
          ? wordsOn({ at, set, rack, runner, load: () => setPanel("load"), next })
          : [],
    });

  return {
    nowMs,
    slot,
    runner,
    up,
    lifter,
    set,
    at,
    source,
    call,
    steps,
    editing,
    typed,
    open,
    hasLoad,
    isLifting,
    rested,
    panel: typing ? panel : undefined,
    isHeld: held !== undefined,
    isRamping: ramping !== undefined,
    hold,
    next,
    begin,
    count,
    all,
    type,
    openMore,
    setPanel,
    setEditing,
    setRamping,
  };
}

/** One lift at one rack: who is up, what is on the bar, what became of it. */
export function LiftWork({
  rack,
  next: nextWork,
  ...props
}: WorkProps & { rack: RackState; next: { name: string; go: () => void } | undefined }) {
  const { sessionId, frozen, noSensor, names, fixed, log, view } = props;
  const lift = useLift(props, rack);
  const { slot, runner, up, lifter, set, at, source, call, steps, open, hasLoad, isLifting } = lift;
  const wayUp =
    lifter && set?.stage === "to-come" && !lift.isHeld ? (
      <WayUp
        lifter={lifter}
        set={set}
        ramping={lift.isRamping}
        start={() => lift.setRamping(lifter.lifter.athleteId)}
        stop={() => lift.setRamping(undefined)}
      />
    ) : null;
  return (
    <StationFrame
      head={props.head}
      foot={
        <>
          {lifter?.lifter.instructions.map((text) => (
            <p key={text} className="border-l-[3px] border-secondary pl-3 text-[17px]">
              {text}
            </p>
          ))}
          {props.foot}
        </>
      }
      aside={
        <>
          {call && !view.ended ? (
            <div className="border-b border-rule pb-3">
              <Later
                key={call.setKey}
                part={callCard}
                of={{
                  call,
                  keys: lift.panel === undefined,
                  large: true,
                  decide: (decided, decision, action, reason) =>
                    log.append(decidedCall(decided, decision, action, reason)),
                }}
              />
            </div>
          ) : null}
          {slot.everyS ? <StartClock everyS={slot.everyS} nowMs={lift.nowMs} /> : null}
          {slot.tempo ? <Metronome tempo={slot.tempo} /> : null}
          <Queue
            rack={rack}
            shownId={lifter?.lifter.athleteId}
            still={view.ended}
            rest={slot.rest}
            rested={restedSeconds}
          />
        </>
      }
    >
      {props.top}
      {lifter && set && at ? (
        <>
          <Head lifter={lifter} set={set} total={lifter.sets.length} />
          {lifter.lifter.box?.rehearse && !lifter.rehearsed && lifter.doneCount === 0 ? (
            <p className="mt-1 flex flex-wrap items-center gap-3 border-l-[3px] border-accent pl-3 text-[20px]">
              NOT REHEARSED: two steps with the empty bar first.
              <button
                type="button"
                className="btn min-h-[56px] text-[18px]"
                disabled={!open}
                onClick={() => runner.say({ kind: "rehearsed", ...at })}
              >
                Rehearsed
              </button>
            </p>
          ) : null}
          {lifter.held.length > 0 ? (
            <p className="mt-1 border-l-[3px] border-accent pl-3 text-[20px] font-bold">
              Held by coach: no heavier until a coach has spoken.
            </p>
          ) : null}
          {hasLoad ? (
            <Load
              lifter={lifter}
              set={set}
              onBar={set.stage === "to-come" ? rack.onBar : undefined}
              pinsBefore={
                rack.lifters.find((one) => one.callName === rack.onBar?.callName)?.lifter.pins
              }
              rested={view.ended ? undefined : lift.rested}
              restWanted={slot.rest.leastS + lifter.addedRestS}
              beside={wayUp}
            />
          ) : (
            <PutOn
              key={set.prescription.key}
              lifter={lifter}
              set={set}
              putOn={(kg) => runner.putOn(at, kg)}
              other={() => lift.type("")}
            />
          )}
          {hasLoad ? null : wayUp}
          <Strip
            set={set}
            slot={slot}
            lifting={isLifting}
            trace={runner.trace}
            instead={
              !hasLoad ? (
                <span />
              ) : open && set.reps.length === 0 && !isLifting && (!source || !set.target) ? (
                <EyeKeys set={set} count={lift.count} />
              ) : undefined
            }
          />
          <SensorNote away={runner.sensorAway} none={noSensor} stage={set.stage} />
          <Earlier lifter={lifter} set={set} onOpen={lift.setEditing} />
          <LiftButtons
            set={set}
            lifting={isLifting}
            open={open}
            ended={view.ended}
            hasSensor={source !== undefined}
            nextName={up?.callName ?? nextWork?.name}
            steps={steps}
            on={{
              begin: lift.begin,
              next: () => (up || !nextWork ? lift.next() : nextWork.go()),
              end: () => runner.end(at),
              all: () => lift.all(),
              fault: () => lift.setPanel("fault"),
              type: () => lift.type(""),
              correct: () => lift.setEditing(at),
              more: lift.openMore,
            }}
          />
        </>
      ) : (
        <Finished sessionId={sessionId} fixed={fixed} next={nextWork} more={lift.openMore} />
      )}
      {lift.panel && at && set ? (
        <Sheets
          panel={lift.panel}
          typed={lift.typed}
          runner={runner}
          at={at}
          set={set}
          unit={lifter?.lifter.unit ?? "kg"}
          faults={slot.faults}
          hold={lift.hold}
          close={() => lift.setPanel(undefined)}
        />
      ) : null}
      {lift.editing ? (
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
            shown: lift.editing,
            large: true,
            onClose: () => lift.setEditing(undefined),
          }}
        />
      ) : null}
    </StationFrame>
  );
}

/** The set on the screen: the one held with its verdict, else of who is up; on the way up its next. */
function shownAt(rack: RackState, held: Shown | undefined, ramping: string | undefined) {
  const of = (athleteId: string | undefined) =>
    rack.lifters.find((one) => one.lifter.athleteId === athleteId);
  const before = of(held?.athleteId);
  const kept = [...(before?.sets ?? []), ...(before?.ramp ?? [])].find(
    (one) => one.prescription.key === held?.setKey,
  );
  if (before && kept) return { lifter: before, set: kept };
  // A set on the way up that begins is known by its name alone.
  if (before && held && before.rampNext.prescription.key === held.setKey)
    return { lifter: before, set: before.rampNext };
  const up = of(rack.upId);
  const current = up?.current === undefined ? undefined : up.sets[up.current];
  if (!up || !current) return undefined;
  const onWayUp =
    up.rampNext.stage === "running" ||
    (ramping === up.lifter.athleteId && current.stage === "to-come" && up.doneCount === 0);
  return { lifter: up, set: onWayUp ? up.rampNext : current };
}

/** What can be said of a set that is to come, besides lifting it. */
function wordsOn(of: {
  at: SetAddress;
  set: SetState;
  rack: RackState;
  runner: ReturnType<typeof useSetRunner>;
  load: () => void;
  next: () => void;
}) {
  const { at, set, rack, runner } = of;
  const ofPlan = rampNumber(at.setKey) === undefined;
  // Where no sensor measured the stop, a bounce is what somebody saw.
  const last = set.reps.findLast((rep) => rep.outcome === "counted" && rep.pauseS === undefined);
  const asksForStop = rack.slot.stop.smallestStopS !== undefined && !last?.bounced;
  const say = (kind: "later" | "skip") => () => {
    runner.say({ kind, ...at });
    of.next();
  };
  return [
    ...(set.stage === "to-come" && ofPlan
      ? [
          { name: "Others first", run: say("later") },
          { name: "Leave this set out", run: say("skip") },
        ]
      : []),
    { name: "Another load on the bar", run: of.load },
    ...(asksForStop && last
      ? [
          {
            name: `Rep ${last.number} bounced`,
            run: () => runner.say({ kind: "bounce", ...at, rep: last.number }),
          },
        ]
      : []),
  ];
}

/** The way up to the first work set: its loads, and the way into it. */
function WayUp({
  lifter,
  set,
  ramping,
  start,
  stop,
}: {
  lifter: LifterState;
  set: SetState;
  ramping: boolean;
  start: () => void;
  stop: () => void;
}) {
  const { rampKg = [], unit } = lifter.lifter;
  const number = rampNumber(set.prescription.key);
  if (number !== undefined) {
    return (
      <p className="mt-1">
        <button type="button" className="btn min-h-[56px] text-[18px]" onClick={stop}>
          On to the work sets
        </button>
      </p>
    );
  }
  if (lifter.doneCount > 0 || ramping) return null;
  const done = lifter.ramp.filter((one) => one.stage === "done").length;
  const left = rampKg.slice(done).map((kg) => plainNumber(massIn(kgToGrains(kg), unit), 1));
  return (
    <p className="mt-1 flex flex-wrap items-center gap-3 text-[18px] text-muted">
      <button type="button" className="btn min-h-[56px] text-[18px]" onClick={start}>
        Warm-up set
      </button>
      {left.length > 0 ? `${left.join(" · ")} ${unit}` : done > 0 ? `${done} done` : null}
    </p>
  );
}

/** What is typed or tagged of the set on the screen. */
function Sheets({
  panel,
  typed,
  runner,
  at,
  set,
  unit,
  faults,
  hold,
  close,
}: {
  panel: "type" | "fault" | "load";
  /** Digits that opened the sheet. */
  typed: string;
  runner: ReturnType<typeof useSetRunner>;
  at: SetAddress;
  set: SetState;
  unit: MassUnit;
  faults: RackState["slot"]["faults"];
  /** Keeps the set on the screen, whoever ends it. */
  hold: () => void;
  close: () => void;
}) {
  if (panel === "load")
    return (
      <KeyPad
        title="What is on the bar"
        hint={`${unit} in all, with the bar`}
        start={typed}
        button="This is on the bar"
        onClose={close}
        enter={(text) => {
          const read = readMass(text, unit);
          if (!read.ok || massKg(read.mass) <= 0 || massKg(read.mass) > 1000)
            return "A load, for example 60 or 62.5.";
          runner.putOn(at, massKg(read.mass));
          close();
          return undefined;
        }}
      />
    );
  if (panel === "type") {
    const left = set.prescription.reps - set.reps.length;
    return (
      <KeyPad
        title="Type a speed"
        hint={`m/s, mean of the rep; ${left} reps left`}
        start={typed}
        button="Enter this rep"
        onClose={close}
        enter={(text) => {
          const velocity = readSpeed(text);
          if (velocity === undefined) return "A speed from 0.05 to 4 m/s: 82 or 0.82.";
          hold();
          // A rule that ends the set closes the sheet: the next digit is nobody's speed.
          if (runner.typeRep(at, velocity) === "ended" || left <= 1) close();
          return undefined;
        }}
      />
    );
  }
  return (
    <Later
      part={faultList}
      of={{
        faults,
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
    (call) =>
      call.athleteId === at?.athleteId &&
      call.slotId === at.slotId &&
      // Today's form is asked on the way up, before the set that it is of.
      (call.setKey === at.setKey || call.kind === "day-form"),
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
function LiftButtons({
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
  on: Record<"begin" | "next" | "end" | "all" | "fault" | "type" | "correct" | "more", () => void>;
}) {
  const hasLoad = set.loadKg !== undefined;
  return (
    <div className="sticky bottom-0 mt-auto grid shrink-0 grid-cols-2 gap-2.5 bg-base-100 pt-3 lg:grid-cols-6">
      <MainButton
        stage={lifting && set.stage !== "done" ? "running" : set.stage}
        hasSensor={hasSensor}
        hasLoad={hasLoad}
        ended={ended}
        nextName={nextName}
        reps={set.prescription.reps}
        on={on}
      />
      <button type="button" className={BIG} disabled={ended} onClick={on.fault}>
        Fault or pain
      </button>
      <button type="button" className={BIG} disabled={!open || !hasLoad} onClick={on.type}>
        Type a speed
      </button>
      <StepButton name="Undo" step={steps.undo} />
      {steps.redo ? (
        <StepButton name="Redo" step={steps.redo} />
      ) : (
        <button
          type="button"
          className={BIG}
          disabled={set.stage === "to-come" || rampNumber(set.prescription.key) !== undefined}
          onClick={on.correct}
        >
          Correct
        </button>
      )}
      <button type="button" className={BIG} disabled={ended} onClick={on.more}>
        More
      </button>
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
  hasLoad,
  ended,
  nextName: name,
  reps,
  on,
}: {
  stage: SetState["stage"];
  hasSensor: boolean;
  hasLoad: boolean;
  ended: boolean;
  nextName: string | undefined;
  reps: number;
  on: Record<"begin" | "end" | "next" | "all", () => void>;
}) {
  const look = `${BIG} btn-primary`;
  if (stage === "done") {
    return (
      <button type="button" className={look} onClick={on.next}>
        {name ? `Next: ${name}` : "Go on"}
      </button>
    );
  }
  if (stage === "running") {
    return (
      <button type="button" className={look} onClick={on.end} disabled={ended}>
        End the set
      </button>
    );
  }
  if (hasSensor && hasLoad) {
    return (
      <button type="button" className={look} onClick={on.begin} disabled={ended}>
        Lift (simulated)
      </button>
    );
  }
  return (
    <button type="button" className={look} onClick={on.all} disabled={ended || !hasLoad}>
      {hasLoad ? `All ${reps} done` : "Put a load on"}
    </button>
  );
}
