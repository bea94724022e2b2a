import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import { gate, ladderStanding } from "../../../core/boxsquat/ladder";
import { teamDefault } from "../../../core/settings/usual";
import {
  addLadderGroup,
  addLadderMarks,
  ladderGroupOf,
  ladderMarks,
} from "../../../db/queries/box.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { listAthletes, listSquads } from "../../../db/queries/squads.server";
import type { GroupForm, RungForm } from "../../forms/box";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";

/** A squad on the teaching ladder: where everybody stands, and whether the group may move on. */
export function readBoxBoard(principal: Principal, squadId: string | undefined) {
  return inTeam(principal, async (tx) => {
    const squads = await listSquads(tx);
    const squad = squads.find((one) => one.id === squadId) ?? squads[0];
    const values = await coachValues(tx);
    const { ladderReps } = values;
    if (!squad)
      return {
        squads: [],
        squad: undefined,
        people: [],
        group: undefined,
        today: "",
        ladderReps,
      };
    const places = await readPlaces(tx);
    const people = await listAthletes(tx, squad.id);
    const today = places.todayOf({ squadId: squad.id, roomId: null });
    const marks = await ladderMarks(tx);
    const group = await ladderGroupOf(tx, squad.id);
    const rows = people.map((person) => {
      const own = marks.filter((one) => one.athleteId === person.id);
      const { rung, passed, ready, backs } = ladderStanding(
        own.map((one) => ({ ...one, by: one.enteredBy })),
      );
      const last = own[own.length - 1];
      return {
        id: person.id,
        name: person.name,
        rungId: rung?.id,
        passed,
        ready,
        backs,
        last: last && { date: last.date, by: last.enteredBy, note: last.note },
      };
    });
    return {
      squads: squads.map(({ id, name }) => ({ id, name })),
      squad: { id: squad.id, name: squad.name },
      people: rows,
      today,
      ladderReps,
      group: group && {
        startedOn: group.startedOn,
        early: group.early,
        note: group.note,
        by: group.enteredBy,
        gate: gate({
          athletes: rows,
          startedOn: group.startedOn,
          today,
          decidedEarly: group.early,
          sharePercent: teamDefault(values, "gateSharePercent"),
          weeks: teamDefault(values, "gateWeeks"),
        }),
      },
    };
  });
}

export function markRung(
  principal: Principal,
  input: z.output<typeof RungForm>,
): Promise<Outcome<{ count: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const places = await readPlaces(tx);
    const people = (await listAthletes(tx)).filter((one) => input.athleteIds.includes(one.id));
    if (people.length === 0) return failed("no-athlete", "They are not in your team any more.");
    await addLadderMarks(
      tx,
      people.map((person) => ({
        id: uuidv7(),
        athleteId: person.id,
        rungId: input.rungId,
        outcome: input.outcome,
        date: places.todayOf(person),
        note: input.note,
        enteredBy: principal.name,
        enteredAt: now(),
      })),
    );
    return done({ count: people.length });
  });
}

/** A squad's start on the ladder, or the coach's word to move on earlier. */
export function keepLadderGroup(
  principal: Principal,
  input: z.output<typeof GroupForm>,
): Promise<Outcome<{ early: boolean }>> {
  return inTeamOnce(principal, async (tx) => {
    if (!(await listSquads(tx)).some((one) => one.id === input.squadId))
      return failed("no-squad", "This squad is not in your team any more.");
    const early = input.early === "yes";
    await addLadderGroup(tx, {
      id: uuidv7(),
      squadId: input.squadId,
      startedOn: input.startedOn,
      early,
      note: input.note,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ early });
  });
}
