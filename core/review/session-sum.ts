import { isHighBox } from "../boxsquat/depth";
import { OUTPUTS } from "../contrast/outputs";
import type { Side } from "../contrast/run";
import { SPEED_CLASS_NAMES, type SpeedClass } from "../exercise/speed-classes";
import type { ExerciseLine } from "../floor/exercise-state";
import {
  type FrozenExercise,
  type FrozenLift,
  type FrozenLifter,
  type FrozenSession,
  type FrozenSlot,
  slotName,
} from "../floor/frozen";
import type { LifterState } from "../floor/lifter-state";
import type { PairingLine } from "../floor/pairing-state";
import { sideGap } from "../floor/round";
import type { SetState } from "../floor/set-state";
import type { FloorState } from "../floor/state";
import { roundsDone } from "../floor/stations";
import { speedClassAt } from "../liverules/speed-class";
import type { SectionKind } from "../plan/block";
import { HARD_FROM_PERCENT } from "../plan/week-sums";
import { formatVelocity, isFilmed, isMeasured, type VelocityMetric } from "../units/velocity";
import type { Working } from "../units/working";
import { say, written } from "../units/written";
import { type SetSum, setSum } from "./set-working";

/** One lifter's work in a lift, nameless: what is kept of a session, and read by every review. */
export interface LiftSum {
  slotId: string;
  athleteId: string;
  metric: VelocityMetric;
  lift: string;
  /** The rack at which it was done last. */
  stationId: string | undefined;
  /** The slope of the athlete's own line, m/s per kg, as the session was begun with it. */
  slopeMpsPerKg: number | undefined;
  /** A heavy slot: up to a top set. */
  top: boolean;
  /** The class that was trained; undefined in older sessions. */
  speedClass: SpeedClass | undefined;
  /** The slot's smallest stop on the box, s; undefined where none was asked. */
  smallestStopS: number | undefined;
  setsPlanned: number;
  setsDone: number;
  repsPlanned: number;
  repsDone: number;
  /** Σ load × counted reps, kg. */
  tonnageKg: number;
  plannedTonnageKg: number;
  cutSets: Array<{ number: number; cause: string }>;
  /** Done sets, each with its reps and its best against what was wanted. */
  sets: SetSum[];
  faults: string[];
  /** Sets measured in another speed class than the slot trains, in words. */
  otherClass: string[];
  /** Each planned set's load, kg, and reps. */
  planned: Array<{ loadKg: number | undefined; reps: number }>;
  /** The box as it stood, cm, its style, and how far the seat is over the own parallel height. */
  box: { heightCm?: number; styleId?: string; overCm?: number } | undefined;
  /** Pains that no coach had spoken on. */
  held: number;
}

/** One athlete's exercise without a bar, done against planned. */
export interface ExerciseSum {
  athleteId: string;
  counts: FrozenExercise["counts"];
  setsPlanned: number;
  setsDone: number;
  /** In what the exercise counts; of one done left and right, both sides. */
  repsPlanned: number;
  repsDone: number;
  /** By side, where it is done left and right. */
  sides: { left: number; right: number } | undefined;
  /** Σ load × reps, both hands where both held one, kg; undefined where nothing was held. */
  tonnageKg: number | undefined;
  /** The best that was written down. */
  best: number | undefined;
  sideGap: { side: Side; by: number } | undefined;
  /** On the teaching ladder: the rung, and whether it was passed. */
  rung: { name: string; passed: boolean } | undefined;
}

/** One athlete's pairing. */
export interface PairingSum {
  athleteId: string;
  rounds: number;
  roundsDone: number;
  /** Best output of each item that has one, with its unit. */
  best: Array<{ item: string; value: number; unit: string }>;
  /** Every output, in order of item and round. */
  outputs: Array<{ item: string; round: number; value: number; unit: string }>;
  /** Reps by side of the items that are done so, and contacts of those that are jumps. */
  sides: Array<{ item: string; left: number; right: number }>;
}

export interface SlotFacts {
  slotId: string;
  name: string;
  section: SectionKind;
}

/** A slot as a kept sum names it. */
export type SlotHead = SlotFacts & {
  /** Who did it, in the order of stations and turns. */
  athletes: string[];
} & (
    | {
        kind: "lift";
        variantId: string | undefined;
        lift: string;
        metric: VelocityMetric;
        rest: { leastS: number; mostS: number };
        from: FrozenSlot["from"];
        smallestStopS: number | undefined;
      }
    | {
        kind: "exercise";
        exerciseId: string;
        counts: FrozenExercise["counts"];
        unit: string;
        pattern: FrozenExercise["pattern"];
        from: FrozenSlot["from"];
      }
    | { kind: "pairing"; from: FrozenSlot["from"] }
  );

