import type { Output } from "../contrast/outputs";
import type { Exercise, Pattern } from "../exercise/exercise";
import { type Block, overrideKey, type Slot } from "../plan/block";
import { exerciseLoad, type HandRoom, inHands } from "../plan/exercise-load";
import type { Lifter } from "../prescribe/lifter";
import type { WaveWeek } from "../recipe/recipe";
import type { DayPart } from "./freeze";
import type { ExerciseSet, FrozenExercise, FrozenStation, InDay } from "./frozen";

/** What may be written down of a set, by what is done: nothing where the load says it all. */
const OUTPUT_OF: Partial<Record<Pattern, Output>> = {
  jump: "height",
  throw: "distance",
  sprint: "time",
};

/** Where exercises are done: places of the room, in the order in which they fill. */
export type PlaceStation = Extract<FrozenStation, { kind: "place" }>;

/**
 * An exercise of a day: everybody's sets, split evenly over the places that its kind asks for.
 * @param places at least one
 */
export function freezeExercise(input: {
  block: Block;
  slotId: string;
  slot: Slot;
  week: WaveWeek;
  exercise: Pick<Exercise, "name" | "pattern" | "sides"> & { id: string };
  athletes: readonly Lifter[];
  absent?: readonly Lifter[];
  room: HandRoom;
  places: readonly PlaceStation[];
  inDay?: Omit<InDay, "slotId">;
  /** The slot's name within the session. */
  name?: string;
  leftOut?: ReadonlyMap<string, string>;
}): DayPart {
  const { slot, exercise, places } = input;
  const { recipe, work } = slot;
  const settle = (athlete: Lifter) => ({
    athleteId: athlete.id,
    name: athlete.name,
    unit: athlete.unit,
    instructions: [...athlete.instructions],
    sets: exerciseSets({ ...input, athlete }),
  });
  const count = Math.max(1, Math.min(places.length, input.athletes.length));
  const perPlace = Math.ceil(input.athletes.length / count);
  const frozen: FrozenExercise = {
    kind: "exercise",
    slotId: input.name ?? input.slotId,
    ...input.inDay,
    exerciseId: exercise.id,
    name: exercise.name,
    pattern: exercise.pattern,
    counts: recipe.counts ?? "reps",
    sides: recipe.sides ?? exercise.sides,
    hands: work.kind === "exercise" ? work.hands : 1,
    output: OUTPUT_OF[exercise.pattern] ?? "none",
    rest: recipe.rest,
    groups: places.slice(0, count).flatMap((place, i) => {
      const athletes = input.athletes.slice(i * perPlace, (i + 1) * perPlace).map(settle);
      return athletes.length > 0 ? [{ stationId: place.id, athletes }] : [];
    }),
    ...(input.absent && input.absent.length > 0 ? { absent: input.absent.map(settle) } : {}),
  };
  return {
    slot: frozen,
    stations: places.slice(0, count),
    cautions: [],
    leftOut: input.leftOut ?? new Map(),
  };
}

/** One athlete's sets of an exercise, loaded as the plan's page loads them. */
function exerciseSets(input: {
  block: Block;
  slotId: string;
  slot: Slot;
  week: WaveWeek;
  athlete: Lifter;
  room: HandRoom;
}): ExerciseSet[] {
  const { block, slotId, slot, week, athlete, room } = input;
  return week.sets.map((set) => {
    const own = block.overrides[overrideKey(athlete.id, slotId, set.key)]?.loadKg;
    const load =
      own === undefined
        ? exerciseLoad(set, athlete.bodyKg, inHands(block, slot, week.number, room))
        : { kg: own, reason: undefined };
    return {
      key: set.key,
      number: set.number,
      reps: set.reps,
      ...(set.repsTo === undefined ? {} : { repsTo: set.repsTo }),
      loadKg: load.kg,
      loadReason: load.reason,
    };
  });
}
