import { dayFormCall } from "../liverules/day-form-call";
import { type NextLoad, nextLoad } from "../liverules/next-load";
import { afterSet, type Call, type CallAction, type DoneSet } from "../liverules/set";
import type { SetPrescription } from "../prescribe/prescribe";
import { type ClockMark, secondsBetween } from "../units/clock";
import type { MassUnit } from "../units/mass";
import { areComparable } from "../units/velocity";
import { say, type Text, written } from "../units/written";
import type { LogConflict } from "./conflicts";
import {
  type EntryBody,
  type LogEntry,
  MOST_RAMP_SETS,
  type PlaceEntryBody,
  rampKey,
  rampNumber,
  type SetEntryBody,
} from "./entries";
import { type FrozenLift, type FrozenLifter, stopFor } from "./frozen";
import { type LineEntry, momentOf } from "./line";
import { painsIn } from "./pains";
import { type Standing, standingOf } from "./place";
import {
  bySet,
  type LifterAt,
  type RackAt,
  type RepState,
  reduceSet,
  type SetState,
} from "./set-state";
import { compareEntries } from "./validity";

export interface WaitingCall extends Call {
  athleteId: string;
  callName: string;
  /** In which the lifter reads loads. */
  unit: MassUnit;
  slotId: string;
  setKey: string;
  rackId: string;
  /** What taking it makes of the next sets, a line each; empty where they stay as they are. */
  effect: Text[];
}

/** What tells one waiting call of a session from another. */
export const callKey = ({
  athleteId,
  slotId,
  setKey,
}: Pick<WaitingCall, "athleteId" | "slotId" | "setKey">): string =>
  `${athleteId} ${slotId} ${setKey}`;

export interface DecidedCall {
  entryId: string;
  athleteId: string;
  setKey: string;
  call: string;
  decision: "take" | "change" | "decline";
  action: CallAction;
  reason: string;
}

export interface LifterState extends Standing {
  lifter: FrozenLifter;
  /** As short as can be told apart in this session. */
  callName: string;
  sets: SetState[];
  /** Sets on the way up, which no plan asked for. */
  ramp: SetState[];
  /** The set on the way up that comes next, or runs. */
  rampNext: SetState;
  /** What to put on where the set to do now has no load yet; undefined where it has one. */
  next: NextLoad | undefined;
  /** The set-up was rehearsed with the empty bar. */
  rehearsed: boolean;
  /** Index of the set to do now; undefined when all is done. */
  current: number | undefined;
  doneCount: number;
  addedRestS: number;
  ended: boolean;
  /** Pains that no coach has spoken on: loads do not rise. Entry ids. */
  held: string[];
}

/** One lifter's work in one slot, with what the floor gathers from all of them. */
export interface LiftLine {
  kind: "lift";
  state: LifterState;
  call: WaitingCall | undefined;
  decided: DecidedCall[];
  conflicts: LogConflict[];
  /** The set that was finished last, in the log's order. */
  lastDone: { entry: LogEntry; set: SetState } | undefined;
}

/** A lifter in a slot, and the racks there are. */
export interface LiftWork {
  slot: FrozenLift;
  lifter: FrozenLifter;
  callName: string;
  /** Where the slot began; empty for who was not here. */
  homeId: string;
  /** The rack whose plates the loads were settled with. */
  settledAt: string;
  rackOf: (stationId: string) => RackAt | undefined;
}

