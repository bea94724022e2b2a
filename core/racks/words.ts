import type { Moves } from "./moves";

const WORDS: ReadonlyArray<readonly [keyof Moves, string, string]> = [
  ["plates", "plate", "plates"],
  ["hooks", "hook change", "hook changes"],
  ["pins", "pin", "pins"],
  ["mats", "mat", "mats"],
  ["boxes", "box", "boxes"],
  ["bands", "band", "bands"],
];

/** Moves in words: "22 plates, 2 hook changes"; "nothing to change" where there are none. */
export function movesWords(moves: Moves): string {
  const words = WORDS.flatMap(([kind, one, many]) =>
    moves[kind] > 0 ? [`${moves[kind]} ${moves[kind] === 1 ? one : many}`] : [],
  );
  return words.length > 0 ? words.join(", ") : "nothing to change";
}
