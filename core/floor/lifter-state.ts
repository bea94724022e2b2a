import { afterSet, type Call, type CallAction, type DoneSet } from "../liverules/set";
import { type ClockMark, secondsBetween } from "../units/clock";
import type { MassUnit } from "../units/mass";
import type { LogConflict } from "./conflicts";
import type { EntryBody, LogEntry, SetEntryBody } from "./entries";
import type { FrozenLifter } from "./frozen";
import { type LineEntry, momentOf } from "./line";
import { bySet, type LifterAt, reduceSet, type SetState } from "./set-state";
import { compareEntries } from "./validity";

export interface WaitingCall extends Call {
  athleteId: string;
  athleteName: string;
  /** In which the lifter reads loads. */
  unit: MassUnit;
  slotId: string;
  setKey: string;
  rackId: string;
}

export interface DecidedCall {
  entryId: string;
  athleteId: string;
  setKey: string;
  call: string;
  decision: "take" | "change" | "decline";
  action: CallAction;
  reason: string;
}

export interface LifterState {
  lifter: FrozenLifter;
  sets: SetState[];
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

/** A lifter's slot as a function of the entries that speak of it, in the log's order. */
export function reduceLifter(at: LifterAt, line: ReadonlyArray<LineEntry<SetEntryBody>>): LiftLine {
  const { slot, rack, loads, lifter } = at;
  const entriesOf = bySet(line);
  const conflicts: LogConflict[] = [];
  const decided: DecidedCall[] = [];
  let deltaKg = 0;
  let loadCall: "none" | "changed" | "declined" = "none";
  let addedRestS = 0;
  let ended = false;
  const done: DoneSet[] = [];
  const sets: SetState[] = [];
  let lastEnd: ClockMark | undefined;
  const wants = lifter.sets.filter((set) => set.loadKg !== undefined).length;
  let pending: WaitingCall | undefined | false;
  const held = painsIn(line);
  let mostKg: number | undefined;

  for (const prescription of lifter.sets) {
    const entries = entriesOf.get(prescription.key);
    const set = reduceSet(at, prescription, entries, { deltaKg, mostKg }, conflicts);
    if (set.stage !== "to-come") {
      const begun = entries?.reps[0] ?? entries?.done[0];
      if (lastEnd && begun) set.restTaken = secondsBetween(lastEnd, momentOf(begun));
    } else if (ended) set.stage = "dropped";
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
        restLengthened: addedRestS > 0,
        loadCall,
      });
      const decision = entries?.calls[0];
      if (decision) {
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
        if (call === "lighten" || call === "add-load")
          loadCall = what === "decline" ? "declined" : "changed";
        if (what !== "decline") {
          if (action.type === "load") deltaKg += action.deltaKg;
          if (action.type === "rest") addedRestS += action.addS;
          if (action.type === "end-exercise") ended = true;
        }
        pending = undefined;
      } else {
        // A call stands until it is decided or the next set is done without it.
        const raises =
          set.verdict.call?.action.type === "load" && set.verdict.call.action.deltaKg > 0;
        pending = set.verdict.call &&
          !(raises && held.length > 0) && {
            ...set.verdict.call,
            athleteId: lifter.athleteId,
            athleteName: lifter.name,
            unit: lifter.unit,
            slotId: slot.slotId,
            setKey: prescription.key,
            rackId: rack.id,
          };
      }
    }
    sets.push(set);
  }

  const index = sets.findIndex((set) => set.stage === "running" || set.stage === "to-come");
  return {
    kind: "lift",
    state: {
      lifter,
      sets,
      current: index < 0 ? undefined : index,
      doneCount: sets.filter((set) => set.stage === "done").length,
      addedRestS,
      ended,
      held: held.map((pain) => pain.entryId),
    },
    call: index >= 0 && pending ? pending : undefined,
    decided,
    conflicts,
    lastDone: lastFinished(line, sets),
  };
}

/** Pains that hold: those that no coach's word has ended. */
function painsIn(line: ReadonlyArray<LineEntry<SetEntryBody>>) {
  const over = new Set(line.flatMap(({ body }) => (body.kind === "pain-over" ? body.of : [])));
  return line.flatMap(({ entry, body }) =>
    body.kind === "pain" && !over.has(entry.id) ? [{ entryId: entry.id, setKey: body.setKey }] : [],
  );
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
