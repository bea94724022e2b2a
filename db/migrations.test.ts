import { readdirSync, readFileSync } from "node:fs";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { putCopies } from "../core/floor/display-copy";
import type { LogEntry } from "../core/floor/entries";
import { testSession } from "../core/floor/fixtures/session";
import { reduceFloor } from "../core/floor/state";
import type { Recipe } from "../core/recipe/recipe";
import { stopOf } from "../core/recipe/speeds";
import { SHIPPED_COMPLEXES } from "./library/complexes";

/** A database that was in use before the athletes' tables came keeps what it held. */
const NAME = "sprezza_migration";
const TEAM = "0198c0de-0000-7000-8000-000000000001";
const id = (n: number) => `0198c0de-0000-7000-8000-${String(n).padStart(12, "0")}`;

const files = readdirSync("db/migrations")
  .filter((name) => name.endsWith(".sql"))
  .sort();

async function apply(sql: postgres.Sql, names: string[]): Promise<void> {
  for (const name of names) {
    const text = readFileSync(`db/migrations/${name}`, "utf8");
    for (const statement of text.split("--> statement-breakpoint")) {
      if (statement.trim() !== "") await sql.unsafe(statement);
    }
  }
}

let admin: postgres.Sql;
let owner: postgres.Sql;
/** The superuser in that database: sees all rows, whatever team. */
let all: postgres.Sql;

beforeAll(async () => {
  const adminUrl = process.env.ADMIN_DATABASE_URL ?? "";
  const ownerUrl = process.env.OWNER_DATABASE_URL ?? "";
  admin = postgres(adminUrl, { max: 1, onnotice: () => {} });
  await admin.unsafe(`DROP DATABASE IF EXISTS ${NAME} WITH (FORCE)`);
  await admin.unsafe(`CREATE DATABASE ${NAME} OWNER sprezza_owner`);
  owner = postgres(ownerUrl.replace(/\/[^/]+$/, `/${NAME}`), { max: 1, onnotice: () => {} });
  all = postgres(adminUrl.replace(/\/[^/]+$/, `/${NAME}`), { max: 1, onnotice: () => {} });

  await apply(owner, files.slice(0, 2));
  await all`INSERT INTO team (id, name) VALUES (${TEAM}, 'Old Team')`;
  await all`INSERT INTO room (team_id, id, name, zone) VALUES (${TEAM}, ${id(2)}, 'Hall', 'UTC')`;
  await all`INSERT INTO squad (team_id, id, name, sport, room_id)
    VALUES (${TEAM}, ${id(3)}, 'Squad', 'Sport', ${id(2)})`;
  await all`INSERT INTO athlete (team_id, id, name, squad_id, birth_year, training_since, instruction)
    VALUES (${TEAM}, ${id(4)}, 'Limited', ${id(3)}, '1999', '2020-02-01', 'No deep squats'),
           (${TEAM}, ${id(5)}, 'Free', ${id(3)}, '', NULL, '')`;
  await all`INSERT INTO lift_variant (team_id, id, name, lift, bar, start, caution)
    VALUES (${TEAM}, ${id(6)}, 'Bench', 'bench', 'straight', 'top', 'Spotter.')`;
  await all`INSERT INTO profile_test (team_id, id, athlete_id, variant_id, date, metric, source, processing)
    VALUES (${TEAM}, ${id(7)}, ${id(4)}, ${id(6)}, '2026-02-01', 'MCV', 'typed', 'typed')`;
  await all`INSERT INTO profile_point (team_id, id, test_id, load_kg, velocity_mps, excluded)
    VALUES (${TEAM}, ${id(8)}, ${id(7)}, 80, 0.78, false),
           (${TEAM}, ${id(9)}, ${id(7)}, 40, 1.21, true)`;
  const recipe = {
    name: "Old wave",
    school: "Old school",
    startPercent: 40,
    steps: [{ id: "s1", sets: 3, reps: 3, addPoints: 5 }],
    weeks: [{ id: "w1", addPoints: 0, flat: { sets: 9, reps: 3, percent: 55 } }],
    lead: "percent",
  };
  await all`INSERT INTO plan (team_id, id, name, squad_id, variant_id, room_id, start_date, recipe, metric, rounding, updated_by, updated_at)
    VALUES (${TEAM}, ${id(10)}, 'Old wave', ${id(3)}, ${id(6)}, ${id(2)}, '2026-02-03', ${all.json(recipe)}, 'MCV', 'nearest', 'C', now())`;
  await all`INSERT INTO plan_override (team_id, id, plan_id, athlete_id, set_key, load_kg, set_by, set_at)
    VALUES (${TEAM}, ${id(11)}, ${id(10)}, ${id(4)}, 'w1.flat.1', 62.5, 'C', now())`;
  const before = files.filter((name) => name < "0018");
  await apply(owner, before.slice(2));
  // Later a library came, and an edit of which school checks the plan.
  await all`INSERT INTO team_school (team_id, id, school, entered_by, entered_at)
    VALUES (${TEAM}, ${id(12)}, ${all.json({ name: "Old school" })}, 'C', now())`;
  const set = (value: string) => ({ words: "School", sets: [{ path: ["school"], value }] });
  await all`INSERT INTO plan_edit (team_id, id, plan_id, seq, edit, inverse, user_id, entered_by, entered_at)
    VALUES (${TEAM}, ${id(13)}, ${id(10)}, 1, ${all.json(set("Old school"))}, ${all.json(set("Gone"))}, 'u', 'C', now())`;
  const beforeOneLog = files.filter((name) => name < "0021");
  await apply(owner, beforeOneLog.slice(before.length));
  await makeOldFloor();
  const beforeOlder = files.filter((name) => name < "0027");
  await apply(owner, beforeOlder.slice(beforeOneLog.length));
  await makeOldSpeeds();
  await apply(owner, files.slice(beforeOlder.length));
});

