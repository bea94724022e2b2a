import type { Side } from "../contrast/run";
import type { ClockMark } from "../units/clock";
import type { LogConflict } from "./conflicts";
import type { PlaceEntryBody, SetEntryBody } from "./entries";
import type { ExerciseSet, FrozenExercise, FrozenExerciseAthlete } from "./frozen";
import { type LineEntry, momentOf } from "./line";
import { painsIn } from "./pains";
import { type Standing, standingOf } from "./place";
import type { FaultState, SetStage } from "./set-state";

/** What was done of a set, to one side or to both. */
export interface WorkDone {
  entryId: string;
  side: Side | undefined;
  reps: number;
  loadKg: number | undefined;
  output: number | undefined;
}

/** One set of an exercise, from its entries. */
export interface WorkSetState {
  prescription: ExerciseSet;
  stage: SetStage;
  skipped: boolean;
  passed: number;
  /** As somebody put it on or lifted it, else as planned. */
  loadKg: number | undefined;
  done: WorkDone[];
  faults: FaultState[];
  end: ClockMark | undefined;
}

/** One athlete's work in one exercise. */
export interface ExerciseLine extends Standing {
  kind: "exercise";
  athlete: FrozenExerciseAthlete;
  callName: string;
  sets: WorkSetState[];
  /** Index of the set to do now; undefined when all is done. */
  current: number | undefined;
  doneCount: number;
  /** Pains that no coach has spoken on. Entry ids. */
  held: string[];
  conflicts: LogConflict[];
}

/** The sides of a set that are still to be done; one undefined where it has none. */
export function sidesLeft(
  slot: Pick<FrozenExercise, "sides">,
  set: Pick<WorkSetState, "stage" | "done">,
): Array<Side | undefined> {
  if (set.stage === "done" || set.stage === "dropped") return [];
  if (slot.sides !== "left-right") return [undefined];
  return (["left", "right"] as const).filter((side) => !set.done.some((one) => one.side === side));
}

/** An exercise of an athlete as a function of the entries that speak of it, in the log's order. */
export function reduceExercise(
  at: {
    slot: FrozenExercise;
    athlete: FrozenExerciseAthlete;
    callName: string;
    homeId: string;
  },
  all: ReadonlyArray<LineEntry<SetEntryBody | PlaceEntryBody>>,
): ExerciseLine {
  const { slot, athlete } = at;
  const standing = standingOf(at.homeId, all);
  const line = all.filter((one): one is LineEntry<SetEntryBody> => "setKey" in one.body);
  const conflicts: LogConflict[] = [];
  const sets = athlete.sets.map((prescription) =>
    reduceWork({
      slot,
      athleteId: athlete.athleteId,
      prescription,
      entries: line.filter(({ body }) => body.setKey === prescription.key),
      off: standing.off,
      conflicts,
    }),
  );
  const index = sets.findIndex((set) => set.stage === "running" || set.stage === "to-come");
  return {
    kind: "exercise",
    ...standing,
    athlete,
    callName: at.callName,
    sets,
    current: index < 0 ? undefined : index,
    doneCount: sets.filter((set) => set.stage === "done").length,
    held: painsIn(line).map((pain) => pain.entryId),
    conflicts,
  };
}

function reduceWork(of: {
  slot: FrozenExercise;
  athleteId: string;
  prescription: ExerciseSet;
  entries: ReadonlyArray<LineEntry<SetEntryBody>>;
  off: boolean;
  conflicts: LogConflict[];
}): WorkSetState {
  const { slot, prescription, entries } = of;
  const done: Array<WorkDone & { end: ClockMark }> = [];
  const faults: FaultState[] = [];
  let loadKg = prescription.loadKg;
  let skips = 0;
  let passed = 0;
  for (const one of entries) {
    const { entry, body } = one;
    if (body.kind === "work") {
      // Both at once is each side: whichever came first stands.
      const kept = done.find(
        (other) => other.side === body.side || other.side === undefined || body.side === undefined,
      );
      if (kept) {
        of.conflicts.push({
          code: "same-set-twice",
          address: { athleteId: of.athleteId, slotId: slot.slotId, setKey: prescription.key },
          kept: kept.entryId,
          other: entry.id,
        });
        continue;
      }
      done.push({
        entryId: entry.id,
        side: body.side,
        reps: body.reps,
        loadKg: body.loadKg,
        output: body.output,
        end: momentOf(one),
      });
    } else if (body.kind === "set-load") loadKg = body.loadKg;
    else if (body.kind === "fault")
      faults.push({ entryId: entry.id, fault: body.fault, cut: body.cut });
    else if (body.kind === "skip") skips++;
    else if (body.kind === "later") passed++;
  }
  const sides = new Set(done.map((one) => one.side));
  const whole =
    sides.has(undefined) ||
    (slot.sides === "left-right" ? sides.has("left") && sides.has("right") : sides.size > 0);
  const begun = done.length > 0;
  return {
    prescription,
    stage: whole ? "done" : begun ? "running" : skips > 0 || of.off ? "dropped" : "to-come",
    skipped: skips > 0 && !begun,
    passed,
    loadKg: done.at(-1)?.loadKg ?? loadKg,
    done: done.map(({ end: _, ...one }) => one),
    faults,
    end: whole ? done.at(-1)?.end : undefined,
  };
}
