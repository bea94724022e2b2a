import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ENTRY_SCHEMA_VERSION, type EntryBody } from "../../../core/floor/entries";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { appendEntries } from "../floor/append-entries.server";
import { finishSession } from "../floor/end-session.server";
import { listDay } from "../floor/list-day.server";
import { readWorking } from "../floor/read-session.server";
import { startSession } from "../floor/start-session.server";
import { readFindable } from "../frame/find.server";
import { chooseUnit, readFrame } from "../frame/frame.server";
import { readCalls } from "./read-calls.server";
import { readReview } from "./read-review.server";

let team: SecondTeam;
let strangers: SecondTeam;
let coach: Principal;
let theirs: Principal;
const principal = (of: SecondTeam): Principal => ({
  kind: "person",
  userId: "nobody",
  teamId: of.teamId,
  role: "coach",
  name: "Review Coach",
  athleteId: undefined,
});

beforeAll(async () => {
  const url = process.env.OWNER_DATABASE_URL ?? "";
  team = await makeSecondTeam(url, "Review Team");
  strangers = await makeSecondTeam(url, "Review Strangers");
  coach = principal(team);
  theirs = principal(strangers);
});
afterAll(closeDatabases);

let deviceSeq = 0;
const device = { deviceId: randomUUID(), bootId: randomUUID() };
async function log(...bodies: EntryBody[]): Promise<string[]> {
  const entries = bodies.map((body) => {
    deviceSeq++;
    return {
      id: randomUUID(),
      ...device,
      deviceSeq,
      monoMs: 1000 * deviceSeq,
      wallTime: new Date(Date.parse("2026-03-10T16:20:00Z") + 1000 * deviceSeq).toISOString(),
      supersedes: [],
      schemaVersion: ENTRY_SCHEMA_VERSION,
      body,
    };
  });
  // The tablet was switched on ten minutes ago.
  const clock = { ...device, monoMs: 600_000, wallMs: Date.parse("2026-03-10T16:30:00Z") };
  const answer = await appendEntries(coach, team.sessionId, entries, clock);
  if (!answer.ok) throw new Error(answer.message);
  return entries.map((one) => one.id);
}
const at = { athleteId: "", slotId: "main", setKey: "w1.s1.1" };
const where = () => ({ ...at, athleteId: team.athleteId, stationId: team.rackId });
const rep = (number: number, mcvMps: number): EntryBody => ({
  kind: "rep",
  ...where(),
  rep: number,
  mcvMps,
  outcome: "counted",
  source: "typed",
});

describe("the day, before and after a session", () => {
  it("has what runs, and what is planned for the squad's athletes", async () => {
    const day = await listDay(coach);
    expect(day.running.map((one) => one.id)).toEqual([team.sessionId]);
    expect(day.recent).toEqual([]);
    expect(day.coming.map((one) => one.week)).toContain(3);
    expect(day.coming[0]?.athletes).toEqual([{ id: team.athleteId, name: "Second Athlete" }]);
    expect((await listDay(theirs)).running.map((one) => one.id)).toEqual([strangers.sessionId]);
  });

  it("is reviewed as it stands: done against planned, what was lifted, what was cut", async () => {
    await log(rep(1, 0.9), rep(2, 0.88), {
      kind: "set-done",
      ...where(),
      loadKg: 40,
      endedBy: "hand",
      cut: true,
    });
    const found = await readReview(coach, team.sessionId);
    if (!found.ok) throw new Error(found.message);
    expect(found.value.session).toMatchObject({ id: team.sessionId, status: "running" });
    const [lifter] = found.value.review.lifters;
    expect(lifter).toMatchObject({
      name: "Second Athlete",
      setsDone: 1,
      repsDone: 2,
      tonnageKg: 80,
      cutSets: [{ number: 1 }],
    });
    expect(lifter?.setsPlanned).toBeGreaterThan(1);
    // The page carries no workings: each is asked for by itself.
    const { sessionId, athleteId } = team;
    const working = async (kind: "load" | "set" | "tonnage", setKey = at.setKey) => {
      const asked = { kind, slotId: at.slotId, athleteId, setKey };
      const answer = await readWorking(coach, sessionId, asked);
      return answer.ok ? answer.value.working.title : answer.message;
    };
    expect(await working("tonnage")).toBe("Tonnage, Second Athlete");
    expect(await working("set")).toBe("Second Athlete, set 1");
    expect(await working("load")).not.toBe("");
    expect(await working("set", "w9.s9.9")).toBe("This set is not in the session.");
    expect((await readWorking(theirs, sessionId, { ...at, kind: "set", athleteId })).ok).toBe(
      false,
    );
    expect(found.value.review).toMatchObject({ setsDone: 1, cut: 1 });
  });

  it("moves to what was done when it ends, and stays open to late entries", async () => {
    await finishSession(coach, team.sessionId);
    const day = await listDay(coach);
    expect(day.running).toEqual([]);
    expect(day.recent.map((one) => one.id)).toEqual([team.sessionId]);
    await log(rep(3, 0.8));
    const found = await readReview(coach, team.sessionId);
    expect(found.ok && found.value.review.lifters[0]?.repsDone).toBe(3);
    expect((await readCalls(coach, { groupId: "" })).sessions.map((one) => one.status)).toEqual([
      "ended",
    ]);
  });

  it("can be started again only for another week", async () => {
    const present = [team.athleteId];
    const started = await startSession(coach, {
      days: [{ planId: team.planId, week: 2 }],
      present,
      asDraft: true,
    });
    expect(started.ok).toBe(true);
    const again = await startSession(coach, {
      days: [{ planId: team.planId, week: 2 }],
      present,
      asDraft: true,
    });
    expect(again.ok).toBe(false);
    expect(
      (await readCalls(coach, { groupId: "" })).sessions.map((one) => one.status).sort(),
    ).toEqual(["ended", "running"]);
  });

  it("is another team's neither to read nor to find", async () => {
    expect(await readReview(theirs, team.sessionId)).toMatchObject({
      ok: false,
      code: "no-session",
    });
    const labels = async (who: Principal) => (await readFindable(who)).map((one) => one.to);
    expect(await labels(coach)).toContain(`/athletes/${team.athleteId}`);
    expect(await labels(coach)).toContain(`/plan/${team.planId}`);
    expect(await labels(coach)).toContain(`/review/${team.sessionId}`);
    expect(await labels(theirs)).not.toContain(`/athletes/${team.athleteId}`);
    expect(await labels(theirs)).not.toContain(`/review/${team.sessionId}`);
  });
});

describe("the frame of every page", () => {
  it("names the team, the person and the unit; a tablet has the team's unit", async () => {
    expect(await readFrame(coach)).toEqual({
      team: "Review Team",
      person: "Review Coach",
      unit: "kg",
      role: "coach",
      firstHour: undefined,
    });
    const tablet: Principal = {
      kind: "rack",
      deviceId: randomUUID(),
      teamId: team.teamId,
      roomId: team.roomId,
      rackId: team.rackId,
      name: "Rack 1",
      revokedAt: undefined,
    };
    expect(await readFrame(tablet)).toMatchObject({ team: "Review Team", unit: "kg" });
  });

  it("keeps a unit for one person of one team alone", async () => {
    await chooseUnit(coach, "lb");
    // This sign-in belongs to no membership: nothing is kept for it, or for anybody else.
    expect((await readFrame(coach)).unit).toBe("kg");
    expect((await readFrame(theirs)).unit).toBe("kg");
  });
});