const COMPLEX = SHIPPED_COMPLEXES.find((one) => one.name === "First pairing");
/** When a pairing's tablet was tapped, s after its start. */
const tapped = (atS: number) => Date.parse("2026-02-10T16:00:00Z") + 1000 * atS;

/** A floor and a wanted speed of a plan, a coach's floor and a team's threshold, from before. */
async function makeOldSpeeds(): Promise<void> {
  await all`UPDATE plan SET block = jsonb_set(block, '{slots}', (
    SELECT jsonb_object_agg(one.key, jsonb_set(one.value, '{recipe,stop}',
      '{"lossFrom": "best", "floorMps": 0.5}'))
    FROM jsonb_each(block -> 'slots') AS one))`;
  await all`INSERT INTO coach_value (team_id, id, key, value, entered_by, entered_at)
    VALUES (${TEAM}, ${id(60)}, 'floorBenchMps', 0.5, 'C', now()),
           (${TEAM}, ${id(61)}, 'deloadSets', 0.5, 'C', now())`;
  await all`UPDATE lift_variant SET threshold_mps = 0.18 WHERE id = ${id(6)}`;
}

/** A session of one lift over racks with its log, and a pairing with its taps: both from before. */
async function makeOldFloor(): Promise<void> {
  const { slots, stations, cautions, ...head } = testSession([id(4), id(5)]);
  const [slot] = slots;
  if (slot?.kind !== "lift" || stations[0]?.kind !== "rack") throw new Error("It is lifted.");
  const { kind: _, groups, ...lift } = slot;
  const frozen = {
    ...head,
    ...lift,
    slotId: "main",
    cautions,
    racks: [{ ...stations[0], kind: undefined, lifters: groups[0]?.lifters }],
  };
  await all`INSERT INTO training_session (team_id, id, plan_id, week, slot_id, date, room_id, status, frozen, last_seq, started_at, started_by)
    VALUES (${TEAM}, ${id(20)}, ${id(10)}, 1, 'main', '2026-02-03', ${id(2)}, 'running', ${all.json(JSON.parse(JSON.stringify(frozen)))}, 2, now(), 'C')`;
  const rep = {
    kind: "rep",
    athleteId: id(4),
    slotId: "main",
    setKey: "w1.a.1",
    rep: 1,
    mcvMps: 0.84,
    outcome: "counted",
    source: "sensor",
  };
  const call = {
    kind: "call",
    athleteId: id(4),
    slotId: "main",
    setKey: "w1.a.1",
    call: "lighten",
    decision: "decline",
    action: { type: "none" },
    reason: "Looked fast",
  };
  await all`INSERT INTO log_entry (team_id, id, session_id, seq, device_id, boot_id, device_seq, mono_ms, wall_time, received_at, supersedes, schema_version, kind, body, author)
    VALUES (${TEAM}, ${id(21)}, ${id(20)}, 1, ${id(90)}, ${id(91)}, 1, 1000, now(), now(), '{}', 1, 'rep', ${all.json(rep)}, 'u'),
           (${TEAM}, ${id(23)}, ${id(20)}, 3, ${id(90)}, ${id(91)}, 3, 3000, now(), now(), '{}', 1, 'call', ${all.json(call)}, 'u'),
           (${TEAM}, ${id(22)}, ${id(20)}, 2, ${id(90)}, ${id(91)}, 2, 2000, now(), now(), ${[id(21)]}, 1, 'rep', ${all.json({ ...rep, mcvMps: 0.8 })}, 'u')`;

  if (!COMPLEX) throw new Error("The library has a first pairing.");
  const athletes = [
    { athleteId: id(4), simpler: false, loads: ["12 kg", { words: "body weight" }] },
    { athleteId: id(5), simpler: true, gapS: 300, loads: ["body weight"] },
  ];
  await all`INSERT INTO complex_run (team_id, id, complex, athletes, date, ended_at, last_seq, entered_by, entered_at)
    VALUES (${TEAM}, ${id(30)}, ${all.json(JSON.parse(JSON.stringify(COMPLEX)))}, ${all.json(athletes)}, '2026-02-10', now(), 9, 'C', now())`;
  const at = { athleteId: id(4), round: 1, item: 0, device: id(92) };
  const taps = [
    { ...at, kind: "start", atMs: tapped(0) },
    { ...at, kind: "done", atMs: tapped(6) },
    { ...at, kind: "load", kg: 14, atMs: tapped(7) },
    { ...at, kind: "void", of: id(33), atMs: tapped(8) },
    { ...at, item: 1, kind: "start", atMs: tapped(6 + (COMPLEX.items[0]?.gapS ?? 0)) },
    { ...at, device: undefined, item: 1, kind: "output", value: 34, atMs: 1e15 },
  ];
  for (const [i, tap] of taps.entries()) {
    const body = JSON.parse(JSON.stringify({ ...tap, id: id(31 + i) }));
    await all`INSERT INTO complex_entry (team_id, id, run_id, seq, body, received_at, entered_by)
      VALUES (${TEAM}, ${id(31 + i)}, ${id(30)}, ${i + 1}, ${all.json(body)}, now(), 'C')`;
  }
}

