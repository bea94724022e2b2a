import { uuidv7 } from "uuidv7";
import { roomById } from "../../../db/queries/gear.server";
import { addCompetition, competitions, removeCompetition } from "../../../db/queries/person.server";
import { listPlans } from "../../../db/queries/plans.server";
import {
  everySquad,
  insertSquad,
  listAthletes,
  lockSquads,
  squadsOf,
  updateSquad,
} from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import type { SquadChange } from "../../forms/squad";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";

/** The squads in the team's order, those that train no more, and who trains alone. */
export function readSquads(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const places = await readPlaces(tx);
    const people = await listAthletes(tx);
    const events = await competitions(tx);
    const plans = await listPlans(tx);
    const squads = (await everySquad(tx)).map((squad) => ({
      id: squad.id,
      name: squad.name,
      sport: squad.sport,
      roomId: squad.roomId,
      roomName: places.rooms.find((room) => room.id === squad.roomId)?.name ?? "",
      archived: squad.archivedAt !== null,
      athletes: people.filter((one) => squadsOf(one).includes(squad.id)).length,
      /** Whose first squad it is: they train alone, or move, when it ends. */
      first: people.filter((one) => one.squadId === squad.id).length,
      plans: plans.filter((one) => one.plan.squadId === squad.id).length,
      competitions: events
        .filter((one) => one.squadId === squad.id)
        .map(({ id, name, date }) => ({ id, name, date })),
    }));
    return {
      today: places.today,
      rooms: places.rooms.map(({ id, name }) => ({ id, name })),
      squads: squads.filter((one) => !one.archived),
      archived: squads.filter((one) => one.archived),
      alone: people
        .filter((one) => squadsOf(one).length === 0)
        .map((one) => ({ id: one.id, name: one.name, roomName: places.roomOf(one)?.name ?? "" })),
    };
  });
}

const GONE = failed("gone", "This squad or room is not in your team any more.");

async function sameName(tx: TeamTransaction, name: string, but?: string) {
  const plain = name.toLowerCase();
  const same = (await everySquad(tx)).find(
    (one) => one.name.toLowerCase() === plain && one.id !== but,
  );
  return (
    same &&
    failed(
      "same-name",
      `${same.name} is there already${same.archivedAt ? ", archived" : ""}. Use another name.`,
    )
  );
}

/** Puts a squad one place up or down among those that train; the others keep their order. */
async function move(tx: TeamTransaction, squadId: string, by: -1 | 1): Promise<Outcome<null>> {
  const squads = (await everySquad(tx)).filter((one) => one.archivedAt === null);
  const at = squads.findIndex((one) => one.id === squadId);
  const other = squads[at + by];
  if (at < 0 || !other) return failed("end", "It stands at the end of the list already.");
  const order = squads.map((one) => one.id);
  order[at] = other.id;
  order[at + by] = squadId;
  for (const [position, id] of order.entries()) await updateSquad(tx, id, { position });
  return done(null);
}

/** One change of the squads, in one transaction. */
export function changeSquads(principal: Principal, change: SquadChange): Promise<Outcome<null>> {
  return inTeamOnce(principal, async (tx): Promise<Outcome<null>> => {
    await lockSquads(tx);
    const squads = await everySquad(tx);
    switch (change.intent) {
      case "make": {
        const same = await sameName(tx, change.name);
        if (same) return same;
        const room = await roomById(tx, change.roomId);
        if (!room) return GONE;
        const { name, sport } = change;
        await insertSquad(tx, {
          id: uuidv7(),
          name,
          sport,
          roomId: room.id,
          position: Math.max(-1, ...squads.map((one) => one.position)) + 1,
        });
        return done(null);
      }
      case "competition":
        if (!squads.some((one) => one.id === change.squadId)) return GONE;
        await addCompetition(tx, {
          id: uuidv7(),
          squadId: change.squadId,
          name: change.name,
          date: change.date,
          enteredBy: principal.name,
          enteredAt: now(),
        });
        return done(null);
      case "drop-competition":
        await removeCompetition(tx, change.competitionId);
        return done(null);
    }
    const squad = squads.find((one) => one.id === change.squadId);
    if (!squad) return GONE;
    switch (change.intent) {
      case "change": {
        const same = await sameName(tx, change.name, squad.id);
        if (same) return same;
        if (!(await roomById(tx, change.roomId))) return GONE;
        const { name, sport, roomId } = change;
        await updateSquad(tx, squad.id, { name, sport, roomId });
        return done(null);
      }
      case "up":
        return move(tx, squad.id, -1);
      case "down":
        return move(tx, squad.id, 1);
      case "archive":
        return archive(tx, squad);
      case "back":
        await updateSquad(tx, squad.id, { archivedAt: null });
        return done(null);
    }
  });
}

/** A squad ends when nobody trains with it first: else their room and sport would hang on it. */
async function archive(
  tx: TeamTransaction,
  squad: { id: string; name: string; archivedAt: Date | null },
): Promise<Outcome<null>> {
  if (squad.archivedAt) return failed("so-already", `${squad.name} is archived already.`);
  const first = (await listAthletes(tx)).filter((one) => one.squadId === squad.id);
  if (first.length > 0) {
    const names = first
      .slice(0, 3)
      .map((one) => one.name)
      .join(", ");
    const more = first.length > 3 ? ` and ${first.length - 3} more` : "";
    return failed(
      "not-empty",
      `${names}${more} train with ${squad.name}. Move them first: mark them in Athletes and choose another squad.`,
    );
  }
  await updateSquad(tx, squad.id, { archivedAt: now() });
  return done(null);
}
