import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { LocalDate } from "../../../core/units/time";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { ensurePlanLibrary, listSchools } from "../../../db/queries/plan-library.server";
import { FactsForm, LimitForm, ReadinessForm, ResultForm } from "../../forms/athlete";
import { closeDatabases, inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { exportCsv } from "../data/export.server";
import { takeImport } from "../data/import.server";
import { readProfileBench, saveProfileTest, type TestToSave } from "../lab/profile.server";
import { fillLibrary, keepExercise, readExercises } from "../library/library.server";
import { newPlan } from "../plan/new-plan.server";
import { readPlan } from "../plan/read-plan.server";
import { changeExclusion, readProfileTest } from "./profile-test.server";
import { readAthlete } from "./read-athlete.server";
import { addPerson, saveBodyMass, saveFacts } from "./save-facts.server";
import { endLimit, saveLimit, showReasons } from "./save-limits.server";
import { confirmSingle, decideReadiness, saveResult } from "./save-tests.server";
import { changeSquads, readSquads } from "./squads.server";
import { checkTestingDay, keepTestingDay } from "./testing-day.server";

let team: SecondTeam;
let other: SecondTeam;
let admin: postgres.Sql;
const person = (
  role: "owner" | "assistant",
  of: SecondTeam,
): Extract<Principal, { kind: "person" }> => ({
  kind: "person",
  userId: randomUUID(),
  teamId: of.teamId,
  role,
  name: `The ${role}`,
  athleteId: undefined,
});

beforeAll(async () => {
  const ownerUrl = process.env.OWNER_DATABASE_URL ?? "";
  team = await makeSecondTeam(ownerUrl, "Athletes Team");
  other = await makeSecondTeam(ownerUrl, "Another Team");
  admin = postgres((process.env.ADMIN_DATABASE_URL ?? "").replace(/\/postgres$/, "/sprezza_test"), {
    max: 1,
  });
});
afterAll(async () => {
  await admin.end();
  await closeDatabases();
});

const coach = () => person("owner", team);
const page = async (who: Principal = coach()) => {
  const result = await readAthlete(who, team.athleteId);
  if (!result.ok) throw new Error(result.message);
  return result.value;
};
const POINTS: Array<[number, number]> = [
  [40, 1.21],
  [60, 0.99],
  [80, 0.78],
  [100, 0.55],
  [110, 0.46],
];
const test = (over: Partial<TestToSave> = {}): TestToSave => ({
  athleteId: team.athleteId,
  variantId: team.variantId,
  date: "2026-03-01",
  metric: "MCV",
  source: "typed",
  processing: "typed",
  addedKg: 0,
  note: "",
  override: "",
  reps: POINTS.map(([loadKg, velocityMps]) => ({ loadKg, velocityMps })),
  ...over,
});

describe("facts", () => {
  it("are kept with body mass by day, and refuse a day to come", async () => {
    const facts = FactsForm.parse({
      name: "Second Athlete",
      squadId: (await page()).person.squadId,
      goal: "sport",
      seasonPhase: "",
      sport: "",
      roomId: "",
      unit: "lb",
      birthYear: "1999",
      statureCm: "180,5",
      trainingSince: "2020-01-01",
    });
    expect(await saveFacts(coach(), team.athleteId, facts)).toMatchObject({ ok: true });
    const mass = (amount: number, date: LocalDate) =>
      saveBodyMass(coach(), team.athleteId, { mass: { amount, unit: "kg" }, date });
    await mass(80, "2026-02-01");
    await mass(81, "2026-02-01");
    expect(await mass(82, "2031-01-01")).toMatchObject({ ok: false, code: "future-date" });
    const now = await page();
    expect(now.person).toMatchObject({ goal: "sport", unit: "lb", statureCm: 180.5 });
    expect(now.masses.map((one) => one.mass.amount)).toEqual([81]);
  });

  it("train with several squads: in the plans, on the list and at the competitions of each", async () => {
    const made = await changeSquads(coach(), {
      intent: "make",
      name: "Evening",
      sport: "judo",
      roomId: team.roomId,
    });
    expect(made.ok).toBe(true);
    const before = await page();
    const { squads } = await readSquads(coach());
    const evening = squads.find((one) => one.name === "Evening")?.id ?? "";
    const first = before.person.squadId;
    const facts = { ...NO_FACTS, name: before.person.name, squadId: first };
    const both = await saveFacts(coach(), team.athleteId, { ...facts, alsoIn: [evening] });
    expect(both.ok).toBe(true);
    const added = await changeSquads(coach(), {
      intent: "competition",
      squadId: evening,
      name: "Evening Cup",
      date: "2026-06-01",
    });
    expect(added.ok).toBe(true);
    const now = await page();
    expect(now.person).toMatchObject({ squadId: first, alsoIn: [evening] });
    expect(now.competitions.map((one) => one.name)).toContain("Evening Cup");
    const plan = await newPlan(coach(), {
      name: "Evenings",
      groupId: evening,
      roomId: team.roomId,
      startDate: "2026-03-09",
      weeks: 4,
      schoolId: "",
    });
    if (!plan.ok) throw new Error(plan.message);
    const read = await readPlan(coach(), plan.value.id);
    expect(read.ok && read.value.athletes.map((one) => one.id)).toEqual([team.athleteId]);
    // The squad ends only when nobody trains with it first: besides is no hindrance.
    expect(await changeSquads(coach(), { intent: "archive", squadId: evening })).toMatchObject({
      ok: true,
    });
    const full = await changeSquads(coach(), { intent: "archive", squadId: first ?? "" });
    expect(full).toMatchObject({ ok: false, code: "not-empty" });
    await saveFacts(coach(), team.athleteId, facts);
  });

  it("stand in an order that many change at once without falling over one another", async () => {
    for (const name of ["Ord A", "Ord B", "Ord C"]) {
      const made = { intent: "make" as const, name, sport: "", roomId: team.roomId };
      expect((await changeSquads(coach(), made)).ok).toBe(true);
    }
    const { squads } = await readSquads(coach());
    const moves = Array.from({ length: 24 }, (_, i) =>
      changeSquads(coach(), {
        intent: i % 2 ? "up" : "down",
        squadId: squads[i % squads.length]?.id ?? "",
      }),
    );
    const done = await Promise.all(moves);
    expect(done.every((one) => one.ok || one.code === "end")).toBe(true);
    const after = (await readSquads(coach())).squads.map((one) => one.id);
    expect([...after].sort()).toEqual(squads.map((one) => one.id).sort());
  });

  it("alone have a room of their own, or are not kept so", () => {
    const alone = {
      ...NO_FACTS,
      name: "Solo",
      squadId: "",
      goal: "",
      seasonPhase: "",
      sport: "",
      unit: "",
      birthYear: "",
      statureCm: "",
      trainingSince: "",
      schoolId: "",
      alsoIn: "",
    };
    expect(FactsForm.safeParse({ ...alone, roomId: "" }).success).toBe(false);
    expect(FactsForm.safeParse({ ...alone, roomId: team.roomId }).success).toBe(true);
  });

  it("add a person to a squad of the own team only", async () => {
    const strange = await readAthlete(person("owner", other), other.athleteId);
    if (!strange.ok) throw new Error(strange.message);
    const facts = { ...NO_FACTS, name: "New One", squadId: strange.value.person.squadId };
    expect(await addPerson(coach(), facts)).toMatchObject({ ok: false, code: "no-squad" });
    expect(await readAthlete(person("owner", other), team.athleteId)).toMatchObject({ ok: false });
  });

  it("follow a school of the own team only, said in words", async () => {
    const [strange] = await inTeam(person("owner", other), async (tx) => {
      await ensurePlanLibrary(tx);
      return listSchools(tx);
    });
    const now = await readAthlete(coach(), team.athleteId);
    if (!now.ok) throw new Error(now.message);
    const squadId = now.value.person.squadId;
    const facts = {
      ...NO_FACTS,
      name: now.value.person.name,
      squadId,
      schoolId: strange?.id ?? "",
    };
    expect(await saveFacts(coach(), team.athleteId, facts)).toMatchObject({ code: "gone" });
    expect(await addPerson(coach(), { ...facts, name: "New Two" })).toMatchObject({
      code: "gone",
    });
  });
});

const NO_FACTS = {
  alsoIn: [] as string[],
  goal: null,
  seasonPhase: null,
  sport: null,
  roomId: null,
  unit: null,
  schoolId: null,
  birthYear: null,
  statureCm: null,
  trainingSince: null,
};

describe("limits and their reasons", () => {
  it("show the instruction to all, the reason to few, and record each reading", async () => {
    const limit = LimitForm.parse({
      instruction: "No max tests",
      refuses: "max-test",
      lift: "",
      capPercent: "60",
      until: "",
      reasonKind: "knee",
      reason: "secret knee",
    });
    await saveLimit(coach(), team.athleteId, limit);
    const assistant = person("assistant", team);
    const theirs = await page(assistant);
    expect(theirs.limits[0]).toMatchObject({ instruction: "No max tests", capPercent: 60 });
    expect(JSON.stringify(theirs)).not.toMatch(/secret knee|"knee"|"birthYear":1999/);
    expect(await showReasons(assistant, team.athleteId)).toMatchObject({
      ok: false,
      code: "not-yours",
    });
    expect(await showReasons(coach(), team.athleteId)).toMatchObject({
      ok: true,
      value: [{ kind: "knee", reason: "secret knee", by: "The owner" }],
    });
    const reads = await admin`SELECT read_by FROM reason_read WHERE team_id = ${team.teamId}`;
    expect(reads.map((one) => one.read_by)).toEqual(["The owner"]);

    // The athlete reads the own reason; another athlete does not.
    const self: Principal = {
      ...coach(),
      role: "athlete",
      name: "Self",
      athleteId: team.athleteId,
    };
    expect(await showReasons(self, team.athleteId)).toMatchObject({ ok: true });
    expect(await showReasons({ ...self, athleteId: randomUUID() }, team.athleteId)).toMatchObject({
      ok: false,
    });
  });

  it("refuse a test until a reason is written, and hold until lifted", async () => {
    expect(await saveProfileTest(coach(), test())).toMatchObject({ ok: false, code: "refused" });
    const bench = await readProfileBench(person("assistant", team), {
      athleteId: team.athleteId,
      variantId: team.variantId,
      rackId: undefined,
    });
    if (!bench.ok) throw new Error(bench.message);
    expect(bench.value.refused).toEqual(["Max tests: No max tests"]);
    expect(bench.value.cap).toBe(60);
    // An assistant sets nothing aside, whatever reason comes with it; a coach does, and only
    // coaches read why.
    const although = {
      ...test(),
      date: "2026-02-01" as LocalDate,
      override: "Cleared by the physio",
    };
    expect(await saveProfileTest(person("assistant", team), although)).toMatchObject({
      ok: false,
      code: "coach-decides",
    });
    const kept = await saveProfileTest(coach(), although);
    expect(kept).toMatchObject({ ok: true });
    const noteFor = async (who: Principal) => {
      const testId = kept.ok ? kept.value.testId : "";
      const which = { athleteId: team.athleteId, testId, againstId: undefined };
      const read = await readProfileTest(who, which);
      return read.ok ? read.value.test.note : undefined;
    };
    expect(await noteFor(coach())).toContain("Cleared by the physio");
    expect(await noteFor(person("assistant", team))).not.toContain("physio");
    const [limit] = (await page()).limits;
    expect(await endLimit(coach(), team.athleteId, limit?.id ?? "")).toMatchObject({ ok: true });
    expect(await endLimit(coach(), team.athleteId, limit?.id ?? "")).toMatchObject({ ok: false });
    // A lifted limit is history from the day on.
    expect((await page()).lifts[0]?.refused).toEqual([]);
  });

  it("are never deleted, nor a reason changed, by the application", async () => {
    const app = postgres(process.env.DATABASE_URL ?? "", { max: 1 });
    for (const statement of [
      "DELETE FROM athlete_limit",
      "DELETE FROM limit_reason",
      "UPDATE limit_reason SET reason = ''",
      "UPDATE reason_read SET read_by = 'nobody'",
      "DELETE FROM own_single",
    ]) {
      await expect(app.unsafe(statement), statement).rejects.toMatchObject({ code: "42501" });
    }
    await app.end();
  });
});

describe("profile tests", () => {
  let testId = "";

  it("are kept once, with every rep and what was left out", async () => {
    const reps = test().reps.map((rep, i) => (i === 0 ? { ...rep, excluded: "slipped" } : rep));
    const kept = await saveProfileTest(coach(), test({ reps }));
    if (!kept.ok) throw new Error(kept.message);
    testId = kept.value.testId;
    expect(await saveProfileTest(coach(), test({ reps }))).toMatchObject({
      ok: false,
      code: "duplicate",
    });
    expect(await saveProfileTest(coach(), test({ date: "2031-01-01" }))).toMatchObject({
      ok: false,
      code: "future-date",
    });
    const read = await readProfileTest(coach(), {
      athleteId: team.athleteId,
      testId,
      againstId: undefined,
    });
    if (!read.ok || !read.value.test.result.ok) throw new Error("no line");
    expect(read.value.test.reps).toHaveLength(5);
    expect(read.value.test.result.fit.n).toBe(4);
  });

  it("take a rep in again, and the line is the reference", async () => {
    const read = async () => {
      const result = await readProfileTest(coach(), {
        athleteId: team.athleteId,
        testId,
        againstId: undefined,
      });
      if (!result.ok) throw new Error(result.message);
      return result.value.test;
    };
    const repId = (await read()).reps.find((rep) => rep.excluded)?.id ?? "";
    const at = { athleteId: team.athleteId, testId, repId };
    expect(await changeExclusion(coach(), { ...at, reason: " " })).toMatchObject({ ok: false });
    expect(
      await changeExclusion(coach(), { ...at, repId: randomUUID(), reason: "x" }),
    ).toMatchObject({ ok: false, code: "no-test" });
    expect(await changeExclusion(coach(), { ...at, reason: undefined })).toMatchObject({
      ok: true,
    });
    const { result } = await read();
    expect(result.ok && result.line.l0Kg).toBeCloseTo(151.897, 3);
  });

  it("stand on a threshold that a confirmed single moves", async () => {
    const threshold = async () => (await page()).lifts[0]?.profile?.threshold;
    expect(await threshold()).toMatchObject({ mps: 0.17, singles: 0 });
    await confirmSingle(coach(), team.athleteId, {
      variantId: team.variantId,
      load: { amount: 130, unit: "kg" },
      velocity: 0.13,
      date: "2026-03-02",
    });
    expect((await threshold())?.mps).toBeCloseTo(0.15, 12);
  });

  it("give a day's call that is written down with what was decided, and move no max", async () => {
    const decide = (over: object) =>
      decideReadiness(
        coach(),
        team.athleteId,
        ReadinessForm.parse({
          testId,
          readings: JSON.stringify([
            { loadKg: 40, velocityMps: 1.09 },
            { loadKg: 60, velocityMps: 0.87 },
            { loadKg: 80, velocityMps: 0.66 },
          ]),
          targetMps: "0.8",
          plannedKg: "78",
          stepKg: "2.5",
          decision: "take",
          ...over,
        }),
      );
    expect(await decide({ decision: "decline" })).toMatchObject({ ok: false, code: "no-reason" });
    expect(await decide({ decision: "change" })).toMatchObject({ ok: false, code: "no-load" });
    expect(await decide({})).toMatchObject({ ok: true });
    const now = await page();
    const [decision] = now.decisions;
    expect(decision).toMatchObject({ decision: "take", plannedKg: 78 });
    expect(decision?.decidedKg).toBeLessThan(75);
    expect(decision?.decidedKg).toBeGreaterThanOrEqual(78 * 0.9 - 1e-9);
    expect(now.lifts[0]?.records.map((one) => one.load.amount)).toEqual([100]);
    expect(() => ReadinessForm.parse({ readings: "[{}]" })).toThrow();
  });
});

describe("a library", () => {
  it("is filled once, and its names stand once", async () => {
    expect(await fillLibrary(coach())).toMatchObject({ ok: true });
    expect(await fillLibrary(coach())).toMatchObject({ ok: false, code: "not-empty" });
    const all = await readExercises(coach());
    expect(all.length).toBeGreaterThanOrEqual(90);
    const box = all.find((one) => one.name === "Box squat");
    expect(box?.easier.map((one) => one.name)).toEqual(["Goblet box squat"]);
    expect(box?.harder.map((one) => one.name)).toEqual(["Box squat, bands"]);
    if (!box) throw new Error("no box squat");
    const { away: _, changedBy: __, easier: ___, harder: ____, ...record } = box;
    expect(
      await keepExercise(coach(), { ...record, id: "", name: "box SQUAT", easier: [] }),
    ).toMatchObject({ ok: false, code: "same-name" });
    expect(await readExercises(person("owner", other))).toEqual([]);
  });
});

describe("jumps, throws, sprints", () => {
  it("are entered once a day, over nought, with their side", async () => {
    const rows = await admin`
      SELECT id, name FROM physical_test WHERE team_id = ${team.teamId}`;
    const id = (name: string) => rows.find((row) => row.name === name)?.id;
    const enter = (name: string, trials: string, over: object = {}) =>
      saveResult(
        coach(),
        team.athleteId,
        ResultForm.parse({ testId: id(name), date: "2026-03-03", trials, ...over }),
      );
    expect(await enter("Sprint 20 m", "3,12 3.08", { splits: "1.8 1.78" })).toMatchObject({
      ok: true,
    });
    expect(await enter("Sprint 20 m", "3.2")).toMatchObject({ ok: false, code: "duplicate" });
    expect(await enter("Rotational throw", "5.2")).toMatchObject({ ok: false, code: "no-side" });
    expect(await enter("Rotational throw", "5.2", { side: "left", loadKg: "4" })).toMatchObject({
      ok: true,
    });
    expect(await enter("Broad jump", "0")).toMatchObject({ ok: false, code: "not-positive" });
    const { qualities } = (await page()).changes;
    expect(qualities.map((one) => [one.testName, one.results[0]?.value])).toEqual([
      ["Rotational throw", 5.2],
      ["Sprint 20 m", 3.08],
    ]);
    expect(qualities[1]?.without).toBe("A second test day shows a change.");
  });
});

describe("whole or not at all", () => {
  it("a testing day with one fault keeps nothing", async () => {
    const good = "Athlete;Bench;Body mass\nSecond Athlete;105;82";
    const input = { text: `${good}\nNobody;1;60`, date: "2026-03-04" as const, lifts: {} };
    const before = await page();
    expect(await keepTestingDay(coach(), input)).toMatchObject({ ok: false, code: "faults" });
    expect((await page()).lifts[0]?.records).toHaveLength(before.lifts[0]?.records.length ?? -1);
    expect((await checkTestingDay(coach(), input)).lines[1]?.problems).toHaveLength(1);
    expect(await keepTestingDay(coach(), { ...input, text: good })).toEqual({
      ok: true,
      value: { entries: 2, athletes: 1, records: [expect.any(String)] },
    });
    expect((await page()).lifts[0]?.records[0]).toMatchObject({
      load: { amount: 105, unit: "kg" },
    });
    // The same person is unknown to the other team.
    expect(
      (
        await checkTestingDay(person("owner", other), {
          text: good.replace("Second", "First"),
          date: "2026-03-04",
          lifts: {},
        })
      ).lines[0]?.problems,
    ).toHaveLength(1);
  });

  it("an import whose last test is a duplicate keeps none of the others", async () => {
    const one = (date: LocalDate) => ({
      athleteId: team.athleteId,
      variantId: team.variantId,
      date,
      addedKg: 0,
      reps: POINTS.map(([loadKg, velocityMps]) => ({ loadKg, velocityMps })),
    });
    const input = {
      kind: "reps" as const,
      fileName: "two.csv",
      metric: "MCV" as const,
      processing: "imported",
      header: "load|mcv",
      mapping: { load: 0, MCV: 1 },
      tests: [one("2026-02-20"), one("2026-03-01")],
    };
    const count = async () =>
      (await admin`SELECT count(*)::int AS n FROM profile_test WHERE team_id = ${team.teamId}`)[0]
        ?.n;
    const before = await count();
    expect(await takeImport(coach(), input)).toMatchObject({
      ok: false,
      message: expect.stringContaining("2026-03-01: the very same test"),
    });
    expect(await count()).toBe(before);
    const alone = { ...input, tests: [one("2026-02-20")] };
    expect(await takeImport(coach(), alone)).toMatchObject({ ok: true, value: { reps: 5 } });
    expect(await count()).toBe(before + 1);
    const strange = { ...alone, tests: [{ ...one("2026-02-21"), athleteId: other.athleteId }] };
    expect(await takeImport(coach(), strange)).toMatchObject({ ok: false });
  });

  it("what goes out names the own team's people only", async () => {
    const csv = await exportCsv(coach(), "reps");
    expect(csv.split("\r\n")[0]).toContain("athlete,lift,date,metric,load_kg");
    expect(csv).toContain("Second Athlete,Bench,2026-03-01,MCV,40,1,1.21");
    expect(await exportCsv(person("owner", other), "reps")).not.toContain("1.21");
    expect(await exportCsv(coach(), "records")).toContain(",105,kg,105,");
    expect(await exportCsv(coach(), "tests")).toContain("Sprint 20 m,s,2026-03-03");
  });
});
