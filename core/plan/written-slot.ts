import type { Pattern } from "../exercise/exercise";
import type { SectionKind } from "./block";

/** Something that a slot can train, by its name. */
export interface Trained {
  kind: "lift" | "exercise";
  id: string;
  name: string;
  /** Of exercises. */
  pattern: Pattern | undefined;
}

/** What a line like "bench, triples" stands for: the best fit of each half. */
export interface WrittenSlot<R> {
  work: Trained | undefined;
  recipe: R | undefined;
}

const wordsOf = (text: string) =>
  text
    .toLowerCase()
    .normalize("NFD")
    .replaceAll(/\p{M}/gu, "")
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== "");

/**
 * How well a name answers to some words: each must begin one of its words. Words that the name begins
 * with, and short names, count more; undefined where one is missing.
 */
function likeness(name: string, asked: readonly string[]): number | undefined {
  const own = wordsOf(name);
  let points = 0;
  for (const word of asked) {
    const at = own.findIndex((one) => one.startsWith(word));
    if (at < 0) return undefined;
    points += (own[at] === word ? 3 : 2) - at / 10;
  }
  return points - own.length / 20;
}

export function bestFit<T>(
  all: readonly T[],
  nameOf: (one: T) => string,
  text: string,
): T | undefined {
  const asked = wordsOf(text);
  if (asked.length === 0) return undefined;
  let best: { one: T; points: number } | undefined;
  for (const one of all) {
    const points = likeness(nameOf(one), asked);
    if (points !== undefined && (best === undefined || points > best.points))
      best = { one, points };
  }
  return best?.one;
}

/**
 * Reads "lift or exercise, recipe": words or their beginnings, in any case, a comma between.
 * @example readWrittenSlot("bench, eight tri", works, recipes) // Bench press · Eight triples
 */
export function readWrittenSlot<R extends { name: string }>(
  text: string,
  works: readonly Trained[],
  recipes: readonly R[],
): WrittenSlot<R> {
  const [work = "", ...rest] = text.split(",");
  return {
    work: bestFit(works, (one) => one.name, work),
    recipe: bestFit(recipes, (one) => one.name, rest.join(",")),
  };
}

/** The section that work usually stands in, after what its day has already. */
export function usualSection(
  work: Pick<Trained, "kind" | "pattern">,
  there: readonly SectionKind[],
): SectionKind {
  if (work.kind === "lift")
    return !there.includes("main") ? "main" : !there.includes("second") ? "second" : "accessories";
  return work.pattern === "jump" || work.pattern === "throw" || work.pattern === "sprint"
    ? "power"
    : "accessories";
}
