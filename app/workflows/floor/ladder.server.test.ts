import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, expect, it } from "vitest";
import { RUNGS } from "../../../core/boxsquat/ladder";
import { ENTRY_SCHEMA_VERSION, type EntryBody } from "../../../core/floor/entries";
import { RUNG_KEY } from "../../../core/floor/freeze-ladder";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { ladderMarks } from "../../../db/queries/box.server";
import { listSquads } from "../../../db/queries/squads.server";
import { closeDatabases, inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { keepLadderGroup, readBoxBoard } from "../athletes/box-ladder.server";
import { readReview } from "../review/read-review.server";
import { appendEntries } from "./append-entries.server";
import { finishSession, openAgain } from "./end-session.server";
import { listDay } from "./list-day.server";
import { readSession } from "./read-session.server";
import { startSession } from "./start-session.server";

/** What is passed of the ladder on the floor is what the ladder's page has. */
let team: SecondTeam;
let coach: Principal;
let squadId = "";

beforeAll(async () => {
  team = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Ladder Team");
  coach = {
    kind: "person",
    userId: "ladder",
    teamId: team.teamId,
    role: "owner",
    name: "Ladder Coach",
    athleteId: undefined,
  };
  await finishSession(coach, team.sessionId);
  squadId = (await inTeam(coach, listSquads))[0]?.id ?? "";
});
afterAll(closeDatabases);

const device = { deviceId: randomUUID(), bootId: randomUUID() };
let deviceSeq = 0;
async function log(sessionId: string, body: EntryBody, supersedes: string[] = []): Promise<string> {
  deviceSeq++;
  const wallMs = Date.parse("2026-03-10T16:30:00Z") + 10 * deviceSeq;
  const entry = {
    id: randomUUID(),
    ...device,
    deviceSeq,
    monoMs: 10 * deviceSeq,
    wallTime: new Date(wallMs).toISOString(),
    supersedes,
    schemaVersion: ENTRY_SCHEMA_VERSION,
    body,
  };
  const clock = { ...device, monoMs: 10 * deviceSeq, wallMs };
  const answer = await appendEntries(coach, sessionId, [entry], clock);
  if (!answer.ok || answer.value.answers[0]?.status !== "stored")
    throw new Error(JSON.stringify(answer));
  return entry.id;
}

const onRung = async () => (await readBoxBoard(coach, squadId)).people[0]?.rungId;
const marks = async () =>
  (await inTeam(coach, (tx) => ladderMarks(tx, team.athleteId))).map((one) => [
    one.rungId,
    one.outcome,
  ]);
const start = (week: number, ladder: boolean) =>
  startSession(coach, {
    days: [{ planId: team.planId, week, ladder }],
    present: [team.athleteId],
    asDraft: true,
  });

it("a rung passed by a tap stands on the ladder when the session ends, and goes when it is taken back", async () => {
  const offered = async () => {
    const { today, coming } = await listDay(coach);
    return [...today, ...coming].find((day) => day.planId === team.planId)?.onLadder;
  };
  expect(await offered()).toBe(0);
  const begun = { squadId, startedOn: "2026-03-02" as const, early: "no" as const, note: "" };
  expect((await keepLadderGroup(coach, begun)).ok).toBe(true);
  expect(await offered()).toBe(1);

  const started = await start(2, true);
  if (!started.ok) throw new Error(started.message);
  const { sessionId } = started.value;
  const read = await readSession(coach, sessionId);
  const slot = read.ok ? read.value.frozen.slots.at(-1) : undefined;
  if (slot?.kind !== "exercise") throw new Error("The ladder is a slot of the day.");
  expect(slot).toMatchObject({ slotId: "teaching-ladder", name: "Teaching ladder" });
  expect(slot.groups[0]?.athletes[0]?.rung).toMatchObject({ id: RUNGS[0]?.id });

  const at = {
    athleteId: team.athleteId,
    slotId: slot.slotId,
    stationId: slot.groups[0]?.stationId ?? "",
    setKey: RUNG_KEY,
  };
  const passed = await log(sessionId, { kind: "work", ...at, reps: 5 });
  // Nothing is kept while it may still be taken back.
  expect(await marks()).toEqual([]);
  expect((await finishSession(coach, sessionId)).ok).toBe(true);
  expect(await marks()).toEqual([["chair", "passed"]]);
  expect(await onRung()).toBe(RUNGS[1]?.id);
  const review = await readReview(coach, sessionId);
  const reviewed = review.ok ? review.value.review.slots.at(-1) : undefined;
  expect(reviewed).toMatchObject({ kind: "exercise", athletes: [{ rung: { passed: true } }] });

  // Opened again and ended again, it is kept once; taken back, it is a rung back.
  expect((await openAgain(coach, sessionId, "Looked again")).ok).toBe(true);
  expect((await finishSession(coach, sessionId)).ok).toBe(true);
  expect(await marks()).toHaveLength(1);
  expect((await openAgain(coach, sessionId, "It rocked")).ok).toBe(true);
  await log(sessionId, { kind: "void" }, [passed]);
  expect((await finishSession(coach, sessionId)).ok).toBe(true);
  expect(await onRung()).toBe(RUNGS[0]?.id);
  expect(await marks()).toEqual([
    ["chair", "passed"],
    ["chair", "back"],
  ]);
});

it("a day without it has none", async () => {
  const started = await start(3, false);
  if (!started.ok) throw new Error(started.message);
  const read = await readSession(coach, started.value.sessionId);
  const slots = read.ok ? read.value.frozen.slots : [];
  expect(slots.length).toBeGreaterThan(0);
  expect(slots.some((slot) => slot.kind === "exercise" && slot.ladder)).toBe(false);
});
