import { randomUUID } from "node:crypto";
import { teamSeeds } from "./seeds-team";
import type { World } from "./world";

/** A request that is right as it stands: what is thrown is made from these. */
export interface Seed {
  /** Pattern in app/routes.ts. */
  route: string;
  /** The form's own name for itself, where the page has several. */
  intent?: string;
  params?: Record<string, string>;
  body: { form: Array<[name: string, value: string]> } | { json: Record<string, unknown> };
  /** Whose: a coach's, where nothing is said. */
  as?: "athlete" | "nobody";
  /** Refused by the rules, not by its shape, on this data. */
  refused?: true;
}

type Fields = Record<string, string | string[]>;
const form = (fields: Fields): { form: Array<[string, string]> } => ({
  form: Object.entries(fields).flatMap(([name, value]) =>
    [value].flat().map((one): [string, string] => [name, one]),
  ),
});

/** A recipe as the fields of its form. */
function recipeFields(recipe: Record<string, unknown>): Fields {
  const out: Fields = {};
  const walk = (value: unknown, path: string) => {
    if (value === null || value === undefined) return;
    if (Array.isArray(value) && value.every((one) => typeof one === "string"))
      out[path] = value.join(", ");
    else if (typeof value === "object")
      for (const [name, inner] of Object.entries(value))
        walk(inner, path ? `${path}.${name}` : name);
    else out[path] = String(value);
  };
  walk(recipe, "");
  for (const name of Object.keys(out)) {
    const week = /^((?:weeks|tail)\.\d+)\.flat\./.exec(name);
    if (week) out[`${week[1]}.shape`] = "flat";
    if (/^(weeks|tail)\.\d+\.kind$/.test(name))
      out[name.replace(/kind$/, "shape")] = out[name] ?? "";
  }
  return out;
}

function schoolFields(school: Record<string, unknown>): Fields {
  const { rest, hardSets, loss, totals, resistanceShare, ...plain } = school as {
    rest: { leastS: number; mostS: number };
    hardSets: { least: number; most: number };
    loss: Record<string, number>;
    totals: boolean;
    resistanceShare: { leastPercent: number; mostPercent: number };
  };
  const said = (value: unknown) =>
    typeof value === "boolean" ? (value ? "yes" : "no") : String(value);
  const losses = Object.entries(loss).map(([aim, percent]) => [
    `loss${aim[0]?.toUpperCase()}${aim.slice(1)}`,
    String(percent),
  ]);
  return {
    ...Object.fromEntries(Object.entries(plain).map(([name, value]) => [name, said(value)])),
    shareLeast: String(resistanceShare.leastPercent),
    shareMost: String(resistanceShare.mostPercent),
    restLeast: String(rest.leastS),
    restMost: String(rest.mostS),
    hardLeast: String(hardSets.least),
    hardMost: String(hardSets.most),
    totals: totals ? "yes" : "no",
    ...Object.fromEntries(losses),
  };
}