type WithoutAthletes<T> = T extends unknown ? Omit<T, "athletes"> : never;
type HeadOf = WithoutAthletes<SlotHead>;

/** One athlete in one slot. */
export type LineSum =
  | { kind: "lift"; slotId: string; athleteId: string; sum: LiftSum }
  | { kind: "exercise"; slotId: string; athleteId: string; sum: ExerciseSum }
  | { kind: "pairing"; slotId: string; athleteId: string; sum: PairingSum };

/** What a session came to, nameless: kept beside its log, and worked out anew from it at any time. */
export interface SessionSum {
  slots: SlotHead[];
  lines: LineSum[];
  callsWaiting: number;
  callsDecided: number;
}

/** What a session came to, from the folded floor: the only place where a review's figures are made. */
export function sumSession(session: FrozenSession, floor: FloorState): SessionSum {
  const bySlot = session.slots.map((slot) => ({ slot, lines: linesOf(slot, floor) }));
  return {
    slots: bySlot.map(({ slot, lines }) => ({
      ...slotHead(slot),
      athletes: lines.map((line) => line.athleteId),
    })),
    lines: bySlot.flatMap(({ lines }) => lines),
    callsWaiting: floor.calls.length,
    callsDecided: floor.decided.length,
  };
}

function slotHead(slot: FrozenSlot): HeadOf {
  const facts = {
    slotId: slot.slotId,
    name: slotName(slot),
    section: slot.section ?? ("main" as const),
    from: slot.from,
  };
  if (slot.kind === "lift") {
    const { variantId, lift, metric, rest } = slot;
    const { smallestStopS } = slot.stop;
    return { ...facts, kind: "lift", variantId, lift, metric, rest, smallestStopS };
  }
  if (slot.kind === "exercise") {
    const { exerciseId, counts, pattern } = slot;
    return {
      ...facts,
      kind: "exercise",
      exerciseId,
      counts,
      pattern,
      unit: OUTPUTS[slot.output].unit,
    };
  }
  return { ...facts, kind: "pairing" };
}

function linesOf(slot: FrozenSlot, floor: FloorState): LineSum[] {
  const { slotId } = slot;
  if (slot.kind === "lift")
    return floor.racks
      .filter((rack) => rack.slot.slotId === slotId)
      .flatMap((rack) =>
        rack.lifters.map((lifter): LineSum => {
          const { athleteId } = lifter.lifter;
          return { kind: "lift", slotId, athleteId, sum: liftSum(lifter, rack.slot) };
        }),
      );
  if (slot.kind === "exercise")
    return floor.exercises
      .filter((exercise) => exercise.slot.slotId === slotId)
      .flatMap((exercise) =>
        exercise.athletes.map((line): LineSum => {
          const { athleteId } = line.athlete;
          return { kind: "exercise", slotId, athleteId, sum: exerciseSum(slot, line) };
        }),
      );
  return floor.pairings
    .filter((pairing) => pairing.slot.slotId === slotId)
    .flatMap((pairing) =>
      pairing.athletes.map((line): LineSum => {
        const { athleteId } = line.athlete;
        return { kind: "pairing", slotId, athleteId, sum: pairingSum(line) };
      }),
    );
}

function exerciseSum(slot: FrozenExercise, line: ExerciseLine): ExerciseSum {
  const done = line.sets.flatMap((set) => set.done);
  const outputs = done.flatMap((one) => one.output ?? []);
  const held = done.filter((one) => one.loadKg !== undefined);
  const { up } = OUTPUTS[slot.output];
  const bothSides = slot.sides === "left-right";
  const side = (of: Side) => done.reduce((sum, one) => sum + (one.side === of ? one.reps : 0), 0);
  return {
    athleteId: line.athlete.athleteId,
    counts: slot.counts,
    setsPlanned: line.sets.length,
    setsDone: line.doneCount,
    repsPlanned: line.sets.reduce(
      (sum, set) => sum + set.prescription.reps * (bothSides ? 2 : 1),
      0,
    ),
    repsDone: done.reduce((sum, one) => sum + one.reps, 0),
    sides: bothSides ? { left: side("left"), right: side("right") } : undefined,
    tonnageKg:
      held.length === 0
        ? undefined
        : held.reduce((sum, one) => sum + slot.hands * one.reps * (one.loadKg ?? 0), 0),
    best: outputs.length === 0 ? undefined : up ? Math.max(...outputs) : Math.min(...outputs),
    sideGap: sideGap(line),
    rung: line.athlete.rung && { name: line.athlete.rung.name, passed: line.doneCount > 0 },
  };
}