/** A session of the database as the application folds it. */
async function floorOf(sessionId: string) {
  const [row] =
    await all`SELECT frozen, parts, lifts, status, plan_id, room_id FROM training_session WHERE id = ${sessionId}`;
  const rows = await all`SELECT * FROM log_entry WHERE session_id = ${sessionId} ORDER BY seq`;
  const entries = rows.map(
    (one): LogEntry => ({
      id: one.id,
      deviceId: one.device_id,
      bootId: one.boot_id,
      deviceSeq: one.device_seq,
      monoMs: one.mono_ms,
      wallTime: one.wall_time.toISOString(),
      supersedes: one.supersedes,
      schemaVersion: one.schema_version,
      body: one.body,
      seq: Number(one.seq),
    }),
  );
  const people = await all`SELECT * FROM session_person WHERE session_id = ${sessionId}`;
  const session = putCopies(
    row?.frozen,
    people.map((one) => ({
      athleteId: one.athlete_id,
      name: one.name,
      instructions: one.instructions,
      setups: one.setups ?? {},
      setup: one.setup ?? undefined,
    })),
  );
  return { row, floor: reduceFloor(session, entries) };
}

afterAll(async () => {
  await Promise.all([owner.end(), all.end()]);
  await admin.unsafe(`DROP DATABASE IF EXISTS ${NAME} WITH (FORCE)`);
  await admin.end();
});