export function seedsOf(w: World, pick: <T>(list: readonly T[]) => T): Seed[] {
  const athleteId = pick(w.athletes);
  const planId = pick(w.plans);
  const roomId = pick(w.rooms);
  const boxVariantId = pick(w.boxVariants);
  const sessionId = pick(w.running.length > 0 ? w.running : w.sessions);
  const today = w.today;
  const unique = randomUUID().slice(0, 8);
  const facts = {
    name: `Thrown ${unique}`,
    squadId: pick(w.squads),
    alsoIn: w.squads[0] ?? "",
    goal: "sport",
    seasonPhase: "peak",
    sport: "judo",
    roomId: "",
    unit: "kg",
    birthYear: "2001",
    statureCm: "178",
    trainingSince: "2020-01-01",
  };
  const onAthlete = (intent: string, fields: Fields, more: Partial<Seed> = {}): Seed => ({
    route: "/athletes/:athleteId",
    intent,
    params: { athleteId },
    body: form({ intent, ...fields }),
    ...more,
  });
  const onPlan = (intent: string, fields: Fields, more: Partial<Seed> = {}): Seed => ({
    route: "/plan/:planId",
    intent,
    params: { planId },
    body: form({ intent, base: "100000", ...fields }),
    ...more,
  });
  const onEdited = { params: { planId: w.edited.planId }, refused: true } as const;
  const at = { athleteId, slotId: w.slotId, setKey: w.setKey };
  const entry = (body: Record<string, unknown>) => ({
    id: randomUUID(),
    deviceId: randomUUID(),
    bootId: randomUUID(),
    deviceSeq: 1,
    monoMs: 1000,
    wallTime: `${today}T16:30:00Z`,
    supersedes: [],
    schemaVersion: 1,
    body,
  });
  const edit = (path: string[], value?: unknown) => ({
    id: randomUUID(),
    base: 100_000,
    edit: { words: "Thrown", sets: [{ path, ...(value === undefined ? {} : { value }) }] },
  });
  const rep = (loadKg: number, velocityMps: number) => ({ loadKg, velocityMps });
  const roomFile = JSON.stringify({
    format: "sprezza-room",
    version: 1,
    name: `Thrown hall ${unique}`,
    zone: "Europe/Oslo",
    items: [{ kind: "mat", name: "Mat", count: 2, fields: { thickness: "2.5 cm" } }],
  });
  const blockFile = JSON.stringify({
    format: "sprezza-block",
    version: 1,
    block: { ...w.block, overrides: {}, away: {}, apart: {}, answered: {} },
  });
  const recipeFile = JSON.stringify({
    format: "sprezza-recipe",
    version: 1,
    family: "Thrown",
    source: "",
    recipe: w.recipe,
  });
  const complexText = JSON.stringify(w.complex);

  return [
    {
      route: "/sign-in",
      as: "nobody",
      body: form({ email: "x@y.example", password: "wrong", to: "/" }),
      refused: true,
    },
    { route: "/pair", as: "nobody", body: form({ code: "KTW-482913" }), refused: true },
    { route: "/api/unit", body: form({ unit: "kg", back: "/floor" }) },
    {
      route: "/floor",
      body: form({
        day: `${planId}/6`,
        slot: `${planId}/6/${w.slotId}`,
        ladder: `${planId}/6`,
        present: w.athletes,
      }),
      refused: true,
    },
    {
      route: "/floor",
      body: form({
        day: `${planId}/6`,
        slot: `${planId}/6/${w.slotId}`,
        present: w.athletes,
        intent: "draft",
      }),
      refused: true,
    },
    {
      route: "/floor/pairing",
      body: form({
        complexId: pick(w.complexes),
        groupId: pick(w.squads),
        week: "1",
        present: w.athletes,
        simpler: [athleteId],
        average: [],
      }),
    },
    {
      route: "/plan",
      intent: "new",
      body: form({
        intent: "new",
        name: `Thrown ${unique}`,
        groupId: pick(w.squads),
        roomId,
        startDate: "2026-04-06",
        weeks: "4",
        schoolId: pick(w.schools),
      }),
    },
    {
      route: "/plan",
      intent: "file",
      body: form({ intent: "file", text: blockFile, groupId: pick(w.squads), roomId }),
    },
    onPlan("undo", {}, onEdited),
    onPlan("redo", {}, onEdited),
    onPlan("publish", { base: String(w.edited.seq) }, onEdited),
    onPlan("move", { roomId, rounding: "nearest" }, { refused: true }),
    onPlan("split", { athleteId }, { refused: true }),
    onPlan("copy", { name: `Copy ${unique}`, startDate: "2026-06-01", groupId: "" }),
    onPlan("away", {}),
    onPlan("drop-answer", { answerId: pick(w.answers) ?? randomUUID() }),
    {
      route: "/plan/:planId/print",
      intent: "feed",
      params: { planId },
      body: form({ intent: "feed" }),
    },
    {
      route: "/plan/:planId/print",
      intent: "revoke",
      params: { planId },
      body: form({ intent: "revoke", id: pick(w.feeds) ?? randomUUID() }),
    },
    {
      route: "/api/plan/:planId",
      params: { planId },
      body: { json: edit(["name"], `Thrown ${unique}`) },
    },
    {
      route: "/api/plan/:planId",
      params: { planId },
      body: { json: edit(["slots", w.slotId, "order"], 3) },
      refused: true,
    },
    {
      route: "/api/plan/:planId",
      params: { planId },
      body: { json: edit(["marks", "m1"], { week: 2, kind: "off", words: "" }) },
    },
    {
      route: "/api/plan/:planId",
      params: { planId },
      body: {
        json: edit(["overrides", `${athleteId}/${w.slotId}/${w.setKey}`], { loadKg: 60, by: "" }),
      },
      refused: true,
    },
    {
      route: "/api/plan/:planId",
      params: { planId },
      body: { json: edit(["answered", "spacing/a/b"], { reason: "By feel", by: "x" }) },
    },
    { route: "/athletes", intent: "person", body: form({ intent: "person", ...facts }) },
    {
      route: "/athletes",
      intent: "use-newest",
      body: form({ intent: "use-newest", records: w.record.recordId }),
    },
    {
      route: "/athletes",
      intent: "quick",
      body: form({ intent: "quick", field: "bodyMass", athleteId, value: "81.5 kg" }),
    },
    onAthlete("facts", facts),
    onAthlete("mass", { mass: "80.5", date: today }),
    onAthlete("competition", { name: `Cup ${unique}`, date: "2026-07-01" }),
    onAthlete("drop-competition", { id: pick(w.competitions) ?? randomUUID() }, { refused: true }),
    onAthlete("limit", {
      instruction: "Squat to 60 %",
      refuses: ["max-test", "rocking"],
      lift: "squat",
      capPercent: "60",
      until: "",
      reasonKind: "knee",
      reason: "thrown",
      guardianConsent: "yes",
    }),
    onAthlete("end-limit", { limitId: pick(w.limits) ?? randomUUID() }, { refused: true }),
    onAthlete("reasons", {}),
    onAthlete("drop-answer", { answerId: pick(w.answers) ?? randomUUID() }),
    onAthlete("archive", {}),
    onAthlete("bring-back", {}, { refused: true }),
    onAthlete("erase", { typed: "Nobody of this name" }, { refused: true }),
    { route: "/account", body: form({}), refused: true },
    onAthlete("note", { date: today, sleepH: "7.5", eating: "3", soreness: "4" }),
    onAthlete("setup", {
      variantId: pick(w.variants),
      hook: "12",
      safety: "8",
      grip: "wide",
      stance: "",
      startHeightCm: "20",
      bottomM: "0.85",
      lockoutM: "1.4",
      boxSeatCm: "40",
      boxCreaseCm: "1",
      note: "",
    }),
    onAthlete("single", {
      variantId: pick(w.variants),
      load: "100 kg",
      velocity: "0.31",
      date: today,
    }),
    onAthlete(
      "result",
      {
        testId: pick(w.physicalTests),
        date: today,
        side: "",
        loadKg: String(Math.floor(Math.random() * 300)),
        trials: "41.2 40.8",
        splits: "",
        atLeast: "yes",
      },
      { refused: true },
    ),
    onAthlete(
      "readiness",
      {
        testId: w.rep.testId,
        readings: JSON.stringify([rep(40, 1.1), rep(60, 0.9)]),
        targetMps: "0.8",
        plannedKg: "70",
        stepKg: "2.5",
        decision: "take",
        decidedKg: "72.5",
        reason: "",
      },
      { params: { athleteId: w.rep.athleteId } },
    ),
    onAthlete("record", {
      variantId: pick(w.variants),
      load: "100 kg",
      date: today,
      kind: "tested",
      note: "",
      confirmed: "yes",
    }),
    onAthlete("record-in-use", {
      variantId: pick(w.variants),
      load: "101 kg",
      date: today,
      kind: "tested",
      note: "",
      confirmed: "yes",
    }),
    onAthlete(
      "decide",
      {
        groupId: pick(w.squads),
        about: `raise/${athleteId}/${planId}/main/1`,
        decision: "declined",
        reason: "not this time",
        load: "72.5",
        addS: "15",
      },
      { refused: true },
    ),
    onAthlete("take-back", { callId: randomUUID() }, { refused: true }),
    onAthlete(
      "choose",
      { variantId: w.record.variantId, recordId: w.record.recordId, factor: "0.95" },
      { params: { athleteId: w.record.athleteId } },
    ),
    {
      route: "/athletes/box",
      intent: "group",
      body: form({
        intent: "group",
        squadId: pick(w.squads),
        startedOn: "2026-03-02",
        early: "yes",
        note: "ready",
      }),
    },
    {
      route: "/athletes/box",
      intent: "rung",
      body: form({
        athleteIds: w.athletes.slice(0, 2),
        rungId: "goblet",
        outcome: "passed",
        note: "",
      }),
    },
    {
      route: "/athletes/:athleteId/box",
      intent: "rehearsed",
      params: { athleteId },
      body: form({ intent: "rehearsed" }),
      refused: true,
    },
    {
      route: "/athletes/:athleteId/box",
      intent: "trial",
      params: { athleteId },
      body: form({ intent: "trial", variantId: boxVariantId, boxSeatCm: "40", boxCreaseCm: "1,5" }),
    },
    {
      route: "/athletes/:athleteId/box",
      intent: "found",
      params: { athleteId },
      body: form({ intent: "found", variantId: boxVariantId, load: "62.5 kg" }),
    },
    {
      route: "/athletes/:athleteId/box",
      intent: "fault",
      params: { athleteId },
      body: form({ intent: "fault", fault: "knees-in", percent: "60" }),
      refused: true,
    },
    {
      route: "/athletes/:athleteId/box",
      intent: "setup",
      params: { athleteId },
      body: form({
        intent: "setup",
        variantId: boxVariantId,
        styleId: "wide",
        contact: "tight",
        distanceCm: "30",
        cues: "",
        styleNote: "",
        freeSquatSigned: "on",
      }),
      refused: true,
    },
    {
      route: "/athletes/testing-day",
      intent: "check",
      body: form({ intent: "check", text: `Athlete,Body mass\n${w.athleteName},71`, date: today }),
      refused: true,
    },
    {
      route: "/athletes/testing-day",
      intent: "keep",
      body: form({ intent: "keep", text: `Athlete,Body mass\n${w.athleteName},71`, date: today }),
      refused: true,
    },
    {
      route: "/athletes/:athleteId/profiles/:testId",
      intent: "exclude",
      params: { athleteId: w.rep.athleteId, testId: w.rep.testId },
      body: form({ intent: "exclude", repId: w.rep.repId, reason: "slipped" }),
    },
    {
      route: "/athletes/:athleteId/profiles/:testId",
      intent: "include",
      params: { athleteId: w.rep.athleteId, testId: w.rep.testId },
      body: form({ intent: "include", repId: w.rep.repId }),
    },
    {
      route: "/lab",
      body: form({
        tool: "plates",
        state: "load=100",
        answer: "100 kg",
        target: `athlete:${athleteId}`,
      }),
    },
    {
      route: "/lab",
      body: form({ tool: "rest", state: "n=4", answer: "64 s", target: `plan:${planId}` }),
    },
    {
      route: "/lab/gap",
      body: form({
        day: JSON.stringify({
          athleteId,
          trial: "jump",
          heavySet: "Squat 3 × 85 %",
          baseline: [40, 41, 40.5],
          trials: [
            { gapMin: 4, value: 41.5 },
            { gapMin: 8, value: 42 },
          ],
        }),
      }),
    },
    {
      route: "/lab/profile",
      body: {
        json: {
          athleteId,
          variantId: pick(w.variants),
          date: today,
          metric: "MCV",
          source: "typed",
          processing: "typed",
          addedKg: 0,
          note: unique,
          override: "a coach's word",
          reps: [rep(40, 1.2), rep(60, 1), rep(80, 0.8 + Math.random() / 100)],
        },
      },
    },
    {
      route: "/review/box",
      body: form({
        planId: w.boxSlot?.planId ?? planId,
        slotId: w.boxSlot?.slotId ?? w.slotId,
        athleteId: w.boxSlot?.athleteId ?? athleteId,
        decision: "hold",
        note: "as it is",
      }),
      refused: true,
    },
    ...["/review", "/review/wave"].flatMap((route): Seed[] => [
      {
        route,
        intent: "decide",
        body: form({
          intent: "decide",
          groupId: pick(w.squads),
          about: `raise/${athleteId}/${planId}/main/1`,
          decision: "declined",
          reason: "not this time",
          load: "72.5",
          addS: "15",
        }),
        refused: true,
      },
      {
        route,
        intent: "take-back",
        body: form({ intent: "take-back", callId: randomUUID() }),
        refused: true,
      },
    ]),
    {
      route: "/review/block",
      intent: "for-parent",
      body: form({ intent: "for-parent", athleteId, planId }),
    },
    {
      route: "/review/notes",
      intent: "note",
      body: form({ intent: "note", aboutId: athleteId, kind: "note", words: `Thrown ${unique}` }),
    },
    {
      route: "/review/notes",
      intent: "remove",
      body: form({ intent: "remove", noteId: randomUUID() }),
      refused: true,
    },
    {
      route: "/gear",
      intent: "room",
      body: form({ intent: "room", name: `Thrown room ${unique}`, zone: "Europe/Oslo", from: "" }),
    },
    {
      route: "/gear",
      intent: "file",
      body: form({
        intent: "file",
        name: `Thrown hall ${unique}`,
        zone: "Europe/Oslo",
        text: roomFile,
      }),
      refused: true,
    },
    {
      route: "/gear/:roomId",
      intent: "away",
      params: { roomId: w.piece.roomId },
      body: form({ intent: "away", id: w.piece.id }),
    },
    {
      route: "/gear/:roomId",
      intent: "back",
      params: { roomId: w.piece.roomId },
      body: form({ intent: "back", id: w.piece.id }),
      refused: true,
    },
    {
      route: "/gear/:roomId",
      intent: "inspect",
      params: { roomId: w.band.roomId },
      body: form({
        intent: "inspect",
        pieceId: w.band.id,
        finding: "sound",
        note: "",
      }),
    },
    {
      route: "/gear/:roomId",
      intent: "rename",
      params: { roomId },
      body: form({ intent: "rename", name: `Hall ${unique}`, zone: "Europe/Oslo", from: "" }),
    },
    {
      route: "/gear/:roomId",
      intent: "item",
      params: { roomId },
      body: form({
        intent: "item",
        id: "",
        kind: "mat",
        name: `Mat ${unique}`,
        count: "2",
        thickness: "2.5",
      }),
      refused: true,
    },
    {
      route: "/gear/:roomId",
      intent: "item",
      params: { roomId },
      body: form({
        intent: "item",
        id: "",
        kind: "bar",
        name: `Bar ${unique}`,
        count: "1",
        shape: "straight",
        mass: "20 kg",
        rated: "300 kg",
        collar: "0",
        sleeve: "415",
      }),
      refused: true,
    },
    {
      route: "/library",
      intent: "exercise",
      body: form({
        id: "",
        name: `Thrown ${unique}`,
        pattern: "squat",
        speedClass: "strength-speed",
        main: "quadriceps",
        assisting: [],
        sides: "both",
        gear: "barbell",
        excludes: [],
        easier: [],
      }),
      refused: true,
    },
    { route: "/library", intent: "fill", body: form({ intent: "fill" }), refused: true },
    {
      route: "/library",
      intent: "away",
      body: form({ intent: "away", id: pick(w.exercises) }),
      refused: true,
    },
    {
      route: "/library",
      intent: "back",
      body: form({ intent: "back", id: pick(w.exercises) }),
      refused: true,
    },
    {
      route: "/library/lifts",
      body: form({
        id: "",
        name: `Thrown lift ${unique}`,
        lift: "bench",
        bar: "straight",
        grip: "",
        stance: "",
        boxStyle: "",
        resistance: "",
        start: "top",
        baseKind: "own",
        baseId: "",
        ratio: "",
        systemMass: "bar",
        thresholdMps: "",
        caution: "Spotter at the bar.",
      }),
      refused: true,
    },
    {
      route: "/library/recipes",
      intent: "copy",
      body: form({ intent: "copy", id: pick(w.recipes) }),
    },
    {
      route: "/library/recipes",
      intent: "away",
      body: form({ intent: "away", id: pick(w.recipes) }),
      refused: true,
    },
    {
      route: "/library/recipes",
      intent: "back",
      body: form({ intent: "back", id: pick(w.recipes) }),
      refused: true,
    },
    { route: "/library/recipes", intent: "file", body: form({ intent: "file", text: recipeFile }) },
    {
      route: "/library/recipes",
      intent: "recipe",
      body: form({ intent: "recipe", id: pick(w.recipes), ...recipeFields(w.recipe) }),
    },
    {
      route: "/library/complexes",
      intent: "copy",
      body: form({ intent: "copy", id: pick(w.complexes) }),
    },
    {
      route: "/library/complexes",
      intent: "simpler",
      body: form({ intent: "simpler", id: pick(w.complexes) }),
    },
    {
      route: "/library/complexes",
      intent: "away",
      body: form({ intent: "away", id: pick(w.complexes) }),
      refused: true,
    },
    {
      route: "/library/complexes",
      intent: "back",
      body: form({ intent: "back", id: pick(w.complexes) }),
      refused: true,
    },
    {
      route: "/library/complexes",
      intent: "save",
      body: form({ intent: "save", id: pick(w.complexes), complex: complexText }),
    },
    { route: "/library/faults", intent: "confirm", body: form({ intent: "confirm" }) },
    {
      route: "/library/faults",
      intent: "cues",
      body: form({ cues: `Sit back\nStay tight\n${unique}` }),
    },
    {
      route: "/library/schools",
      intent: "new",
      body: form({ intent: "new", ...schoolFields(w.school), name: `Thrown ${unique}` }),
    },
    {
      route: "/library/schools",
      intent: "school",
      body: form({ id: pick(w.schools), ...schoolFields(w.school) }),
      refused: true,
    },
    {
      route: "/library/coach-set",
      body: form({ key: "pairingLossPercent", value: "12" }),
      refused: true,
    },
    {
      route: "/data",
      body: {
        json: {
          kind: "reps",
          fileName: "x.csv",
          metric: "MCV",
          processing: "typed",
          header: "a|b",
          mapping: { load: 0 },
          tests: [
            {
              athleteId,
              variantId: pick(w.variants),
              date: today,
              addedKg: 0,
              reps: [rep(50, 1.1), rep(70, 0.9 + Math.random() / 100)],
            },
          ],
        },
      },
    },
    { route: "/tablets", intent: "pair", body: form({ intent: "pair", rackId: pick(w.racks) }) },
    {
      route: "/tablets",
      intent: "revoke",
      body: form({ intent: "revoke", tabletId: pick(w.tablets) ?? randomUUID() }),
      refused: true,
    },
    {
      route: "/tablets",
      intent: "sensor",
      body: form({ intent: "sensor", rackId: pick(w.racks) }),
    },
    { route: "/api/sensor", as: "nobody", body: { json: { t: 1.5, h: 0.8 } }, refused: true },
    { route: "/card", as: "athlete", body: form({}) },
    {
      route: "/card",
      intent: "begin",
      as: "athlete",
      body: form({ intent: "begin", planId: pick(w.plans), week: "2", dayId: "day-1" }),
      refused: true,
    },
    {
      route: "/card",
      intent: "again",
      as: "athlete",
      body: form({ intent: "again", sessionId }),
      refused: true,
    },
    {
      route: "/card/:sessionId",
      intent: "end",
      as: "athlete",
      params: { sessionId },
      body: form({ intent: "end" }),
      refused: true,
    },
    {
      route: "/floor/pairing/:runId",
      params: { runId: pick(w.runs) },
      body: form({}),
      refused: true,
    },
    {
      route: "/api/live/:sessionId",
      params: { sessionId },
      body: { json: { stationId: randomUUID(), batteryPercent: 64, unsent: 2 } },
    },
    {
      route: "/api/log/:sessionId",
      params: { sessionId },
      body: {
        json: {
          entries: [
            entry({ kind: "rep", ...at, rep: 1, mcvMps: 0.8, outcome: "counted", source: "typed" }),
            entry({ kind: "fault", ...at, fault: "knees-in", cut: false }),
            entry({ kind: "set-done", ...at, loadKg: 60, endedBy: "hand", cut: false }),
            entry({
              kind: "call",
              ...at,
              call: "lighten",
              decision: "take",
              action: { type: "load", deltaKg: -2.5, toKg: 57.5 },
              reason: "",
            }),
            entry({ kind: "void" }),
          ],
        },
      },
    },
    {
      route: "/review/:sessionId",
      body: form({ intent: "record", slotId: w.slotId, athleteId: pick(w.athletes) }),
      refused: true,
    },
    {
      route: "/floor/:sessionId",
      intent: "end",
      params: { sessionId: pick(w.sessions) },
      body: form({ intent: "end" }),
      refused: true,
    },
    {
      route: "/floor/:sessionId",
      intent: "reopen",
      params: { sessionId: pick(w.sessions) },
      body: form({ intent: "reopen", reason: "Ended by mistake" }),
      refused: true,
    },
    { route: "/sign-out", as: "nobody", body: form({}) },
    ...teamSeeds(w, pick, form),
  ];
}
