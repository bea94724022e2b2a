import { useEffect, useState } from "react";
import type { SetAddress } from "../../../core/floor/entries";
import { ownWay, stopFor } from "../../../core/floor/frozen";
import { decidedCall, type LifterState, type WaitingCall } from "../../../core/floor/lifter-state";
import type { RackState } from "../../../core/floor/state";
import type { Eye } from "../../../core/liverules/eye";
import { type ClockMark, secondsBetween } from "../../../core/units/clock";
import type { SessionView } from "../../offline/session-log";
import { useClockMark } from "../../offline/use-clock-mark";
import { useKeys } from "../../ui/use-keys";
import { useNow } from "../../ui/use-now";
import { EyeKeys } from "./eye-keys";
import { Finished } from "./finished";
import { LiftButtons } from "./lift-buttons";
import { type Panel, SHEET_PARTS, Sheets, wordsOn } from "./lift-sheets";
import { Later, LaterPart } from "./part";
import { PutOn } from "./put-on";
import { Queue } from "./queue";
import { SensorNote } from "./sensor-note";
import { Earlier, Head, Load, Strip } from "./set-view";
import { StationFrame, type WorkProps } from "./station-frame";
import { useSetRunner } from "./use-set-runner";
import { useCountdowns } from "./use-signals";
import { useUndo } from "./use-undo";
import { WayUp } from "./way-up";

const TICK_MS = 250;
const LOAD_PARTS_MS = 2000;

/** What is opened over the screen comes a moment after it, and before the network may go. */
const editSet = new LaterPart(async () => (await import("../../ui/edit-set")).EditSet);
const callCard = new LaterPart(async () => (await import("../../ui/calls")).CallCard);
const metronome = new LaterPart(async () => (await import("./metronome")).Metronome);
const startClock = new LaterPart(async () => (await import("./start-clock")).StartClock);
const LATER = [editSet, callCard, metronome, startClock, ...SHEET_PARTS];

/** The rack of a sensor that sends by itself, where one stands here. */
const sensorRack = (sensors: WorkProps["sensors"]): string | undefined => {
  const [one] = Object.values(sensors);
  return one?.kind === "sensor" ? one.rackId : undefined;
};

type Shown = Pick<SetAddress, "athleteId" | "setKey">;

/** What one lift at one rack goes by: who is shown, what is open, and what can be done with it. */
function useLift({ sensors, serverNowMs, log, view, more }: WorkProps, rack: RackState) {
  const { slot } = rack;
  // The clocks on the screen run: it is drawn again every tick.
  const nowMs = useNow(log.nowMs, serverNowMs, TICK_MS);
  const mark = useClockMark(serverNowMs);
  const restedSeconds = (one: LifterState) => secondsSince(one, mark());
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
  const [panel, setPanel] = useState<Panel>();
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
      set: at && set && open ? wordsOn({ at, set, rack, runner, open: setPanel, next }) : [],
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
    restedSeconds,
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
          {slot.everyS ? (
            <Later part={startClock} of={{ everyS: slot.everyS, nowMs: lift.nowMs }} />
          ) : null}
          {slot.tempo ? <Later part={metronome} of={{ tempo: slot.tempo }} /> : null}
          <Queue
            rack={rack}
            shownId={lifter?.lifter.athleteId}
            still={view.ended}
            rest={slot.rest}
            rested={lift.restedSeconds}
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
            stop={stopFor(slot, lifter.lifter)}
            ramp={lifter.ramp}
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
          <SensorNote
            away={runner.sensorAway}
            none={noSensor}
            rackId={sensorRack(props.sensors)}
            stage={set.stage}
          />
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
        <Finished
          sessionId={sessionId}
          fixed={fixed}
          next={nextWork}
          more={lift.openMore}
          after={props.after}
        />
      )}
      {lift.panel && at && set ? (
        <Sheets
          panel={lift.panel}
          typed={lift.typed}
          way={lifter && ownWay(lifter.lifter)}
          runner={runner}
          at={at}
          set={set}
          unit={lifter?.lifter.unit ?? "kg"}
          faults={slot.faults}
          startsAt={slot.liftStart}
          stock={rack.rack.gear.plates}
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
function secondsSince(lifter: LifterState, now: ClockMark): number | undefined {
  const end = lifter.sets.filter((set) => set.end).at(-1)?.end;
  return end && secondsBetween(end, now).seconds;
}
