import type { Pattern } from "../exercise/exercise";
import type { PlaceKind } from "../gear/kinds";
import type { PlaceStation } from "./freeze-exercise";

/** A place of a room. */
export interface RoomPlace extends PlaceStation {
  of: PlaceKind;
}

const BY_PATTERN: Partial<Record<Pattern, PlaceKind>> = {
  throw: "wall",
  jump: "strip",
  sprint: "lane",
  carry: "lane",
};

/** The kind of place that a movement is done at, where the plan names none. */
export const placeOfPattern = (pattern: Pattern): PlaceKind => BY_PATTERN[pattern] ?? "corner";

/** Of a room in which nobody described a place: everything without a bar is done on its floor. */
export const OPEN_FLOOR = "Open floor";

/**
 * The places for a kind: those of the kind, else the open floor, else whatever the room has, else
 * the room's own floor.
 * @param roomId stands for the floor of a room that has no place
 */
export function placesFor(
  kind: PlaceKind,
  places: readonly RoomPlace[],
  roomId: string,
): PlaceStation[] {
  for (const wanted of [kind, "open floor", "corner"] as const) {
    const found = places.filter((place) => place.of === wanted);
    if (found.length > 0) return found.map(({ of: _, ...station }) => station);
  }
  return [{ kind: "place", id: roomId, name: OPEN_FLOOR }];
}
