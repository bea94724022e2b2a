import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Complex, ComplexItem } from "../../../core/contrast/complex";
import { ENTRY_SCHEMA_VERSION, type ItemEntryBody } from "../../../core/floor/entries";
import { PAIRING_SLOT } from "../../../core/floor/freeze-pairing";
import { type FrozenSession, pairingsOf } from "../../../core/floor/frozen";
import type { LocalDate } from "../../../core/units/time";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { readAthlete } from "../athletes/read-athlete.server";
import { readCard } from "../card/read-card.server";
import { readGap, saveGapDay } from "../lab/gap.server";
import {
  copyComplex,
  readComplexes,
  saveComplex,
  shelveComplex,
} from "../library/complexes.server";
import { keepCoachValue } from "../library/plan-library.server";
import { editPlan } from "../plan/edit-plan.server";
import { publishPlan } from "../plan/publish-plan.server";
import { readPlan } from "../plan/read-plan.server";
import { appendEntries } from "./append-entries.server";
import { finishSession } from "./end-session.server";
import {
  plannedPairings,
  previewPairing,
  readPairing,
  readPairings,
  startPairing,
} from "./pairing.server";
import { readPaper } from "./paper-day.server";
import { readEntriesAfter } from "./read-session.server";

const ownerUrl = process.env.OWNER_DATABASE_URL ?? "";
let team: SecondTeam;
let strangers: SecondTeam;
let coach: Principal;
let squadId = "";
let benchId = "";
let lineageId = "";

const principal = (of: SecondTeam, over: Partial<Principal> = {}): Principal =>
  ({
    kind: "person",
    userId: "u",
    teamId: of.teamId,
    role: "coach",
    name: "Pairing Coach",
    athleteId: undefined,
    ...over,
  }) as Principal;

const item = (over: Partial<ComplexItem>): ComplexItem => ({
  id: over.name ?? "",
  name: "Item",
  kind: "lift",
  pattern: "horizontal-push",
  reps: 3,
  load: { by: "none" },
  gapS: 20,
  output: "none",
  sides: false,
  ...over,
});
const COMPLEX: Complex = {
  name: "Press and turn",
  aim: "complex",
  school: "",
  purpose: "",
  items: [
    item({ name: "Press", load: { by: "percent", percent: 61 }, of: "bench", output: "speed" }),
    item({
      name: "Turn",
      kind: "throw",
      pattern: "throw",
      load: { by: "fixed", kg: 4.2 },
      output: "distance",
      sides: true,
    }),
    item({
      name: "Jump",
      kind: "jump",
      pattern: "jump",
      load: { by: "body", percent: 20 },
      output: "height",
    }),
  ],
  rounds: 2,
  restS: 150,
  patternReason: "Start and finish.",
  direction: "speed",
  weekStep: 5,
  beforeMain: true,
};

beforeAll(async () => {
  team = await makeSecondTeam(ownerUrl, "Pairing Team");
  strangers = await makeSecondTeam(ownerUrl, "Pairing Strangers");
  coach = principal(team);
  const read = await readComplexes(coach);
  squadId = read.groups[0]?.id ?? "";
  const bench = read.complexes.find((one) => one.complex.name === "Bench and chest throw");
  const copied = await copyComplex(coach, { id: bench?.id ?? "", simpler: false });
  if (!copied.ok) throw new Error(copied.message);
  const saved = await saveComplex(coach, { id: copied.value.id, complex: COMPLEX });
  if (!saved.ok) throw new Error(saved.message);
  benchId = saved.value.id;
  const own = (await readComplexes(coach)).complexes.find((one) => one.id === benchId);
  lineageId = own?.lineageId ?? "";
});
afterAll(closeDatabases);

const start = (over: Partial<Parameters<typeof startPairing>[1]> = {}) =>
  startPairing(coach, {
    complexId: benchId,
    groupId: squadId,
    week: 1,
    present: [team.athleteId],
    simpler: [],
    average: [],
    ...over,
  });
