import { describe, expect, it } from "vitest";
import type { z } from "zod";
import {
  BodyMassForm,
  CompetitionForm,
  DayNoteForm,
  FactsForm,
  formObject,
  LimitForm,
  QuickForm,
  ReadinessForm,
  ResultForm,
  SetupForm,
  SingleForm,
  TrialsField,
  VelocityField,
} from "./athlete";
import { ImportForm, MOST_REPS } from "./import";
import { ExerciseForm, VariantForm } from "./library";
import { ProfileTestForm } from "./profile-test";
import { fieldProblems } from "./recipe";

const ID = "0198c0de-0000-7000-8000-000000000001";

/** What a form says of its fields; nothing where it takes them. */
function said(schema: z.ZodType, fields: unknown): Record<string, string> {
  const parsed = schema.safeParse(fields);
  return parsed.success ? {} : fieldProblems(parsed.error);
}

describe("numbers as people write them", () => {
  it.each([
    ["0.42", 0.42],
    ["0,42", 0.42],
    [" .5 ", 0.5],
    ["5", 5],
    ["0.4217", 0.422],
  ])("a speed %j is %s m/s", (text, value) => {
    expect(VelocityField.parse(text)).toBe(value);
  });

  it.each(["", "0", "-0.4", "5.01", "fast", "0.4 m/s", "NaN", "1e9"])(
    "a speed %j is refused in words",
    (text) => {
      expect(VelocityField.safeParse(text).error?.issues[0]?.message).toContain("up to 5 m/s");
    },
  );

  it.each([
    ["41.2 40.8 42", [41.2, 40.8, 42]],
    ["3,12;3.09", [3.12, 3.09]],
    ["  5  ", [5]],
  ])("trials %j", (text, values) => {
    expect(TrialsField.parse(text)).toEqual(values);
  });

  it.each([
    ["", /One to twelve trials/],
    ["41.2 high", /"high" is not a number/],
    [Array(13).fill("1").join(" "), /One to twelve trials/],
  ])("trials %j are refused", (text, words) => {
    expect(TrialsField.safeParse(text).error?.issues[0]?.message).toMatch(words);
  });
});

describe("facts", () => {
  const good = {
    name: "Ada Vik",
    squadId: ID,
    goal: "",
    seasonPhase: "",
    sport: "",
    roomId: "",
    unit: "",
    birthYear: "",
    statureCm: "",
    trainingSince: "",
  };

  it("leave what is empty unset, and keep what is written", () => {
    expect(FactsForm.parse(good)).toMatchObject({ goal: null, roomId: null, birthYear: null });
    expect(
      FactsForm.parse({ ...good, birthYear: "2001", statureCm: "171,5", unit: "lb" }),
    ).toMatchObject({ birthYear: 2001, statureCm: 171.5, unit: "lb" });
  });

  it.each([
    ["name", "  ", "A name is needed."],
    ["birthYear", "2001.5", "A year, for example 2001."],
    ["birthYear", "99", "A year, for example 2001."],
    ["statureCm", "1.75", "A stature between 90 and 250 cm."],
    ["trainingSince", "last year", /Invalid input|year-month-day/],
  ])("%s %j is refused in words", (field, text, words) => {
    expect(said(FactsForm, { ...good, [field]: text })[field]).toMatch(words);
  });

  it("need a load for a body mass and a name for a competition", () => {
    expect(said(BodyMassForm, { mass: "0", date: "2026-03-01" }).mass).toContain("over 0");
    expect(said(BodyMassForm, { mass: "81,4", date: "2026-03-01" })).toEqual({});
    expect(said(CompetitionForm, { name: "", date: "2026-03-01" }).name).toContain("Name");
    expect(said(CompetitionForm, { name: "Cup", date: "soon" }).date).toContain("year-month-day");
  });
});

describe("limits", () => {
  const good = { instruction: "No max tests", lift: "", until: "", reasonKind: "" };

  it("take several refusals as a comma list, from several checkboxes of one name", () => {
    const form = new FormData();
    for (const [name, value] of Object.entries(good)) form.append(name, value);
    form.append("refuses", "max-test");
    form.append("refuses", "rocking");
    expect(LimitForm.parse(formObject(form))).toMatchObject({
      refuses: ["max-test", "rocking"],
      lift: null,
      reasonKind: null,
      until: undefined,
    });
  });

  it.each([
    ["instruction", "x", "Write what cards and racks should show."],
    ["instruction", "y".repeat(201), "At most 200 characters: cards show it whole."],
    ["capPercent", "120", "A share of the max between 10 and 100 %."],
  ])("%s is refused in words", (field, text, words) => {
    expect(said(LimitForm, { ...good, [field]: text })[field]).toBe(words);
  });

  it("know no refusal that the core does not", () => {
    expect(LimitForm.safeParse({ ...good, refuses: "everything" }).success).toBe(false);
  });
});

