import { loadBar } from "../barload/load";
import { afterRep, type RepAdvice } from "../liverules/rep";
import {
  afterSet,
  type Call,
  type CallAction,
  type DoneSet,
  type SetVerdict,
} from "../liverules/set";
import type { SetPrescription } from "../prescribe/prescribe";
import { velocityAt } from "../profile/line";
import type { Mass } from "../units/mass";
import type { VelocityMetric } from "../units/velocity";
import type { EntryBody, LogEntry } from "./entries";
import { compareEntries, foldLog, type LogConflict, type SetAside } from "./fold";
import type { FrozenLifter, FrozenRack, FrozenSession } from "./frozen";

export interface RepState {
  entryId: string;
  number: number;
  /** In the session's metric; undefined where it was not measured. */
  velocityMps: number | undefined;
  outcome: "counted" | "failed";
  short: boolean;
  /** Stop at the bottom, s, where it was measured. */
  pauseS: number | undefined;
  loweringMps: number | undefined;
  contactMps: number | undefined;
  toPeakS: number | undefined;
  source: string;
}

export type SetStage = "to-come" | "running" | "done" | "dropped";

export interface SetState {
  prescription: SetPrescription;
  stage: SetStage;
  /** After calls that changed it. */
  loadKg: number | undefined;
  side: Mass[];
  target: { lowMps: number; highMps: number } | undefined;
  reps: RepState[];
  faults: string[];
  advice: RepAdvice | undefined;
  verdict: SetVerdict | undefined;
  endedBy: string | undefined;
  cut: boolean;
  doneEntryId: string | undefined;
  /** Rest before this set, s; `measured` only within one device's running page. */
  restTaken: { seconds: number; measured: boolean } | undefined;
  end: ClockMark | undefined;
}

/** A moment on one device's clocks. */
export interface ClockMark {
  deviceId: string;
  bootId: string;
  monoMs: number;
  wallTime: string;
}

export interface WaitingCall extends Call {
  athleteId: string;
  athleteName: string;
  setKey: string;
  rackId: string;
}

export interface DecidedCall {
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
}

export interface RackState {
  rack: FrozenRack;
  lifters: LifterState[];
  /** Who is up: the fewest sets done, then the rack's order. */
  upId: string | undefined;
  /** What the last finished set left on the bar. */
  onBar: { athleteName: string; side: Mass[] } | undefined;
}

export interface FloorState {
  racks: RackState[];
  calls: WaitingCall[];
  decided: DecidedCall[];
  conflicts: LogConflict[];
  setAside: SetAside[];
  /** Highest sequence number folded in. */
  seq: number;
}

type OfKind<K extends EntryBody["kind"]> = Extract<EntryBody, { kind: K }>;

/** Entries of one set, gathered whatever the order they came in. */
interface SetEntries {
  reps: Array<{ entry: LogEntry; body: OfKind<"rep"> }>;
  done: Array<{ entry: LogEntry; body: OfKind<"set-done"> }>;
  faults: Array<OfKind<"fault">>;
  calls: Array<OfKind<"call">>;
}

/**
 * The running session as a pure function of its log: the same code on the server and on every
 * tablet, so that the same entries always give the same floor.
 */
export function reduceFloor(session: FrozenSession, entries: Iterable<LogEntry>): FloorState {
  const { current, conflicts, setAside } = foldLog(session, entries);
  const gathered = new Map<string, SetEntries>();
  let seq = 0;
  for (const entry of entries) seq = Math.max(seq, entry.seq ?? 0);
  for (const entry of current) {
    const { body } = entry;
    if (body.kind === "void") continue;
    const key = `${body.athleteId}/${body.setKey}`;
    let bucket = gathered.get(key);
    if (!bucket) {
      bucket = { reps: [], done: [], faults: [], calls: [] };
      gathered.set(key, bucket);
    }
    if (body.kind === "rep") bucket.reps.push({ entry, body });
    else if (body.kind === "set-done") bucket.done.push({ entry, body });
    else if (body.kind === "fault") bucket.faults.push(body);
    else bucket.calls.push(body);
  }

  const state: FloorState = { racks: [], calls: [], decided: [], conflicts, setAside, seq };
  for (const rack of session.racks) {
    const lifters = rack.lifters.map((lifter) =>
      reduceLifter(session, rack, lifter, gathered, state),
    );
    const waiting = lifters.filter((one) => one.current !== undefined);
    const running = waiting.find((one) => one.sets[one.current as number]?.stage === "running");
    const next = waiting.reduce<LifterState | undefined>(
      (best, one) => (best === undefined || one.doneCount < best.doneCount ? one : best),
      undefined,
    );
    state.racks.push({
      rack,
      lifters,
      upId: (running ?? next)?.lifter.athleteId,
      onBar: leftOnBar(lifters, current),
    });
  }
  return state;
}

