import type { SectionKind } from "../plan/block";
import { type FrozenSession, type FrozenSlot, type FrozenStation, slotName } from "./frozen";
import type { PairingLine } from "./pairing-state";
import type { ExerciseState, FloorState, PairingState, RackState } from "./state";

/** What is done of a slot at one station. */
export type StationWork = {
  slot: FrozenSlot;
  name: string;
  section: SectionKind;
  /** Sets, or rounds of a pairing. */
  done: number;
  planned: number;
  /** Athletes at it here, and those of them who are through. */
  athletes: number;
  through: number;
  /** Somebody is in the middle of it. */
  begun: boolean;
} & (
  | { kind: "lift"; rack: RackState }
  | { kind: "exercise"; exercise: ExerciseState }
  | { kind: "pairing"; pairing: PairingState }
);

/** A station with everything that is done at it, in the day's order. */
export interface StationState {
  station: FrozenStation;
  work: StationWork[];
  /** What is done at it now; undefined where nothing is left. */
  current: StationWork | undefined;
}

const isOpen = (work: StationWork) => work.through < work.athletes;

/** Everything at its station. Stations at which nothing is done are left out. */
export function stationsOf(session: FrozenSession, floor: FloorState): StationState[] {
  const at = new Map<string, StationWork[]>(session.stations.map((one) => [one.id, []]));
  for (const slot of session.slots) {
    for (const { stationId, work } of worksOf(slot, floor)) at.get(stationId)?.push(work);
  }
  return session.stations.flatMap((station) => {
    const work = at.get(station.id) ?? [];
    return work.length === 0 ? [] : [{ station, work, current: currentOf(work) }];
  });
}

/** What somebody is in the middle of goes before what has not begun. */
function currentOf(work: readonly StationWork[]): StationWork | undefined {
  const open = work.filter(isOpen);
  return open.find((one) => one.begun) ?? open[0];
}

/**
 * Everything of a session in the day's order, as if it were done at one station: of who trains
 * alone and goes from one to the next. Undefined where nothing is to be done.
 */
export function allAtOne(
  session: FrozenSession,
  stations: readonly StationState[],
): StationState | undefined {
  const [first] = stations;
  if (!first) return undefined;
  const all = stations.flatMap((one) => one.work);
  const work = session.slots.flatMap((slot) =>
    all.filter((one) => one.slot.slotId === slot.slotId),
  );
  return { station: first.station, work, current: currentOf(work) };
}

/** Where a work is done. */
export function stationOf(work: StationWork): string {
  if (work.kind === "lift") return work.rack.rack.id;
  if (work.kind === "exercise") return work.exercise.stationId;
  return work.pairing.athletes[0]?.stationId ?? "";
}

function worksOf(
  slot: FrozenSlot,
  floor: FloorState,
): Array<{ stationId: string; work: StationWork }> {
  const facts = { slot, name: slotName(slot), section: slot.section ?? ("main" as const) };
  if (slot.kind === "lift")
    return floor.racks
      .filter((rack) => rack.slot.slotId === slot.slotId)
      .map((rack) => ({
        stationId: rack.rack.id,
        work: { ...facts, ...countSets(rack.lifters), kind: "lift", rack },
      }));
  if (slot.kind === "exercise")
    return floor.exercises
      .filter((exercise) => exercise.slot.slotId === slot.slotId)
      .map((exercise) => ({
        stationId: exercise.stationId,
        work: { ...facts, ...countSets(exercise.athletes), kind: "exercise", exercise },
      }));
  const pairing = floor.pairings.find((one) => one.slot.slotId === slot.slotId);
  const byStation = new Map<string, PairingLine[]>();
  for (const line of pairing?.athletes ?? [])
    byStation.set(line.stationId, [...(byStation.get(line.stationId) ?? []), line]);
  return [...byStation].map(([stationId, athletes]) => ({
    stationId,
    work: {
      ...facts,
      ...countRounds(athletes),
      kind: "pairing",
      pairing: { slot, athletes },
    },
  }));
}

function countSets(
  lines: ReadonlyArray<{
    sets: ReadonlyArray<{ stage: string }>;
    current: number | undefined;
    doneCount: number;
  }>,
) {
  return {
    done: lines.reduce((sum, one) => sum + one.doneCount, 0),
    // What was left out is planned no more.
    planned: lines.reduce(
      (sum, one) => sum + one.sets.filter((set) => set.stage !== "dropped").length,
      0,
    ),
    athletes: lines.length,
    through: lines.filter((one) => one.current === undefined).length,
    begun: lines.some((one) =>
      one.sets.some((set) => set.stage === "done" || set.stage === "running"),
    ),
  };
}

/** Rounds of a pairing that are behind somebody. */
export function roundsDone({ run, complex }: Pick<PairingLine, "run" | "complex">): number {
  if (run.stage.kind !== "over") return run.stage.round - 1;
  // Stopped: a round was done where the next one had begun.
  return run.stage.why === "done"
    ? complex.rounds
    : run.rests.filter((rest) => rest.item === 0).length;
}

function countRounds(lines: readonly PairingLine[]) {
  return {
    done: lines.reduce((sum, one) => sum + roundsDone(one), 0),
    planned: lines.reduce((sum, one) => sum + one.complex.rounds, 0),
    athletes: lines.length,
    through: lines.filter((one) => one.run.stage.kind === "over").length,
    begun: lines.some(
      ({ run }) => run.stage.kind !== "waiting" || run.stage.round > 1 || run.stage.item > 0,
    ),
  };
}

/** Slots of the day with how far their athletes are, in the day's order. */
export function slotCounts(session: FrozenSession, stations: readonly StationState[]) {
  const all = stations.flatMap((one) => one.work);
  return session.slots.flatMap((slot) => {
    const works = all.filter((work) => work.slot.slotId === slot.slotId);
    const sum = (pick: (work: StationWork) => number) =>
      works.reduce((total, work) => total + pick(work), 0);
    return works.length === 0
      ? []
      : [
          {
            slotId: slot.slotId,
            section: slot.section ?? ("main" as const),
            name: slotName(slot),
            athletes: sum((work) => work.athletes),
            through: sum((work) => work.through),
            done: sum((work) => work.done),
            planned: sum((work) => work.planned),
          },
        ];
  });
}
