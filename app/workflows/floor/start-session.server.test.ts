import { afterAll, beforeAll, expect, it } from "vitest";
import type { LocalDate } from "../../../core/units/time";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { saveRecord } from "../athletes/save-max.server";
import { renameRoom } from "../gear/room.server";
import { keepCoachValue } from "../library/plan-library.server";
import { editPlan, redoEdit, undoEdit } from "../plan/edit-plan.server";
import { publishPlan } from "../plan/publish-plan.server";
import { readPlan } from "../plan/read-plan.server";
import { finishSession } from "./end-session.server";
import { readSession } from "./read-session.server";
import { startSession } from "./start-session.server";

/** What was published is what is frozen; days are the room's. */
let team: SecondTeam;
let coach: Principal;

beforeAll(async () => {
  team = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Journey Team");
  coach = {
    kind: "person",
    userId: "journey",
    teamId: team.teamId,
    role: "owner",
    name: "Journey Coach",
    athleteId: undefined,
  };
});
afterAll(closeDatabases);

const rename = (name: string) =>
  editPlan(coach, {
    planId: team.planId,
    base: 1_000_000,
    edit: { words: `Name: ${name}`, sets: [{ path: ["name"], value: name }] },
  });
const nameNow = async () => {
  const plan = await readPlan(coach, team.planId);
  return plan.ok ? plan.value.block.name : undefined;
};
const seqNow = async () => {
  const plan = await readPlan(coach, team.planId);
  return plan.ok ? plan.value.plan.version : -1;
};

it("a session freezes the number of the published version, however often the plan was edited", async () => {
  await finishSession(coach, team.sessionId);
  for (const name of ["One", "Two", "Three"]) expect((await rename(name)).ok).toBe(true);
  const first = await publishPlan(coach, { planId: team.planId, base: await seqNow() });
  expect(first.ok, JSON.stringify(first)).toBe(true);
  for (const name of ["Four", "Five"]) await rename(name);
  const second = await publishPlan(coach, { planId: team.planId, base: await seqNow() });
  expect(second.ok, JSON.stringify(second)).toBe(true);
  await rename("Six, not published");

  const started = await startSession(coach, {
    planId: team.planId,
    week: 2,
    present: [team.athleteId],
  });
  if (!started.ok) throw new Error(started.message);
  const session = await readSession(coach, started.value.sessionId);
  if (!session.ok) throw new Error(session.message);
  expect(session.value.frozen.planVersion).toBe(2);
  expect(session.value.frozen.title).toContain("Five");
  await finishSession(coach, started.value.sessionId);
});

it("two presses of undo at once take back two edits, and two of redo bring both again", async () => {
  await rename("Base");
  await rename("Second");
  await rename("Third");
  const undone = await Promise.all([undoEdit(coach, team.planId), undoEdit(coach, team.planId)]);
  expect(undone.map((one) => one.ok)).toEqual([true, true]);
  expect(await nameNow()).toBe("Base");
  await Promise.all([redoEdit(coach, team.planId), redoEdit(coach, team.planId)]);
  expect(await nameNow()).toBe("Third");
});

it("a record of today is taken where it is tomorrow already, and tomorrow's there is not", async () => {
  // The tests' clock stands at 16:30 UTC on 10 March 2026: in Auckland it is the 11th.
  await renameRoom(coach, team.roomId, { name: "Hall", zone: "Pacific/Auckland" });
  const record = (date: LocalDate) =>
    saveRecord(coach, {
      athleteId: team.athleteId,
      variantId: team.variantId,
      load: { amount: 101, unit: "kg" },
      date,
      kind: "tested",
      note: "",
      confirmed: true,
    });
  expect(await record("2026-03-11")).toMatchObject({ ok: true });
  expect(await record("2026-03-12")).toMatchObject({ ok: false, code: "future-date" });
  await renameRoom(coach, team.roomId, { name: "Hall", zone: "America/Los_Angeles" });
  expect(await record("2026-03-11")).toMatchObject({ ok: false, code: "future-date" });
});

it("a floor that the coach sets comes with the plan, for its new slots", async () => {
  await keepCoachValue(coach, { key: "floorBenchMps", value: 0.5 });
  const plan = await readPlan(coach, team.planId);
  expect(plan.ok && plan.value.coachValues.floorBenchMps).toBe(0.5);
});