/** The plates of the set that was finished last at this rack, in the log's order. */
function leftOnBar(lifters: LifterState[], current: readonly LogEntry[]): RackState["onBar"] {
  const finished = new Map(
    lifters.flatMap((one) =>
      one.sets.flatMap((set) =>
        set.doneEntryId ? [[set.doneEntryId, { one, set }] as const] : [],
      ),
    ),
  );
  for (let i = current.length - 1; i >= 0; i--) {
    const found = finished.get((current[i] as LogEntry).id);
    if (found) return { athleteName: found.one.lifter.name, side: found.set.side };
  }
  return undefined;
}

function reduceLifter(
  session: FrozenSession,
  rack: FrozenRack,
  lifter: FrozenLifter,
  gathered: Map<string, SetEntries>,
  state: FloorState,
): LifterState {
  let deltaKg = 0;
  let addedRestS = 0;
  let ended = false;
  const done: DoneSet[] = [];
  const sets: SetState[] = [];
  let lastEnd: ClockMark | undefined;
  const wants = lifter.sets.filter((set) => set.loadKg !== undefined).length;
  let pending: WaitingCall | undefined;

  for (const prescription of lifter.sets) {
    const bucket = gathered.get(`${lifter.athleteId}/${prescription.key}`);
    const set = reduceSet(session, rack, lifter, prescription, bucket, deltaKg, state.conflicts);
    if (set.stage !== "to-come") {
      const firstRep = bucket?.reps[0]?.entry ?? bucket?.done[0]?.entry;
      if (lastEnd && firstRep) set.restTaken = restBetween(lastEnd, firstRep);
    } else if (ended) set.stage = "dropped";

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
            : loadedAt(rack, next.loadKg + deltaKg)?.totalKg,
        gear: rack.gear,
        line: lifter.line,
        velocityLed: session.velocityLed,
        restLengthened: addedRestS > 0,
      });
      const decision = bucket?.calls[0];
      if (decision) {
        state.decided.push({ ...decision, call: decision.call });
        if (decision.decision !== "decline") {
          if (decision.action.type === "load") deltaKg += decision.action.deltaKg;
          if (decision.action.type === "rest") addedRestS += decision.action.addS;
          if (decision.action.type === "end-exercise") ended = true;
        }
        pending = undefined;
      } else {
        // A call stands until it is decided or the next set is done without it.
        pending = set.verdict.call && {
          ...set.verdict.call,
          athleteId: lifter.athleteId,
          athleteName: lifter.name,
          setKey: prescription.key,
          rackId: rack.id,
        };
      }
    }
    sets.push(set);
  }

  const index = sets.findIndex((set) => set.stage === "running" || set.stage === "to-come");
  if (pending && index >= 0) state.calls.push(pending);
  return {
    lifter,
    sets,
    current: index < 0 ? undefined : index,
    doneCount: sets.filter((set) => set.stage === "done").length,
    addedRestS,
    ended,
  };
}

function loadedAt(rack: FrozenRack, kg: number) {
  const loading = loadBar(rack.gear, kg);
  return loading.ok ? loading : undefined;
}

