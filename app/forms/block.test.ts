import { describe, expect, it } from "vitest";
import { type Block, blockOfLift } from "../../core/plan/block";
import { RISING_LADDER } from "../../db/demo/waves";
import {
  BlockSchema,
  blockAsJson,
  EditSchema,
  NewBlockForm,
  readBlockFile,
  readRecipeFile,
  recipeAsJson,
  SlotSchema,
} from "./block";

const ID = "01900000-0000-7000-8000-000000000001";
const block: Block = {
  ...blockOfLift({
    name: "Block",
    startDate: "2026-03-02",
    variantId: ID,
    recipe: RISING_LADDER,
    schoolId: "",
  }),
  overrides: { [`${ID}/main/w1.s1.1`]: { loadKg: 60, by: "C" } },
  away: { a: { athleteId: ID, from: "2026-03-01", to: "2026-03-04" } },
  apart: { [ID]: true },
  answered: { "deload-unset": { reason: "By feel.", by: "C" } },
};
const problems = (patch: Record<string, unknown>) => {
  const parsed = BlockSchema.safeParse({ ...block, ...patch });
  return parsed.success
    ? []
    : parsed.error.issues.map((one) => `${one.path.join(".")}: ${one.message}`);
};
const main = block.slots.main;

describe("a block that may be kept", () => {
  it("is one that was made, unchanged", () => {
    expect(BlockSchema.parse(block)).toEqual(block);
  });

  it.each<[string, Record<string, unknown>, RegExp]>([
    ["no name", { name: " " }, /name: Give it a name/],
    ["no date", { startDate: "2026-02-30" }, /startDate: A date/],
    ["no weeks", { weeks: 0 }, /weeks/],
    ["an order that is none", { template: "any" }, /template/],
    ["a slot on a day that is gone", { days: {} }, /slots\.main\.dayId: This slot's day/],
    [
      "a week marked twice",
      {
        weeks: 9,
        marks: { a: { week: 2, kind: "off", words: "" }, b: { week: 2, kind: "test", words: "" } },
      },
      /marks: A week is marked once/,
    ],
    [
      "a mark after the end",
      { marks: { a: { week: 9, kind: "off", words: "" } } },
      /marks: A marked week lies after/,
    ],
    [
      "an absence that ends before it begins",
      { away: { a: { athleteId: ID, from: "2026-03-09", to: "2026-03-01" } } },
      /away: The first day comes first/,
    ],
    [
      "an answer without a reason",
      { answered: { x: { reason: "", by: "C" } } },
      /answered\.x\.reason: Write the reason/,
    ],
    [
      "an own load of nothing",
      { overrides: { x: { loadKg: 0, by: "C" } } },
      /overrides\.x\.loadKg/,
    ],
    ["a day that is none", { days: { d1: { name: "A", offset: 7 } } }, /days\.d1\.offset/],
    [
      "a recipe out of range",
      { slots: { main: { ...main, recipe: { ...RISING_LADDER, start: 300 } } } },
      /slots\.main\.recipe\.start: At most 120 %/,
    ],
  ])("%s is refused with its place", (_name, patch, words) => {
    expect(problems(patch).join("\n")).toMatch(words);
  });

  it("a slot trains a lift or exercises, never nothing", () => {
    const slot = { ...main, work: { kind: "exercise", exerciseIds: [], hands: 1 } };
    expect(SlotSchema.safeParse(slot).error?.issues[0]?.message).toBe("Choose an exercise.");
    expect(SlotSchema.safeParse({ ...slot, work: { kind: "lift", variantId: "x" } }).success).toBe(
      false,
    );
  });
});

describe("edits as they are sent", () => {
  it.each([
    [{ words: "x", sets: [{ path: ["name"], value: "A" }] }, true],
    [{ words: "x", sets: [{ path: ["overrides", "a/b/c"] }] }, true],
    [{ words: "x", sets: [] }, false],
    [{ words: "", sets: [{ path: ["name"], value: "A" }] }, false],
    [{ words: "x", sets: [{ path: [], value: "A" }] }, false],
    [{ words: "x", sets: [{ path: Array(9).fill("a") }] }, false],
  ])("%j is taken: %s", (edit, taken) => {
    expect(EditSchema.safeParse(edit).success).toBe(taken);
  });

  it("a new block says which of its fields needs another look", () => {
    const good = {
      name: "N",
      groupId: ID,
      roomId: ID,
      startDate: "2026-03-02",
      weeks: "8",
      schoolId: crypto.randomUUID(),
    };
    expect(NewBlockForm.parse(good).weeks).toBe(8);
    for (const [field, value] of [
      ["weeks", "0"],
      ["weeks", "x"],
      ["startDate", ""],
      ["groupId", ""],
      ["schoolId", ""],
    ] as const) {
      const parsed = NewBlockForm.safeParse({ ...good, [field]: value });
      expect(parsed.error?.issues[0]?.path).toEqual([field]);
    }
  });
});

describe("blocks and recipes as files", () => {
  it("leave people at home and come in again the same otherwise", () => {
    const text = blockAsJson(block, "Speed all year");
    expect(text).not.toContain(`${ID}/main`);
    const read = readBlockFile(text);
    expect(read.ok && read.value.block).toEqual({
      ...block,
      overrides: {},
      away: {},
      apart: {},
      answered: {},
    });
    // A slot's school is an id of the team's own.
    const main = block.slots.main;
    if (!main) throw new Error("The block has a slot.");
    const schooled = { ...block, slots: { ...block.slots, main: { ...main, schoolId: ID } } };
    expect(blockAsJson(schooled, "Speed all year")).toBe(text);
    const recipe = readRecipeFile(
      recipeAsJson({ family: "F", source: "S", recipe: RISING_LADDER }),
    );
    expect(recipe.ok && recipe.value.recipe).toEqual(RISING_LADDER);
  });

  it.each([
    ["cut off", '{"format": "sprezza-block"', /does not end well/],
    ["another thing", "[1, 2]", /it says no format/],
    ["another format", '{"format": "other", "version": 1}', /format/],
    [
      "a newer version",
      blockAsJson(block, "Speed all year").replace('"version": 1', '"version": 9'),
      /version/,
    ],
    [
      "a fault deep inside",
      blockAsJson(block, "Speed all year").replace('"sets": 3', '"sets": 0'),
      /block › slots › main › recipe › steps › 0 › sets: At least 1/,
    ],
  ])("%s is named", (_name, text, words) => {
    const read = readBlockFile(text);
    expect(read.ok ? "" : read.problems.join("\n")).toMatch(words);
  });
});
