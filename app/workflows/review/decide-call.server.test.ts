import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { ReviewCall } from "../../../core/review/calls";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { currentChoices } from "../../../db/queries/maxes.server";
import { planById } from "../../../db/queries/plans.server";
import { decidedCalls } from "../../../db/queries/reviews.server";
import { closeDatabases, inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { openToDos } from "../lifters/to-dos.server";
import { carryOut, decideCall, takeBack } from "./decide-call.server";
import { readNotes } from "./notes.server";
import { readBlock } from "./read-block.server";
import { readCalls } from "./read-calls.server";
import { readPays } from "./read-pays.server";
import { readTrends } from "./read-trends.server";
import { readWave } from "./read-wave.server";
import { readWeek } from "./read-week.server";

const url = process.env.OWNER_DATABASE_URL ?? "";
let team: SecondTeam;
let strangers: SecondTeam;
let coach: Principal;
let admin: postgres.Sql;

const principal = (of: SecondTeam): Principal => ({
  kind: "person",
  userId: "nobody",
  teamId: of.teamId,
  role: "coach",
  name: "Deciding Coach",
  athleteId: undefined,
});

beforeAll(async () => {
  team = await makeSecondTeam(url, "Deciding Team");
  strangers = await makeSecondTeam(url, "Deciding Strangers");
  coach = principal(team);
  admin = postgres((process.env.ADMIN_DATABASE_URL ?? "").replace(/\/postgres$/, "/sprezza_test"), {
    max: 1,
    onnotice: () => {},
  });
  // A max of long ago: the wave that runs asks for a test.
  await admin`
    UPDATE max_record SET date = '2025-11-01' WHERE team_id = ${team.teamId}`;
});
afterAll(async () => {
  await admin.end();
  await closeDatabases();
});

const call = (over: Partial<ReviewCall>): ReviewCall => ({
  kind: "raise",
  about: `raise/${team.athleteId}/${randomUUID()}`,
  athleteId: team.athleteId,
  squadId: undefined,
  planId: team.planId,
  slotId: "main",
  variantId: team.variantId,
  proposal: "Raise the base",
  evidence: { lines: [] },
  action: { type: "keep" },
  sure: 1,
  ...over,
});
/** A call that was taken, with what it changed. */
async function takenWith(kind: string, effect: unknown): Promise<string> {
  const id = randomUUID();
  await admin`
    INSERT INTO review_call (team_id, id, kind, about, athlete_id, date, proposal, evidence, decision,
      effect, entered_by, entered_at)
    VALUES (${team.teamId}, ${id}, ${kind}, ${id}, ${team.athleteId}, '2026-03-10', ${admin.json(kind)},
      ${admin.json({ lines: [] })}, 'taken', ${admin.json(effect as never)}, 'C', now())`;
  return id;
}

const groupId = async () => (await readCalls(coach, { groupId: "" })).groups[0]?.id ?? "";
const restOf = () =>
  inTeam(coach, async (tx) => (await planById(tx, team.planId))?.plan.block.rests ?? {});

describe("deciding a call", () => {
  it("keeps what was agreed until it is done, once, and gives it back", async () => {
    const group = await groupId();
    const { calls } = await readCalls(coach, { groupId: group });
    const [test] = calls;
    expect(test?.kind).toBe("test");
    const input = {
      intent: "decide" as const,
      groupId: group,
      about: test?.about ?? "",
      decision: "taken" as const,
      reason: "",
      load: undefined,
      addS: undefined,
      floorMps: undefined,
    };
    const first = await decideCall(coach, input);
    if (!first.ok) throw new Error(first.message);
    expect(await decideCall(coach, input)).toMatchObject({ ok: false, code: "no-call" });
    const after = await readCalls(coach, { groupId: group });
    expect(after.calls).toEqual([]);
    expect(after.toDo.map((one) => one.kind)).toEqual(["test"]);
    // Tested since: it is done.
    await admin`
      INSERT INTO max_record (team_id, id, athlete_id, variant_id, load, date, kind, entered_by, entered_at)
      VALUES (${team.teamId}, ${randomUUID()}, ${team.athleteId}, ${team.variantId},
        ${admin.json({ amount: 90, unit: "kg" })}, '2026-03-10', 'tested', 'Test', now())`;
    expect((await readCalls(coach, { groupId: group })).toDo).toEqual([]);
    expect((await takeBack(coach, first.value.callId)).ok).toBe(true);
    expect(await takeBack(coach, first.value.callId)).toMatchObject({ ok: false, code: "undone" });
    expect((await readCalls(coach, { groupId: group })).calls.map((one) => one.kind)).toEqual([
      "test",
    ]);
  });

  it("knows no call of another team, and none that was made up", async () => {
    const group = await groupId();
    const made = {
      intent: "decide" as const,
      groupId: group,
      about: `raise/${team.athleteId}/x`,
      decision: "taken" as const,
      reason: "",
      load: undefined,
      addS: undefined,
      floorMps: undefined,
    };
    expect(await decideCall(coach, made)).toMatchObject({ ok: false, code: "no-call" });
    expect(await decideCall(principal(strangers), made)).toMatchObject({ ok: false });
    expect(await takeBack(principal(strangers), randomUUID())).toMatchObject({ ok: false });
  });

  it("gives an athlete more rest in a plan's slot, and takes it out again", async () => {
    const action = { type: "rest" as const, planId: team.planId, slotId: "main", addS: 15 };
    const effect = await inTeam(coach, (tx) =>
      carryOut(tx, coach, call({ kind: "rest", action }), action, "2026-03-10"),
    );
    expect(effect).toMatchObject({ type: "edit", planId: team.planId });
    expect(await restOf()).toEqual({
      [`${team.athleteId}/main`]: { addS: 15, by: "Deciding Coach" },
    });
    const id = await takenWith("rest", effect);
    expect((await takeBack(coach, id)).ok).toBe(true);
    expect(await restOf()).toEqual({});
  });

  it("gives an athlete a floor of their own, which the next session ends sets by, and takes it back", async () => {
    const action = { type: "floor" as const, planId: team.planId, slotId: "main", floorMps: 0.66 };
    const effect = await inTeam(coach, (tx) =>
      carryOut(tx, coach, call({ kind: "floor", action }), action, "2026-03-10"),
    );
    const floorsOf = () =>
      inTeam(coach, async (tx) => (await planById(tx, team.planId))?.plan.block.floors ?? {});
    expect(await floorsOf()).toEqual({
      [`${team.athleteId}/main`]: { floorMps: 0.66, by: "Deciding Coach" },
    });
    const id = await takenWith("floor", effect);
    expect((await takeBack(coach, id)).ok).toBe(true);
    expect(await floorsOf()).toEqual({});
  });

  it("takes one athlete's rest out again though another was given one after", async () => {
    const action = { type: "rest" as const, planId: team.planId, slotId: "main", addS: 15 };
    const give = (athleteId: string) =>
      inTeam(coach, (tx) =>
        carryOut(tx, coach, call({ kind: "rest", athleteId, action }), action, "2026-03-10"),
      );
    const effect = await give(team.athleteId);
    const other = randomUUID();
    await give(other);
    const id = await takenWith("rest", effect);
    expect(await takeBack(coach, id)).toMatchObject({ ok: true });
    expect(Object.keys(await restOf())).toEqual([`${other}/main`]);
  });

  it("shows sleep and body mass to who may know them, and to no assistant", async () => {
    const asked = { groupId: "", athleteId: team.athleteId, variantId: "" };
    expect((await readTrends(coach, asked)).athlete?.recovery).toBeDefined();
    const assistant: Principal = { ...principal(team), role: "assistant" } as Principal;
    expect((await readTrends(assistant, asked)).athlete).toBeDefined();
    expect((await readTrends(assistant, asked)).athlete?.recovery).toBeUndefined();
  });

  it("has nothing to show of an empty team, and says so on every page", async () => {
    const nobody = { ...principal(team), teamId: randomUUID() } as Principal;
    expect(await readCalls(nobody, { groupId: "" })).toMatchObject({ calls: [], sessions: [] });
    const none = { planId: "", slotId: "", athleteId: "" };
    expect((await readWave(nobody, { ...none, run: 1 })).wave).toBeUndefined();
    expect((await readBlock(nobody, { ...none, typed: {} })).block).toBeUndefined();
    const trends = await readTrends(nobody, { groupId: "", athleteId: "", variantId: "" });
    expect(trends.athlete).toBeUndefined();
    expect((await readWeek(nobody, { groupId: "", on: "" })).digest).toBeUndefined();
    expect(
      (await readPays(nobody, { groupId: "", variantId: "", trial: {} })).group,
    ).toBeUndefined();
    expect((await readNotes(nobody, { words: "", aboutId: "" })).notes).toEqual([]);
  });

  it("raises a base, refuses a step that is a test's, and goes back to the record before", async () => {
    const chosen = () =>
      inTeam(coach, async (tx) => {
        const [one] = await currentChoices(tx, {
          of: team.athleteId,
          variantIds: [team.variantId],
        });
        return one?.record.id;
      });
    const before = await chosen();
    const action = {
      type: "base" as const,
      variantId: team.variantId,
      fromKg: 80,
      toKg: 82,
    };
    const effect = await inTeam(coach, (tx) =>
      carryOut(tx, coach, call({ action }), action, "2026-03-10"),
    );
    expect(effect).toMatchObject({ type: "base", toKg: 82 });
    expect(await chosen()).not.toBe(before);
    expect(
      await inTeam(coach, (tx) =>
        carryOut(tx, coach, call({}), { ...action, toKg: 95 }, "2026-03-10"),
      ),
    ).toMatchObject({ code: "large-step" });
    const id = await takenWith("raise", effect);
    expect((await takeBack(coach, id)).ok).toBe(true);
    expect(await chosen()).toBe(before);
  });

  it("puts a deload week into the plan", async () => {
    const action = { type: "week" as const, planId: team.planId, mark: "deload" as const, week: 3 };
    const weeks = () =>
      inTeam(coach, async (tx) => (await planById(tx, team.planId))?.plan.block.weeks ?? 0);
    const before = await weeks();
    const effect = await inTeam(coach, (tx) =>
      carryOut(
        tx,
        coach,
        call({ kind: "deload", athleteId: undefined, action }),
        action,
        "2026-03-10",
      ),
    );
    expect(effect).toMatchObject({ type: "edit" });
    expect(await weeks()).toBe(before + 1);
  });

  it("lets nobody decide without a word where it is declined, and forgets words with who is erased", async () => {
    const id = randomUUID();
    const insert = (reason: string) => admin`
      INSERT INTO review_call (team_id, id, kind, about, athlete_id, date, proposal, evidence, decision,
        reason, effect, entered_by, entered_at)
      VALUES (${team.teamId}, ${id}, 'raise', ${id}, ${team.athleteId}, '2026-03-10', '"raise"',
        ${admin.json({ lines: [] })}, 'declined', ${reason}, ${admin.json({ type: "none" })}, 'C', now())`;
    await expect(insert("")).rejects.toMatchObject({ code: "23514" });
    await insert("Sore from the regatta");
    await admin`
      INSERT INTO note (team_id, id, about, about_id, athlete_id, kind, date, words, entered_by, entered_at)
      VALUES (${team.teamId}, ${randomUUID()}, 'athlete', ${team.athleteId}, ${team.athleteId}, 'health',
        '2026-03-10', 'elbow', 'C', now())`;
    await admin.begin(async (tx) => {
      await tx`SELECT set_config('app.team', ${team.teamId}, true)`;
      await tx`SELECT erase_athlete(${team.athleteId}, 'Owner', now())`;
    });
    const calls = await inTeam(coach, (tx) => decidedCalls(tx, "2026-01-01"));
    expect(calls.find((one) => one.id === id)?.reason).toBe("(erased)");
    const [notes] = await admin`SELECT count(*)::int AS n FROM note WHERE team_id = ${team.teamId}`;
    expect(notes?.n).toBe(0);
    expect(await inTeam(coach, (tx) => openToDos(tx, calls, "2026-03-10"))).toEqual([]);
  });
});
