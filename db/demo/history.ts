import { loadBar } from "../../core/barload/load";
import { ENTRY_SCHEMA_VERSION, type EntryBody, type LogEntry } from "../../core/floor/entries";
import {
  type FrozenLifter,
  type FrozenRack,
  type FrozenSession,
  type LiftOnFloor,
  liftsOf,
} from "../../core/floor/frozen";
import { afterRep } from "../../core/liverules/rep";
import { afterSet, type DoneSet } from "../../core/liverules/set";
import type { Random } from "../../core/numeric/random";
import { keepVelocity } from "../../core/units/velocity";
import { PROCESSING_VERSION } from "../../core/velocity/stream";
import { type SimulatedLifter, trueVelocities } from "../../device/lifter";

type EntryOf<K extends EntryBody["kind"]> = Extract<EntryBody, { kind: K }>;

export type StampedEntry = LogEntry & { seq: number };

/** A sensor's mean-velocity error, m/s (one standard deviation). */
const READING_ERROR_MPS = 0.008;
const SET_S = 9;
const CHANGE_S = 12;

/**
 * A session as the simulated lifters would have done it: rep by rep, with the live rules ending
 * sets and calls taken or declined, in the log's own form.
 */
export function simulateSession(input: {
  session: FrozenSession;
  truths: ReadonlyMap<string, SimulatedLifter>;
  startedAt: Date;
  /** Sets done by each lifter before the log ends; all where undefined. */
  rounds?: number;
  /** On a box: what a rep adds, and the fault that was tagged in a set. */
  box?: {
    rep: (
      athleteId: string,
    ) => Required<Pick<EntryOf<"rep">, "pauseS" | "loweringMps" | "contactMps" | "toPeakS">>;
    fault: (athleteId: string, setNumber: number) => string | undefined;
  };
  random: Random;
  uuid: () => string;
}): StampedEntry[] {
  const entries: StampedEntry[] = [];
  const lifted = liftsOf(input.session).flatMap((slot) =>
    slot.racks.map((rack) => ({ slot, rack })),
  );
  for (const { slot, rack } of lifted) {
    const writer = rackWriter(input, entries);
    const states = rack.lifters.map((lifter) => newState(lifter, input.random));
    const rounds = input.rounds ?? Math.max(...rack.lifters.map((one) => one.sets.length));
    for (let round = 0; round < rounds; round++) {
      for (const state of states) doSet(input, { slot, rack }, state, round, writer);
    }
  }
  entries.sort((a, b) => a.wallTime.localeCompare(b.wallTime) || a.deviceSeq - b.deviceSeq);
  entries.forEach((entry, i) => {
    entry.seq = i + 1;
  });
  return entries;
}

type Input = Parameters<typeof simulateSession>[0];
type Writer = ReturnType<typeof rackWriter>;

function rackWriter(input: Input, entries: StampedEntry[]) {
  const deviceId = input.uuid();
  const bootId = input.uuid();
  let deviceSeq = 0;
  let clockS = 60 + 20 * input.random.uniform();
  return {
    wait(seconds: number) {
      clockS += seconds;
    },
    write(body: EntryBody) {
      entries.push({
        id: input.uuid(),
        deviceId,
        bootId,
        deviceSeq: deviceSeq++,
        monoMs: Math.round(clockS * 1000),
        wallTime: new Date(input.startedAt.getTime() + Math.round(clockS * 1000)).toISOString(),
        supersedes: [],
        schemaVersion: ENTRY_SCHEMA_VERSION,
        body,
        seq: 0,
      });
    },
  };
}

interface LifterRun {
  lifter: FrozenLifter;
  done: DoneSet[];
  dayShiftMps: number;
  deltaKg: number;
  loadCall: "none" | "changed" | "declined";
  addedRestS: number;
  ended: boolean;
}

function newState(lifter: FrozenLifter, random: Random): LifterRun {
  return {
    lifter,
    done: [],
    dayShiftMps: 0.025 * random.normal(),
    deltaKg: 0,
    addedRestS: 0,
    loadCall: "none",
    ended: false,
  };
}