function reduceSet(
  session: FrozenSession,
  rack: FrozenRack,
  lifter: FrozenLifter,
  prescription: SetPrescription,
  bucket: SetEntries | undefined,
  deltaKg: number,
  conflicts: LogConflict[],
): SetState {
  const finished = bucket?.done[0];
  const address = {
    athleteId: lifter.athleteId,
    slotId: session.slotId,
    setKey: prescription.key,
  };
  for (const other of bucket?.done.slice(1) ?? []) {
    const kept = finished?.entry.id ?? "";
    conflicts.push({ code: "same-set-twice", address, kept, other: other.entry.id });
  }
  const seen = repsOf(bucket, finished?.entry);
  for (const { kept, other } of seen.twice)
    conflicts.push({ code: "two-detectors", address, kept: kept.id, other: other.id });
  const reps: RepState[] = seen.reps.map(({ entry, body }) => ({
    entryId: entry.id,
    number: body.rep,
    velocityMps: inMetric(body, session.metric),
    outcome: body.outcome,
    short: body.short ?? false,
    pauseS: body.pauseS,
    loweringMps: body.loweringMps,
    contactMps: body.contactMps,
    toPeakS: body.toPeakS,
    source: body.source,
  }));

  const planned =
    prescription.loadKg === undefined
      ? undefined
      : deltaKg === 0
        ? { totalKg: prescription.loadKg, side: prescription.side }
        : fromLoading(loadedAt(rack, prescription.loadKg + deltaKg), prescription);
  const loadKg = finished?.body.loadKg ?? planned?.totalKg;
  const side =
    finished && finished.body.loadKg !== planned?.totalKg
      ? (loadedAt(rack, finished.body.loadKg)?.side.plates ?? [])
      : (planned?.side ?? []);
  const faults = bucket?.faults ?? [];
  const counted = reps.filter((rep) => rep.outcome === "counted");
  return {
    prescription,
    stage: finished ? "done" : reps.length > 0 ? "running" : "to-come",
    loadKg,
    side,
    target: targetAt(prescription, lifter, loadKg),
    reps,
    faults: faults.map((one) => one.fault),
    advice:
      counted.length > 0
        ? afterRep(
            counted.map((rep) => rep.velocityMps),
            { cap: prescription.reps, ...session.stop },
            faults.find((one) => one.cut)?.fault,
            counted.map((rep) => rep.pauseS),
          )
        : undefined,
    verdict: undefined,
    endedBy: finished?.body.endedBy,
    cut: finished?.body.cut ?? false,
    doneEntryId: finished?.entry.id,
    restTaken: undefined,
    end: finished && {
      deviceId: finished.entry.deviceId,
      bootId: finished.entry.bootId,
      monoMs: finished.entry.monoMs,
      wallTime: finished.entry.wallTime,
    },
  };
}

/**
 * The reps of a set, by their numbers. They belong to the set and to what detected them, whoever
 * ends it: the device of the first rep. What another device saw beside it does not count and is
 * reported; a rep that the first one does not have counts where it came before the set was ended
 * (a tablet took over from one that broke), and a correction counts whenever it comes.
 */
function repsOf(bucket: SetEntries | undefined, finished: LogEntry | undefined) {
  const all = bucket?.reps ?? [];
  const detector = all[0]?.entry.deviceId;
  const byNumber = new Map<number, SetEntries["reps"][number]>();
  const twice: Array<{ kept: LogEntry; other: LogEntry }> = [];
  for (const one of all)
    if (one.entry.deviceId === detector && !byNumber.has(one.body.rep))
      byNumber.set(one.body.rep, one);
  for (const one of all) {
    const { entry, body } = one;
    if (entry.deviceId === detector) continue;
    const corrects = entry.supersedes.length > 0;
    if (!corrects && finished && compareEntries(entry, finished) > 0) continue;
    const kept = byNumber.get(body.rep);
    if (kept === undefined) byNumber.set(body.rep, one);
    else twice.push({ kept: kept.entry, other: entry });
  }
  return { reps: [...byNumber.values()].sort((a, b) => a.body.rep - b.body.rep), twice };
}

function fromLoading(
  loading: ReturnType<typeof loadedAt>,
  prescription: SetPrescription,
): { totalKg: number; side: Mass[] } {
  if (loading) return { totalKg: loading.totalKg, side: loading.side.plates };
  return { totalKg: prescription.loadKg as number, side: prescription.side };
}

function inMetric(body: OfKind<"rep">, metric: VelocityMetric): number | undefined {
  if (metric === "MCV") return body.mcvMps;
  return metric === "MPV" ? body.mpvMps : body.pvMps;
}

/** A target from the athlete's own line follows the load; a coach's range holds at any load. */
function targetAt(
  prescription: SetPrescription,
  lifter: FrozenLifter,
  loadKg: number | undefined,
): { lowMps: number; highMps: number } | undefined {
  const { target } = prescription;
  if (!target) return undefined;
  const moved = loadKg !== undefined && loadKg !== prescription.loadKg;
  if (!moved || target.source !== "profile" || !lifter.line) {
    return { lowMps: target.lowMps, highMps: target.highMps };
  }
  const half = (target.highMps - target.lowMps) / 2;
  const centre = velocityAt(lifter.line, loadKg);
  return { lowMps: centre - half, highMps: centre + half };
}

function restBetween(end: ClockMark, next: LogEntry): { seconds: number; measured: boolean } {
  if (end.deviceId === next.deviceId && end.bootId === next.bootId) {
    return { seconds: Math.max(0, (next.monoMs - end.monoMs) / 1000), measured: true };
  }
  const seconds = (Date.parse(next.wallTime) - Date.parse(end.wallTime)) / 1000;
  return { seconds: Math.max(0, seconds), measured: false };
}
