import { readDecimal } from "./decimal";

export type LengthUnit = "mm" | "cm" | "m";

/** Metres in one of each unit a person may write; inch, foot and yard by the 1959 agreement. */
const METRES = { mm: 0.001, cm: 0.01, m: 1, in: 0.0254, ft: 0.3048, yd: 0.9144 } as const;

/** A number with a unit behind it, for texts that hold several: "17.5 in 44 cm". */
const APART = /(\d)\s+(mm|cm|m|in|ft|yd|kg|kgs|lb|lbs)(?![\w])/gi;

/** A text of several amounts with each amount's unit drawn up to its number. */
export const drawnTogether = (text: string): string => text.replace(APART, "$1$2");

export type LengthReading =
  | { ok: true; value: number }
  | { ok: false; reason: "empty" | "not-a-number" };

/**
 * Reads a length as a coach writes it: "41 cm", "16in", "5 ft 10", "15 yd", "1,5". A bare number
 * takes the unit of the field; the value comes back in that unit, to 0.01 of it for what was
 * converted.
 */
export function readLength(text: string, fieldUnit: LengthUnit): LengthReading {
  const feet = /^(\d+)\s*(?:ft|')\s*(\d+(?:[.,]\d+)?)\s*(?:in|"|'')?$/i.exec(text.trim());
  if (feet) {
    const inches = 12 * Number(feet[1]) + Number((feet[2] ?? "").replace(",", "."));
    return inField(inches, "in", fieldUnit);
  }
  const match = /^(.*?)\s*(mm|cm|m|in|ft|yd|"|')?$/i.exec(text.trim());
  const reading = readDecimal(match?.[1] ?? "");
  if (!reading.ok) return reading;
  const written = (match?.[2]?.toLowerCase() ?? fieldUnit)
    .replace('"', "in")
    .replace("'", "ft") as keyof typeof METRES;
  return written === fieldUnit ? reading : inField(reading.value, written, fieldUnit);
}

function inField(value: number, written: keyof typeof METRES, fieldUnit: LengthUnit) {
  const converted = (value * METRES[written]) / METRES[fieldUnit];
  return { ok: true as const, value: Number(converted.toFixed(fieldUnit === "m" ? 4 : 2)) };
}
