import { Temporal } from "temporal-polyfill";
import { environment } from "./env.server";

/** Now; a fixed moment (that does not run) where SPREZZA_NOW is set. */
export function now(): Date {
  const fixed = environment().SPREZZA_NOW;
  return fixed ? new Date(fixed) : new Date();
}

/** Today's date in a zone, YYYY-MM-DD. */
export function localDate(zone: string, at: Date = now()): string {
  return Temporal.Instant.fromEpochMilliseconds(at.getTime())
    .toZonedDateTimeISO(zone)
    .toPlainDate()
    .toString();
}
