import { randomUUID } from "node:crypto";
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { liftsOf } from "../../../core/floor/frozen";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { setCoachValue } from "../../../db/queries/plan-library.server";
import { athlete } from "../../../db/schema";
import { closeDatabases, inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { readCard } from "../card/read-card.server";
import { publishPlan } from "../plan/publish-plan.server";
import { readPlan } from "../plan/read-plan.server";
import { readReview } from "../review/read-review.server";
import { sessionAtRack } from "../tablets/tablets.server";
import { appendEntries } from "./append-entries.server";
import { finishSession, openAgain } from "./end-session.server";
import { listDay } from "./list-day.server";
import { readOwn, startOwn } from "./own-training.server";
import { maySeeSession, readEntriesAfter, readStation } from "./read-session.server";
import { startSession } from "./start-session.server";

/** An athlete's own day beside the squad's: neither takes anything from the other. */
let team: SecondTeam;
let coach: Principal;
const other = randomUUID();
let me: Principal;
let them: Principal;
let tablet: Extract<Principal, { kind: "rack" }>;
let day: { planId: string; week: number; dayId: string };

const athleteOf = (athleteId: string, name: string): Principal => ({
  kind: "person",
  userId: `user-${name}`,
  teamId: team.teamId,
  role: "athlete",
  name,
  athleteId,
});

beforeAll(async () => {
  team = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Alone Team");
  coach = { ...athleteOf("", "Coach"), role: "owner", athleteId: undefined } as Principal;
  me = athleteOf(team.athleteId, "Second Athlete");
  them = athleteOf(other, "Other Athlete");
  tablet = {
    kind: "rack",
    deviceId: randomUUID(),
    teamId: team.teamId,
    roomId: team.roomId,
    rackId: team.rackId,
    name: "Rack 1",
    revokedAt: undefined,
  };
  await finishSession(coach, team.sessionId);
  await inTeam(coach, async (tx) => {
    await tx.update(athlete).set({ birthYear: 2010 }).where(eq(athlete.id, team.athleteId));
    const [row] = await tx.select().from(athlete).where(eq(athlete.id, team.athleteId));
    if (!row) throw new Error("The team has an athlete.");
    await tx.insert(athlete).values({ ...row, id: other, name: "Other Athlete", birthYear: 1999 });
  });
  const plan = await readPlan(coach, team.planId);
  if (!plan.ok) throw new Error("It has a plan.");
  const [dayId] = Object.keys(plan.value.block.days);
  day = { planId: team.planId, week: 2, dayId: dayId ?? "" };
});
afterAll(closeDatabases);

const cardOf = async (who: Principal) => {
  const card = await readCard(who);
  if (!card.ok) throw new Error(card.message);
  return card.value.next?.own;
};
const base = async () => {
  const plan = await readPlan(coach, team.planId);
  return plan.ok ? plan.value.plan.version : 0;
};
const entry = (body: object, more: object = {}) => ({
  id: randomUUID(),
  deviceId: randomUUID(),
  bootId: randomUUID(),
  deviceSeq: 0,
  monoMs: 1,
  wallTime: "2026-03-10T16:31:00.000Z",
  supersedes: [],
  schemaVersion: 3,
  body,
  ...more,
});
const send = async (who: Principal, sessionId: string, body: object) => {
  const sent = await appendEntries(who, sessionId, [entry(body)]);
  return sent.ok ? sent.value.answers[0] : sent;
};

describe("a day alone", () => {
  let sessionId = "";

  it("is not begun before it is published, on another day, too young, or of another squad", async () => {
    expect(await startOwn(me, day)).toMatchObject({ ok: false, code: "no-day" });
    const published = await publishPlan(coach, { planId: team.planId, base: await base() });
    expect(published).toMatchObject({ ok: true });
    expect(await startOwn(me, { ...day, week: 3 })).toMatchObject({ code: "no-day" });
    expect(await startOwn(me, { ...day, dayId: "none" })).toMatchObject({ code: "no-day" });
    // Born 2010, on a day of 2026.
    expect(await startOwn(me, day)).toMatchObject({ code: "not-alone" });
    expect((await cardOf(me))?.refusal).toContain("under 18");
    expect(await startOwn(athleteOf(randomUUID(), "Nobody"), day)).toMatchObject({
      code: "no-day",
    });
    expect(await startOwn(coach, day)).toMatchObject({ code: "no-day" });
  });

  it("is begun by the coach's own age, once, with this athlete alone in it", async () => {
    await inTeam(coach, (tx) =>
      setCoachValue(tx, {
        id: randomUUID(),
        key: "aloneFromAge",
        value: 16,
        enteredBy: "Coach",
        enteredAt: new Date("2026-03-10T10:00:00Z"),
      }),
    );
    expect((await cardOf(me))?.refusal).toBeUndefined();
    const begun = await Promise.all([startOwn(me, day), startOwn(me, day)]);
    const ids = new Set(begun.map((one) => (one.ok ? one.value.sessionId : one.code)));
    expect(ids.size).toBe(1);
    sessionId = [...ids][0] ?? "";
    const own = await readOwn(me, sessionId);
    if (!own.ok) throw new Error(own.message);
    const { frozen } = own.value;
    expect(JSON.stringify(frozen)).not.toContain(other);
    expect(JSON.stringify(own.value)).not.toContain("Other Athlete");
    expect(liftsOf(frozen)[0]?.racks[0]?.lifters.map((one) => one.name)).toEqual([
      "Second Athlete",
    ]);
    expect(await cardOf(me)).toMatchObject({
      standing: { with: "alone", status: "running", done: 0 },
    });
  });

  it("is nobody else's: not another athlete's, not the rack's tablet's", async () => {
    expect(await readOwn(them, sessionId)).toMatchObject({ ok: false });
    expect(await maySeeSession(them, sessionId)).toBe(false);
    expect(await maySeeSession(tablet, sessionId)).toBe(false);
    expect(await maySeeSession(me, sessionId)).toBe(true);
    expect(await maySeeSession(me, team.sessionId)).toBe(false);
    expect(await readEntriesAfter(them, sessionId, 0)).toBeUndefined();
    expect(await readStation(tablet, sessionId, team.rackId)).toMatchObject({ ok: false });
    expect(await sessionAtRack(tablet)).toBeUndefined();
    expect(await finishSession(them, sessionId)).toMatchObject({ ok: false });
    expect(await send(them, sessionId, { kind: "void" })).toMatchObject({ ok: false });
  });

  it("takes what the athlete logs of themselves, and of nobody else", async () => {
    const own = await readOwn(me, sessionId);
    if (!own.ok) throw new Error(own.message);
    const [lift] = liftsOf(own.value.frozen);
    const set = lift?.racks[0]?.lifters[0]?.sets[0];
    const at = {
      athleteId: team.athleteId,
      slotId: lift?.slotId,
      stationId: lift?.racks[0]?.id,
      setKey: set?.key,
    };
    const rep = { kind: "rep", ...at, rep: 1, outcome: "counted", source: "eye" };
    const through = { kind: "set-done", ...at, loadKg: 60, endedBy: "hand", cut: true };
    for (const body of [rep, through])
      expect(await send(me, sessionId, body)).toMatchObject({ status: "stored" });
    // An entry about another is no entry of this phone: it would hold that athlete's loads.
    expect(
      await send(me, sessionId, { kind: "pain", ...at, athleteId: other, place: "knee" }),
    ).toMatchObject({ status: "refused" });
    expect(await send(me, sessionId, { kind: "note", text: "Hello" })).not.toMatchObject({
      status: "stored",
    });
    expect(await cardOf(me)).toMatchObject({ standing: { done: 1 } });
  });

  it("leaves the squad's day on offer, with who trains it alone named; racks stay free", async () => {
    const list = await listDay(coach);
    const [offered] = list.today.filter((one) => one.planId === team.planId);
    expect(offered?.week).toBe(2);
    expect(offered?.athletes.find((one) => one.id === team.athleteId)?.alone).toBe("running");
    expect(offered?.athletes.find((one) => one.id === other)?.alone).toBeUndefined();
    expect(list.running.map((one) => one.alone)).toEqual(["Second Athlete"]);
    const squad = await startSession(coach, {
      days: [{ planId: team.planId, week: 2 }],
      present: [other],
    });
    if (!squad.ok) throw new Error(squad.message);
    expect(await sessionAtRack(tablet)).toBe(squad.value.sessionId);
    // Who is on the floor with the squad does not begin alone as well.
    expect(await startOwn(them, day)).toMatchObject({ code: "with-squad" });
    expect(await cardOf(them)).toMatchObject({ standing: { with: "squad", status: "running" } });
    await finishSession(coach, squad.value.sessionId);
    expect(await cardOf(me)).toMatchObject({ standing: { with: "alone", status: "running" } });
  });

  it("is ended and opened again by the athlete; the coach reviews it as any session", async () => {
    expect(await finishSession(me, sessionId)).toMatchObject({ ok: true });
    expect(await cardOf(me)).toMatchObject({ standing: { status: "ended", done: 1 } });
    expect(await openAgain(them, sessionId, "Mine")).toMatchObject({ ok: false });
    expect(await openAgain(me, sessionId, "Too early")).toMatchObject({ ok: true });
    expect(await finishSession(me, sessionId)).toMatchObject({ ok: true });
    const review = await readReview(coach, sessionId);
    if (!review.ok) throw new Error(review.message);
    expect(review.value.review.slots).toMatchObject([{ lifters: [{ setsDone: 1 }] }]);
    // Begun a second time it is the same day: nothing is done twice.
    expect(await startOwn(me, day)).toMatchObject({ ok: true, value: { sessionId } });
  });
});
