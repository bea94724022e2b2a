export type DecimalReading =
  | { ok: true; value: number }
  | { ok: false; reason: "empty" | "not-a-number" };

/**
 * Reads a number as a spreadsheet or a person writes it: "1.21", "1,21", " 0.9 ", "-0,05". A
 * thousands mark is not guessed at: "1,234.5" is refused.
 */
export function readDecimal(text: string): DecimalReading {
  const trimmed = text.trim();
  if (trimmed === "") return { ok: false, reason: "empty" };
  if (!/^[-−+]?(\d+([.,]\d*)?|[.,]\d+)(e[-+]?\d+)?$/i.test(trimmed)) {
    return { ok: false, reason: "not-a-number" };
  }
  const value = Number(trimmed.replace("−", "-").replace(",", "."));
  return Number.isFinite(value) ? { ok: true, value } : { ok: false, reason: "not-a-number" };
}
