import { OUTPUTS } from "../contrast/outputs";
import type { Side } from "../contrast/run";
import { SPEED_CLASS_NAMES } from "../exercise/speed-classes";
import type { ExerciseLine } from "../floor/exercise-state";
import {
  type FrozenExercise,
  type FrozenLift,
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
import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";
import { say, written } from "../units/written";
import { type SetSum, setSum } from "./set-working";

export interface LifterReview {
  slotId: string;
  athleteId: string;
  name: string;
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
}

/** One athlete's exercise without a bar, done against planned. */
export interface ExerciseReview {
  athleteId: string;
  name: string;
  setsPlanned: number;
  setsDone: number;
  /** In what the exercise counts; of one done left and right, both sides. */
  repsDone: number;
  /** Σ load × reps, both hands where both held one, kg; undefined where nothing was held. */
  tonnageKg: number | undefined;
  /** The best that was written down. */
  best: number | undefined;
  sideGap: { side: Side; by: number } | undefined;
  /** On the teaching ladder: the rung, and whether it was passed. */
  rung: { name: string; passed: boolean } | undefined;
}

/** One athlete's pairing. */
export interface PairingReview {
  athleteId: string;
  name: string;
  rounds: number;
  roundsDone: number;
  /** Best output of each item that has one, with its unit. */
  best: Array<{ item: string; value: number; unit: string }>;
}

/** A slot of the day with what became of it. */
export type SlotReview = { slotId: string; name: string; section: SectionKind } & (
  | { kind: "lift"; lifters: LifterReview[] }
  | { kind: "exercise"; counts: FrozenExercise["counts"]; unit: string; athletes: ExerciseReview[] }
  | { kind: "pairing"; athletes: PairingReview[] }
);

export interface SessionReview {
  /** In the day's order. */
  slots: SlotReview[];
  lifters: LifterReview[];
  setsPlanned: number;
  setsDone: number;
  /** Done sets with a target whose best rep reached it, and how many had one. */
  onSpeed: number;
  judged: number;
  cut: number;
  callsWaiting: number;
  callsDecided: number;
}

/** Done against planned, from the folded floor. */
export function reviewSession(session: FrozenSession, floor: FloorState): SessionReview {
  const slots = session.slots.map((slot) => reviewSlot(slot, floor));
  const lifters = slots.flatMap((slot) => (slot.kind === "lift" ? slot.lifters : []));
  const exercises = slots.flatMap((slot) => (slot.kind === "exercise" ? slot.athletes : []));
  const sum = (pick: (one: { setsPlanned: number; setsDone: number }) => number) =>
    [...lifters, ...exercises].reduce((total, one) => total + pick(one), 0);
  const standings = lifters.flatMap((one) => one.sets.map((set) => set.standing));
  return {
    slots,
    lifters,
    setsPlanned: sum((one) => one.setsPlanned),
    setsDone: sum((one) => one.setsDone),
    onSpeed: standings.filter((one) => one === "on" || one === "over").length,
    judged: standings.filter((one) => one === "on" || one === "over" || one === "under").length,
    cut: lifters.reduce((total, one) => total + one.cutSets.length, 0),
    callsWaiting: floor.calls.length,
    callsDecided: floor.decided.length,
  };
}

function reviewSlot(slot: FrozenSlot, floor: FloorState): SlotReview {
  const facts = { slotId: slot.slotId, name: slotName(slot), section: slot.section ?? "main" };
  if (slot.kind === "lift") {
    const racks = floor.racks.filter((rack) => rack.slot.slotId === slot.slotId);
    const lifters = racks.flatMap((rack) =>
      rack.lifters.map((lifter) => reviewLifter(lifter, rack.slot)),
    );
    return { ...facts, kind: "lift", lifters };
  }
  if (slot.kind === "exercise") {
    const athletes = floor.exercises
      .filter((exercise) => exercise.slot.slotId === slot.slotId)
      .flatMap((exercise) => exercise.athletes.map((line) => reviewExercise(slot, line)));
    const { unit } = OUTPUTS[slot.output];
    return { ...facts, kind: "exercise", counts: slot.counts, unit, athletes };
  }
  const athletes = floor.pairings
    .filter((pairing) => pairing.slot.slotId === slot.slotId)
    .flatMap((pairing) => pairing.athletes.map(reviewPairing));
  return { ...facts, kind: "pairing", athletes };
}

function reviewExercise(slot: FrozenExercise, line: ExerciseLine): ExerciseReview {
  const done = line.sets.flatMap((set) => set.done);
  const outputs = done.flatMap((one) => one.output ?? []);
  const held = done.filter((one) => one.loadKg !== undefined);
  const { up } = OUTPUTS[slot.output];
  return {
    athleteId: line.athlete.athleteId,
    name: line.athlete.name,
    setsPlanned: line.sets.length,
    setsDone: line.doneCount,
    repsDone: done.reduce((sum, one) => sum + one.reps, 0),
    tonnageKg:
      held.length === 0
        ? undefined
        : held.reduce((sum, one) => sum + slot.hands * one.reps * (one.loadKg ?? 0), 0),
    best: outputs.length === 0 ? undefined : up ? Math.max(...outputs) : Math.min(...outputs),
    sideGap: sideGap(line),
    rung: line.athlete.rung && { name: line.athlete.rung.name, passed: line.doneCount > 0 },
  };
}

function reviewPairing({ athlete, complex, run }: PairingLine): PairingReview {
  const best = complex.items.flatMap((item, i) => {
    const values = run.outputs.flatMap((one) => (one.item === i ? [one.value] : []));
    const { up, unit } = OUTPUTS[item.output];
    return values.length === 0
      ? []
      : [{ item: item.name, value: up ? Math.max(...values) : Math.min(...values), unit }];
  });
  return {
    athleteId: athlete.athleteId,
    name: athlete.name,
    rounds: complex.rounds,
    roundsDone: roundsDone({ complex, run }),
    best,
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

function reviewLifter({ lifter, sets }: LifterState, slot: FrozenLift): LifterReview {
  const done = sets.filter((set) => set.stage === "done");
  return {
    slotId: slot.slotId,
    athleteId: lifter.athleteId,
    name: lifter.name,
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
