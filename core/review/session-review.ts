import { ERASED_NAME } from "../floor/display-copy";
import type { FrozenExercise, FrozenSession } from "../floor/frozen";
import type { FloorState } from "../floor/state";
import {
  type ExerciseSum,
  type LiftSum,
  type LineSum,
  type PairingSum,
  type SessionSum,
  type SlotFacts,
  sumSession,
} from "./session-sum";

export type LifterReview = LiftSum & { name: string };

export type ExerciseReview = ExerciseSum & { name: string };

export type PairingReview = PairingSum & { name: string };

/** A slot of the day with what became of it. */
export type SlotReview = SlotFacts &
  (
    | {
        kind: "lift";
        lifters: LifterReview[];
        rest: { leastS: number; mostS: number };
        /** The slot's smallest stop on the box, s; undefined where none is asked. */
        smallestStopS: number | undefined;
      }
    | {
        kind: "exercise";
        counts: FrozenExercise["counts"];
        unit: string;
        athletes: ExerciseReview[];
      }
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
  const names = new Map([
    ...floor.racks.flatMap((rack) =>
      rack.lifters.map(({ lifter }) => [lifter.athleteId, lifter.name] as const),
    ),
    ...floor.exercises.flatMap((one) =>
      one.athletes.map(({ athlete }) => [athlete.athleteId, athlete.name] as const),
    ),
    ...floor.pairings.flatMap((one) =>
      one.athletes.map(({ athlete }) => [athlete.athleteId, athlete.name] as const),
    ),
  ]);
  return reviewOf(sumSession(session, floor), names);
}

/** A kept sum as a review, with the names of those who are in it. */
export function reviewOf(
  sum: Pick<SessionSum, "slots" | "lines" | "callsWaiting" | "callsDecided">,
  names: ReadonlyMap<string, string>,
): SessionReview {
  const named = <T extends { athleteId: string }>(one: T) => ({
    ...one,
    name: names.get(one.athleteId) ?? ERASED_NAME,
  });
  const bySlot = new Map<string, LineSum[]>();
  for (const line of sum.lines) bySlot.set(line.slotId, [...(bySlot.get(line.slotId) ?? []), line]);
  const slots = sum.slots.map((head): SlotReview => {
    const { slotId, name, section } = head;
    const lines = (bySlot.get(slotId) ?? []).sort(
      (a, b) => head.athletes.indexOf(a.athleteId) - head.athletes.indexOf(b.athleteId),
    );
    const facts = { slotId, name, section };
    if (head.kind === "lift")
      return {
        ...facts,
        kind: "lift",
        rest: head.rest,
        smallestStopS: head.smallestStopS,
        lifters: lines.flatMap((line) => (line.kind === "lift" ? [named(line.sum)] : [])),
      };
    if (head.kind === "exercise")
      return {
        ...facts,
        kind: "exercise",
        counts: head.counts,
        unit: head.unit,
        athletes: lines.flatMap((line) => (line.kind === "exercise" ? [named(line.sum)] : [])),
      };
    return {
      ...facts,
      kind: "pairing",
      athletes: lines.flatMap((line) => (line.kind === "pairing" ? [named(line.sum)] : [])),
    };
  });
  const lifters = slots.flatMap((slot) => (slot.kind === "lift" ? slot.lifters : []));
  const exercises = slots.flatMap((slot) => (slot.kind === "exercise" ? slot.athletes : []));
  const all = (pick: (one: { setsPlanned: number; setsDone: number }) => number) =>
    [...lifters, ...exercises].reduce((total, one) => total + pick(one), 0);
  const standings = lifters.flatMap((one) => one.sets.map((set) => set.standing));
  return {
    slots,
    lifters,
    setsPlanned: all((one) => one.setsPlanned),
    setsDone: all((one) => one.setsDone),
    onSpeed: standings.filter((one) => one === "on" || one === "over").length,
    judged: standings.filter((one) => one === "on" || one === "over" || one === "under").length,
    cut: lifters.reduce((total, one) => total + one.cutSets.length, 0),
    callsWaiting: sum.callsWaiting,
    callsDecided: sum.callsDecided,
  };
}
