/**
 * Mass, kept exactly.
 *
 * A mass is counted in whole *grains* of 10⁻¹¹ kg. One kilogram is 10¹¹ grains and one pound,
 * 0.45359237 kg by definition (international yard and pound agreement, 1959), is 45 359 237 000
 * grains; so any amount with up to three decimals is a whole number in either unit, and a bar
 * with kilogram and pound plates adds up without rounding. Whole numbers stay exact up to
 * 90 000 kg (2⁵³ grains).
 */
export type MassUnit = "kg" | "lb";

/** A mass as a person wrote it: 225 lb stays 225 lb for ever. */
export interface Mass {
  amount: number;
  unit: MassUnit;
}

/** Whole number of 10⁻¹¹ kg. */
export type Grains = number;

export const GRAINS_PER_KG = 100_000_000_000;
export const GRAINS_PER_LB = 45_359_237_000;

/** Exact grains of a mass with at most three decimals. */
export function grains(mass: Mass): Grains {
  const perUnit = mass.unit === "kg" ? GRAINS_PER_KG : GRAINS_PER_LB;
  return Math.round(mass.amount * 1000) * (perUnit / 1000);
}

export function kgToGrains(kg: number): Grains {
  return Math.round(kg * GRAINS_PER_KG);
}

export function grainsToKg(amount: Grains): number {
  return amount / GRAINS_PER_KG;
}

export function massKg(mass: Mass): number {
  return grainsToKg(grains(mass));
}

/** The same mass in another unit, for display. */
export function massIn(amount: Grains, unit: MassUnit): number {
  return unit === "kg" ? amount / GRAINS_PER_KG : amount / GRAINS_PER_LB;
}

export type MassReading =
  | { ok: true; mass: Mass }
  | {
      ok: false;
      reason: "empty" | "not-a-number" | "too-many-decimals" | "negative" | "thousands";
    };

/**
 * Reads what a coach types: "82.5", "82,5", "225 lb", "100kg". A bare number takes the unit of
 * the field. Amounts with more than three decimals are refused, since they would be rounded; so is
 * "1,250", which may be a thousand and more or one and a quarter.
 */
export function readMass(text: string, fieldUnit: MassUnit): MassReading {
  const trimmed = text.trim();
  if (trimmed === "") return { ok: false, reason: "empty" };
  const match = /^(-?)(\d+)(?:[.,](\d+))?\s*(kg|kgs|lb|lbs)?$/i.exec(trimmed);
  if (!match) return { ok: false, reason: "not-a-number" };
  if (match[1] === "-") return { ok: false, reason: "negative" };
  const decimals = match[3] ?? "";
  if (/^[1-9],\d{3}(\D|$)/.test(trimmed)) return { ok: false, reason: "thousands" };
  if (decimals.length > 3) return { ok: false, reason: "too-many-decimals" };
  const unit = match[4]?.toLowerCase().startsWith("lb")
    ? "lb"
    : match[4]?.toLowerCase().startsWith("kg")
      ? "kg"
      : fieldUnit;
  return { ok: true, mass: { amount: Number(`${match[2]}.${decimals || "0"}`), unit } };
}

/** What stands where there is no number: an overflow is no figure either. */
export const NO_NUMBER = "–";

/** Shortest plain form with at most `decimals` decimals: 72.5, 60, 26.25. */
export function plainNumber(value: number, decimals = 2): string {
  if (!Number.isFinite(value)) return NO_NUMBER;
  const rounded = Number(value.toFixed(decimals));
  return Object.is(rounded, -0) ? "0" : String(rounded);
}

export function formatMass(mass: Mass): string {
  return `${plainNumber(mass.amount, 3)} ${mass.unit}`;
}

/** A mass in kilograms written in the reader's unit. */
export function formatKg(kg: number, unit: MassUnit, decimals = 2): string {
  return `${plainNumber(massIn(kgToGrains(kg), unit), decimals)} ${unit}`;
}
