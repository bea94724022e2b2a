import { lazy, Suspense, useEffect, useMemo, useState } from "react";
import { Link, useRevalidator } from "react-router";
import { type LogEntry, markOf } from "../../../core/floor/entries";
import { type FrozenSession, liftsOf } from "../../../core/floor/frozen";
import { gateOnFloor } from "../../../core/floor/ladder";
import type { ExerciseState, FloorFold, FloorState } from "../../../core/floor/state";
import { slotCounts, stationsOf } from "../../../core/floor/stations";
import { SECTION_NAMES } from "../../../core/plan/block";
import type { DayTimes } from "../../../core/racks/simulate-day";
import type { MassUnit } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import { useStationSigns } from "../../offline/station-signs";
import { useKeptScreen } from "../../offline/use-kept-screen";
import { useSessionLog } from "../../offline/use-session-log";
import { EditSet } from "../../ui/edit-set";
import { Notice, Page } from "../../ui/page";
import { useNow } from "../../ui/use-now";
import { Announce } from "./announce";
import { Conflicts, LateEntries } from "./disputed";
import { EditWork } from "./edit-work";
import { callsWords, Ended, EndSession } from "./end-session";
import { FloorCalls } from "./floor-calls";
import { HeldLifters } from "./held-lifters";
import { LogLine } from "./log-line";
import { MoveGroup } from "./move-group";
import { FloorStave } from "./stave";

/** Opened now and then: its search and its board come with it. */
const Regroup = lazy(async () => ({ default: (await import("./regroup")).Regroup }));

/** Why somebody is left out, by the check's code; never a reason of a limit. */
const LEFT_OUT_WORDS: Record<string, string> = {
  "heavy-refused": "heavy work",
  "resistance-refused": "bands and chains",
  "box-relax": "relax and fire",
  cap: "over the instruction",
};

type FloorChange = Parameters<typeof Ended>[0]["changes"][number];

export interface FloorProps {
  sessionId: string;
  frozen: FrozenSession;
  entries: LogEntry[];
  /** Up to which number they are all here; see the session's log. */
  heard?: number;
  names: Record<string, string>;
  serverNowMs: number;
  ended: boolean;
  mayEnd: boolean;
  itsDay: boolean;
  changes: FloorChange[];
  problem: string | undefined;
  leftOut: Array<{ name: string; code: string }>;
  /** For groups made anew; absent on a screen that was kept before. */
  times?: DayTimes;
  /** In which who looks reads loads. */
  unit: MassUnit;
  /** Drawn from what this browser kept: what needs the server is not offered. */
  offline?: boolean;
}

