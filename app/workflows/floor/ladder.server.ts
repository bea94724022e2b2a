import { uuidv7 } from "uuidv7";
import type { DayPart } from "../../../core/floor/freeze";
import { freezeLadder } from "../../../core/floor/freeze-ladder";
import { exercisesOf } from "../../../core/floor/frozen";
import { rungsPassed } from "../../../core/floor/ladder";
import { placesFor } from "../../../core/floor/places";
import { reduceFloor } from "../../../core/floor/state";
import type { CoachValues } from "../../../core/settings/coach-values";
import { teamDefault } from "../../../core/settings/usual";
import { addLadderMarks, ladderGroupOf, ladderMarks } from "../../../db/queries/box.server";
import { entriesAfter, frozenOf } from "../../../db/queries/sessions.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import type { PlanDay } from "./day-parts.server";
import type { RoomStations } from "./free-stations.server";

/** The teaching ladder of a day's squad; undefined where the squad is on none, or all here are through. */
export async function ladderPart(
  tx: TeamTransaction,
  day: PlanDay,
  stations: RoomStations,
  how: { values: CoachValues; prefix: string },
): Promise<DayPart | undefined> {
  const { squadId } = day.row.plan;
  const group = squadId === null ? undefined : await ladderGroupOf(tx, squadId);
  if (!group || squadId === null) return undefined;
  const squad = await listAthletes(tx, squadId);
  const marks = await ladderMarks(
    tx,
    squad.map((one) => one.id),
  );
  const lifters = new Map([...day.athletes, ...day.absent].map((one) => [one.id, one]));
  return freezeLadder({
    slotId: `${how.prefix}teaching-ladder`,
    squad: squad.map(({ id, name }) => ({
      id,
      name,
      unit: lifters.get(id)?.unit ?? "kg",
      instructions: lifters.get(id)?.instructions ?? [],
      marks: marks
        .filter((one) => one.athleteId === id)
        .map((one) => ({ ...one, by: one.enteredBy })),
    })),
    here: new Set(day.athletes.map((one) => one.id)),
    reps: how.values.ladderReps,
    gate: {
      startedOn: group.startedOn,
      decidedEarly: group.early,
      sharePercent: teamDefault(how.values, "gateSharePercent"),
      weeks: teamDefault(how.values, "gateWeeks"),
    },
    places: placesFor("open floor", stations.places, day.room.id),
  });
}

/** How a mark says that it came from a session; with it, it is found again. */
const rungNote = (sessionId: string): string => `Passed on the floor (${sessionId})`;

/**
 * Keeps what was passed of the ladder in a session as marks: when it ends, and again with whatever
 * comes later. A mark has its entry's id, so that it is kept once; what was taken back since goes a
 * rung back.
 */
export async function keepRungs(
  tx: TeamTransaction,
  sessionId: string,
  by: string,
  at: Date,
): Promise<void> {
  const row = await frozenOf(tx, sessionId);
  const ladders = row ? exercisesOf(row.frozen).filter((slot) => slot.ladder) : [];
  if (!row || ladders.length === 0) return;
  const floor = reduceFloor(row.frozen, await entriesAfter(tx, sessionId, 0));
  const lines = floor.exercises.flatMap((one) => (one.slot.ladder ? one.athletes : []));
  const passed = rungsPassed(lines);
  const note = rungNote(sessionId);
  const kept = (
    await ladderMarks(
      tx,
      lines.map((line) => line.athlete.athleteId),
    )
  ).filter((mark) => mark.note === note);
  const shared = { date: row.date, note, enteredBy: by, enteredAt: at };
  const isNew = passed.filter((one) => !kept.some((mark) => mark.id === one.entryId));
  const counts = (of: { athleteId: string; rungId: string }, outcome: string) =>
    kept.filter(
      (mark) =>
        mark.athleteId === of.athleteId && mark.rungId === of.rungId && mark.outcome === outcome,
    ).length;
  const undone = kept.filter(
    (mark) =>
      mark.outcome === "passed" &&
      !passed.some((one) => one.athleteId === mark.athleteId && one.rungId === mark.rungId) &&
      counts(mark, "back") < counts(mark, "passed"),
  );
  await addLadderMarks(tx, [
    ...isNew.map(({ entryId, athleteId, rungId }) => ({
      id: entryId,
      athleteId,
      rungId,
      outcome: "passed" as const,
      ...shared,
    })),
    ...undone.map(({ athleteId, rungId }) => ({
      id: uuidv7(),
      athleteId,
      rungId,
      outcome: "back" as const,
      ...shared,
    })),
  ]);
}
