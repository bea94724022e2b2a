import { describe, expect, it, test } from "vitest";
import { RISING_LADDER } from "../../db/demo/waves";
import { BatchSchema, EntrySchema } from "./entries";
import { ChooseMaxForm, MassField, NewRecordForm } from "./maxes";
import { fieldProblems, RecipeSchema, recipeFromForm } from "./recipe";

const UUID = "0191c3f2-6a4b-7c1d-8e2f-3a4b5c6d7e8f";

function formOf(patch: Record<string, string> = {}): FormData {
  const form = new FormData();
  const fields: Record<string, string> = {
    name: "Ladder",
    aim: "speed",
    school: "Percent waves",
    start: "40",
    "steps.0.id": "s1",
    "steps.0.sets": "3",
    "steps.0.reps": "3",
    "steps.0.add": "0",
    "steps.4.id": "s5",
    "steps.4.sets": "2",
    "steps.4.reps": "2",
    "steps.4.add": "7,5",
    "weeks.0.id": "w1",
    "weeks.0.shape": "steps",
    "weeks.0.add": "0",
    "weeks.1.id": "w2",
    "weeks.1.shape": "flat",
    "weeks.1.add": "5",
    "weeks.1.flat.sets": "9",
    "weeks.1.flat.reps": "3",
    "weeks.1.flat.at": "52,5",
    convention: "bar",
    "rest.leastS": "45",
    "rest.mostS": "60",
    cycle: "close, middle,ring",
    "target.lowMps": "",
    "target.highMps": "",
    lead: "percent",
    "stop.lossPercent": "10",
    "stop.lossFrom": "best",
    "stop.floorMps": "",
    ...patch,
  };
  for (const [name, value] of Object.entries(fields)) form.set(name, value);
  return form;
}

describe("a recipe from its form", () => {
  it("reads steps with gaps in their numbering, comma decimals and a flat week", () => {
    const parsed = recipeFromForm(formOf());
    if (!parsed.success) throw parsed.error;
    expect(parsed.data.steps.map((step) => [step.id, step.add])).toEqual([
      ["s1", 0],
      ["s5", 7.5],
    ]);
    expect(parsed.data.weeks[0]?.flat).toBeUndefined();
    expect(parsed.data.weeks[1]?.flat).toEqual({ sets: 9, reps: 3, at: 52.5 });
    expect(parsed.data.cycle).toEqual(["close", "middle", "ring"]);
    expect(parsed.data.target).toBeUndefined();
    expect(parsed.data.stop).toEqual({ lossPercent: 10, lossFrom: "best" });
  });

  test.each([
    [{ start: "" }, "start"],
    [{ start: "much" }, "start"],
    [{ start: "300" }, "start"],
    [{ "steps.0.reps": "0" }, "steps.0.reps"],
    [{ "steps.0.sets": "2.5" }, "steps.0.sets"],
    [{ "rest.leastS": "90" }, "rest"],
    [{ "target.lowMps": "0.9", "target.highMps": "0.8" }, "target"],
    [{ "target.lowMps": "0.9" }, "target.highMps"],
    [{ "stop.floorMps": "9" }, "stop.floorMps"],
    [{ "weeks.1.flat.at": "" }, "weeks.1.flat.at"],
    [{ "weeks.1.id": "w1" }, "form"],
    [{ name: "  " }, "name"],
    [{ aim: "fun" }, "aim"],
  ])("names the field when %j", (patch, field) => {
    const parsed = recipeFromForm(formOf(patch as Record<string, string>));
    expect(parsed.success).toBe(false);
    if (!parsed.success) expect(Object.keys(fieldProblems(parsed.error))).toContain(field);
  });

  it("refuses a recipe without steps or weeks", () => {
    expect(RecipeSchema.safeParse({ ...RISING_LADDER, steps: [] }).success).toBe(false);
    expect(RecipeSchema.safeParse({ ...RISING_LADDER, weeks: [] }).success).toBe(false);
    expect(RecipeSchema.safeParse(RISING_LADDER).success).toBe(true);
  });
});

