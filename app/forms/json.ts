import { cleanValues } from "../../core/units/text";

/** A text as JSON that can be kept, or the sentence that says why not. */
export function readJson(text: string): { ok: true; raw: unknown } | { ok: false; why: string } {
  try {
    const clean = cleanValues(JSON.parse(text));
    return clean.ok
      ? { ok: true, raw: clean.value }
      : { ok: false, why: "This JSON is nested far deeper than anything of ours." };
  } catch {
    return {
      ok: false,
      why: "This JSON does not end well: it is cut off or was changed by hand.",
    };
  }
}

declare const held: unique symbol;

/** Plain data as JSON text, with the type of what it holds. */
export type Packed<T> = string & { readonly [held]: T };

/**
 * A loader's large answer as one text: the router would walk each of its thousand objects, once
 * for the data and once more for the page. For plain data only: no dates, maps or sets.
 */
export function pack<T>(value: T): Packed<T> {
  return JSON.stringify(value) as Packed<T>;
}

export function unpack<T>(packed: Packed<T>): T {
  return JSON.parse(packed) as T;
}
