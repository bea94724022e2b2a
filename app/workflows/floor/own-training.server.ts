import { uuidv7 } from "uuidv7";
import { freezeDay, sessionTitle } from "../../../core/floor/freeze";
import { shareOfStation } from "../../../core/floor/frozen";
import { reduceFloor } from "../../../core/floor/state";
import { allAtOne, stationsOf } from "../../../core/floor/stations";
import { dateOf, daysOf } from "../../../core/plan/block";
import { authorNames } from "../../../db/queries/people.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { lockPlan, newestVersion, planById } from "../../../db/queries/plans.server";
import {
  entriesAfter,
  frozenOf,
  insertSession,
  sessionsAlone,
} from "../../../db/queries/sessions.server";
import { athleteById, isFor } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate, now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { mayAlone, type OwnDay, standingOf } from "../lifters/alone.server";
import { readerUnit } from "../lifters/reader-unit.server";
import { openPlanDay, partsOfDay } from "./day-parts.server";
import { closeSession } from "./end-session.server";
import { stationsOfRoom } from "./free-stations.server";
import { mayKnow } from "./may-know.server";
import { GONE, type StationOnFloor } from "./read-session.server";

const NO_DAY = failed("no-day", "This day is not planned for you today. Load your card again.");

/**
 * Puts a published day of today on an athlete's own phone: the same prescription as on the floor, for
 * this athlete alone, at whatever of the room has the right bar. It takes no rack from anybody, and
 * the squad's day stays to be started.
 */
export function startOwn(
  principal: Principal,
  asked: OwnDay,
): Promise<Outcome<{ sessionId: string }>> {
  return inTeamOnce(principal, async (tx) => {
    // An impatient second tap comes after the first, and finds what that one began.
    await lockPlan(tx, asked.planId);
    const person = await personOf(tx, principal);
    const row = await planById(tx, asked.planId);
    if (!person || !row || !isFor(row.plan, person)) return NO_DAY;
    const published = await newestVersion(tx, asked.planId);
    const day = published && daysOf(published.block).find((one) => one.id === asked.dayId);
    const at = now();
    const today = localDate(row.zone, at);
    if (!published || !day || dateOf(published.block, asked.week, day) !== today) return NO_DAY;
    const refusal = mayAlone(row, person, today, await coachValues(tx));
    if (refusal) return failed("not-alone", refusal);
    const standing = await standingOf(tx, person, asked);
    if (standing?.with === "squad")
      return failed("with-squad", "You are in your squad's session today. It is logged there.");
    if (standing) return done({ sessionId: standing.sessionId });
    const opened = await openPlanDay(tx, asked, {
      unit: await readerUnit(tx, principal),
      present: [person.id],
      at,
    });
    if (!opened.ok) return opened;
    // The others of the plan are nobody's business on this phone.
    const own = { ...opened.value, absent: [] };
    const stations = await stationsOfRoom(tx, own.room);
    const parts = await partsOfDay(tx, own, stations, {
      values: await coachValues(tx),
      prefix: "",
    });
    if (!parts.ok) return parts;
    // One training at a time: what was left open is over with the next.
    for (const left of await sessionsAlone(tx, person.id, 5))
      if (left.status === "running") await closeSession(tx, principal, left.id);
    const [first] = parts.value.flatMap((part) => part.slot.from ?? []);
    const sessionId = await insertSession(tx, {
      id: uuidv7(),
      planId: asked.planId,
      week: asked.week,
      slotId: first?.slotId ?? "",
      date: own.date,
      roomId: own.room.id,
      status: "running",
      frozen: freezeDay(
        {
          title: sessionTitle({
            name: own.block.name,
            squadName: own.row.squadName,
            version: own.version,
            week: own.week,
            weeks: own.block.weeks,
          }),
          planVersion: own.version,
          date: own.date,
          zone: own.room.zone,
          roomName: own.room.name,
        },
        parts.value,
      ),
      startedAt: at,
      startedBy: principal.name,
      ownOf: person.id,
    });
    return sessionId
      ? done({ sessionId })
      : failed("started", "You began this already. Load your card again.");
  });
}

async function personOf(tx: TeamTransaction, principal: Principal) {
  const athleteId = principal.kind === "person" ? principal.athleteId : undefined;
  return athleteId === undefined ? undefined : athleteById(tx, athleteId);
}

/** What an athlete's own phone draws a training from: everything of it, at one place. */
export function readOwn(principal: Principal, sessionId: string): Promise<Outcome<StationOnFloor>> {
  return inTeam(principal, async (tx) => {
    const row = await frozenOf(tx, sessionId);
    if (!row || row.ownOf === null || !mayKnow(principal, row)) return failed("no-session", GONE);
    const entries = await entriesAfter(tx, sessionId, 0);
    const here = allAtOne(row.frozen, stationsOf(row.frozen, reduceFloor(row.frozen, [])));
    const names = await authorNames(tx);
    const wrote = new Set(entries.map((entry) => entry.by));
    return done({
      sessionId,
      stationId: here?.station.id ?? "",
      name: row.title,
      status: row.status,
      frozen: shareOfStation(row.frozen),
      entries,
      // Of the team's people only who wrote here: a coach who put a set right.
      names: Object.fromEntries(Object.entries(names).filter(([by]) => wrote.has(by))),
      repsOf: [row.ownOf],
      sensors: {},
      noSensor: "No sensor on this phone: type the speed, or say what the eye saw.",
    });
  });
}
