/** A text as it can be kept: without NUL, and without halves of a character. */
export function cleanText(text: string): string {
  const whole = text.isWellFormed() ? text : text.toWellFormed();
  return whole.includes("\0") ? whole.replaceAll("\0", "") : whole;
}

/** Nothing that we read lies deeper. */
const MOST_LEVELS = 40;

export type CleanValues = { ok: true; value: unknown } | { ok: false; reason: "too-deep" };

/**
 * The same for every text of plain data (what `JSON.parse` gives), names of members too.
 * Fails with `too-deep` for data of more than 40 levels.
 * @example cleanValues({ note: "a\0b" }) // { ok: true, value: { note: "ab" } }
 */
export function cleanValues(data: unknown): CleanValues {
  let deep = false;
  const clean = (value: unknown, level: number): unknown => {
    if (level > MOST_LEVELS) {
      deep = true;
      return null;
    }
    if (typeof value === "string") return cleanText(value);
    if (Array.isArray(value)) return value.map((one) => clean(one, level + 1));
    if (typeof value !== "object" || value === null) return value;
    const out: Record<string, unknown> = {};
    for (const [name, inner] of Object.entries(value)) {
      // An own member of that name would replace what every object has.
      if (name !== "__proto__") out[cleanText(name)] = clean(inner, level + 1);
    }
    return out;
  };
  const value = clean(data, 0);
  return deep ? { ok: false, reason: "too-deep" } : { ok: true, value };
}

/** Whether a text can be stored as it is. */
export function isClean(text: string): boolean {
  return text.isWellFormed() && !text.includes("\0");
}
