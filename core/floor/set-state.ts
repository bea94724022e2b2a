import { type BarLoading, loadBar } from "../barload/load";
import type { LoadingGear } from "../barload/loading-gear";
import type { Eye } from "../liverules/eye";
import { afterRep, type RepAdvice } from "../liverules/rep";
import type { SetVerdict } from "../liverules/set";
import type { SetPrescription } from "../prescribe/prescribe";
import type { ClockMark } from "../units/clock";
import type { Mass } from "../units/mass";
import type { VelocityMetric } from "../units/velocity";
import { isOlder } from "../velocity/processing";
import type { LogConflict, WorkAddress } from "./conflicts";
import type { LogEntry, SetEntryBody } from "./entries";
import { type FrozenLift, type FrozenLifter, stopFor } from "./frozen";
import { type LineEntry, momentOf } from "./line";
import { compareEntries } from "./validity";

export interface RepState {
  entryId: string;
  number: number;
  /** In the session's metric; undefined where it was not measured. */
  velocityMps: number | undefined;
  outcome: "counted" | "failed";
  short: boolean;
  /** Stop at the bottom, s, where it was measured. */
  pauseS: number | undefined;
  /** Somebody saw it bounce off the seat. */
  bounced: boolean;
  loweringMps: number | undefined;
  contactMps: number | undefined;
  toPeakS: number | undefined;
  /** The largest rise on the seat before the drive, m. */
  rockM: number | undefined;
  source: string;
  /** Measured by an older processing: it stands beside its own day's reps alone. */
  older: boolean;
}

export interface FaultState {
  entryId: string;
  fault: string;
  cut: boolean;
}

export type SetStage = "to-come" | "running" | "done" | "dropped";

export interface SetState {
  prescription: SetPrescription;
  stage: SetStage;
  /** After calls that changed it, or as somebody put it on; undefined until then without a plan's. */
  loadKg: number | undefined;
  /** Somebody put it on: no plan gave it, or another was wanted. */
  byHand: boolean;
  side: Mass[];
  target: { lowMps: number; highMps: number } | undefined;
  reps: RepState[];
  faults: FaultState[];
  advice: RepAdvice | undefined;
  verdict: SetVerdict | undefined;
  endedBy: string | undefined;
  cut: boolean;
  /** How fast it looked, where somebody said so. */
  eye: Eye | undefined;
  /** Left out by hand; a set can be dropped by a call too. */
  skipped: boolean;
  /** How often others were let before. */
  passed: number;
  doneEntryId: string | undefined;
  /** Rest before this set, s; `measured` only within one device's running page. */
  restTaken: { seconds: number; measured: boolean } | undefined;
  end: ClockMark | undefined;
}

export type OfKind<K extends SetEntryBody["kind"]> = Extract<SetEntryBody, { kind: K }>;

/** Entries of one set in the log's order, gathered by what they say. */
export interface SetEntries {
  reps: Array<LineEntry<OfKind<"rep">>>;
  done: Array<LineEntry<OfKind<"set-done">>>;
  faults: Array<LineEntry<OfKind<"fault">>>;
  calls: Array<LineEntry<OfKind<"call">>>;
  /** Decisions on the call that stands before the set: today's form. */
  dayForm: Array<LineEntry<OfKind<"call">>>;
  loads: Array<LineEntry<OfKind<"set-load">>>;
  bounces: Array<LineEntry<OfKind<"bounce">>>;
  skips: number;
  passes: number;
}

const none = (): SetEntries => ({
  reps: [],
  done: [],
  faults: [],
  calls: [],
  dayForm: [],
  loads: [],
  bounces: [],
  skips: 0,
  passes: 0,
});

