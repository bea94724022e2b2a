/** Whole seconds as m:ss, the way a rest clock shows them. Negative time keeps its sign. */
export function formatClock(seconds: number): string {
  if (!Number.isFinite(seconds)) return "–";
  const sign = seconds < 0 ? "-" : "";
  const whole = Math.floor(Math.abs(seconds));
  return `${sign}${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/**
 * A local calendar date, `YYYY-MM-DD`. A text becomes one through `isDate`, a moment through a
 * zone's clock: text cut from a moment would be Greenwich's day.
 */
export type LocalDate = `${number}-${number}-${number}`;

const DAY_MS = 86_400_000;
/** Five hundred years. */
const MOST_DAYS = 182_500;

/** Days that were counted: years of reviews ask for the same few thousand. */
const counted = new Map<string, number>();
const MOST_COUNTED = 20_000;

function dayNumber(date: LocalDate): number {
  const there = counted.get(date);
  if (there !== undefined) return there;
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(date);
  if (!match) throw new RangeError(`"${date}" is not a date written YYYY-MM-DD.`);
  const day = Date.UTC(Number(match[1]), Number(match[2]) - 1, Number(match[3])) / DAY_MS;
  if (counted.size >= MOST_COUNTED) counted.clear();
  counted.set(date, day);
  return day;
}

/** Days from `from` to `to`; a calendar count, so clock changes do not matter. */
export function daysBetween(from: LocalDate, to: LocalDate): number {
  return dayNumber(to) - dayNumber(from);
}

/** @param days whole; what is none, or leaves the calendar of ours, gives the day itself */
export function addDays(date: LocalDate, days: number): LocalDate {
  if (!Number.isFinite(days) || Math.abs(days) > MOST_DAYS) return date;
  return dateOfNumber(dayNumber(date) + days);
}

const dateOfNumber = (days: number) =>
  new Date(days * DAY_MS).toISOString().slice(0, 10) as LocalDate;

const calendars = new Map<string, Intl.DateTimeFormat>();

/**
 * The calendar's day of a moment in a zone.
 * @param zone an IANA zone
 * @throws RangeError where there is no such zone
 */
export function dateAt(zone: string, at: Date): LocalDate {
  let calendar = calendars.get(zone);
  if (!calendar) {
    calendar = new Intl.DateTimeFormat("en", {
      timeZone: zone,
      year: "numeric",
      month: "2-digit",
      day: "2-digit",
    });
    calendars.set(zone, calendar);
  }
  const parts = new Map(calendar.formatToParts(at).map(({ type, value }) => [type, value]));
  return `${parts.get("year")}-${parts.get("month")}-${parts.get("day")}` as LocalDate;
}

const clocks = new Map<string, Intl.DateTimeFormat>();

/** How far a zone's clock is before Greenwich at a moment, ms. */
function aheadMs(zone: string, at: number): number {
  let clock = clocks.get(zone);
  if (!clock) {
    clock = new Intl.DateTimeFormat("en", {
      timeZone: zone,
      hourCycle: "h23",
      year: "numeric",
      month: "numeric",
      day: "numeric",
      hour: "numeric",
      minute: "numeric",
    });
    clocks.set(zone, clock);
  }
  const parts = new Map(clock.formatToParts(at).map(({ type, value }) => [type, Number(value)]));
  const part = (type: "year" | "month" | "day" | "hour" | "minute") => parts.get(type) ?? 0;
  return (
    Date.UTC(part("year"), part("month") - 1, part("day"), part("hour"), part("minute")) -
    Math.floor(at / 60_000) * 60_000
  );
}

/**
 * The moment at which a zone's clock shows a time of a day. In the hour that a clock change leaves
 * out it is an hour later; in the one that comes twice, the first.
 * @param zone an IANA zone
 * @param minutes from midnight, within two days of it; what is none is midnight
 * @throws RangeError where there is no such zone
 */
export function instantAt(zone: string, date: LocalDate, minutes: number): Date {
  const within = Number.isFinite(minutes) && Math.abs(minutes) <= 2880 ? minutes : 0;
  const shown = dayNumber(date) * DAY_MS + within * 60_000;
  const first = shown - aheadMs(zone, shown);
  return new Date(shown - aheadMs(zone, first));
}

/** Years that a date of ours may lie in: nobody's birth before, no plan after. */
export const EARLIEST_YEAR = 1900;
export const LATEST_YEAR = 2200;

/** Whether a text is a day of the calendar within those years, `YYYY-MM-DD`. */
export function isDate(text: string): text is LocalDate {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const year = Number(text.slice(0, 4));
  if (year < EARLIEST_YEAR || year > LATEST_YEAR) return false;
  const time = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().slice(0, 10) === text;
}
