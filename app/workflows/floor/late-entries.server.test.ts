import { randomUUID } from "node:crypto";
import { afterAll, describe, expect, it } from "vitest";
import { ENTRY_SCHEMA_VERSION, type EntryBody, type LogEntry } from "../../../core/floor/entries";
import { reduceFloor } from "../../../core/floor/state";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import type { SenderClock } from "../../forms/entries";
import { now } from "../../platform/clock.server";
import { closeDatabases } from "../../platform/database.server";
import type { Principal, Role } from "../../platform/rights";
import { appendEntries } from "./append-entries.server";
import { finishSession, openAgain } from "./end-session.server";
import { readSession } from "./read-session.server";
import { HAND_IN_DAYS } from "./write-log.server";

const ownerUrl = process.env.OWNER_DATABASE_URL ?? "";
afterAll(closeDatabases);

const person = (team: SecondTeam, role: Role = "coach"): Principal => ({
  kind: "person",
  userId: role,
  teamId: team.teamId,
  role,
  name: role,
  athleteId: undefined,
});
const rack = (team: SecondTeam, revokedAt?: Date): Principal => ({
  kind: "rack",
  deviceId: "0198c0de-0000-7000-8000-00000000beef",
  teamId: team.teamId,
  roomId: team.roomId,
  rackId: team.rackId,
  name: "Tablet",
  revokedAt,
});

/** A tablet whose wall clock is off by `wrongMs`; moments are ms after it was switched on. */
class Tablet {
  readonly deviceId = randomUUID();
  bootId = randomUUID();
  readonly #startedMs = now().getTime();
  readonly #wrongMs: number;
  #seq = 0;
  constructor(wrongMs = 0) {
    this.#wrongMs = wrongMs;
  }
  reload(): void {
    this.bootId = randomUUID();
  }
  /** The monotonic clock begins at 5,000. */
  clock(): SenderClock {
    const sinceMs = now().getTime() - this.#startedMs;
    return {
      deviceId: this.deviceId,
      bootId: this.bootId,
      monoMs: 5000 + sinceMs,
      wallMs: now().getTime() + this.#wrongMs,
    };
  }
  entry(body: EntryBody, supersedes: string[] = [], over: Partial<LogEntry> = {}) {
    const { deviceId, bootId, monoMs, wallMs } = this.clock();
    return {
      id: randomUUID(),
      deviceId,
      bootId,
      deviceSeq: this.#seq++,
      monoMs,
      wallTime: new Date(wallMs).toISOString(),
      supersedes,
      schemaVersion: ENTRY_SCHEMA_VERSION,
      body,
      ...over,
    };
  }
}

const rep = (team: SecondTeam, number = 1): EntryBody => ({
  kind: "rep",
  athleteId: team.athleteId,
  slotId: "main",
  stationId: team.rackId,
  setKey: "w1.s1.1",
  rep: number,
  mcvMps: 0.84,
  outcome: "counted",
  source: "typed",
});
const wait = (ms: number) => new Promise((go) => setTimeout(go, ms));
async function send(
  who: Principal,
  team: SecondTeam,
  entries: unknown[],
  clock?: SenderClock,
): Promise<Array<{ status: string; reason?: string; doubt?: string }>> {
  const result = await appendEntries(who, team.sessionId, entries, clock);
  if (!result.ok) throw new Error(result.message);
  return result.value.answers;
}
async function floorOf(team: SecondTeam) {
  const session = await readSession(person(team), team.sessionId);
  if (!session.ok) throw new Error(session.message);
  return reduceFloor(session.value.frozen, session.value.entries);
}
const repsOf = async (team: SecondTeam) =>
  (await floorOf(team)).racks[0]?.lifters[0]?.sets[0]?.reps.length;

