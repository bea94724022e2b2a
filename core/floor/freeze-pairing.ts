import type { Complex } from "../contrast/complex";
import type { RunSettings } from "../contrast/run";
import type { LocalDate } from "../units/time";
import { CORE_VERSION, type FrozenPairingAthlete, type FrozenSession } from "./frozen";

/** The slot of a session that is a pairing alone. */
export const PAIRING_SLOT = "pairing";

/**
 * A pairing as it goes to the floor by itself: one slot at one place. Who does it, on what, and
 * what it goes by do not change again.
 */
export function freezePairing(input: {
  complex: Complex;
  settings: RunSettings;
  athletes: readonly FrozenPairingAthlete[];
  /** The place's id and name. */
  place: { id: string; name: string };
  date: LocalDate;
  zone: string;
}): FrozenSession {
  const { complex, settings, place } = input;
  return {
    coreVersion: CORE_VERSION,
    planVersion: 0,
    title: complex.name,
    date: input.date,
    zone: input.zone,
    roomName: "",
    cautions: [],
    stations: [{ kind: "place", ...place }],
    slots: [
      {
        kind: "pairing",
        slotId: PAIRING_SLOT,
        complex,
        settings,
        groups: [{ stationId: place.id, athletes: [...input.athletes] }],
      },
    ],
  };
}
