import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, expect, it } from "vitest";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { appendEntries } from "./append-entries.server";
import { finishSession } from "./end-session.server";
import { followSession, type SessionNews } from "./follow-session.server";

let team: SecondTeam;
let coach: Principal;
beforeAll(async () => {
  team = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Following Team");
  coach = {
    kind: "person",
    userId: "follower",
    teamId: team.teamId,
    role: "coach",
    name: "Following Coach",
    athleteId: undefined,
  };
});
afterAll(closeDatabases);

let deviceSeq = 0;
const entry = () => ({
  id: randomUUID(),
  deviceId: randomUUID(),
  bootId: randomUUID(),
  deviceSeq: ++deviceSeq,
  monoMs: 1,
  wallTime: "2026-03-10T16:31:00.000Z",
  supersedes: [],
  schemaVersion: 1,
  body: {
    kind: "fault",
    athleteId: team.athleteId,
    slotId: "main",
    setKey: "w1.s1.1",
    fault: "Knees in",
    cut: false,
  },
});
const log = (count: number, who = coach) =>
  appendEntries(who, team.sessionId, Array.from({ length: count }, entry));

/** Reads until so many entries came, or the end; their numbers, and how they came. */
async function follow(after: number, until: number, stop = new AbortController()) {
  const seqs: number[] = [];
  const sizes: number[] = [];
  let ended = false;
  for await (const news of followSession(coach, team.sessionId, after, stop.signal)) {
    if (news.kind === "status") ended = news.ended;
    if (news.kind === "entries") {
      const own = [...text(news).matchAll(/"seq":(\d+)/g)].map((match) => Number(match[1]));
      seqs.push(...own);
      sizes.push(own.length);
    }
    if (seqs.length >= until || ended) break;
  }
  stop.abort();
  return { seqs, sizes, ended };
}
const text = (news: Extract<SessionNews, { kind: "entries" }>) =>
  new TextDecoder().decode(news.message);
const upTo = (from: number, to: number) =>
  Array.from({ length: to - from }, (_, i) => from + i + 1);

it("brings what was before in chunks and what comes after, once and in order, to each reader", async () => {
  for (let i = 0; i < 3; i++) await log(200);
  const readers = [follow(0, 640), follow(0, 640), follow(599, 41), follow(600, 40)];
  await new Promise((resolve) => setTimeout(resolve, 150));
  for (let i = 0; i < 4; i++) await log(10);
  const [first, second, third, last] = await Promise.all(readers);
  expect(first?.seqs).toEqual(upTo(0, 640));
  expect(second?.seqs).toEqual(upTo(0, 640));
  expect(third?.seqs).toEqual(upTo(599, 640));
  expect(last?.seqs).toEqual(upTo(600, 640));
  expect(Math.max(...(first?.sizes ?? []))).toBeLessThanOrEqual(250);
});

it("many racks at once: each entry is stored once under a number of its own, a stranger's not", async () => {
  const stranger: Principal = {
    kind: "rack",
    deviceId: randomUUID(),
    teamId: team.teamId,
    roomId: randomUUID(),
    rackId: randomUUID(),
    name: "In another room",
    revokedAt: undefined,
  };
  const answers = await Promise.all([
    ...Array.from({ length: 30 }, () => log(3)),
    log(3, stranger),
    ...Array.from({ length: 10 }, () => log(2)),
  ]);
  expect(answers.map((one) => one.ok)).toEqual(answers.map((_, i) => i !== 30));
  const seqs = answers.flatMap((one) =>
    one.ok ? one.value.answers.map((answer) => (answer.status === "stored" ? answer.seq : -1)) : [],
  );
  expect(seqs.sort((a, b) => a - b)).toEqual(upTo(640, 640 + 110));
});

it("a reader who read the log before the others' news came is sent nothing twice", async () => {
  const early = follow(750, 10);
  await new Promise((resolve) => setTimeout(resolve, 50));
  await log(5);
  // Within the moment in which news is gathered: what this one reads, the others do not know yet.
  const ahead = follow(740, 20);
  await new Promise((resolve) => setTimeout(resolve, 300));
  await log(5);
  expect((await ahead).seqs).toEqual(upTo(740, 760));
  expect((await early).seqs).toEqual(upTo(750, 760));
});

it("a cursor from before a restored database begins at the log's end", async () => {
  const reader = follow(1_000_000, 5);
  await new Promise((resolve) => setTimeout(resolve, 100));
  await log(5);
  expect((await reader).seqs).toEqual(upTo(760, 765));
});

it("tells the end after everything before it", async () => {
  const reader = follow(700, 10_000);
  await log(5);
  await finishSession(coach, team.sessionId);
  const { seqs, ended } = await reader;
  expect(ended).toBe(true);
  expect(seqs).toEqual(upTo(700, 770));
});