describe("a database from before", () => {
  it("has its instructions as limits, and nobody without one got any", async () => {
    const rows = await all`SELECT athlete_id, instruction, refuses, lifted_on FROM athlete_limit`;
    expect([...rows]).toEqual([
      { athlete_id: id(4), instruction: "No deep squats", refuses: [], lifted_on: null },
    ]);
  });

  it("has birth years as numbers and training as dates, empty ones unset", async () => {
    const rows = await all`
      SELECT name, birth_year, training_since::text AS since FROM athlete ORDER BY name`;
    expect([...rows]).toEqual([
      { name: "Free", birth_year: null, since: null },
      { name: "Limited", birth_year: 1999, since: "2020-02-01" },
    ]);
  });

  it("has its reps in order, and the one left out stays left out, with a reason", async () => {
    const rows = await all`
      SELECT load_kg, rep, excluded_reason FROM profile_point ORDER BY rep`;
    expect([...rows]).toEqual([
      { load_kg: 40, rep: 1, excluded_reason: "left out before reasons were kept" },
      { load_kg: 80, rep: 2, excluded_reason: null },
    ]);
    const [test] = await all`SELECT fingerprint, added_kg, entered_by FROM profile_test`;
    expect(test).toEqual({ fingerprint: id(7), added_kg: 0, entered_by: "not known" });
  });

  it("has its plans as blocks with one slot, the numbers and a coach's own loads with them", async () => {
    const [row] = await all`SELECT block FROM plan`;
    expect(row?.block).toMatchObject({
      name: "Old wave",
      startDate: "2026-02-03",
      weeks: 1,
      schoolId: id(12),
      slots: {
        main: {
          work: { kind: "lift", variantId: id(6) },
          recipe: {
            basis: "percent",
            start: 40,
            lead: "percent",
            steps: [{ id: "s1", sets: 3, reps: 3, add: 5 }],
            weeks: [{ id: "w1", add: 0, flat: { sets: 9, reps: 3, at: 55 } }],
          },
        },
      },
      overrides: { [`${id(4)}/main/w1.flat.1`]: { loadKg: 62.5, by: "C" } },
    });
  });

  it("has its plans under their school by id, edits that are still to be taken back too", async () => {
    const [row] = await all`SELECT edit, inverse FROM plan_edit`;
    expect(row?.edit.sets).toEqual([{ path: ["schoolId"], value: id(12) }]);
    expect(row?.inverse.sets).toEqual([{ path: ["schoolId"], value: "" }]);
    const [plan] = await all`SELECT block ? 'school' AS named FROM plan`;
    expect(plan?.named).toBe(false);
  });

  it("has its lifted sessions as days of one slot, corrections and all", async () => {
    const { row, floor } = await floorOf(id(20));
    expect(row).toMatchObject({ lifts: ["bench"], parts: [], status: "running" });
    expect(row?.frozen).not.toHaveProperty("racks");
    const [rack] = floor.racks;
    expect(rack?.rack).toMatchObject({ id: "rack", name: "1" });
    expect(rack?.lifters.map((one) => one.lifter.athleteId)).toEqual([id(4), id(5)]);
    // Names stand beside the session, from where they can be erased.
    expect(rack?.lifters.map((one) => one.lifter.name)).toEqual([
      `${id(4)} Example`,
      `${id(5)} Example`,
    ]);
    expect(JSON.stringify(row?.frozen)).not.toContain("Example");
    // So do the words that came with an entry.
    const [decided] = await all`
      SELECT body ? 'reason' AS inside, w.reason FROM log_entry e
      LEFT JOIN entry_words w ON w.id = e.id WHERE e.id = ${id(23)}`;
    expect(decided).toEqual({ inside: false, reason: "Looked fast" });
    expect(rack?.lifters[0]?.sets[0]?.reps.map((rep) => rep.velocityMps)).toEqual([0.8]);
    expect([floor.setAside, floor.conflicts]).toEqual([[], []]);
  });

  it("has its pairings as sessions, and every tap in the one log", async () => {
    const { row, floor } = await floorOf(id(30));
    expect(row).toMatchObject({ lifts: [], status: "ended", plan_id: null, room_id: null });
    const [pairing] = floor.pairings;
    expect(pairing?.slot.settings).toEqual({
      earlyUnderPercent: 80,
      endAtLossPercent: 10,
      sameWithinPercent: 3,
    });
    const [limited, free] = pairing?.athletes ?? [];
    expect(limited?.athlete).toMatchObject({
      name: "Limited",
      unit: "kg",
      loads: [{ words: "12 kg" }, { words: "body weight" }],
    });
    expect(free?.athlete).toMatchObject({ simpler: true, gapS: 300 });
    expect(limited?.run.stage).toMatchObject({ kind: "working", round: 1, item: 1 });
    // The load was taken back; the rest was tapped on one tablet's clock.
    expect(limited?.run.loads).toEqual([]);
    expect(limited?.run.rests).toEqual([
      expect.objectContaining({ takenS: COMPLEX?.items[0]?.gapS, early: false }),
    ]);
    expect(limited?.run.rests[0]?.estimated).toBeUndefined();
    expect(limited?.run.outputs.map((one) => one.value)).toEqual([34]);
    expect(floor.setAside).toEqual([]);
    const tables =
      await all`SELECT to_regclass('complex_run') AS run, to_regclass('complex_entry') AS entry`;
    expect(tables[0]).toEqual({ run: null, entry: null });
  });

  it("marks speeds of the older processing, and nothing else", async () => {
    const [plan] = await all`SELECT block FROM plan WHERE id = ${id(10)}`;
    const slots = Object.values(plan?.block.slots as Record<string, { recipe: Recipe }>);
    expect(slots.length).toBeGreaterThan(0);
    for (const { recipe } of slots) {
      expect(recipe.speedsOf).toBe("velocity-1");
      expect(recipe.stop.floorMps).toBe(0.5);
      expect(stopOf(recipe).floorMps).toBeUndefined();
      expect(stopOf({ ...recipe, speedsOf: undefined as never }).floorMps).toBe(0.5);
    }
    const values = await all`SELECT key, processing FROM coach_value ORDER BY key`;
    expect([...values]).toEqual([
      { key: "deloadSets", processing: null },
      { key: "floorBenchMps", processing: "velocity-1" },
    ]);
    const [lift] = await all`SELECT threshold_processing FROM lift_variant WHERE id = ${id(6)}`;
    expect(lift?.threshold_processing).toBe("velocity-1");
    const [typed] = await all`SELECT processing FROM profile_test WHERE id = ${id(7)}`;
    expect(typed?.processing).toBe("typed");
  });

  it("is isolated as before: every table forced, the owner under it too", async () => {
    const open = await all`
      SELECT c.relname FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
      WHERE n.nspname = 'public' AND c.relkind = 'r'
        AND NOT (c.relrowsecurity AND c.relforcerowsecurity)`;
    expect([...open]).toEqual([]);
    const [seen] = await owner`SELECT count(*)::int AS n FROM athlete`;
    expect(seen?.n).toBe(0);
    await expect(owner`SELECT isolate_team_tables(ARRAY['athlete'])`).rejects.toMatchObject({
      code: "42710",
    });
  });
});