async function started(over: Partial<Parameters<typeof startPairing>[1]> = {}) {
  const made = await start(over);
  if (!made.ok) throw new Error(made.message);
  const run = await readPairing(coach, made.value.id);
  if (!run.ok) throw new Error(run.message);
  return run.value;
}
const deviceId = randomUUID();
let deviceSeq = 0;
/** A tap so many seconds after the first, as one tablet writes it. */
const tap = (
  id: string,
  body: { kind: ItemEntryBody["kind"]; item?: number; [more: string]: unknown },
  atS = 0,
) => ({
  id: randomUUID(),
  deviceId,
  bootId: deviceId,
  deviceSeq: deviceSeq++,
  monoMs: 1000 * atS,
  wallTime: new Date(Date.parse("2026-03-10T16:30:00Z") + 1000 * atS).toISOString(),
  supersedes: [],
  schemaVersion: ENTRY_SCHEMA_VERSION,
  body: {
    athleteId: team.athleteId,
    slotId: PAIRING_SLOT,
    stationId: id,
    round: 1,
    item: 0,
    ...body,
  },
});
const athletesOf = (run: { frozen: FrozenSession }) =>
  pairingsOf(run.frozen).flatMap((slot) => slot.groups.flatMap((group) => group.athletes));

describe("a complex in the library", () => {
  it("is a version further with every save, and a copy begins by itself", async () => {
    const { complexes } = await readComplexes(coach);
    const own = complexes.find((one) => one.id === benchId);
    expect(own).toMatchObject({ version: 2, complex: { name: "Press and turn" }, away: false });
    expect(complexes.filter((one) => one.complex.name === "Bench and chest throw")).toHaveLength(1);
    const simpler = await copyComplex(coach, { id: benchId, simpler: true });
    const found = (await readComplexes(coach)).complexes.find(
      (one) => simpler.ok && one.id === simpler.value.id,
    );
    expect(found).toMatchObject({ version: 1, complex: { name: "Press and turn, simpler" } });
    expect(found?.complex.items.map((one) => one.name)).toEqual(["Turn", "Jump"]);
  });

  it("can be put away and back, and is nobody else's", async () => {
    expect((await shelveComplex(coach, { id: benchId, away: true })).ok).toBe(true);
    const away = async () =>
      (await readComplexes(coach)).complexes.find((one) => one.id === benchId)?.away;
    expect(await away()).toBe(true);
    await shelveComplex(coach, { id: benchId, away: false });
    expect(await away()).toBe(false);
    const theirs = principal(strangers);
    expect(await saveComplex(theirs, { id: benchId, complex: COMPLEX })).toMatchObject({
      ok: false,
    });
    expect(await shelveComplex(theirs, { id: benchId, away: true })).toMatchObject({ ok: false });
  });
});

