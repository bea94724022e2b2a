import { dateAt, type LocalDate } from "../../core/units/time";
import { environment } from "./env.server";

const startedAt = Date.now();

/** Now. Where SPREZZA_NOW is set (tests, pictures), the clock starts there and runs on. */
export function now(): Date {
  const fixed = environment().SPREZZA_NOW;
  return fixed ? new Date(Date.parse(fixed) + Date.now() - startedAt) : new Date();
}

/** Today's date in a zone, YYYY-MM-DD. */
export function localDate(zone: string, at: Date = now()): LocalDate {
  return dateAt(zone, at);
}