describe("records and factors", () => {
  test.each([
    ["120", { amount: 120, unit: "kg" }],
    ["225 lb", { amount: 225, unit: "lb" }],
    ["82,5", { amount: 82.5, unit: "kg" }],
  ])("%s is a load", (text, mass) => {
    expect(MassField.parse(text)).toEqual(mass);
  });

  test.each(["", "0", "-3", "heavy", "2000", "1.2345"])("%j is refused in words", (text) => {
    const parsed = MassField.safeParse(text);
    expect(parsed.success).toBe(false);
    expect(parsed.error?.issues[0]?.message.length).toBeGreaterThan(8);
  });

  it("wants a real date and a known kind", () => {
    const base = { variantId: UUID, load: "100", date: "2026-03-01", kind: "tested" };
    expect(NewRecordForm.safeParse(base).success).toBe(true);
    expect(NewRecordForm.safeParse({ ...base, date: "2026-02-30" }).success).toBe(false);
    expect(NewRecordForm.safeParse({ ...base, kind: "felt" }).success).toBe(false);
  });

  test.each([
    ["", undefined],
    ["0.95", 0.95],
    ["0,9", 0.9],
  ])("factor %j is %s", (factor, value) => {
    expect(ChooseMaxForm.parse({ variantId: UUID, recordId: UUID, factor }).factor).toBe(value);
  });

  test.each(["0.2", "1.5", "x"])("factor %j is refused", (factor) => {
    expect(ChooseMaxForm.safeParse({ variantId: UUID, recordId: UUID, factor }).success).toBe(
      false,
    );
  });
});

describe("log entries", () => {
  const entry = {
    id: UUID,
    deviceId: UUID,
    bootId: UUID,
    deviceSeq: 1,
    monoMs: 12.5,
    wallTime: "2026-03-10T16:30:00.000Z",
    supersedes: [],
    schemaVersion: 1,
    body: {
      kind: "rep",
      athleteId: UUID,
      slotId: UUID,
      setKey: "w1.s1.1",
      rep: 1,
      mcvMps: 0.84,
      outcome: "counted",
      source: "typed",
    },
  };

  it("take a rep, a set's end, a fault, a call and a void", () => {
    const address = { athleteId: UUID, slotId: UUID, setKey: "w1.s1.1" };
    const bodies = [
      entry.body,
      { kind: "set-done", ...address, loadKg: 60, endedBy: "cap", cut: false },
      { kind: "fault", ...address, fault: "Uneven lockout", cut: true },
      {
        kind: "call",
        ...address,
        call: "lighten",
        decision: "take",
        action: { type: "load", deltaKg: -2.5, toKg: 57.5 },
        reason: "",
      },
      { kind: "void" },
    ];
    for (const body of bodies) expect(EntrySchema.safeParse({ ...entry, body }).success).toBe(true);
  });

  test.each([
    ["a speed over 5 m/s", { body: { ...entry.body, mcvMps: 5.1 } }],
    ["no athlete", { body: { ...entry.body, athleteId: "somebody" } }],
    ["a made-up kind", { body: { kind: "dance" } }],
    ["a wall time in words", { wallTime: "yesterday" }],
    ["a newer schema", { schemaVersion: 2 }],
    ["a time before the start", { monoMs: -1 }],
  ])("refuse %s", (_what, patch) => {
    expect(EntrySchema.safeParse({ ...entry, ...patch }).success).toBe(false);
  });

  it("come in batches of 1 to 500", () => {
    expect(BatchSchema.safeParse({ entries: [] }).success).toBe(false);
    expect(BatchSchema.safeParse({ entries: Array(501).fill(entry) }).success).toBe(false);
    expect(BatchSchema.safeParse({ entries: [1] }).success).toBe(true);
  });
});
