import { readDecimal } from "./decimal";

export type LengthUnit = "mm" | "cm" | "m";

/** Metres in one of each unit a person may write; inch and foot by the 1959 agreement. */
const METRES = { mm: 0.001, cm: 0.01, m: 1, in: 0.0254, ft: 0.3048 } as const;

export type LengthReading =
  | { ok: true; value: number }
  | { ok: false; reason: "empty" | "not-a-number" };

/**
 * Reads a length as a coach writes it: "41 cm", "16 in", "1,5". A bare number takes the unit of
 * the field; the value comes back in that unit, to 0.01 of it for what was converted.
 */
export function readLength(text: string, fieldUnit: LengthUnit): LengthReading {
  const match = /^(.*?)\s*(mm|cm|m|in|ft|")?$/i.exec(text.trim());
  const reading = readDecimal(match?.[1] ?? "");
  if (!reading.ok) return reading;
  const written = (match?.[2]?.toLowerCase() ?? fieldUnit).replace(
    '"',
    "in",
  ) as keyof typeof METRES;
  if (written === fieldUnit) return reading;
  const value = (reading.value * METRES[written]) / METRES[fieldUnit];
  const decimals = fieldUnit === "m" ? 4 : 2;
  return { ok: true, value: Number(value.toFixed(decimals)) };
}
