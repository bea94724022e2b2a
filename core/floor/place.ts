import type { EntryBody } from "./entries";
import type { LineEntry } from "./line";

/** Where an athlete is in a slot: by the last word on it, else where the slot began. */
export interface Standing {
  /** Undefined for who was not here and has not come in. */
  stationId: string | undefined;
  /** Does no more of the slot. */
  off: boolean;
  /** Turn at the station where somebody set it; else as they came. */
  turn: number | undefined;
}

/** @param homeId where the slot began for the athlete; empty for who was not here */
export function standingOf(homeId: string, line: readonly LineEntry<EntryBody>[]): Standing {
  let stationId = homeId === "" ? undefined : homeId;
  let off = false;
  let turn: number | undefined;
  for (const { body } of line) {
    if (body.kind === "move") {
      ({ stationId, turn } = body);
      off = false;
    } else if (body.kind === "off") off = true;
  }
  return { stationId, off, turn };
}