describe("loads of a pairing", () => {
  it("stand on the room's bar, by the scale, or say what is missing", async () => {
    const preview = await previewPairing(coach, benchId, squadId, 1);
    if (!preview.ok) throw new Error(preview.message);
    const [one] = preview.value.athletes;
    // 61 % of 100 kg on a bar of 20 with tens: 60 kg.
    expect(one?.loads.map((load) => load.words)).toEqual([
      "60 kg",
      "4 kg",
      "no body mass: coach's load",
    ]);
    expect(one?.loads[0]).toMatchObject({ kg: 60, side: "10 · 10" });
    expect(one?.loads[0]?.working?.lines.map((line) => line.label)).toContain("Bar and a side");
  });

  it("a team's own number moves what is named", async () => {
    const named = async () => {
      const preview = await previewPairing(coach, benchId, squadId, 1);
      return preview.ok && preview.value.checks.map((check) => check.code);
    };
    expect(await named()).toContain("strength-unknown");
    expect(await named()).not.toContain("rest");
    await keepCoachValue(coach, { key: "pairingRoundRestS", value: 200 });
    expect(await named()).toContain("rest");
    await keepCoachValue(coach, { key: "pairingRoundRestS", value: undefined });
  });

  it("are frozen with their working when it starts; the library goes on without it", async () => {
    const run = await started();
    expect(athletesOf(run)[0]?.loads[0]).toMatchObject({ kg: 60 });
    expect(athletesOf(run)[0]?.loads[0]?.working?.title).toContain("by percent");
    const changed = { ...COMPLEX, rounds: 9 };
    const saved = await saveComplex(coach, { id: benchId, complex: changed });
    const again = await readPairing(coach, run.id);
    expect(again.ok && pairingsOf(again.value.frozen)[0]?.complex.rounds).toBe(2);
    const back = await saveComplex(coach, {
      id: saved.ok ? saved.value.id : "",
      complex: COMPLEX,
    });
    benchId = back.ok ? back.value.id : benchId;
  });

  it("follow the simpler version, whose loads are body weight", async () => {
    const run = await started({ simpler: [team.athleteId] });
    expect(athletesOf(run)[0]).toMatchObject({ simpler: true });
    expect(athletesOf(run)[0]?.loads.map((one) => one.words)).toEqual([
      "body weight",
      "body weight",
    ]);
  });
});

describe("a pairing on the floor", () => {
  it("needs somebody, and a complex that is there", async () => {
    expect(await start({ present: [] })).toMatchObject({ ok: false, code: "nobody" });
    expect(await start({ present: [strangers.athleteId] })).toMatchObject({ code: "nobody" });
    expect(await start({ complexId: randomUUID() })).toMatchObject({ ok: false, code: "gone" });
    expect(await readPairing(coach, team.sessionId)).toMatchObject({ code: "no-run" });
  });

  it("keeps every tap once, in order, whoever sends it how often", async () => {
    const { id } = await started();
    const first = [tap(id, { kind: "item-start" }), tap(id, { kind: "item-done" }, 6)];
    const second = tap(id, { kind: "item-sides", item: 1, left: 3, right: 0 });
    const sent = await Promise.all([
      appendEntries(coach, id, first),
      appendEntries(coach, id, first),
      appendEntries(coach, id, [second]),
    ]);
    expect(sent.every((one) => one.ok)).toBe(true);
    const all = [...first, second].map((one) => one.id).sort();
    const answer = await appendEntries(coach, id, [...first, second]);
    expect(
      answer.ok && answer.value.answers.map((one) => one.status === "stored" && one.id).sort(),
    ).toEqual(all);
    const stored = (await readEntriesAfter(coach, id, 0))?.entries ?? [];
    expect(stored.map((one) => one.id).sort()).toEqual(all);
    expect(stored.map((one) => one.seq)).toEqual([1, 2, 3]);
    expect((await readEntriesAfter(coach, id, 2))?.entries).toHaveLength(1);
  });

  it("cannot be read, written or ended by another team", async () => {
    const { id } = await started();
    const theirs = principal(strangers);
    expect(await readPairing(theirs, id)).toMatchObject({ ok: false, code: "no-run" });
    expect(await readEntriesAfter(theirs, id, 0)).toBeUndefined();
    expect(await appendEntries(theirs, id, [tap(id, { kind: "item-start" })])).toMatchObject({
      ok: false,
    });
    expect(await finishSession(theirs, id)).toMatchObject({ ok: false });
    const own = await readPairing(coach, id);
    expect(own.ok && own.value).toMatchObject({ status: "running", entries: [] });
  });

  it("is ended, and stands behind those that run", async () => {
    const { id } = await started();
    await finishSession(coach, id);
    const run = await readPairing(coach, id);
    expect(run.ok && run.value.status).toBe("ended");
    const listed = await readPairings(coach);
    expect(listed.find((one) => one.id === id)).toMatchObject({ running: false, count: 1 });
    const order = listed.map((one) => one.running);
    expect(order).toEqual([...order].sort((a, b) => Number(b) - Number(a)));
  });

  it("goes by the team's own rules as they were at its start, whatever is set later", async () => {
    const settingsOf = (run: { frozen: FrozenSession }) => pairingsOf(run.frozen)[0]?.settings;
    await keepCoachValue(coach, { key: "pairingLossPercent", value: 5 });
    const run = await started();
    await keepCoachValue(coach, { key: "pairingLossPercent", value: undefined });
    const asked = { endAtLossPercent: 5, earlyUnderPercent: 80, sameWithinPercent: 3 };
    expect(settingsOf(run)).toEqual(asked);
    const later = await readPairing(coach, run.id);
    expect(later.ok && settingsOf(later.value)).toEqual(asked);
  });
});