function pairingSum({ athlete, complex, run }: PairingLine): PairingSum {
  const best = complex.items.flatMap((item, i) => {
    const values = run.outputs.flatMap((one) => (one.item === i ? [one.value] : []));
    const { up, unit } = OUTPUTS[item.output];
    return values.length === 0
      ? []
      : [{ item: item.name, value: up ? Math.max(...values) : Math.min(...values), unit }];
  });
  const itemOf = (i: number) => complex.items[i]?.name ?? "";
  return {
    athleteId: athlete.athleteId,
    rounds: complex.rounds,
    roundsDone: roundsDone({ complex, run }),
    best,
    outputs: run.outputs.map(({ item, round, value }) => ({
      item: itemOf(item),
      round,
      value,
      unit: OUTPUTS[complex.items[item]?.output ?? "none"].unit,
    })),
    sides: run.sides.map(({ item, left, right }) => ({ item: itemOf(item), left, right })),
  };
}

/** A set whose best rep is of another speed class than the slot trains, in words. */
function otherClassWords(set: SetState, slot: FrozenLift): string[] {
  const speeds = set.reps.flatMap((rep) =>
    rep.outcome === "counted" && rep.velocityMps !== undefined ? [rep.velocityMps] : [],
  );
  if (!slot.classBorders || !slot.speedClass || speeds.length === 0) return [];
  const best = Math.max(...speeds);
  const measured = speedClassAt(best, slot.classBorders);
  return measured === undefined || measured === slot.speedClass
    ? []
    : [
        `Set ${set.prescription.number} moved at ${formatVelocity(best)} m/s: ${SPEED_CLASS_NAMES[measured].toLowerCase()}, ${SPEED_CLASS_NAMES[slot.speedClass].toLowerCase()} planned`,
      ];
}

function countedReps(set: SetState): number {
  return set.reps.filter((rep) => rep.outcome === "counted").length;
}

function liftSum({ lifter, sets, held, stationId }: LifterState, slot: FrozenLift): LiftSum {
  const done = sets.filter((set) => set.stage === "done");
  return {
    slotId: slot.slotId,
    athleteId: lifter.athleteId,
    metric: slot.metric,
    lift: slot.lift,
    stationId,
    slopeMpsPerKg: lifter.line?.slopeMpsPerKg,
    top: slot.top !== undefined,
    speedClass: slot.speedClass,
    smallestStopS: slot.stop.smallestStopS,
    setsPlanned: sets.length,
    setsDone: done.length,
    repsPlanned: sets.reduce((sum, set) => sum + set.prescription.reps, 0),
    repsDone: done.reduce((sum, set) => sum + countedReps(set), 0),
    tonnageKg: tonnageOf(done),
    plannedTonnageKg: plannedTonnage(sets),
    cutSets: done
      .filter((set) => set.cut)
      .map((set) => ({
        number: set.prescription.number,
        cause: set.advice?.hits[0]?.text ?? "ended by hand",
      })),
    sets: done.map(setSum),
    otherClass: done.flatMap((set) => otherClassWords(set, slot)),
    faults: done.flatMap((set) => set.faults.map((one) => one.fault)),
    planned: sets.map(({ prescription: { loadKg, reps } }) => ({ loadKg, reps })),
    box: boxOf(lifter),
    held: held.length,
  };
}

function boxOf({ box }: FrozenLifter): LiftSum["box"] {
  if (!box) return undefined;
  const { heightCm, styleId, overCm } = box;
  return {
    ...(heightCm === undefined ? {} : { heightCm }),
    ...(styleId === undefined ? {} : { styleId }),
    ...(overCm === undefined ? {} : { overCm }),
  };
}

/**
 * What trends ask of a lift's day: a few numbers, so that a year of a squad is read at once. Sets are
 * those whose speed compares over the days: measured, of today's processing.
 */
export interface LiftPoints {
  metric: VelocityMetric;
  slopeMpsPerKg: number | undefined;
  stationId: string | undefined;
  /** Load, kg, work sets before it, best rep, m/s. */
  sets: Array<[loadKg: number, before: number, bestMps: number]>;
  /** The same of sets that were filmed; absent where none was. */
  filmed?: Array<[loadKg: number, before: number, bestMps: number]>;
  /** Fault, sets in which it was seen, least share of the max, %. */
  faults: Array<[fault: string, sets: number, percent: number | null]>;
  setsPlanned: number;
  setsDone: number;
  cut: number;
  reps: number;
  tonnageKg: number;
  /** The heaviest set, kg, and of the max, %. */
  topKg: number;
  topPercent: number | null;
  /** A heavy slot, or a set from the heavy share on. */
  heavy: boolean;
  lift: string;
  /** Done sets that count as hard, and those for speed (docs/sources.md). */
  hardSets: number;
  speedSets: number;
  /** Of a squat: to full depth, or to a high box. */
  depth: "full" | "high-box" | null;
}