describe("what is entered of a day", () => {
  it("needs one of sleep, eating and soreness", () => {
    expect(said(DayNoteForm, { date: "2026-03-01" }).sleepH).toContain("at least one");
    expect(said(DayNoteForm, { date: "2026-03-01", soreness: "0" })).toEqual({});
    expect(said(DayNoteForm, { date: "2026-03-01", eating: "6" }).eating).toBe(
      "1 poor to 5 good, a whole number.",
    );
  });

  it("keeps a set-up's height within reach and a single over nought", () => {
    const setup = { variantId: ID, hook: "7", safety: "", grip: "", stance: "", note: "" };
    expect(said(SetupForm, { ...setup, startHeightCm: "38,5" })).toEqual({});
    expect(said(SetupForm, { ...setup, startHeightCm: "380" }).startHeightCm).toContain("250 cm");
    const single = { variantId: ID, load: "100", velocity: "0,13", date: "2026-03-01" };
    expect(said(SingleForm, single)).toEqual({});
    expect(said(SingleForm, { ...single, load: "0" }).load).toContain("over 0");
  });

  it("reads a result with or without splits", () => {
    const good = { testId: ID, date: "2026-03-01", trials: "3.1 3.0" };
    expect(ResultForm.parse(good)).toMatchObject({ splits: [], side: "", loadKg: 0 });
    expect(ResultForm.parse({ ...good, splits: "1,8 1,7", loadKg: "4" })).toMatchObject({
      splits: [1.8, 1.7],
      loadKg: 4,
    });
    expect(said(ResultForm, { ...good, splits: "early" })).toHaveProperty("splits");
  });

  it("takes a quick field by its kind only", () => {
    const at = { athleteId: ID };
    expect(said(QuickForm, { ...at, field: "bodyMass", value: "66,4" })).toEqual({});
    expect(said(QuickForm, { ...at, field: "seasonPhase", value: "" })).toEqual({});
    expect(QuickForm.safeParse({ ...at, field: "name", value: "x" }).success).toBe(false);
    expect(QuickForm.safeParse({ ...at, field: "seasonPhase", value: "soon" }).success).toBe(false);
  });

  it("takes warm-up speeds only as what they are", () => {
    const good = {
      testId: ID,
      readings: JSON.stringify([{ loadKg: 40, velocityMps: 1 }]),
      targetMps: "0.8",
      plannedKg: "60",
      stepKg: "2.5",
      decision: "take",
    };
    expect(said(ReadinessForm, good)).toEqual({});
    for (const readings of ["", "[]", "[{}]", "null", '[{"loadKg":-1,"velocityMps":1}]']) {
      expect(said(ReadinessForm, { ...good, readings }).readings).toBe(
        "The warm-up speeds could not be read.",
      );
    }
  });
});

describe("tests and files", () => {
  const rep = { loadKg: 60, velocityMps: 0.9 };
  const test = {
    athleteId: ID,
    variantId: ID,
    date: "2026-03-01",
    metric: "MCV",
    source: "typed",
    processing: "typed",
    addedKg: 0,
    note: "",
    override: "",
    reps: [rep],
  };

  it("need a rep, a load over nought and a speed a bar can have", () => {
    expect(said(ProfileTestForm, test)).toEqual({});
    expect(said(ProfileTestForm, { ...test, reps: [] }).reps).toBe("No rep yet.");
    for (const wrong of [
      { ...rep, loadKg: 0 },
      { ...rep, velocityMps: 5.1 },
      { ...rep, velocityMps: Number.NaN },
      { ...rep, excluded: " " },
    ]) {
      expect(ProfileTestForm.safeParse({ ...test, reps: [wrong] }).success).toBe(false);
    }
    expect(said(ProfileTestForm, { ...test, athleteId: "" }).athleteId).toContain("Choose");
  });

  it("hold no more reps in one file than one transaction takes", () => {
    const file = (reps: number) => ({
      kind: "reps",
      fileName: "a.csv",
      metric: "MCV",
      processing: "imported",
      tests: [
        {
          athleteId: ID,
          variantId: ID,
          date: "2026-03-01",
          addedKg: 0,
          reps: Array(reps).fill(rep),
        },
      ],
    });
    expect(said(ImportForm, file(1))).toEqual({});
    expect(said(ImportForm, file(MOST_REPS + 1)).tests).toContain("Split it");
    expect(said(ImportForm, { ...file(1), tests: [] }).tests).toContain("no test");
    expect(said(ImportForm, { ...file(1), mapping: { load: 0, MCV: 3 } })).toEqual({});
    expect(ImportForm.safeParse({ ...file(1), mapping: { shoe: 1 } }).success).toBe(false);
  });
});

describe("the library", () => {
  const exercise = {
    name: "Box squat, chains",
    pattern: "squat",
    speedClass: "strength-speed",
    main: "glutes,hamstrings,glutes",
    assisting: "",
    sides: "both",
    gear: " bar, rack ,, ",
    excludes: "back",
    easier: "",
  };

  it("takes lists without doubles or blanks, and at least one main muscle", () => {
    expect(ExerciseForm.parse(exercise)).toMatchObject({
      main: ["glutes", "hamstrings"],
      gear: ["bar", "rack"],
      easier: [],
      id: "",
    });
    expect(ExerciseForm.parse({ ...exercise, cue: "  chest up " }).cue).toBe("chest up");
    expect(said(ExerciseForm, { ...exercise, cue: "x".repeat(81) }).cue).toContain("80 letters");
    expect(said(ExerciseForm, { ...exercise, main: "" }).main).toContain("at least one");
    expect(ExerciseForm.safeParse({ ...exercise, main: "wings" }).success).toBe(false);
  });

  it("wants a base for a lift that has no max of its own, and a caution for every lift", () => {
    const variant = {
      name: "Box squat",
      lift: "box-squat",
      bar: "straight",
      grip: "",
      stance: "",
      boxStyle: "",
      resistance: "",
      start: "top",
      baseKind: "own",
      baseId: "",
      systemMass: "bar",
      caution: "Safeties just below the bar.",
    };
    expect(said(VariantForm, variant)).toEqual({});
    expect(said(VariantForm, { ...variant, baseKind: "ratio" }).baseId).toContain("Choose");
    expect(
      said(VariantForm, { ...variant, baseKind: "ratio", baseId: ID, ratio: "7" }).ratio,
    ).toContain("0.7");
    expect(said(VariantForm, { ...variant, caution: "" }).caution).toContain("safe");
    expect(said(VariantForm, { ...variant, thresholdMps: "3" }).thresholdMps).toContain("1 m/s");
  });
});