/** A lifter's entries by set. */
export function bySet(line: ReadonlyArray<LineEntry<SetEntryBody>>): Map<string, SetEntries> {
  const gathered = new Map<string, SetEntries>();
  for (const { entry, root, body } of line) {
    let set = gathered.get(body.setKey);
    if (!set) {
      set = none();
      gathered.set(body.setKey, set);
    }
    if (body.kind === "rep") set.reps.push({ entry, root, body });
    else if (body.kind === "set-done") set.done.push({ entry, root, body });
    else if (body.kind === "fault") set.faults.push({ entry, root, body });
    else if (body.kind === "call")
      (body.call === "day-form" ? set.dayForm : set.calls).push({ entry, root, body });
    else if (body.kind === "set-load") set.loads.push({ entry, root, body });
    else if (body.kind === "bounce") set.bounces.push({ entry, root, body });
    else if (body.kind === "skip") set.skips++;
    else if (body.kind === "later") set.passes++;
  }
  return gathered;
}

/** What sets before this one have made of its load. */
export interface LoadSoFar {
  /** Of calls that were taken. */
  deltaKg: number;
  /** No heavier than this; undefined where nothing holds it. */
  mostKg: number | undefined;
}

/** One set of a lifter, from its entries. */
export function reduceSet(
  at: LifterAt,
  prescription: SetPrescription,
  entries: SetEntries = none(),
  { deltaKg, mostKg }: LoadSoFar,
  conflicts: LogConflict[],
): SetState {
  const { slot, loads, lifter } = at;
  const finished = entries.done[0];
  const address: WorkAddress = {
    athleteId: lifter.athleteId,
    slotId: slot.slotId,
    setKey: prescription.key,
  };
  const report =
    (code: "same-set-twice" | "two-detectors" | "double-decision") =>
    (kept: LogEntry, other: LogEntry) =>
      conflicts.push({ code, address, kept: kept.id, other: other.id });
  for (const [code, all] of [
    ["same-set-twice", entries.done],
    ["double-decision", entries.calls],
    ["double-decision", entries.dayForm],
  ] as const)
    for (const other of all.slice(1)) if (all[0]) report(code)(all[0].entry, other.entry);
  const seen = repsOf(entries.reps, finished?.root);
  for (const { kept, other } of seen.twice) report("two-detectors")(kept, other);
  const bounced = new Set(entries.bounces.map(({ body }) => body.rep));
  const reps: RepState[] = seen.reps.map(({ entry, body }) => ({
    entryId: entry.id,
    number: body.rep,
    velocityMps: inMetric(body, slot.metric),
    outcome: body.outcome,
    short: body.short ?? false,
    pauseS: body.pauseS,
    bounced: bounced.has(body.rep),
    loweringMps: body.loweringMps,
    contactMps: body.contactMps,
    toPeakS: body.toPeakS,
    rockM: body.rockM,
    source: body.source,
    older: isOlder(body.processing),
  }));

  const put = entries.loads.at(-1)?.body.loadKg;
  const planned =
    put === undefined
      ? plannedLoad(at, prescription, { deltaKg, mostKg })
      : { totalKg: put, side: loads(put)?.side.plates ?? [] };
  const loadKg = finished?.body.loadKg ?? planned?.totalKg;
  const side =
    finished && finished.body.loadKg !== planned?.totalKg
      ? (loads(finished.body.loadKg)?.side.plates ?? [])
      : (planned?.side ?? []);
  const counted = reps.filter((rep) => rep.outcome === "counted");
  return {
    prescription,
    stage: finished
      ? "done"
      : reps.length > 0
        ? "running"
        : entries.skips > 0
          ? "dropped"
          : "to-come",
    loadKg,
    byHand: put !== undefined,
    side,
    target: targetOf(prescription),
    reps,
    faults: entries.faults.map(({ entry, body }) => ({
      entryId: entry.id,
      fault: body.fault,
      cut: body.cut,
    })),
    advice:
      counted.length > 0
        ? afterRep(
            counted.map((rep) => rep.velocityMps),
            { cap: prescription.reps, ...stopFor(slot, lifter) },
            entries.faults.find((one) => one.body.cut)?.body.fault,
            counted.map((rep) => (rep.bounced ? "seen" : rep.pauseS)),
          )
        : undefined,
    verdict: undefined,
    endedBy: finished?.body.endedBy,
    cut: finished?.body.cut ?? false,
    eye: finished?.body.eye,
    skipped: !finished && reps.length === 0 && entries.skips > 0,
    passed: entries.passes,
    doneEntryId: finished?.entry.id,
    restTaken: undefined,
    end: finished && momentOf(finished),
  };
}

