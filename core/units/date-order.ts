import type { LocalDate } from "./time";

/** The order in which somebody reads the parts of a date. */
export type DateOrder = "ymd" | "dmy" | "mdy";

const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
const ISO = /^(\d{4})-(\d{2})-(\d{2})$/;
const ISO_IN_TEXT = /(?<![\d-])(\d{4}-\d{2}-\d{2})(?![\d-])/g;

/**
 * A date as its reader orders it, the month in letters where the order could be taken for another.
 * What is no date comes back as it is.
 * @example formatDay("2026-03-10", "dmy") // "10 Mar 2026"
 */
export function formatDay(date: LocalDate | string, order: DateOrder): string {
  const parts = partsOf(date);
  if (!parts || order === "ymd") return date;
  const { year, month, day } = parts;
  return order === "dmy" ? `${day} ${month} ${year}` : `${month} ${day}, ${year}`;
}

/**
 * The same without the year, for heads and axes.
 * @example formatDayShort("2026-03-10", "mdy") // "Mar 10"
 */
export function formatDayShort(date: LocalDate | string, order: DateOrder): string {
  const parts = partsOf(date);
  if (!parts) return date;
  if (order === "ymd") return date.slice(5);
  return order === "dmy" ? `${parts.day} ${parts.month}` : `${parts.month} ${parts.day}`;
}

/**
 * A sentence with its dates in the reader's order.
 * @example datesIn("tested 2026-03-10", "dmy") // "tested 10 Mar 2026"
 */
export function datesIn(text: string, order: DateOrder): string {
  return order === "ymd"
    ? text
    : text.replace(ISO_IN_TEXT, (date: string) => formatDay(date, order));
}

/**
 * The order that people of a language write, by Unicode's tables: the first language that is known
 * of those asked for ("en-SE,en;q=0.8"). Year first where none is.
 */
export function orderOfLanguage(languages: string | null): DateOrder {
  for (const asked of (languages ?? "").split(",")) {
    const language = asked.split(";")[0]?.trim();
    if (!language || language === "*") continue;
    try {
      const [first] = new Intl.DateTimeFormat(language)
        .formatToParts(0)
        .filter((part) => part.type !== "literal");
      if (first?.type === "month") return "mdy";
      return first?.type === "day" ? "dmy" : "ymd";
    } catch {
      // No language: the next.
    }
  }
  return "ymd";
}

function partsOf(date: string): { year: string; month: string; day: string } | undefined {
  const found = ISO.exec(date);
  const month = MONTHS[Number(found?.[2]) - 1];
  const day = Number(found?.[3]);
  if (!found || !month || day < 1 || day > 31) return undefined;
  return { year: found[1] as string, month, day: String(day) };
}
