import type { Side } from "../contrast/run";
import type { EntryBody, SetAddress } from "./entries";
import { type ExerciseLine, sidesLeft, type WorkDone, type WorkSetState } from "./exercise-state";
import type { FrozenExercise } from "./frozen";

export type WorkBody = Extract<EntryBody, { kind: "work" }>;

/** The set of an exercise that is to be done now, and the side that comes first of it. */
export function nextWork(
  slot: FrozenExercise,
  line: ExerciseLine,
): { set: WorkSetState; sides: Array<Side | undefined> } | undefined {
  const set = line.current === undefined ? undefined : line.sets[line.current];
  return set && { set, sides: sidesLeft(slot, set) };
}

/** The newest thing that was done of an exercise, to say more of it or to take it back. */
export function lastWork(line: ExerciseLine): { set: WorkSetState; done: WorkDone } | undefined {
  for (const set of [...line.sets].reverse()) {
    const done = set.done.at(-1);
    if (done) return { set, done };
  }
  return undefined;
}

/** A set done as it was planned: one tap says all of it. */
export function doneAsPlanned(
  at: Omit<SetAddress, "setKey">,
  set: WorkSetState,
  side: Side | undefined,
): WorkBody {
  return {
    kind: "work",
    ...at,
    setKey: set.prescription.key,
    ...(side ? { side } : {}),
    reps: set.prescription.reps,
    ...(set.loadKg === undefined ? {} : { loadKg: set.loadKg }),
  };
}

/** What was done, said anew: fewer reps, another load, what it measured. */
export function amended(
  at: Omit<SetAddress, "setKey">,
  of: { set: WorkSetState; done: WorkDone },
  change: { reps?: number; loadKg?: number; output?: number },
): WorkBody {
  const { side, reps, loadKg, output } = of.done;
  const said = {
    reps: change.reps ?? reps,
    loadKg: change.loadKg ?? loadKg,
    output: change.output ?? output,
  };
  return {
    kind: "work",
    ...at,
    setKey: of.set.prescription.key,
    ...(side ? { side } : {}),
    reps: said.reps,
    ...(said.loadKg === undefined ? {} : { loadKg: said.loadKg }),
    ...(said.output === undefined ? {} : { output: said.output }),
  };
}

/** Reps of a side more than of the other, over all sets. */
export function sideGap(line: ExerciseLine): { side: Side; by: number } | undefined {
  const sum = (side: Side) =>
    line.sets.reduce(
      (all, set) => all + set.done.reduce((n, one) => n + (one.side === side ? one.reps : 0), 0),
      0,
    );
  const gap = sum("left") - sum("right");
  if (gap === 0) return undefined;
  return gap < 0 ? { side: "left", by: -gap } : { side: "right", by: gap };
}
