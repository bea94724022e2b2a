import { type Mass, readMass } from "../../core/units/mass";

const MASS_WORDS = {
  empty: "Write the load, for example 120 or 225 lb.",
  "not-a-number": "That is not a load. Write 120, 120 kg or 225 lb.",
  "too-many-decimals": "Three decimals at most.",
  negative: "A load is over 0.",
  thousands: "A thousand, or a decimal comma? Write 1250 or 1.25.",
};

/** A load that is typed: over 0, at most 1500 of its unit. Pages read it without the forms' own rules. */
export function loadIn(text: string): { ok: true; mass: Mass } | { ok: false; message: string } {
  const reading = readMass(text, "kg");
  if (!reading.ok) return { ok: false, message: MASS_WORDS[reading.reason] };
  const { mass } = reading;
  if (mass.amount === 0) return { ok: false, message: MASS_WORDS.negative };
  if (mass.amount > 1500)
    return { ok: false, message: "Over 1500: check the number and its unit." };
  return { ok: true, mass };
}