/** What a rack makes of a load, undefined where it cannot: asked once for each load. */
export type RackLoads = (kg: number) => BarLoading | undefined;

export function rackLoads(gear: LoadingGear): RackLoads {
  const known = new Map<number, BarLoading | undefined>();
  return (kg) => {
    if (known.has(kg)) return known.get(kg);
    const loading = loadBar(gear, kg);
    const answer = loading.ok ? loading : undefined;
    known.set(kg, answer);
    return answer;
  };
}

/** A rack of the session, and what it makes of loads. */
export interface RackAt {
  id: string;
  name: string;
  gear: LoadingGear;
  loads: RackLoads;
}

/** A lifter's place in a slot: the rack, and what it makes of loads. */
export interface LifterAt {
  slot: FrozenLift;
  loads: RackLoads;
  lifter: FrozenLifter;
  /** Another rack than the one that the plates were settled for. */
  elsewhere: boolean;
}

/**
 * The reps of a set, by their numbers. They belong to the set and to what detected them, whoever
 * ends it: the device of the first rep. What another device saw beside it does not count and is
 * reported; a rep that the first one does not have counts where it came before the set was ended
 * (a tablet took over from one that broke).
 */
function repsOf(all: SetEntries["reps"], finished: LogEntry | undefined) {
  const detector = all[0]?.root.deviceId;
  const byNumber = new Map<number, SetEntries["reps"][number]>();
  const twice: Array<{ kept: LogEntry; other: LogEntry }> = [];
  const others = all.filter((one) => one.root.deviceId !== detector);
  for (const one of all) {
    if (one.root.deviceId !== detector) continue;
    const kept = byNumber.get(one.body.rep);
    if (kept === undefined) byNumber.set(one.body.rep, one);
    else twice.push({ kept: kept.entry, other: one.entry });
  }
  for (const one of others) {
    const corrects = one.entry.supersedes.length > 0;
    if (!corrects && finished && compareEntries(one.root, finished) > 0) continue;
    const kept = byNumber.get(one.body.rep);
    if (kept === undefined) byNumber.set(one.body.rep, one);
    else twice.push({ kept: kept.entry, other: one.entry });
  }
  return { reps: [...byNumber.values()].sort((a, b) => a.body.rep - b.body.rep), twice };
}

/** A set's load after calls, and no heavier than what holds it. */
function plannedLoad(
  { loads, elsewhere, lifter }: LifterAt,
  prescription: SetPrescription,
  { deltaKg, mostKg }: LoadSoFar,
): { totalKg: number; side: Mass[] } | undefined {
  if (prescription.loadKg === undefined) return undefined;
  const wantedKg = prescription.loadKg + deltaKg;
  const kg = mostKg === undefined ? wantedKg : Math.min(wantedKg, mostKg);
  return kg === prescription.loadKg && !elsewhere
    ? {
        totalKg: prescription.loadKg,
        side: lifter.plates?.[prescription.key] ?? prescription.side,
      }
    : fromLoading(loads(kg), prescription);
}

function fromLoading(
  loading: BarLoading | undefined,
  prescription: SetPrescription,
): { totalKg: number; side: Mass[] } {
  if (loading) return { totalKg: loading.totalKg, side: loading.side.plates };
  return { totalKg: prescription.loadKg ?? 0, side: prescription.side };
}

function inMetric(body: OfKind<"rep">, metric: VelocityMetric): number | undefined {
  if (metric === "MCV") return body.mcvMps;
  return metric === "MPV" ? body.mpvMps : body.pvMps;
}

/** Planned with the set, and kept when a call moves the load: a lighter bar is asked for as much. */
function targetOf({ target }: SetPrescription): { lowMps: number; highMps: number } | undefined {
  return target && { lowMps: target.lowMps, highMps: target.highMps };
}