/** A day on the floor: every station, the calls that wait, and what the coach says to all. */
export function FloorScreen(props: FloorProps) {
  const { sessionId, frozen, names, mayEnd } = props;
  const { log, view } = useSessionLog(props);
  const runningMs = useNow(log.nowMs, props.serverNowMs, TICK_MS);
  const [editing, setEditing] = useState<{
    slotId: string;
    athleteId: string;
    setKey: string;
  }>();
  const { floor } = view;
  const [facts] = useState(() => {
    const { names, mayEnd, itsDay, leftOut, unit, times } = props;
    return { names, mayEnd, itsDay, leftOut, unit, times };
  });
  useKeptScreen(log, { path: `/floor/${sessionId}`, title: frozen.title, frozen, facts });
  const [regrouping, setRegrouping] = useState(false);
  const { revalidate } = useRevalidator();
  const stale = view.ended !== props.ended && !props.offline;
  useEffect(() => {
    // Somebody ended it, or opened it again: who and why is asked for.
    if (stale) void revalidate();
  }, [stale, revalidate]);
  const span = useMemo(() => spanOf(floor, log.fold), [floor, log]);
  // After the end the floor stands still, where the last set was finished.
  const nowMs = view.ended ? (span.lastMs ?? span.firstMs ?? runningMs) : runningMs;
  const stations = useMemo(() => stationsOf(frozen, floor), [frozen, floor]);
  const slots = slotCounts(frozen, stations);
  const signs = useStationSigns(sessionId, view.ended || props.offline === true);
  const [editingWork, setEditingWork] = useState<{
    slotId: string;
    athleteId: string;
    stationId: string;
  }>();
  const [editedWork] = floor.exercises.flatMap(({ slot, athletes }) =>
    athletes.flatMap((line) =>
      slot.slotId === editingWork?.slotId && line.athlete.athleteId === editingWork.athleteId
        ? [{ slot, line }]
        : [],
    ),
  );
  const edited = floor.racks.find(
    (rack) =>
      rack.slot.slotId === editing?.slotId &&
      rack.lifters.some((one) => one.lifter.athleteId === editing?.athleteId),
  );

  return (
    <Page
      title={frozen.title}
      facts={factsOf(frozen, slots)}
      actions={
        view.ended ? (
          <Link className="btn btn-primary" to={`/review/${sessionId}`}>
            Open the review
          </Link>
        ) : mayEnd && !props.offline ? (
          <EndSession floor={floor} stations={stations} />
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
          {mayEnd && !view.ended ? (
            <>
              <Announce floor={floor} append={(body, supersedes) => log.append(body, supersedes)} />
              <MoveGroup
                stations={stations}
                all={frozen.stations}
                append={(body) => log.append(body)}
              />
              {props.times && floor.racks.length > 0 ? (
                <button
                  type="button"
                  className="btn mt-3 w-full"
                  aria-expanded={regrouping}
                  onClick={() => setRegrouping(!regrouping)}
                >
                  {regrouping ? "Leave the groups as they are" : "Make the groups anew"}
                </button>
              ) : null}
            </>
          ) : null}
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
        <Ended
          changes={props.changes}
          mayReopen={mayEnd && props.itsDay && !props.offline}
          zone={frozen.zone}
        />
      ) : null}
      {slots.length > 1 ? <SlotProgress slots={slots} /> : null}
      {floor.exercises
        .filter((one) => one.slot.ladder)
        .map((one) => (
          <LadderGate key={one.slot.slotId} exercise={one} date={frozen.date} />
        ))}
      {floor.paused ? (
        <Notice kind="warning" title="The floor is paused. Every station says so." />
      ) : null}
      {regrouping && props.times && !view.ended ? (
        <Suspense fallback={<p className="text-muted">Looking at what is left …</p>}>
          <Regroup
            frozen={frozen}
            floor={floor}
            times={props.times}
            unit={props.unit}
            append={(body) => log.append(body)}
            close={() => setRegrouping(false)}
          />
        </Suspense>
      ) : null}
      <FloorStave
        stations={stations}
        firstMs={Math.min(span.firstMs ?? nowMs, nowMs)}
        sessionId={sessionId}
        nowMs={nowMs}
        open={setEditing}
        openWork={setEditingWork}
        signs={signs}
      />
      <section aria-label="Cautions" className="mt-4 text-sm text-muted">
        {frozen.cautions.map((caution) => (
          <p key={caution}>{caution}</p>
        ))}
      </section>
      {editingWork && editedWork ? (
        <EditWork
          key={editingWork.athleteId}
          slot={editedWork.slot}
          stationId={editingWork.stationId}
          line={editedWork.line}
          append={(body, supersedes) => log.append(body, supersedes)}
          onClose={() => setEditingWork(undefined)}
        />
      ) : null}
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

/** What the day is: its one lift in full, else how many slots. */
function factsOf(frozen: FrozenSession, slots: ReturnType<typeof slotCounts>): string {
  const [lift] = liftsOf(frozen);
  const done = slots.reduce((n, slot) => n + slot.done, 0);
  const planned = slots.reduce((n, slot) => n + slot.planned, 0);
  const what =
    lift && frozen.slots.length === 1
      ? `${lift.liftName} · rest ${lift.rest.leastS} to ${lift.rest.mostS} s`
      : `${frozen.slots.length} slots`;
  return `${frozen.roomName} · ${what} · ${done} of ${planned} sets`;
}

/** The squad's way to heavy work, with what was passed today counted as it happens. */
function LadderGate({ exercise, date }: { exercise: ExerciseState; date: LocalDate }) {
  const found = gateOnFloor(exercise.slot, exercise.athletes, date);
  if (!found) return null;
  const { ready, total, needed, open, why } = found;
  return (
    <p role="status" aria-label="Gate of the teaching ladder" className="mb-2">
      <b>
        Teaching ladder: {ready} of {total} through, {needed} needed.
      </b>{" "}
      <span className={open ? "font-bold text-primary" : "text-muted"}>
        Gate to heavy work {open ? "open" : "closed"}: {why}
      </span>
    </p>
  );
}

/** How far each slot of the day is: athletes through it, and its sets. */
function SlotProgress({ slots }: { slots: ReturnType<typeof slotCounts> }) {
  return (
    <ol
      aria-label="The day"
      className="mb-2 grid grid-cols-[repeat(auto-fit,minmax(118px,1fr))] gap-x-4 gap-y-2"
    >
      {slots.map((slot) => (
        <li key={slot.slotId} className="min-w-0">
          <p
            className="truncate leading-tight font-medium"
            title={`${SECTION_NAMES[slot.section]}: ${slot.name}`}
          >
            {slot.name}
          </p>
          <p className="text-sm leading-tight text-muted">
            {slot.through} of {slot.athletes} through
          </p>
          <div className="mt-0.5 h-1.5 bg-faint" aria-hidden="true">
            <div
              className="h-full bg-primary"
              style={{ width: `${slot.planned > 0 ? (100 * slot.done) / slot.planned : 0}%` }}
            />
          </div>
        </li>
      ))}
    </ol>
  );
}

/** From the first thing that was logged to the last set that was finished, ms. */
function spanOf(floor: FloorState, fold: FloorFold) {
  const made = fold.entries().flatMap((one) => (one.doubt ? [] : markOf(one).atMs));
  const ends = [
    ...floor.racks.flatMap((rack) => rack.lifters),
    ...floor.exercises.flatMap((exercise) => exercise.athletes),
  ].flatMap((one) => one.sets.flatMap((set) => set.end?.atMs ?? []));
  const first = made.reduce((least, ms) => Math.min(least, ms), Number.POSITIVE_INFINITY);
  const last = ends.reduce((most, ms) => Math.max(most, ms), Number.NEGATIVE_INFINITY);
  return {
    firstMs: Number.isFinite(first) ? first : undefined,
    lastMs: Number.isFinite(last) ? last : undefined,
  };
}

const TICK_MS = 1000;