describe("after the end of a session, by device, boot and monotonic time", () => {
  it.each([
    ["right", 0],
    ["an hour ahead", 3_600_000],
    ["25 hours ahead", 90_000_000],
    ["a day behind", -86_400_000],
  ])(
    "a tablet whose clock is %s loses nothing from before and gives nothing from after",
    async (_, wrongMs) => {
      const team = await makeSecondTeam(ownerUrl, "Late Team");
      const tablet = new Tablet(wrongMs);
      const who = rack(team);
      // It had a link once, in this boot.
      await send(who, team, [tablet.entry(rep(team))], tablet.clock());
      const before = tablet.entry(rep(team, 2));
      await wait(150);
      expect(await finishSession(person(team), team.sessionId)).toMatchObject({ ok: true });
      await wait(150);
      const after = tablet.entry(rep(team, 3));
      const answers = await send(who, team, [before, after], tablet.clock());
      expect(answers).toMatchObject([
        { status: "stored" },
        { status: "refused", reason: "The session had ended before this was logged." },
      ]);
      expect(await repsOf(team)).toBe(2);
    },
  );

  it("a boot that had no link goes by what was last learnt of the tablet's clock", async () => {
    const team = await makeSecondTeam(ownerUrl, "Boot Team");
    const tablet = new Tablet(-7_200_000);
    const who = rack(team);
    await send(who, team, [tablet.entry(rep(team))], tablet.clock());
    tablet.reload();
    const before = tablet.entry(rep(team, 2));
    await wait(150);
    await finishSession(person(team), team.sessionId);
    await wait(150);
    const after = tablet.entry(rep(team, 3));
    // The page that sends them was loaded again: their own boot never told its clock.
    tablet.reload();
    const answers = await send(who, team, [before, after], tablet.clock());
    expect(answers.map((one) => one.status)).toEqual(["stored", "refused"]);
  });

  it("a device of which nothing is known is taken, marked, and waits for the coach", async () => {
    const team = await makeSecondTeam(ownerUrl, "Unknown Team");
    await finishSession(person(team), team.sessionId);
    const tablet = new Tablet();
    const entry = tablet.entry(rep(team));
    const [answer] = await send(rack(team), team, [entry]);
    expect(answer).toMatchObject({ status: "stored", doubt: "time-unknown" });
    expect(await repsOf(team)).toBe(0);
    expect((await floorOf(team)).doubtful).toHaveLength(1);

    const word: EntryBody = { kind: "admit", of: [entry.id], take: true };
    const [no] = await send(person(team, "assistant"), team, [new Tablet().entry(word)]);
    expect(no).toMatchObject({
      status: "refused",
      reason: "Only a coach decides whether this counts.",
    });
    const [yes] = await send(person(team), team, [new Tablet().entry(word)]);
    expect(yes).toMatchObject({ status: "stored" });
    expect(await repsOf(team)).toBe(1);
    expect((await floorOf(team)).doubtful).toEqual([]);
  });

  it("a coach puts right what was logged; an assistant does not", async () => {
    const team = await makeSecondTeam(ownerUrl, "Corrected Team");
    const tablet = new Tablet();
    const wrong = tablet.entry(rep(team));
    await send(rack(team), team, [wrong], tablet.clock());
    await finishSession(person(team), team.sessionId);
    await wait(50);
    const desk = new Tablet();
    const undo = () => desk.entry({ kind: "void", why: "Wrong athlete" }, [wrong.id]);
    const [no] = await send(person(team, "assistant"), team, [undo()], desk.clock());
    expect(no).toMatchObject({ status: "refused" });
    const [yes] = await send(person(team), team, [undo()], desk.clock());
    expect(yes).toMatchObject({ status: "stored" });
    expect(await repsOf(team)).toBe(0);
  });
});

describe("a tablet that was taken off the team", () => {
  it("hands in what it had from before, which waits for the coach's word", async () => {
    const team = await makeSecondTeam(ownerUrl, "Revoked Team");
    const tablet = new Tablet();
    await send(rack(team), team, [tablet.entry(rep(team))], tablet.clock());
    const before = tablet.entry(rep(team, 2));
    await wait(150);
    const revokedAt = now();
    await wait(150);
    const after = tablet.entry(rep(team, 3));
    const undo = tablet.entry({ kind: "void" }, [before.id]);
    const answers = await send(rack(team, revokedAt), team, [before, after, undo], tablet.clock());
    expect(answers).toMatchObject([
      { status: "stored", doubt: "revoked-tablet" },
      { status: "refused", reason: expect.stringContaining("taken off the team before") },
      { status: "refused", reason: expect.stringContaining("corrects nothing") },
    ]);
    expect(await repsOf(team)).toBe(1);
    expect((await floorOf(team)).doubtful.map((one) => one.entry.id)).toEqual([before.id]);
  });

  it("hands in nothing once its time is over", async () => {
    const team = await makeSecondTeam(ownerUrl, "Long Revoked Team");
    const longAgo = new Date(now().getTime() - (HAND_IN_DAYS * 24 + 1) * 3_600_000);
    const tablet = new Tablet(-30 * 86_400_000);
    const [answer] = await send(rack(team, longAgo), team, [tablet.entry(rep(team))]);
    expect(answer).toMatchObject({
      status: "refused",
      reason: expect.stringContaining(`${HAND_IN_DAYS} days`),
    });
  });
});

describe("one bad entry holds up nobody", () => {
  it("each is stored or refused by itself, and ids are compared without case", async () => {
    const team = await makeSecondTeam(ownerUrl, "Bad Entries Team");
    const tablet = new Tablet();
    const good = tablet.entry(rep(team));
    const upper = tablet.entry(rep(team, 2));
    const bad = [
      tablet.entry(rep(team), [], { deviceSeq: 2 ** 31 }),
      tablet.entry({ ...rep(team), setKey: "a\u0000" } as EntryBody),
      tablet.entry(rep(team), [], { wallTime: "0000-01-01T00:00:00Z" }),
      { ...good, monoMs: good.monoMs + 1 },
    ];
    const answers = await send(rack(team), team, [
      good,
      ...bad,
      { ...upper, id: upper.id.toUpperCase() },
      upper,
    ]);
    const stored = answers.filter((one) => one.status === "stored");
    expect(stored.map((one) => (one as unknown as { id: string }).id)).toEqual([good.id, upper.id]);
    expect(answers.filter((one) => one.status === "refused")).toHaveLength(bad.length);
  });
});

describe("ended and opened again", () => {
  it("within its day, by a coach, with a reason; then tablets go on", async () => {
    const team = await makeSecondTeam(ownerUrl, "Again Team");
    const coach = person(team);
    const tablet = new Tablet();
    await finishSession(coach, team.sessionId);
    expect(await openAgain(coach, team.sessionId, "  ")).toMatchObject({ code: "no-reason" });
    expect(await openAgain(coach, team.sessionId, "Ended by mistake")).toMatchObject({ ok: true });
    expect(await openAgain(coach, team.sessionId, "Twice")).toMatchObject({ code: "running" });
    await wait(20);
    const [answer] = await send(rack(team), team, [tablet.entry(rep(team))], tablet.clock());
    expect(answer).toMatchObject({ status: "stored" });
  });
});
