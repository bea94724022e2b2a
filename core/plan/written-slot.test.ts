import { describe, expect, it } from "vitest";
import { readWrittenSlot, type Trained, usualSection } from "./written-slot";

const work = (name: string, kind: Trained["kind"] = "lift"): Trained => ({
  kind,
  id: name,
  name,
  pattern: undefined,
});
const works = [
  work("Bench press, straight bar"),
  work("Bench press, wide grip"),
  work("Bench pull", "exercise"),
  work("Back squat, straight bar"),
  work("Kettlebell träger", "exercise"),
];
const recipes = [
  { name: "Eight triples" },
  { name: "Nine triples, three grips" },
  { name: "Up to a top triple" },
];
const read = (text: string) => {
  const found = readWrittenSlot(text, works, recipes);
  return [found.work?.name, found.recipe?.name];
};

describe("a slot as it is written", () => {
  it("is the best fit of each half", () => {
    expect(read("bench, eight tri")).toEqual(["Bench pull", "Eight triples"]);
    expect(read("bench press, top")).toEqual(["Bench press, straight bar", "Up to a top triple"]);
    expect(read("Bench stra, triples")).toEqual(["Bench press, straight bar", "Eight triples"]);
    expect(read("sq, nine")).toEqual(["Back squat, straight bar", "Nine triples, three grips"]);
    expect(read("trag")).toEqual(["Kettlebell träger", undefined]);
  });

  it("is nothing where a word fits nothing", () => {
    expect(read("bench unknown, eight none")).toEqual([undefined, undefined]);
    expect(read("")).toEqual([undefined, undefined]);
    expect(read(" , ")).toEqual([undefined, undefined]);
  });

  it("stands where such work usually does, after what the day has", () => {
    const lift = { kind: "lift", pattern: undefined } as const;
    expect(usualSection(lift, [])).toBe("main");
    expect(usualSection(lift, ["main"])).toBe("second");
    expect(usualSection(lift, ["main", "second"])).toBe("accessories");
    expect(usualSection({ kind: "exercise", pattern: "jump" }, [])).toBe("power");
    expect(usualSection({ kind: "exercise", pattern: "trunk" }, [])).toBe("accessories");
  });
});