/** A lifter's slot as a function of the entries that speak of it, in the log's order. */
export function reduceLifter(
  work: LiftWork,
  all: ReadonlyArray<LineEntry<SetEntryBody | PlaceEntryBody>>,
): LiftLine {
  const { slot, lifter } = work;
  const standing = standingOf(work.homeId, all);
  const stationId = standing.stationId ?? work.settledAt;
  const rack = work.rackOf(stationId) ?? work.rackOf(work.settledAt);
  if (!rack) throw new Error(`A lift's rack ${stationId} is not in its session.`);
  const { loads } = rack;
  const at: LifterAt = { slot, loads, lifter, elsewhere: rack.id !== work.settledAt };
  const line = all.filter(speaksOfSet);
  const entriesOf = bySet(line);
  const conflicts: LogConflict[] = [];
  const decided: DecidedCall[] = [];
  let deltaKg = 0;
  let loadCall: "none" | "changed" | "declined" = "none";
  const planRestS = lifter.addRestS ?? 0;
  let addedRestS = planRestS;
  let ended = false;
  const done: DoneSet[] = [];
  const sets: SetState[] = [];
  let lastEnd: ClockMark | undefined;
  const wants = lifter.sets.filter((set) => set.loadKg !== undefined).length;
  let pending: WaitingCall | undefined | false;
  const held = painsIn(line);
  let mostKg: number | undefined;
  const ramp = rampOf(at, entriesOf, conflicts);
  const waits = (call: Call, of: SetPrescription, next: readonly SetPrescription[]) =>
    !(call.action.type === "load" && call.action.deltaKg > 0 && held.length > 0) && {
      ...call,
      athleteId: lifter.athleteId,
      callName: work.callName,
      unit: lifter.unit,
      slotId: slot.slotId,
      setKey: of.key,
      rackId: rack.id,
      effect: effectOf(call.action, next, (kg) => loads(kg + deltaKg)?.totalKg),
    };
  const noteDecision = (decision: LineEntry<Extract<EntryBody, { kind: "call" }>>) => {
    const { athleteId, setKey, call, action, reason } = decision.body;
    const what = decision.body.decision;
    decided.push({
      entryId: decision.entry.id,
      athleteId,
      setKey,
      call,
      decision: what,
      action,
      reason,
    });
    return what === "decline" ? undefined : action;
  };

  // Today's form is judged on the way up: what is decided holds from the first loaded set on.
  const firstLoaded = lifter.sets.find((set) => set.loadKg !== undefined);
  const onForm = firstLoaded && entriesOf.get(firstLoaded.key)?.dayForm[0];
  if (onForm) {
    const action = noteDecision(onForm);
    if (action?.type === "load") {
      deltaKg += action.deltaKg;
      loadCall = "changed";
    }
  } else if (firstLoaded) {
    const call = formOf(work, rack, firstLoaded, ramp);
    const from = lifter.sets.indexOf(firstLoaded);
    pending = call && waits(call, firstLoaded, lifter.sets.slice(from));
  }

  for (const prescription of lifter.sets) {
    const entries = entriesOf.get(prescription.key);
    const set = reduceSet(at, prescription, entries, { deltaKg, mostKg }, conflicts);
    if (set.stage !== "to-come") {
      const begun = entries?.reps[0] ?? entries?.done[0];
      if (lastEnd && begun) set.restTaken = secondsBetween(lastEnd, momentOf(begun));
    } else if (ended || standing.off) set.stage = "dropped";
    if (held.some((pain) => pain.setKey === prescription.key) && set.loadKg !== undefined)
      mostKg = Math.min(mostKg ?? set.loadKg, set.loadKg);

    if (set.stage === "done") {
      lastEnd = set.end;
      done.push({
        key: prescription.key,
        number: prescription.number,
        loadKg: set.loadKg ?? 0,
        velocities: set.reps.flatMap((rep) =>
          rep.outcome === "counted" && rep.velocityMps !== undefined ? [rep.velocityMps] : [],
        ),
        target: set.target,
        eye: set.eye,
      });
      const next = lifter.sets[prescription.number];
      set.verdict = afterSet({
        sets: done,
        nextLoadKg:
          next?.loadKg === undefined || done.length >= wants
            ? undefined
            : loads(next.loadKg + deltaKg)?.totalKg,
        gear: rack.gear,
        line: lifter.line,
        velocityLed: slot.velocityLed,
        restLengthened: addedRestS > planRestS,
        loadCall,
      });
      const decision = entries?.calls[0];
      if (decision) {
        const { call } = decision.body;
        const action = noteDecision(decision);
        if (call === "lighten" || call === "add-load") loadCall = action ? "changed" : "declined";
        if (action?.type === "load") deltaKg += action.deltaKg;
        if (action?.type === "rest") addedRestS += action.addS;
        if (action?.type === "end-exercise") ended = true;
        pending = undefined;
      } else {
        // A call stands until it is decided or the next set is done without it.
        const { call } = set.verdict;
        pending = call && waits(call, prescription, lifter.sets.slice(prescription.number));
      }
    }
    sets.push(set);
  }

  const index = sets.findIndex((set) => set.stage === "running" || set.stage === "to-come");
  const current = sets[index];
  return {
    kind: "lift",
    state: {
      ...standing,
      lifter,
      callName: work.callName,
      sets,
      ramp,
      rampNext: ramp.find((set) => set.stage !== "done") ?? rampToDo(at, ramp.length + 1),
      next:
        current && current.loadKg === undefined
          ? nextLoad({
              lifted: [...ramp, ...sets].flatMap((set) =>
                set.stage === "done" && set.loadKg !== undefined
                  ? [{ ...speedsOf(set), loadKg: set.loadKg, eye: set.eye }]
                  : [],
              ),
              gear: rack.gear,
              lineMps: stopFor(slot, lifter).floorMps ?? current.target?.lowMps,
              bestKg: lifter.bestKg,
            })
          : undefined,
      rehearsed: line.some(({ body }) => body.kind === "rehearsed"),
      current: index < 0 ? undefined : index,
      doneCount: sets.filter((set) => set.stage === "done").length,
      addedRestS,
      ended,
      held: held.map((pain) => pain.entryId),
    },
    call: index >= 0 && pending ? pending : undefined,
    decided,
    conflicts,
    lastDone: lastFinished(line, [...ramp, ...sets]),
  };
}

