import { uuidv7 } from "uuidv7";
import type { PlanCheck } from "../../../core/checks/input";
import { checkPlan, openChecks, refusedInSlot } from "../../../core/checks/plan";
import { BREATHING_NAMES } from "../../../core/checks/school";
import { freezeSession, type LifterSetup } from "../../../core/floor/freeze";
import { barFits, noBarWords } from "../../../core/gear/bars";
import { isIn, leadSlot, slotWeek, withAnswersOf } from "../../../core/plan/block";
import { racksWithHang, roomById } from "../../../db/queries/gear.server";
import { coachValues, ensurePlanLibrary } from "../../../db/queries/plan-library.server";
import { newestVersion, planById } from "../../../db/queries/plans.server";
import { frozenById, insertSession, runningSessions } from "../../../db/queries/sessions.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate, now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { rackSetups } from "../lifters/box-seat.server";
import { checkInput } from "../lifters/plan-checks.server";
import { planLifters, sessionPlan, slotOverrides } from "../lifters/plan-lifters.server";
import { blockRoom } from "../lifters/plan-room.server";
import { readerUnit } from "../lifters/reader-unit.server";

/**
 * Puts one week of a plan on the floor: as it was published, or as a draft by a coach who has seen
 * its checks. An open refusal is lifted by neither: whom it names is left out, and one of the slot
 * itself stops the start.
 */
export function startSession(
  principal: Principal,
  input: {
    planId: string;
    week: number;
    slotId?: string | undefined;
    present: string[];
    /** The checks were seen, and the plan is to be run before it is published. */
    asDraft?: boolean;
  },
): Promise<Outcome<{ sessionId: string }>> {
  return inTeamOnce(principal, async (tx) => {
    await ensurePlanLibrary(tx);
    const row = await planById(tx, input.planId);
    if (!row) return failed("no-plan", "This plan is no longer there. Open the plan list.");
    const room = await roomById(tx, row.plan.roomId);
    // What was published is done; before the first publication the plan as it stands, as a draft.
    const published = await newestVersion(tx, row.plan.id);
    const { block } = published ?? row.plan;
    const slotId = input.slotId ?? leadSlot(block)?.id ?? "";
    const slot = block.slots[slotId];
    const planRoom = await blockRoom(tx, row, await readerUnit(tx, principal));
    const settings = planRoom?.settings ?? {};
    const week = slot && slotWeek(block, slot, input.week, settings);
    const plan = week && sessionPlan(row, slotId, block, week, published?.number ?? 0);
    if (!plan || !week || week.sets.length === 0 || !room || !planRoom) {
      return failed("no-week", "This plan has no such week, or nothing to lift in it.");
    }
    const at = now();
    const date = localDate(room.zone, at);

    const variant = row.variants.find((one) => one.id === plan.variant.id);
    const all = await racksWithHang(tx, room.id, date);
    const fitting = all.filter((rack) => barFits(variant?.bar ?? "", rack.bar));
    if (all.length > 0 && fitting.length === 0) {
      return failed("no-bar", noBarWords(variant?.bar ?? "", room.name));
    }
    const racks = await notInUse(tx, room.id, fitting);
    if (racks.length === 0) {
      return failed(
        "no-rack",
        `Every rack in ${room.name} is in use. End the running session first.`,
      );
    }
    const here = (await listAthletes(tx, row.plan)).filter(
      (person) => input.present.includes(person.id) && isIn(block, person.id, date),
    );
    const present = await planLifters(tx, row, block, date, here, [slot], true);
    if (present.length === 0) {
      return failed("nobody", "Nobody is ticked as here. Tick who is, then start.");
    }
    const answered = withAnswersOf(block, row.plan.block);
    const ofBlock = { ...row, plan: { ...row.plan, block: answered } };
    const checked = await checkInput(tx, ofBlock, present, planRoom, date);
    const checks = checkPlan(checked);
    const { stops, leftOut } = refusedInSlot(answered, checks, slotId);
    if (stops[0]) {
      return failed(
        "refused",
        `Not started: a check of this plan is refused. ${stops[0].text} Change it, or answer it with a reason in the plan's checks.`,
      );
    }
    const athletes = present.filter((one) => !leftOut.has(one.id));
    if (athletes.length === 0) {
      return failed(
        "all-refused",
        `Not started: everybody here is refused. ${[...leftOut.values()][0]?.text ?? ""} Answer it with a reason in the plan's checks, or give them another slot.`,
      );
    }
    if (!published && !mayRunDrafts(principal)) {
      return failed("coach-first", "This plan was never published. A coach publishes it first.");
    }
    if (!published && !input.asDraft) {
      return failed(NOT_PUBLISHED, "This plan was never published. Look at its checks first.");
    }
    const setups =
      plan.variant.lift === "box-squat"
        ? await rackSetups(tx, {
            athleteIds: athletes.map((one) => one.id),
            variantId: plan.variant.id,
            roomId: room.id,
            offsetCm: plan.box?.offsetCm,
            breathing: BREATHING_NAMES[checked.school.breathing],
          })
        : new Map<string, LifterSetup>();
    const sessionId = await insertSession(tx, {
      id: uuidv7(),
      planId: row.plan.id,
      week: week.number,
      slotId,
      date,
      roomId: room.id,
      status: "running",
      frozen: freezeSession({
        plan,
        week,
        athletes,
        setups,
        racks,
        overrides: slotOverrides(block, slotId),
        date,
        zone: room.zone,
        roomName: room.name,
        coachValues: await coachValues(tx),
        leftOut: new Map([...leftOut].map(([id, check]) => [id, check.code])),
      }),
      startedAt: at,
      startedBy: principal.name,
    });
    if (!sessionId) {
      return failed("started", "This week was started already. It is in the list below.");
    }
    return done({ sessionId });
  });
}

/** Why a start waits for a coach: the plan was never published. */
export const NOT_PUBLISHED = "not-published";

const mayRunDrafts = (principal: Principal) =>
  principal.kind === "person" && (principal.role === "owner" || principal.role === "coach");

/** The open checks of a plan's slot, for a coach who is about to run it as a draft. */
export function draftChecks(
  principal: Principal,
  input: { planId: string; slotId?: string | undefined },
): Promise<Array<Pick<PlanCheck, "level" | "text">>> {
  return inTeam(principal, async (tx) => {
    const row = await planById(tx, input.planId);
    const room = row && (await blockRoom(tx, row, await readerUnit(tx, principal)));
    if (!row || !room) return [];
    const { block } = row.plan;
    const slotId = input.slotId ?? leadSlot(block)?.id;
    const today = localDate(row.zone);
    const athletes = await planLifters(tx, row, block, today);
    const checks = checkPlan(await checkInput(tx, row, athletes, room, today));
    return openChecks(block, checks)
      .filter((one) => one.slotId === undefined || one.slotId === slotId)
      .map(({ level, text }) => ({ level, text }));
  });
}

/** Those racks of a room that no running session uses. */
async function notInUse<Rack extends { rackId: string }>(
  tx: TeamTransaction,
  roomId: string,
  racks: readonly Rack[],
): Promise<Rack[]> {
  const running = (await runningSessions(tx)).filter((one) => one.roomId === roomId);
  const frozen = await frozenById(
    tx,
    running.map((one) => one.id),
  );
  const taken = new Set(
    [...frozen.values()].flatMap((session) => session.stations.map((station) => station.id)),
  );
  return racks.filter((rack) => !taken.has(rack.rackId));
}
