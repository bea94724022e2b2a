import { plainName } from "../reading/names";

/** A lift as somebody's sheet names it: one variant, several that it may be, or none. */
export type NamedLift<V> =
  | { is: "one"; variant: V }
  | { is: "several"; variants: V[] }
  | { is: "none" };

/** Words without marks and hyphens: "Trap-bar" is "trap bar". */
const plainWords = (text: string) => plainName(text.replace(/[-–,/]/g, " "));

/** The key under which an answer to an ambiguous name is kept: once for all of its lines. */
export const liftKey = (text: string): string => plainWords(text);

/**
 * A variant by its whole name, by an answer given before, or by words that only its name holds.
 * @param answers variant ids by `liftKey`
 * @example liftNamed("deadlift", variants, {}) // several: straight bar, wide stance, trap bar
 */
export function liftNamed<V extends { id: string; name: string }>(
  text: string,
  variants: readonly V[],
  answers: Readonly<Record<string, string>>,
): NamedLift<V> {
  const plain = plainWords(text);
  if (plain === "") return { is: "none" };
  const exact = variants.find((one) => plainWords(one.name) === plain);
  if (exact) return { is: "one", variant: exact };
  const words = plain.split(" ");
  const holding = variants.filter((one) => {
    const own = plainWords(one.name).split(" ");
    return words.every((word) => own.some((mine) => mine === word || mine.startsWith(word)));
  });
  // The start of a name says more than words within it.
  const starting = holding.filter((one) => plainWords(one.name).startsWith(plain));
  const found = starting.length === 1 ? starting : holding;
  const answered = found.find((one) => one.id === answers[plain]);
  if (answered) return { is: "one", variant: answered };
  const [only] = found;
  if (!only) return { is: "none" };
  return found.length === 1 ? { is: "one", variant: only } : { is: "several", variants: found };
}

/** A name that may be several lifts, to be asked once. */
export interface LiftQuestion {
  /** As written. */
  text: string;
  key: string;
  choices: Array<{ id: string; name: string }>;
}
