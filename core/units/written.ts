import { formatKg, type MassUnit, NO_NUMBER } from "./mass";

/**
 * Words with masses in them. A working does not know who will read it: what it says of a mass is
 * kept as kilograms, and is written in the reader's unit where it is shown. What a person entered
 * stays as it was entered, and stands in the words as text.
 */
export interface Written {
  parts: ReadonlyArray<string | MassPart>;
}

interface MassPart {
  kg: number;
  decimals: number;
}

/** No mass is written finer. */
const MOST_DECIMALS = 6;

export type Text = string | Written;

/** A computed mass (kept to the hundredth of a gram), to be written in the reader's unit with at most so many decimals. */
export const written = (kg: number, decimals = 2): Written => ({
  parts: [
    Number.isFinite(kg)
      ? {
          kg: Number(kg.toFixed(5)),
          decimals: decimals >= 0 && decimals <= MOST_DECIMALS ? decimals : 2,
        }
      : NO_NUMBER,
  ],
});

/**
 * A sentence around masses and other words.
 * @example say`${written(80)} × ${5}`
 */
export function say(
  around: TemplateStringsArray,
  ...values: ReadonlyArray<Text | number>
): Written {
  return {
    parts: around.flatMap((text, i) => {
      const value = values[i];
      if (value === undefined) return [text];
      return typeof value === "object" ? [text, ...value.parts] : [text, String(value)];
    }),
  };
}

/**
 * The words as they are read in a unit.
 * @example readIn(say`${written(100)} at once`, "lb") // "220.46 lb at once"
 */
export function readIn(text: Text, unit: MassUnit): string {
  if (typeof text === "string") return text;
  return text.parts
    .map((part) => (typeof part === "string" ? part : formatKg(part.kg, unit, part.decimals)))
    .join("");
}
