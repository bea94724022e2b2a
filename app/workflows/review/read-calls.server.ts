import { listPlans, type PlanRow } from "../../../db/queries/plans.server";
import { listSessions } from "../../../db/queries/sessions.server";
import { listGroups, namesOf } from "../../../db/queries/squads.server";
import type { Principal } from "../../platform/rights";
import { readGroupCalls } from "../lifters/group-calls.server";
import { overSums } from "../lifters/session-sums.server";
import { callOf, decidedOf } from "../lifters/shown-call.server";
import { openToDos } from "../lifters/to-dos.server";
import { readPlaces } from "../lifters/today.server";
import { wavesOf } from "../lifters/waves.server";
import { becameFor } from "./became.server";

/** Sessions that the page lists. */
const MOST_SESSIONS = 30;
/** Decisions that the page lists. */
const MOST_DECIDED = 30;

/** The calls of a squad (or of who trains alone), what is to be done, and what became of what was decided. */
export async function readCalls(principal: Principal, asked: { groupId: string }) {
  return overSums(principal, async (tx, moreBehind) => {
    const [groups, plans, { today }, listed] = await Promise.all([
      listGroups(tx),
      listPlans(tx),
      readPlaces(tx),
      listSessions(tx, MOST_SESSIONS),
    ]);
    const group = groups.find((one) => one.id === asked.groupId) ?? trainedLast(plans, groups);
    const found = group && (await readGroupCalls(tx, group.id, today, plans));
    const names = await namesOf(tx, [
      ...(found?.facts.flatMap((one) => one.squad.rows.map((row) => row.athleteId)) ?? []),
      ...listed.flatMap((session) => session.ownOf ?? []),
    ]);
    const nameOf = (id: string | null | undefined) =>
      id ? (names.get(id) ?? "somebody") : undefined;
    const sessions = listed.map((session) => ({
      id: session.id,
      date: session.date,
      title: session.title,
      status: session.status,
      alone: nameOf(session.ownOf),
    }));
    const shared = { moreBehind, groups: groups.map(({ id, name }) => ({ id, name })), sessions };
    if (!group || !found)
      return { ...shared, groupId: "", waves: [], calls: [], toDo: [], decided: [] };
    const { calls, facts, decided } = found;
    const own = new Set(facts.flatMap((one) => one.squad.rows.map((row) => row.athleteId)));
    const ofGroup = decided.filter(
      (call) => (call.athleteId !== null && own.has(call.athleteId)) || call.squadId === group.id,
    );
    const rows = facts.flatMap((one) =>
      one.squad.rows.map((row) => ({ row, variantId: one.wave.variant.id })),
    );
    return {
      ...shared,
      groupId: group.id,
      waves: facts.map(({ wave, squad }) => ({
        planId: wave.row.plan.id,
        slotId: wave.slotId,
        run: wave.run.run,
        name: wave.slot.recipe.name,
        liftName: wave.variant.name,
        from: wave.run.from,
        to: wave.run.to,
        over: wave.run.to <= wave.today,
        mean: squad.waveMean && {
          estimate: squad.waveMean.estimate,
          low: squad.waveMean.low,
          high: squad.waveMean.high,
        },
      })),
      calls: calls.map((call) => ({
        ...callOf(call, decided),
        name: nameOf(call.athleteId),
        planId: call.planId,
        slotId: call.slotId,
      })),
      toDo: (await openToDos(tx, ofGroup, today)).map((call) => ({
        ...decidedOf(call),
        name: nameOf(call.athleteId),
      })),
      decided: ofGroup.slice(0, MOST_DECIDED).map((call) => {
        const row = rows.find(
          (one) => one.row.athleteId === call.athleteId && one.variantId === call.variantId,
        );
        return {
          call: decidedOf(call),
          name: nameOf(call.athleteId) ?? group.name,
          became: row && !call.undoneAt ? becameFor(call, row.row) : undefined,
        };
      }),
    };
  });
}

export type CallsPage = Awaited<ReturnType<typeof readCalls>>;

/** The group whose wave was begun last. */
function trainedLast(plans: readonly PlanRow[], groups: Awaited<ReturnType<typeof listGroups>>) {
  const [last] = wavesOf(plans)
    .filter((wave) => wave.run.to <= wave.today)
    .map(({ row }) => row.plan.squadId ?? row.plan.athleteId);
  return groups.find((one) => one.id === last) ?? groups[0];
}