function doSet(
  input: Input,
  at: { slot: LiftOnFloor; rack: FrozenRack },
  state: LifterRun,
  round: number,
  writer: Writer,
) {
  const { random } = input;
  const { slot, rack } = at;
  const { lifter } = state;
  const set = lifter.sets[round];
  const truth = input.truths.get(lifter.athleteId);
  if (!set || set.loadKg === undefined || !truth || state.ended) return;
  const address = {
    athleteId: lifter.athleteId,
    slotId: slot.slotId,
    stationId: rack.id,
    setKey: set.key,
  };
  const loading = loadBar(rack.gear, set.loadKg + state.deltaKg);
  const loadKg = loading.ok ? loading.totalKg : set.loadKg;
  writer.wait(CHANGE_S * (0.7 + 0.6 * random.uniform()));

  const truths = trueVelocities(truth, {
    loadKg,
    reps: set.reps,
    setsBefore: round,
    restS: 60 + state.addedRestS,
    dayShiftMps: state.dayShiftMps,
    seed: Math.floor(random.uniform() * 2 ** 31),
  });
  const velocities: number[] = [];
  let advice = afterRep([], { cap: set.reps, ...slot.stop });
  for (const velocity of truths) {
    const mcvMps = keepVelocity(velocity + READING_ERROR_MPS * random.normal());
    velocities.push(mcvMps);
    writer.wait(SET_S / 3);
    writer.write({
      kind: "rep",
      ...address,
      rep: velocities.length,
      mcvMps,
      pvMps: keepVelocity(mcvMps * (1.42 + 0.02 * random.normal())),
      rangeM: keepVelocity(truth.rangeM),
      ...(input.box ? input.box.rep(lifter.athleteId) : {}),
      outcome: "counted",
      source: "simulated",
      processing: PROCESSING_VERSION,
    });
    advice = afterRep(velocities, { cap: set.reps, ...slot.stop });
    if (advice.advice === "stop") break;
  }
  const fault = input.box?.fault(lifter.athleteId, set.number);
  if (fault) writer.write({ kind: "fault", ...address, fault, cut: false });
  writer.wait(1.5);
  writer.write({
    kind: "set-done",
    ...address,
    loadKg,
    endedBy: advice.hits[0]?.rule ?? "hand",
    cut: velocities.length < set.reps,
  });
  const target = set.target && { lowMps: set.target.lowMps, highMps: set.target.highMps };
  state.done.push({ key: set.key, number: set.number, loadKg, velocities, target });
  const next = lifter.sets[round + 1];
  const { call } = afterSet({
    sets: state.done,
    nextLoadKg: next?.loadKg === undefined ? undefined : next.loadKg + state.deltaKg,
    gear: rack.gear,
    line: lifter.line,
    velocityLed: slot.velocityLed,
    restLengthened: state.addedRestS > 0,
    loadCall: state.loadCall,
  });
  if (!call || input.rounds !== undefined) return;
  const take = call.kind !== "end-exercise" && random.uniform() < 0.6;
  writer.wait(4);
  writer.write({
    kind: "call",
    ...address,
    call: call.kind,
    decision: take ? "take" : "decline",
    action: call.action,
    reason: take ? "" : reasonAt(lifter.name.length + 2 * round),
  });
  if (call.kind === "lighten" || call.kind === "add-load")
    state.loadCall = take ? "changed" : "declined";
  if (!take) return;
  if (call.action.type === "load") state.deltaKg += call.action.deltaKg;
  if (call.action.type === "rest") state.addedRestS += call.action.addS;
}

/** What coaches of the demo say when they leave a call. */
const REASONS = [
  "Looked sharp from the side.",
  "One slow rep, the others were on it.",
  "Talking while lifting; told, and went on.",
  "Slept badly, wanted to finish the load.",
  "The bar drifted forward; put right, the load stays.",
  "Race at the weekend: nothing is changed now.",
  "Last set anyway.",
];
const reasonAt = (i: number): string => REASONS[i % REASONS.length] ?? "";
