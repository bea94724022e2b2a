import { dateAt, type LocalDate } from "../../core/units/time";
import { environment } from "./env.server";

const startedMs = Date.now();

/** Now. Where SPREZZA_NOW is set (tests, pictures), the clock starts there and runs on. */
export function now(): Date {
  const { SPREZZA_NOW: fixed, CLOCK_STARTED_MS: sinceMs = startedMs } = environment();
  return fixed ? new Date(Date.parse(fixed) + Date.now() - sinceMs) : new Date();
}

/** Today's date in a zone, YYYY-MM-DD. */
export function localDate(zone: string, at: Date = now()): LocalDate {
  return dateAt(zone, at);
}
