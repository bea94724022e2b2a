import { readDecimal } from "../../../../core/units/decimal";
import { readLength } from "../../../../core/units/length";
import {
  formatKg,
  type MassUnit,
  massKg,
  plainNumber,
  readMass,
} from "../../../../core/units/mass";
import type { useAddress } from "../../../ui/use-address";
import type { BenchFacts, readBench } from "../../../workflows/lab/read-bench.server";

export type Bench = Awaited<ReturnType<typeof readBench>>;
export type BenchRack = Bench["racks"][number];
export type { BenchFacts };

/** What every tool of the bench gets: the address that is its state, the team's gear, the unit. */
export interface ToolProps {
  address: ReturnType<typeof useAddress>;
  bench: Bench;
  unit: MassUnit;
}

/** How a field's text is read. A mass without a unit in the address is in kilograms. */
export type FieldKind = "number" | "mass" | "m" | "cm";

/** A text as a number: kilograms for a mass, the field's own unit for a length. */
export function readAs(kind: FieldKind, text: string): number | undefined {
  if (kind === "mass") {
    const mass = readMass(text, "kg");
    return mass.ok ? massKg(mass.mass) : undefined;
  }
  const reading = kind === "number" ? readDecimal(text) : readLength(text, kind);
  return reading.ok ? reading.value : undefined;
}

/** A number from the address; the default where it holds none, undefined where it is no number. */
export function valueAt(
  { get }: ToolProps["address"],
  name: string,
  start: number | undefined,
  kind: FieldKind = "number",
): number | undefined {
  const text = get(name);
  return text === "" ? start : readAs(kind, text);
}

/** What a field shows before anything is written: a mass in the reader's unit. */
export function startText(kind: FieldKind, start: number | undefined, unit: MassUnit): string {
  if (start === undefined) return "";
  return kind === "mass" && unit === "lb" ? formatKg(start, "lb", 1) : plainNumber(start, 3);
}

/**
 * What the address keeps of a typed text: a bare number from somebody who reads pounds gets its
 * unit, so that the address says the same to everybody.
 */
export function addressText(kind: FieldKind, text: string, unit: MassUnit): string {
  return kind === "mass" && unit === "lb" && /^\d+([.,]\d*)?$/.test(text.trim())
    ? `${text.trim()} lb`
    : text;
}

/** Numbers with blanks or semicolons between. */
export function numbersOf(text: string): { values: number[]; wrong: string[] } {
  const parts = text.split(/[\s;]+/).filter((part) => part !== "");
  const readings = parts.map((part) => readDecimal(part));
  return {
    values: readings.flatMap((one) => (one.ok ? [one.value] : [])),
    wrong: parts.filter((_, i) => !readings[i]?.ok),
  };
}

/** "40 1.21 60 0.99": load and speed of each point. */
export function pointsOf(text: string): Array<{ id: string; loadKg: number; velocityMps: number }> {
  const all = numbersOf(text).values;
  return all.flatMap((loadKg, i) => {
    const velocityMps = all[i + 1];
    return i % 2 === 0 && velocityMps !== undefined ? [{ id: String(i), loadKg, velocityMps }] : [];
  });
}

/** What is wrong with a list of points, in words. */
export function pointsProblem(text: string): string | undefined {
  const { values, wrong } = numbersOf(text);
  if (wrong[0]) return `"${wrong[0]}" is not a number.`;
  return values.length % 2 === 1 ? "The last load has no speed." : undefined;
}
