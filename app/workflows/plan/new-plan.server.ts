import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import { type Block, emptyBlock } from "../../../core/plan/block";
import { copyBlock, splitOff } from "../../../core/plan/edits";
import type { LocalDate } from "../../../core/units/time";
import { roomById } from "../../../db/queries/gear.server";
import { ensurePlanLibrary, listSchools } from "../../../db/queries/plan-library.server";
import { insertPlan, planById, putPlanAway } from "../../../db/queries/plans.server";
import { athleteById, groupById, listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { type NewBlockForm, readBlockFile } from "../../forms/block";
import { localDate, now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { editWithin, NO_PLAN } from "../lifters/plan-edit.server";

const GONE = failed(
  "gone",
  "This squad, athlete or room is not there any more. Load the page and choose again.",
);

type New = z.output<typeof NewBlockForm>;

async function insert(
  tx: TeamTransaction,
  principal: Principal,
  input: {
    squadId: string | null;
    athleteId: string | null;
    roomId: string;
    block: Block;
    metric?: "MCV" | "MPV" | "PV";
    rounding?: "nearest" | "down";
  },
): Promise<string> {
  const id = uuidv7();
  await insertPlan(tx, {
    id,
    name: input.block.name,
    squadId: input.squadId,
    athleteId: input.athleteId,
    roomId: input.roomId,
    startDate: input.block.startDate,
    block: input.block,
    metric: input.metric ?? "MCV",
    rounding: input.rounding ?? "nearest",
    updatedBy: principal.name,
    updatedAt: now(),
  });
  return id;
}

/** A new block with its first day, in the order of its school. */
export function newPlan(principal: Principal, input: New): Promise<Outcome<{ id: string }>> {
  return inTeamOnce(principal, async (tx) => {
    await ensurePlanLibrary(tx);
    const group = await groupById(tx, input.groupId);
    const room = await roomById(tx, input.roomId);
    if (!group || !room) return GONE;
    const school = (await listSchools(tx)).find((one) => one.id === input.schoolId)?.school;
    const block: Block = {
      ...emptyBlock({
        name: input.name,
        startDate: input.startDate,
        weeks: input.weeks,
        schoolId: school ? input.schoolId : "",
        template: school?.order ?? "power-first",
      }),
      days: { d1: { name: "Day 1", offset: 0 } },
    };
    return done({
      id: await insert(tx, principal, { ...input, ...group, roomId: room.id, block }),
    });
  });
}

/** The same block again from another date; own loads and absences are left behind. */
export function copyPlan(
  principal: Principal,
  input: { planId: string; name: string; startDate: LocalDate; groupId: string },
): Promise<Outcome<{ id: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const row = await planById(tx, input.planId);
    if (!row) return NO_PLAN;
    const block = copyBlock(row.plan.block, input.name, input.startDate);
    const group = input.groupId ? await groupById(tx, input.groupId) : row.plan;
    if (!group) return GONE;
    const { squadId, athleteId } = group;
    return done({ id: await insert(tx, principal, { ...row.plan, squadId, athleteId, block }) });
  });
}

/** Gives an athlete a block of their own from a squad's; the squad's leaves them out. */
export function splitAthlete(
  principal: Principal,
  input: { planId: string; athleteId: string; base: number },
): Promise<Outcome<{ id: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const row = await planById(tx, input.planId);
    const athlete = await athleteById(tx, input.athleteId);
    if (!row || !athlete) return NO_PLAN;
    if (row.plan.block.apart[athlete.id]) {
      return failed("apart", `${athlete.name} has a block of their own already.`);
    }
    const { own, edit } = splitOff(row.plan.block, athlete.id, `${row.plan.name}, ${athlete.name}`);
    const others = (await listAthletes(tx, row.plan)).filter((one) => one.id !== athlete.id);
    const block: Block = {
      ...own,
      apart: Object.fromEntries(others.map((one) => [one.id, true as const])),
    };
    const id = await insert(tx, principal, { ...row.plan, block });
    // Both or neither: nobody stands in two blocks.
    const { planId, base } = input;
    const edited = await editWithin(tx, principal, { planId, base, edit });
    return edited.ok ? done({ id }) : edited;
  });
}

/** A block from a file, for a squad and a room of this team. */
export function importPlan(
  principal: Principal,
  input: { text: string; groupId: string; roomId: string },
): Promise<Outcome<{ id: string }> & { problems?: string[] }> {
  const read = readBlockFile(input.text);
  if (!read.ok) {
    return Promise.resolve({
      ...failed("file", "Nothing was made: this file has faults."),
      problems: read.problems,
    });
  }
  return inTeamOnce(principal, async (tx) => {
    await ensurePlanLibrary(tx);
    const group = await groupById(tx, input.groupId);
    const room = await roomById(tx, input.roomId);
    if (!group || !room) return GONE;
    const { school } = read.value;
    const own = (await listSchools(tx)).find((one) => one.school.name === school);
    // What is about people was somebody's word in another plan, and names its author by itself.
    const people = { overrides: {}, away: {}, apart: {}, answered: {} };
    const block = { ...read.value.block, ...people, schoolId: own?.id ?? "" };
    return done({ id: await insert(tx, principal, { ...group, roomId: room.id, block }) });
  });
}

/** Puts a plan away: out of the lists, kept for what was done with it. */
export function shelvePlan(
  principal: Principal,
  input: { planId: string; away: boolean },
): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    const row = await planById(tx, input.planId);
    if (!row) return NO_PLAN;
    await putPlanAway(tx, input.planId, input.away ? localDate(row.zone) : null);
    return done(null);
  });
}