describe("a gap test, and the gap in a pairing", () => {
  const save = (trials: Array<{ gapMin: number; value: number }>) =>
    saveGapDay(coach, {
      athleteId: team.athleteId,
      trial: "jump",
      heavySet: "Squat, 2 at 85 %",
      baseline: [40, 40.2, 39.8],
      trials,
    });
  const curve = [0.25, 2, 4, 6, 8, 10, 12].map((gapMin) => ({
    gapMin,
    value: 40 + 4 * Math.exp(-0.5 * ((gapMin - 6) / 2) ** 2),
  }));

  it("a second test of a day takes the place of the first", async () => {
    await save([{ gapMin: 2, value: 39 }]);
    const kept = await save(curve);
    expect(kept).toMatchObject({ ok: true, value: { date: "2026-03-10" } });
    const read = await readGap(coach, {
      athleteId: team.athleteId,
      trial: "jump",
      worthwhile: 0.8,
    });
    expect(read.days).toHaveLength(1);
    expect(read.days[0]?.trials).toEqual(curve);
    expect(read.squad[0]?.analysis).toMatchObject({ ok: false, reason: "few-days" });
  });

  it("gives the own gap from two days on, to nobody else's", async () => {
    await onDay("2026-03-07", curve);
    const read = await readGap(coach, {
      athleteId: team.athleteId,
      trial: "jump",
      worthwhile: 0.8,
    });
    const analysis = read.squad.find((one) => one.id === team.athleteId)?.analysis;
    expect(analysis?.ok && analysis.verdict).toMatchObject({ kind: "best", gapMin: 6 });
    const theirs = await readGap(principal(strangers), {
      athleteId: team.athleteId,
      trial: "jump",
      worthwhile: 0.8,
    });
    expect(theirs).toMatchObject({ athlete: undefined, days: [], squad: [] });
    expect(
      await saveGapDay(principal(strangers), {
        athleteId: team.athleteId,
        trial: "jump",
        heavySet: "x",
        baseline: [1, 1],
        trials: curve,
      }),
    ).toMatchObject({ ok: false, code: "no-athlete" });
  });

  async function onDay(date: LocalDate, trials: typeof curve) {
    const owner = postgres(ownerUrl, { max: 1 });
    try {
      await owner.begin(async (sql) => {
        await sql`SELECT set_config('app.team', ${team.teamId}, true)`;
        await sql`
          INSERT INTO gap_test_day
            (team_id, id, athlete_id, date, trial, output, heavy_set, baseline, trials, entered_by, entered_at)
          VALUES (${team.teamId}, ${randomUUID()}, ${team.athleteId}, ${date}, 'jump', 'height',
            'Squat', ${[40, 40.1, 39.9]}, ${sql.json(trials)}, 'x', now())`;
      });
    } finally {
      await owner.end();
    }
  }
});