/** What the way up says of today, while no work set is done. */
function formOf(
  { slot, lifter }: LiftWork,
  rack: RackAt,
  first: SetPrescription,
  ramp: readonly SetState[],
): Call | undefined {
  const { loadKg, target } = first;
  if (!lifter.tested || loadKg === undefined || !target) return undefined;
  const { source = "sensor" } = lifter.tested;
  // A film's speeds say nothing of today beside a sensor's test, nor the other way round.
  const fits = ({ velocityMps, source: own }: RepState) =>
    velocityMps === undefined || areComparable(own, source);
  const wayUp = ramp.flatMap((set) =>
    set.stage === "done" && set.reps.every(fits)
      ? speedsOf(set).velocities.flatMap((velocityMps) =>
          set.loadKg === undefined ? [] : [{ loadKg: set.loadKg, velocityMps }],
        )
      : [],
  );
  if (wayUp.length === 0 || lifter.tested.metric !== slot.metric) return undefined;
  return dayFormCall({
    test: lifter.tested,
    wayUp,
    first: { loadKg, target },
    gear: rack.gear,
  });
}

/** What an action makes of the sets to come: each load that changes, once. */
function effectOf(
  action: CallAction,
  next: readonly SetPrescription[],
  built: (kg: number) => number | undefined,
): Text[] {
  if (action.type === "end-exercise")
    return next.length === 0
      ? []
      : [`${next.length} ${next.length === 1 ? "set is" : "sets are"} left out`];
  if (action.type !== "load") return [];
  const runs: Array<{ from: number; to: number; first: number; last: number }> = [];
  for (const { loadKg, number } of next) {
    if (loadKg === undefined) continue;
    const [from, to] = [built(loadKg), built(loadKg + action.deltaKg)];
    if (from === undefined || to === undefined || from === to) continue;
    const run = runs.at(-1);
    if (run && run.from === from && run.to === to) run.last = number;
    else runs.push({ from, to, first: number, last: number });
  }
  return runs.map(
    ({ from, to, first, last }) =>
      say`${first === last ? `set ${first}` : `sets ${first} to ${last}`}: ${written(from)} to ${written(to)}`,
  );
}

const speaksOfSet = (
  one: LineEntry<SetEntryBody | PlaceEntryBody>,
): one is LineEntry<SetEntryBody> => "setKey" in one.body;

const speedsOf = ({ reps }: SetState) => ({
  velocities: reps.flatMap((rep) =>
    rep.outcome === "counted" && rep.velocityMps !== undefined ? [rep.velocityMps] : [],
  ),
  failed: reps.some((rep) => rep.outcome === "failed"),
});

/** The sets on the way up that the log knows, in their order. */
function rampOf(
  at: LifterAt,
  entriesOf: ReturnType<typeof bySet>,
  conflicts: LogConflict[],
): SetState[] {
  return [...entriesOf.keys()]
    .flatMap((key) => rampNumber(key) ?? [])
    .sort((a, b) => a - b)
    .map((number) =>
      reduceSet(
        at,
        rampSet(at.lifter, number),
        entriesOf.get(rampKey(number)),
        { deltaKg: 0, mostKg: undefined },
        conflicts,
      ),
    );
}

function rampToDo(at: LifterAt, number: number): SetState {
  return reduceSet(
    at,
    rampSet(at.lifter, Math.min(number, MOST_RAMP_SETS)),
    undefined,
    { deltaKg: 0, mostKg: undefined },
    [],
  );
}

/** A set on the way up as it stands before anything is known of it. */
function rampSet(lifter: FrozenLifter, number: number): SetPrescription {
  return {
    key: rampKey(number),
    number,
    reps: lifter.sets[0]?.reps ?? 1,
    cycleItem: undefined,
    percentOf: "",
    loadKg: lifter.rampKg?.[number - 1],
    loadReason: undefined,
    side: [],
    truePercent: undefined,
    informationOnly: false,
    overridden: false,
    target: undefined,
    working: { title: "Warm-up", lines: [] },
  };
}

function lastFinished(
  line: ReadonlyArray<LineEntry<SetEntryBody>>,
  sets: readonly SetState[],
): LiftLine["lastDone"] {
  const finished = new Map(
    sets.flatMap((set) => (set.doneEntryId ? [[set.doneEntryId, set]] : [])),
  );
  let last: LiftLine["lastDone"];
  for (const { entry, root } of line) {
    const set = finished.get(entry.id);
    if (set && (!last || compareEntries(root, last.entry) > 0)) last = { entry: root, set };
  }
  return last;
}

/** The entry that a decision on a call is. */
export function decidedCall(
  call: WaitingCall,
  decision: "take" | "change" | "decline",
  action: CallAction,
  reason: string,
): EntryBody {
  return {
    kind: "call",
    athleteId: call.athleteId,
    slotId: call.slotId,
    stationId: call.rackId,
    setKey: call.setKey,
    call: call.kind,
    decision,
    action,
    reason,
  };
}
