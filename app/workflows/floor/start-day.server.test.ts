import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type FrozenSession, isOfPlan } from "../../../core/floor/frozen";
import type { Json } from "../../../core/plan/edits";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { saveExercise } from "../../../db/queries/library.server";
import { closeDatabases, inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { editPlan } from "../plan/edit-plan.server";
import { copyPlan } from "../plan/new-plan.server";
import { readReview } from "../review/read-review.server";
import { appendEntries } from "./append-entries.server";
import { finishSession } from "./end-session.server";
import { sharesOf } from "./free-stations.server";
import { listDay } from "./list-day.server";
import { readSession, readStation } from "./read-session.server";
import { startSession } from "./start-session.server";

/** A day is started whole, in parts, and with another plan's; none of it twice. */
let team: SecondTeam;
let coach: Principal;
let otherPlan: string;

beforeAll(async () => {
  team = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Day Team");
  coach = {
    kind: "person",
    userId: "day",
    teamId: team.teamId,
    role: "owner",
    name: "Day Coach",
    athleteId: undefined,
  };
  await finishSession(coach, team.sessionId);
  const copied = await copyPlan(coach, {
    planId: team.planId,
    name: "The other plan",
    startDate: "2026-03-03",
    groupId: "",
  });
  if (!copied.ok) throw new Error(copied.message);
  otherPlan = copied.value.id;
  const exerciseId = randomUUID();
  await inTeam(coach, (tx) =>
    saveExercise(
      tx,
      {
        id: exerciseId,
        name: "Row at the bench",
        pattern: "horizontal-pull",
        speedClass: "none",
        main: ["lats"],
        assisting: [],
        sides: "both",
        gear: [],
        excludes: [],
      },
      [],
    ),
  );
  const [lift] = Object.values(await blockOf(team.planId));
  const slot = {
    ...lift,
    section: "accessories",
    order: 2,
    work: { kind: "exercise", exerciseIds: [exerciseId], hands: 1 },
    recipe: { ...lift?.recipe, basis: "eye", start: 0 },
  };
  const edited = await editPlan(coach, {
    planId: team.planId,
    base: 1_000_000,
    edit: {
      words: "An exercise",
      sets: [{ path: ["slots", "acc"], value: JSON.parse(JSON.stringify(slot)) as Json }],
    },
  });
  if (!edited.ok) throw new Error(edited.message);
});
afterAll(closeDatabases);

async function blockOf(planId: string) {
  const { readPlan } = await import("../plan/read-plan.server");
  const plan = await readPlan(coach, planId);
  if (!plan.ok) throw new Error("It has a plan.");
  return plan.value.block.slots;
}

const start = (days: Parameters<typeof startSession>[1]["days"]) =>
  startSession(coach, { days, present: [team.athleteId], asDraft: true });
const frozenOf = async (sessionId: string): Promise<FrozenSession> => {
  const session = await readSession(coach, sessionId);
  if (!session.ok) throw new Error(session.message);
  return session.value.frozen;
};

describe("a day", () => {
  let sessionId = "";

  it("has every slot of it, at its station; what is not ticked stays on offer", async () => {
    const before = (await listDay(coach)).coming.concat((await listDay(coach)).today);
    expect(before.find((one) => one.planId === team.planId && one.week === 2)?.slots).toHaveLength(
      2,
    );
    const started = await start([{ planId: team.planId, week: 2, slotIds: ["acc"] }]);
    if (!started.ok) throw new Error(started.message);
    sessionId = started.value.sessionId;
    const frozen = await frozenOf(sessionId);
    expect(frozen.slots.map((slot) => [slot.kind, slot.section])).toEqual([
      ["exercise", "accessories"],
    ]);
    // A room without places has its floor.
    expect(frozen.stations).toEqual([{ kind: "place", id: team.roomId, name: "Open floor" }]);
    const after = (await listDay(coach)).coming.concat((await listDay(coach)).today);
    const left = after.find((one) => one.planId === team.planId && one.week === 2)?.slots;
    expect(left?.map((slot) => slot.id)).toEqual(["main"]);
  });

  it("is not started twice, in whole or in part", async () => {
    for (const slotIds of [undefined, ["acc"], ["main", "acc"]])
      expect(await start([{ planId: team.planId, week: 2, slotIds }])).toMatchObject({
        ok: false,
        code: "started",
      });
    const twice = await Promise.all([
      start([{ planId: team.planId, week: 3, slotIds: ["main"] }]),
      start([{ planId: team.planId, week: 3, slotIds: ["main"] }]),
    ]);
    expect(twice.filter((one) => one.ok)).toHaveLength(1);
    const ran = twice.find((one) => one.ok);
    if (ran?.ok) await finishSession(coach, ran.value.sessionId);
  });

  it("logs an exercise at its place, and the review counts it", async () => {
    const frozen = await frozenOf(sessionId);
    const [slot] = frozen.slots;
    if (slot?.kind !== "exercise") throw new Error("It is an exercise.");
    const set = slot.groups[0]?.athletes[0]?.sets[0];
    const body = {
      kind: "work",
      athleteId: team.athleteId,
      slotId: slot.slotId,
      stationId: team.roomId,
      setKey: set?.key ?? "",
      reps: 7,
    };
    const sent = await appendEntries(coach, sessionId, [
      {
        id: randomUUID(),
        deviceId: randomUUID(),
        bootId: randomUUID(),
        deviceSeq: 0,
        monoMs: 1,
        wallTime: "2026-03-10T16:31:00.000Z",
        supersedes: [],
        schemaVersion: 3,
        body,
      },
    ]);
    expect(sent.ok && sent.value.answers).toMatchObject([{ status: "stored" }]);
    const station = await readStation(coach, sessionId, team.roomId);
    expect(station.ok && station.value.name).toBe("Open floor");
    const review = await readReview(coach, sessionId);
    if (!review.ok) throw new Error(review.message);
    expect(review.value.review.slots).toMatchObject([
      { kind: "exercise", athletes: [{ setsDone: 1, repsDone: 7 }] },
    ]);
    await finishSession(coach, sessionId);
  });
});

describe("two plans together", () => {
  it("are one session: slots of one name are told apart, and each is its plan's", async () => {
    const started = await start([
      { planId: team.planId, week: 2, slotIds: ["main"] },
      { planId: otherPlan, week: 2 },
    ]);
    if (!started.ok) throw new Error(started.message);
    const frozen = await frozenOf(started.value.sessionId);
    expect(frozen.slots.map((slot) => slot.slotId)).toEqual(["1.main", "2.main"]);
    const of = (planId: string) =>
      frozen.slots.filter((slot) => isOfPlan(slot, { planId, slotId: "main" }));
    expect(of(team.planId).map((slot) => slot.slotId)).toEqual(["1.main"]);
    expect(of(otherPlan).map((slot) => slot.slotId)).toEqual(["2.main"]);
    await finishSession(coach, started.value.sessionId);
    expect(await start([{ planId: otherPlan, week: 2 }])).toMatchObject({ code: "started" });
  });

  it("share the racks by their people, one each at the least, all where there are too few", () => {
    const people = (n: number) => ({ athletes: Array.from({ length: n }) });
    expect(sharesOf([1, 2, 3, 4, 5, 6], [people(20), people(8)])).toEqual([
      [1, 2, 3, 4],
      [5, 6],
    ]);
    expect(sharesOf([1, 2, 3], [people(20), people(1), people(1)])).toEqual([[1], [2], [3]]);
    expect(sharesOf([1], [people(4), people(4)])).toEqual([[1], [1]]);
    expect(sharesOf([1, 2], [people(4)])).toEqual([[1, 2]]);
  });
});