/** Hard sets are those for strength, and of a heavy slot from 80 %; the others are for speed. */
function setsByAim(sum: LiftSum): Pick<LiftPoints, "hardSets" | "speedSets"> {
  const hardSets = sum.top
    ? sum.sets.filter((set) => (set.percent ?? 0) >= HARD_FROM_PERCENT).length
    : sum.speedClass === "absolute-strength"
      ? sum.setsDone
      : 0;
  return { hardSets, speedSets: sum.setsDone - hardSets };
}

/** From this share of the max on a set is a heavy exposure, %. */
export const HEAVY_PERCENT = 90;

function setsFrom({ sets }: LiftSum, fits: (source: string) => boolean): LiftPoints["sets"] {
  return sets.flatMap((set, before) =>
    set.bestMps !== undefined &&
    set.loadKg !== undefined &&
    !set.older &&
    set.sources.length > 0 &&
    set.sources.every(fits)
      ? [[set.loadKg, before, set.bestMps] as [number, number, number]]
      : [],
  );
}

export function pointsOf(sum: LiftSum): LiftPoints {
  const faults = new Map<string, { sets: number; percent: number | null }>();
  for (const set of sum.sets)
    for (const fault of new Set(set.faults)) {
      const seen = faults.get(fault) ?? { sets: 0, percent: null };
      const least = Math.min(
        seen.percent ?? Number.POSITIVE_INFINITY,
        set.percent ?? Number.POSITIVE_INFINITY,
      );
      faults.set(fault, { sets: seen.sets + 1, percent: Number.isFinite(least) ? least : null });
    }
  const loads = sum.sets.flatMap((set) => (set.counted > 0 ? (set.loadKg ?? []) : []));
  const percents = sum.sets.flatMap((set) => (set.counted > 0 ? (set.percent ?? []) : []));
  const topPercent = percents.length > 0 ? Math.max(...percents) : null;
  const filmed = setsFrom(sum, isFilmed);
  return {
    metric: sum.metric,
    slopeMpsPerKg: sum.slopeMpsPerKg,
    stationId: sum.stationId,
    sets: setsFrom(sum, isMeasured),
    ...(filmed.length > 0 ? { filmed } : {}),
    faults: [...faults].map(([fault, seen]) => [fault, seen.sets, seen.percent]),
    setsPlanned: sum.setsPlanned,
    setsDone: sum.setsDone,
    cut: sum.cutSets.length,
    reps: sum.repsDone,
    tonnageKg: sum.tonnageKg,
    topKg: loads.length > 0 ? Math.max(...loads) : 0,
    topPercent,
    heavy: sum.setsDone > 0 && (sum.top || (topPercent ?? 0) >= HEAVY_PERCENT),
    lift: sum.lift,
    ...setsByAim(sum),
    depth:
      sum.lift === "squat"
        ? "full"
        : sum.lift === "box-squat"
          ? isHighBox(sum.box?.overCm ?? 0)
            ? "high-box"
            : "full"
          : null,
  };
}

/** How a lifter's tonnage in a slot was added up. */
export function tonnageWorking({ lifter, sets }: LifterState): Working {
  const done = sets.filter((set) => set.stage === "done");
  return {
    title: `Tonnage, ${lifter.name}`,
    lines: [
      ...done.map((set) => ({
        label: `Set ${set.prescription.number}`,
        value: say`${written(set.loadKg ?? 0)} × ${countedReps(set)}`,
      })),
      { label: "Done", value: written(tonnageOf(done), 1), emphasis: "answer" as const },
      { label: "Planned", value: written(plannedTonnage(sets), 1) },
    ],
    sources: ["Load × counted reps; failed reps are not counted"],
  };
}

const tonnageOf = (done: readonly SetState[]) =>
  done.reduce((sum, set) => sum + (set.loadKg ?? 0) * countedReps(set), 0);

const plannedTonnage = (sets: readonly SetState[]) =>
  sets.reduce((sum, set) => sum + (set.prescription.loadKg ?? 0) * set.prescription.reps, 0);
