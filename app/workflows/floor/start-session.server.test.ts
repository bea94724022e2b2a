import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { slotCells } from "../../../core/plan/block-loads";
import type { Json } from "../../../core/plan/edits";
import type { LocalDate } from "../../../core/units/time";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { saveLimit } from "../athletes/save-limits.server";
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
    days: [{ planId: team.planId, week: 2 }],
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

describe("a plan that is not published, and who is refused in it", () => {
  let young: SecondTeam;
  let theirs: Principal;
  const set = (path: string[], value: Json | undefined) =>
    editPlan(theirs, {
      planId: young.planId,
      base: 1_000_000,
      edit: { words: "Edit", sets: [value === undefined ? { path } : { path, value }] },
    });
  const start = (over: { week?: number; asDraft?: boolean } = {}) =>
    startSession(theirs, {
      days: [{ planId: young.planId, week: over.week ?? 2 }],
      present: [young.athleteId],
      asDraft: over.asDraft ?? false,
    });
  const publish = async () => {
    const plan = await readPlan(theirs, young.planId);
    return publishPlan(theirs, {
      planId: young.planId,
      base: plan.ok ? plan.value.plan.version : -1,
    });
  };
  const refusedKey = async () => {
    const plan = await readPlan(theirs, young.planId);
    const check = plan.ok
      ? plan.value.checks.find((one) => one.level === "refused" && !one.answered)
      : undefined;
    if (!check) throw new Error("A check is refused.");
    return check;
  };
  const frozenBy = async (started: Awaited<ReturnType<typeof startSession>>) => {
    if (!started.ok) throw new Error(started.message);
    const session = await readSession(theirs, started.value.sessionId);
    if (!session.ok) throw new Error(session.message);
    await finishSession(theirs, started.value.sessionId);
    return session.value;
  };

  beforeAll(async () => {
    young = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Young Team");
    theirs = { ...coach, teamId: young.teamId, name: "Young Coach" } as Principal;
    await finishSession(theirs, young.sessionId);
  });

  it("does not start by one click; a coach runs it as a draft, and it is marked so", async () => {
    expect(await start()).toMatchObject({ ok: false, code: "not-published" });
    const assistant = { ...theirs, role: "assistant" } as Principal;
    expect(
      await startSession(assistant, {
        days: [{ planId: young.planId, week: 2 }],
        present: [young.athleteId],
        asDraft: true,
      }),
    ).toMatchObject({ ok: false, code: "coach-first" });
    const { frozen } = await frozenBy(await start({ asDraft: true }));
    expect(frozen).toMatchObject({ draft: true, planVersion: 0 });
    expect(frozen.title).toContain(", draft,");
  });

  it("as a draft lifts no refusal: who is refused is left out until it is answered by name", async () => {
    await saveLimit(theirs, young.athleteId, {
      instruction: "No heavy work.",
      refuses: ["heavy-single"],
      lift: "bench",
      capPercent: undefined,
      until: undefined,
      reasonKind: null,
      reason: "",
      guardianConsent: undefined,
    });
    await set(["slots", "main", "recipe", "top"], { reps: 1, tries: 2 });
    const check = await refusedKey();
    expect(check).toMatchObject({ code: "heavy-refused", athletes: [young.athleteId] });
    // Nobody else is here.
    expect(await start({ week: 3, asDraft: true })).toMatchObject({
      ok: false,
      code: "all-refused",
    });
    expect(await publish()).toMatchObject({ ok: false, code: "refused" });
    // An answer that names somebody else covers nobody here.
    await set(["answered", check.key], { reason: "Seen by us.", by: "", athletes: [randomUUID()] });
    expect(await publish()).toMatchObject({ ok: false, code: "refused" });
    await set(["answered", check.key], {
      reason: "Seen by us.",
      by: "",
      athletes: [young.athleteId],
    });
    expect(await publish()).toMatchObject({ ok: true, value: { number: 1 } });
    // An answer works from when it is given or taken back, not from the next publication.
    await set(["answered", check.key], undefined);
    expect(await start({ week: 3 })).toMatchObject({ ok: false, code: "all-refused" });
    await set(["answered", check.key], {
      reason: "Seen again.",
      by: "",
      athletes: [young.athleteId],
    });
    const { frozen } = await frozenBy(await start({ week: 3 }));
    expect(frozen.draft).toBeUndefined();
    expect(frozen.planVersion).toBe(1);
  });

  it("stands on no rack without its kind of bar: plan, check and start say the same", async () => {
    const owner = postgres(process.env.OWNER_DATABASE_URL ?? "", { max: 1 });
    const askFor = (bar: string) =>
      owner.begin(async (sql) => {
        await sql`SELECT set_config('app.team', ${young.teamId}, true)`;
        await sql`UPDATE lift_variant SET bar = ${bar}`;
      });
    try {
      await askFor("safety");
      const words = /No rack in .* has a safety bar\./;
      expect(await start({ week: 1 })).toMatchObject({
        ok: false,
        code: "no-bar",
        message: expect.stringMatching(words),
      });
      const plan = await readPlan(theirs, young.planId);
      if (!plan.ok) throw new Error(plan.message);
      const { block, athletes, room, checks } = plan.value;
      expect(checks.find((one) => one.code === "no-bar")?.text).toMatch(words);
      const [cell] = slotCells({
        block,
        slotId: "main",
        weeks: [1],
        athletes,
        room,
        liftName: "Bench",
      });
      expect(cell?.byAthlete[0]?.[0]?.reason).toMatch(words);
    } finally {
      await askFor("straight");
      await owner.end();
    }
  });
});