describe("what a pairing leaves with the athlete", () => {
  it("outputs by side with the load that was set, and the ledger of four weeks", async () => {
    const { id } = await started();
    await appendEntries(coach, id, [
      tap(id, { kind: "item-start" }),
      tap(id, { kind: "item-done" }, 6),
      tap(id, { kind: "item-load", kg: 70 }),
      tap(id, { kind: "item-output", value: 0.8 }),
      tap(id, { kind: "item-start", item: 1 }, 20),
      tap(id, { kind: "item-done", item: 1 }, 30),
      tap(id, { kind: "item-sides", item: 1, left: 3, right: 1 }),
      tap(id, { kind: "item-output", item: 1, value: 9, side: "left" }),
    ]);
    const athlete = await readAthlete(coach, team.athleteId);
    if (!athlete.ok) throw new Error(athlete.message);
    const { runs, sides, gaps } = athlete.value.contrast;
    const own = runs.find((one) => one.id === id);
    expect(own).toMatchObject({ name: "Press and turn", early: 1, rests: 1 });
    expect(own?.items).toMatchObject([
      { name: "Press", side: undefined, unit: "m/s", rounds: [{ round: 1, value: 0.8, kg: 70 }] },
      { name: "Turn", side: "left", rounds: [{ round: 1, value: 9, kg: undefined }] },
    ]);
    expect(sides).toEqual([{ item: "Turn", left: 3, right: 1, apart: 2 }]);
    expect(gaps).toMatchObject([{ trial: "jump", days: 2 }]);
    const theirs = await readAthlete(principal(strangers), strangers.athleteId);
    expect(theirs.ok && theirs.value.contrast).toEqual({ gaps: [], runs: [], sides: [] });
  });
});

describe("a pairing on a plan's day", () => {
  beforeAll(async () => {
    const put = await editPlan(coach, {
      planId: team.planId,
      base: 0,
      edit: {
        words: "Pairing put on",
        sets: [
          {
            path: ["pairings"],
            value: { p1: { dayId: "d1", complexId: lineageId, fromWeek: 2 } },
          },
        ],
      },
    });
    if (!put.ok) throw new Error(put.message);
  });

  it("is offered on the floor in its own week", async () => {
    const planned = await plannedPairings(coach);
    expect(planned).toMatchObject([
      { name: "Press and turn", date: "2026-03-10", week: 1, groupId: squadId, today: true },
      { name: "Press and turn", date: "2026-03-17", week: 2, groupId: squadId, today: false },
    ]);
    expect(await plannedPairings(principal(strangers))).toEqual([]);
  });

  it("stands on the sheet with everybody's loads, from its first week on", async () => {
    const read = (by: Principal, week: number) =>
      readPaper(by, team.planId, { week: String(week), day: null });
    const of = async (week: number) => {
      const found = await read(coach, week);
      const paper = found.ok ? found.value.paper : undefined;
      if (!paper?.ok) throw new Error(paper?.message ?? "no paper");
      return paper.value.frozen.slots.flatMap((slot) =>
        slot.kind === "pairing" ? slot.groups.flatMap((group) => group.athletes) : [],
      );
    };
    expect(await of(1)).toEqual([]);
    expect(await of(2)).toMatchObject([
      {
        athleteId: team.athleteId,
        loads: [{ words: "60 kg" }, { words: "4 kg" }, { words: "no body mass: coach's load" }],
      },
    ]);
    expect(await read(principal(strangers), 2)).toMatchObject({ ok: false });
  });

  it("stands on the athlete's own card once the plan is published", async () => {
    const plan = await readPlan(coach, team.planId);
    const base = plan.ok ? plan.value.plan.version : -1;
    expect(await publishPlan(coach, { planId: team.planId, base })).toMatchObject({ ok: true });
    const card = await readCard(principal(team, { role: "athlete", athleteId: team.athleteId }));
    if (!card.ok) throw new Error(card.message);
    expect(card.value.next?.pairings).toMatchObject([
      {
        name: "Press and turn",
        rounds: 2,
        items: [
          { name: "Press", gapS: 20, number: { words: "60 kg" } },
          { name: "Turn", sides: true, number: { words: "4 kg" } },
          { name: "Jump", gapS: undefined, number: { words: "no body mass: coach's load" } },
        ],
      },
    ]);
  });
});
