import { randomUUID } from "node:crypto";
import { describe, expect, it } from "vitest";
import type { Complex } from "../../core/contrast/complex";
import { checkComplex } from "../../core/contrast/complex-checks";
import { OUTPUT_KINDS } from "../../core/contrast/outputs";
import { SHIPPED_COMPLEXES } from "../../db/library/complexes";
import { complexFromJson } from "./complex";
import { GapDaySchema, gapsFrom } from "./gap";

const [first] = SHIPPED_COMPLEXES as readonly [Complex, ...Complex[]];
const changed = (change: (complex: Complex) => unknown) => {
  const copy = structuredClone(first);
  change(copy);
  return complexFromJson(JSON.stringify(copy));
};

describe("a complex as the builder sends it", () => {
  it.each(SHIPPED_COMPLEXES.map((one) => [one.name, one] as const))(
    "%s goes in and out",
    (_, one) => {
      expect(complexFromJson(JSON.stringify(one))).toEqual({ ok: true, complex: one });
    },
  );

  it("trims words and reads numbers that are written as words", () => {
    const read = changed((one) => Object.assign(one, { name: "  Pull  ", rounds: "4" }));
    expect(read).toMatchObject({ ok: true, complex: { name: "Pull", rounds: 4 } });
  });

  it.each<[what: string, change: (complex: Complex) => unknown, message: string]>([
    ["no name", (one) => Object.assign(one, { name: " " }), "Give it a name."],
    ["no item", (one) => one.items.splice(0), "Add an item."],
    [
      "thirteen items",
      (one) => {
        const [item] = one.items;
        if (item) one.items = Array.from({ length: 13 }, (_, i) => ({ ...item, id: `${i}` }));
      },
      "At most 12 items.",
    ],
    ["half a round", (one) => Object.assign(one, { rounds: 2.5 }), "Rounds: a whole number."],
    ["too many rounds", (one) => Object.assign(one, { rounds: 21 }), "Rounds: at most 20."],
    ["no rest in words", (one) => Object.assign(one, { restS: "long" }), "Rest: a number."],
    [
      "a share over any max",
      (one) => Object.assign(one.items[0] ?? {}, { load: { by: "percent", percent: 130 } }),
      "Share of the max: at most 120.",
    ],
    [
      "a nameless item",
      (one) => Object.assign(one.items[1] ?? {}, { name: "" }),
      "Every item has a name.",
    ],
    [
      "a gap that runs backwards",
      (one) => Object.assign(one.items[0] ?? {}, { gapS: -5 }),
      "Gap: at least 0.",
    ],
  ])("%s is named", (_, change, message) => {
    expect(changed(change)).toEqual({ ok: false, message });
  });

  it("what is no JSON says so, and what goes in can be checked", () => {
    expect(complexFromJson("{")).toMatchObject({ ok: false });
    for (const one of SHIPPED_COMPLEXES) {
      const read = complexFromJson(JSON.stringify(one));
      expect(
        read.ok && checkComplex(read.complex).filter((check) => check.code === "no-base"),
      ).toEqual([]);
    }
  });

  it("keeps whether a load is looked for, and which outputs are written down", () => {
    const read = changed((one) => Object.assign(one.items[0] ?? {}, { seek: true }));
    expect(read.ok && read.complex.items[0]?.seek).toBe(true);
    for (const output of OUTPUT_KINDS) {
      const out = changed((one) => Object.assign(one.items[0] ?? {}, { output }));
      expect(out.ok && out.complex.items[0]?.output).toBe(output);
    }
    expect(changed((one) => Object.assign(one.items[0] ?? {}, { output: "joy" })).ok).toBe(false);
  });
});

describe("a day of the gap test", () => {
  const day = {
    athleteId: randomUUID(),
    trial: "jump",
    heavySet: "Squat, 2 at 85 %",
    baseline: [36, 36.4, 35.7],
    trials: [{ gapMin: 4, value: 37 }],
  };
  const message = (over: object) =>
    GapDaySchema.safeParse({ ...day, ...over }).error?.issues[0]?.message;

  it("is taken whole", () => {
    expect(GapDaySchema.safeParse(day).success).toBe(true);
  });

  it.each([
    ["nobody", { athleteId: "" }, "Choose an athlete: a day is kept for somebody."],
    ["no heavy set", { heavySet: " " }, "Say what the heavy set was."],
    ["one baseline", { baseline: [36] }, "Two baseline trials at least, three are usual."],
    ["a trial of nothing", { baseline: [36, 0] }, "Every trial is a number over 0."],
    ["no trial", { trials: [] }, "One trial after a gap at least."],
  ])("with %s says what is missing", (_, over, text) => {
    expect(message(over)).toBe(text);
  });

  it.each<[text: string, gaps: number[] | undefined]>([
    ["0.25 2 4 6", [0.25, 2, 4, 6]],
    ["0,25; 2; 4", [0.25, 2, 4]],
    ["4 2", undefined],
    ["2 2", undefined],
    ["", undefined],
    ["soon", undefined],
    ["61", undefined],
  ])("gaps written as %j", (text, gaps) => {
    expect(gapsFrom(text)).toEqual(gaps);
  });
});
