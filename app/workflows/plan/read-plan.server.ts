import type { PlanCheck } from "../../../core/checks/input";
import { checkPlan, isAnswered, openChecks } from "../../../core/checks/plan";
import { lastDate, leadSlot } from "../../../core/plan/block";
import {
  ensurePlanLibrary,
  listRecipes,
  listSchools,
} from "../../../db/queries/plan-library.server";
import {
  editsOf,
  listPlans,
  newestEdits,
  newestVersion,
  planById,
} from "../../../db/queries/plans.server";
import { sessionsOfPlan } from "../../../db/queries/sessions.server";
import { listGroups, listRooms, readTeam } from "../../../db/queries/squads.server";
import { localDate } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { isOfFloor } from "../lifters/alone.server";
import { checkInput, planFacts } from "../lifters/plan-checks.server";
import { NO_PLAN } from "../lifters/plan-edit.server";
import { planLifters } from "../lifters/plan-lifters.server";
import { blockRoom } from "../lifters/plan-room.server";
import { blockFor } from "../lifters/public-words.server";
import { readerUnit } from "../lifters/reader-unit.server";
import { readAnswers } from "../lifters/sent-answers.server";

/** The plans of the team, and what a new one can be made of. */
export function readPlans(principal: Principal) {
  return inTeam(principal, async (tx) => {
    await ensurePlanLibrary(tx);
    const rows = await listPlans(tx);
    return {
      plans: rows.map((row) => {
        const { block } = row.plan;
        const today = localDate(row.zone);
        const last = lastDate(block);
        return {
          id: row.plan.id,
          name: row.plan.name,
          squadName: row.squadName,
          liftName: row.variant?.name ?? leadSlot(block)?.recipe.name ?? "nothing yet",
          roomName: row.roomName,
          slots: Object.keys(block.slots).length,
          weeks: block.weeks,
          startDate: block.startDate,
          lastDate: last,
          standing: last < today ? "past" : block.startDate > today ? "to come" : "now",
        };
      }),
      groups: await listGroups(tx),
      rooms: (await listRooms(tx)).map(({ id, name }) => ({ id, name })),
      schools: (await listSchools(tx)).map(({ id, school }) => ({
        id,
        name: school.name,
        assumes: school.assumes,
      })),
      /** The school that a new plan starts with. */
      schoolId: (await readTeam(tx))?.schoolId ?? "",
    };
  });
}

/**
 * A plan with what everybody brings to it: the numbers are worked out where they are shown, so
 * that a change of the recipe is seen at once. The checks come with it.
 */
export function readPlan(principal: Principal, planId: string, otherSchool?: string) {
  return inTeam(principal, async (tx) => {
    await ensurePlanLibrary(tx);
    const row = await planById(tx, planId);
    if (!row) return NO_PLAN;
    const facts = await planFacts(tx, row);
    const room = await blockRoom(tx, row, await readerUnit(tx, principal), facts);
    if (!room) {
      return failed(
        "no-rack",
        `${row.roomName} has no rack with a bar yet, so no load can be built.`,
      );
    }
    const { block } = row.plan;
    const today = localDate(row.zone);
    const [athletes, published, sessions, recipes, edits] = await Promise.all([
      planLifters(tx, row, block, today, facts.people),
      newestVersion(tx, planId),
      sessionsOfPlan(tx, planId),
      listRecipes(tx),
      newestEdits(tx, planId, 12),
    ]);
    const [groups, rooms, answers, input] = await Promise.all([
      listGroups(tx),
      listRooms(tx),
      readAnswers(tx, { planId }),
      checkInput(tx, row, athletes, room, today, facts),
    ]);
    const schools = facts.schools.map((one) => ({ id: one.id, ...one.school }));
    const other = schools.find((one) => one.id === otherSchool);
    const used = new Set(
      Object.values(block.slots).flatMap((slot) =>
        slot.work.kind === "exercise" ? slot.work.exerciseIds : [],
      ),
    );
    const paired = new Set(Object.values(block.pairings ?? {}).map((one) => one.complexId));
    const shown = blockFor(principal, block);
    const listed = (checks: readonly PlanCheck[]) =>
      checks.map((one) => ({
        ...one,
        answered: isAnswered(block, one) ? shown.answered[one.key] : undefined,
      }));
    const checks = checkPlan(input);
    return done({
      plan: {
        id: row.plan.id,
        version: row.plan.version,
        groupId: row.plan.squadId ?? row.plan.athleteId ?? "",
        squadName: row.squadName,
        roomId: row.plan.roomId,
        roomName: row.roomName,
        rounding: row.plan.rounding,
        updatedBy: row.plan.updatedBy,
      },
      block: shown,
      room: {
        gear: room.gear,
        rounding: room.rounding,
        metric: room.metric,
        settings: room.settings,
        hang: room.hang,
        others: room.others,
        forLift: room.forLift,
        unit: room.unit,
        hand: room.hand,
        handOf: room.handOf,
      },
      /** Smallest stop on the box that the team asks where a slot sets none, s. */
      stopS: facts.values.smallestStopS,
      gearName: `${room.gear.bar.name}, rack ${room.rackNumber}`,
      today,
      athletes,
      lifts: row.variants.map(({ id, name, lift, caution }) => ({ id, name, lift, caution })),
      exercises: facts.table.exercises
        .filter((one) => !one.away || used.has(one.id))
        .map(({ id, name, pattern, speedClass, muscles }) => ({
          id,
          name,
          pattern,
          speedClass,
          muscles,
        })),
      recipes: recipes
        .filter((one) => one.awayOn === null)
        .map(({ id, family, recipe }) => ({ id, family, recipe })),
      complexNames: facts.complexes
        .filter((one) => one.awayOn === null)
        .map(({ lineageId, complex }) => ({ id: lineageId, name: complex.name })),
      complexes: facts.complexes
        .filter((one) => paired.has(one.lineageId))
        .map(({ lineageId, complex }) => ({ id: lineageId, complex })),
      schools,
      coachValues: facts.values,
      competitions: facts.near,
      checks: listed(checks),
      open: openChecks(block, checks).length,
      other: other && {
        id: other.id,
        name: other.name,
        checks: listed(checkPlan({ ...input, school: other })),
      },
      published: published && {
        number: published.number,
        seq: published.seq,
        by: published.enteredBy,
        on: localDate(row.zone, published.enteredAt),
        loads: published.loads,
        pairings: published.block.pairings,
      },
      edits: edits.map((one) => ({
        seq: one.seq,
        words: one.edit.words,
        by: one.enteredBy,
        at: one.enteredAt.toISOString(),
      })),
      sessions: sessions
        .filter(isOfFloor(row))
        .flatMap(({ id, status, parts }) =>
          parts.flatMap(({ week, slotId, ...part }) =>
            part.planId === planId ? [{ id, status, week, slotId }] : [],
          ),
        ),
      groups: groups.map(({ id, name }) => ({ id, name })),
      rooms: rooms.map(({ id, name }) => ({ id, name })),
      answers,
    });
  });
}

export type PlanPage = Extract<Awaited<ReturnType<typeof readPlan>>, { ok: true }>["value"];

/** Whether somebody edited a plan after a sequence number: who and what, for those who have it open. */
export function readNewer(principal: Principal, planId: string, after: number) {
  return inTeam(principal, async (tx) => {
    if (!(await planById(tx, planId))) return undefined;
    const last = (await editsOf(tx, planId, after)).at(-1);
    return { seq: last?.seq ?? after, by: last?.enteredBy ?? "", words: last?.edit.words ?? "" };
  });
}
