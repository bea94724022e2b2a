import { isDate, type LocalDate } from "../units/time";

/** How dates with slashes are written, where no line shows it. */
export type SlashOrder = "day-first" | "month-first";

/** A date with slashes: 3/2/2026. */
export const SLASHED = /^(\d{1,2})\/(\d{1,2})\/(\d{4}|\d{2})$/;
const DOTTED = /^(\d{1,2})\.\s*(\d{1,2})\.\s*(\d{4}|\d{2})$/;

/** Which of two numbers is the day, where one of some line is over 12. */
export function slashOrderOf(texts: readonly string[]): SlashOrder | "both" | undefined {
  let order: SlashOrder | "both" | undefined;
  for (const text of texts) {
    const match = SLASHED.exec(text.trim());
    if (!match) continue;
    const said =
      Number(match[1]) > 12 ? "day-first" : Number(match[2]) > 12 ? "month-first" : undefined;
    if (said === undefined) order ??= "both";
    else return said;
  }
  return order;
}

/**
 * A date as sheets write it: 2026-03-02, 2.3.2026, or 3/2/2026 in a known order.
 * @example readDate("2.3.2026", undefined) // "2026-03-02"
 */
export function readDate(text: string, slash: SlashOrder | undefined): LocalDate | undefined {
  if (isDate(text)) return text;
  const dotted = DOTTED.exec(text);
  const slashed = SLASHED.exec(text);
  const match = dotted ?? slashed;
  if (!match || (slashed && !slash)) return undefined;
  const dayFirst = dotted !== null || slash === "day-first";
  const [day, month] = dayFirst ? [match[1], match[2]] : [match[2], match[1]];
  const year = (match[3] ?? "").length === 2 ? `20${match[3]}` : match[3];
  const written = `${year}-${(month ?? "").padStart(2, "0")}-${(day ?? "").padStart(2, "0")}`;
  return isDate(written) ? written : undefined;
}
