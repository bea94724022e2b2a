/** Whole seconds as m:ss, the way a rest clock shows them. Negative time keeps its sign. */
export function formatClock(seconds: number): string {
  const sign = seconds < 0 ? "-" : "";
  const whole = Math.floor(Math.abs(seconds));
  return `${sign}${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/** A local calendar date, `YYYY-MM-DD`. */
export type LocalDate = string;

const DAY_MS = 86_400_000;

function dayNumber(date: LocalDate): number {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(date);
  if (!match) throw new RangeError(`"${date}" is not a date written YYYY-MM-DD.`);
  return Date.UTC(Number(match[1]), Number(match[2]) - 1, Number(match[3])) / DAY_MS;
}

/** Days from `from` to `to`; a calendar count, so clock changes do not matter. */
export function daysBetween(from: LocalDate, to: LocalDate): number {
  return dayNumber(to) - dayNumber(from);
}

export function addDays(date: LocalDate, days: number): LocalDate {
  return new Date((dayNumber(date) + days) * DAY_MS).toISOString().slice(0, 10);
}

/** Years that a date of ours may lie in: nobody's birth before, no plan after. */
export const EARLIEST_YEAR = 1900;
export const LATEST_YEAR = 2200;

/** Whether a text is a day of the calendar within those years, `YYYY-MM-DD`. */
export function isDate(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const year = Number(text.slice(0, 4));
  if (year < EARLIEST_YEAR || year > LATEST_YEAR) return false;
  const time = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().slice(0, 10) === text;
}
