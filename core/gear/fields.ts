import type { PlateStock } from "../barload/loading-gear";
import { BAND_WORDS, bandCurve, type Reading } from "../resistance/setup";
import { readDecimal } from "../units/decimal";
import { drawnTogether, readLength } from "../units/length";
import { formatMass, type Mass, type MassUnit, massKg, plainNumber, readMass } from "../units/mass";
import { type FieldSpec, GEAR, type GearItem, type GearKind } from "./kinds";

/** One fact about a piece, read. */
export type GearValue = string | number | boolean | Mass | number[] | PlateStock[] | Reading[];

export type GearValues = Record<string, GearValue | undefined>;

export type FieldReading = { ok: true; value: GearValue | undefined } | { ok: false; text: string };

const wrong = (text: string): FieldReading => ({ ok: false, text });
const right = (value: GearValue | undefined): FieldReading => ({ ok: true, value });

/** Most pairs of one plate, and most pieces of one kind, that are not a slip of the pen. */
export const MOST_PIECES = 60;
/** Heaviest single plate, kg. */
export const HEAVIEST_PLATE_KG = 50;

/** Across a plate's rim, mm: from the smallest change plate to more than any full-size one. */
export const PLATE_ACROSS_MM = { least: 80, most: 600 } as const;

/**
 * Thickness of a plate of which only the mass is known, mm: 12 + 1.4 for each kilogram, at most
 * 55. It only decides what fits on the sleeve, and is marked as estimated by being left out.
 */
export function plateThicknessMm(mass: Mass): number {
  return Math.min(55, Math.round(12 + 1.4 * massKg(mass)));
}

/**
 * "25x2 20x2 1.25 45lb x2": a mass, then how many pairs; one pair where nothing is said. After an @
 * its thickness, after a / how far it is across, both in mm: "25x2@45/450".
 */
export function readPlates(
  text: string,
  unit: MassUnit,
): { ok: true; plates: PlateStock[] } | { ok: false; text: string } {
  const parts = text
    .replace(/\s*[x×*]\s*(?=\d)/gi, "x")
    .replace(/(\d)\s+(kg|lb|lbs|mm)\b/gi, "$1$2")
    .replace(/\s*\/\s*(?=\d)/g, "/")
    .split(/[\s;]+/)
    .filter((part) => part !== "");
  const plates: PlateStock[] = [];
  for (const part of parts) {
    const match =
      /^([\d.,]+(?:kg|lbs?)?)(?:x(\d+))?(?:@([\d.,]+)(?:mm)?)?(?:\/([\d.,]+)(?:mm)?)?$/i.exec(
        part.replace(/,$/, ""),
      );
    const mass = readMass(match?.[1] ?? "", unit);
    if (!match || !mass.ok)
      return { ok: false, text: `"${part}" is no plate: write 25x2 or 45lb x2.` };
    if (mass.mass.amount <= 0) return { ok: false, text: `"${part}": a plate weighs something.` };
    if (massKg(mass.mass) > HEAVIEST_PLATE_KG) {
      return {
        ok: false,
        text: `"${part}": one plate of ${formatMass(mass.mass)}? The heaviest is ${HEAVIEST_PLATE_KG} kg; pairs go after the x.`,
      };
    }
    const pairs = Number(match[2] ?? "1");
    if (pairs > MOST_PIECES) return { ok: false, text: `"${part}": at most ${MOST_PIECES} pairs.` };
    const thickness = match[3] ? Number(match[3].replace(",", ".")) : plateThicknessMm(mass.mass);
    const across = match[4] ? Number(match[4].replace(",", ".")) : undefined;
    const { least, most } = PLATE_ACROSS_MM;
    if (across !== undefined && !(across >= least && across <= most))
      return { ok: false, text: `"${part}": a plate is ${least} to ${most} mm across.` };
    const same = plates.find(
      (one) => one.mass.amount === mass.mass.amount && one.mass.unit === mass.mass.unit,
    );
    if (same) {
      same.pairs += pairs;
      // Of one mass the largest counts: it is the rim that a camera sees.
      if (across !== undefined) same.diameterMm = Math.max(across, same.diameterMm ?? 0);
    } else
      plates.push({
        mass: mass.mass,
        pairs,
        thicknessMm: thickness,
        ...(across === undefined ? {} : { diameterMm: across }),
      });
  }
  return { ok: true, plates };
}

/** "0.7 4, 40 in 9 lb": length (metres where none is said) and pull of each reading. */
function readReadings(text: string, unit: MassUnit): FieldReading {
  const parts = drawnTogether(text)
    .split(/[\s;]+|,(?=\s)/)
    .filter((part) => part !== "");
  const values: number[] = [];
  for (const part of parts) {
    // Lengths and pulls take turns.
    if (values.length % 2 === 0) {
      const length = readLength(part, "m");
      if (!length.ok) return wrong(`"${part}" is not a length, for example 0.7 or 28 in.`);
      values.push(length.value);
    } else {
      const pull = readMass(part, unit);
      if (!pull.ok) return wrong(`"${part}" is not a pull, for example 9 kg or 20 lb.`);
      values.push(massKg(pull.mass));
    }
  }
  if (values.length % 2 === 1) return wrong("The last length has no pull beside it.");
  const readings: Reading[] = [];
  for (let i = 0; i < values.length; i += 2) {
    readings.push({ lengthM: values[i] as number, tensionKg: values[i + 1] as number });
  }
  readings.sort((a, b) => a.lengthM - b.lengthM);
  const curve = bandCurve({ readings, restM: 0 });
  return curve.ok ? right(readings) : wrong(BAND_WORDS[curve.reason]);
}

/** What is possible, and which other unit would make sense of what was written. */
function outOfRange(spec: { low: number; high: number; unit: string }, value: number): string {
  const inUnit = (one: number) => `${plainNumber(one, 3)} ${spec.unit}`.trim();
  const range = `Between ${plainNumber(spec.low, 2)} and ${inUnit(spec.high)}.`;
  const hundredth = value / 100;
  if (spec.unit === "m" && hundredth >= spec.low && hundredth <= spec.high) {
    return `${inUnit(value)} is out of reach. ${range} Was it ${plainNumber(value)} cm? Then write ${plainNumber(value)} cm.`;
  }
  const asMm = value / 10;
  if (spec.unit === "cm" && value > spec.high && asMm >= spec.low && asMm <= spec.high) {
    return `${inUnit(value)} is out of reach. ${range} Was it ${plainNumber(value)} mm? Then write ${plainNumber(value)} mm.`;
  }
  return `${inUnit(value)} is out of reach. ${range}`;
}

/** Reads one fact as it was written; an empty optional one is undefined. */
export function readGearField(spec: FieldSpec, text: string, unit: MassUnit = "kg"): FieldReading {
  const trimmed = text.trim();
  if (spec.type === "yes") return right(/^(yes|on|true|1|x)$/i.test(trimmed));
  if (trimmed === "") {
    return spec.optional || spec.type === "plates"
      ? right(spec.type === "plates" ? [] : undefined)
      : wrong(`${spec.label}: write something here.`);
  }
  switch (spec.type) {
    case "text":
      if (trimmed.length < (spec.least ?? 1)) return wrong(`${spec.label}: a few more words.`);
      return right(trimmed.slice(0, 200));
    case "choice":
      return spec.choices.includes(trimmed.toLowerCase())
        ? right(trimmed.toLowerCase())
        : wrong(`${spec.label}: one of ${spec.choices.join(", ")}.`);
    case "date":
      return /^\d{4}-\d{2}-\d{2}$/.test(trimmed) && !Number.isNaN(Date.parse(trimmed))
        ? right(trimmed)
        : wrong("A date, for example 2027-06-01.");
    case "mass": {
      const mass = readMass(trimmed, unit);
      if (!mass.ok) {
        return wrong(
          mass.reason === "negative"
            ? `${spec.label}: not under 0.`
            : `${spec.label}: a mass, for example 20 kg or 45 lb.`,
        );
      }
      return massKg(mass.mass) > 1000
        ? wrong(`${formatMass(mass.mass)} is out of reach: at most 1000 kg.`)
        : right(mass.mass);
    }
    case "number": {
      const reading = readDecimal(trimmed.replace(/\s*(kg\/m|hz)$/i, ""));
      if (!reading.ok) return wrong(`"${trimmed}" is not a number.`);
      return reading.value < spec.low || reading.value > spec.high
        ? wrong(outOfRange(spec, reading.value))
        : right(reading.value);
    }
    case "length": {
      const reading = readLength(trimmed, spec.unit);
      if (!reading.ok) return wrong(`"${trimmed}" is not a length.`);
      return reading.value < spec.low || reading.value > spec.high
        ? wrong(outOfRange(spec, reading.value))
        : right(reading.value);
    }
    case "lengths": {
      const values: number[] = [];
      for (const part of drawnTogether(trimmed)
        .split(/[\s;]+|,(?=\s)/)
        .filter((one) => one !== "")) {
        const reading = readLength(part, spec.unit);
        if (!reading.ok) return wrong(`"${part}" is not a length.`);
        if (reading.value < spec.low || reading.value > spec.high) {
          return wrong(outOfRange(spec, reading.value));
        }
        values.push(reading.value);
      }
      return right([...new Set(values)].sort((a, b) => a - b));
    }
    case "plates": {
      const read = readPlates(trimmed, unit);
      return read.ok ? right(read.plates) : wrong(read.text);
    }
    case "readings":
      return readReadings(trimmed, unit);
  }
}

/**
 * A fact as it would be written: read back in the same unit, it is the same.
 * @param unit of who reads it: a bare number of theirs is in it, so others carry their own
 */
export function writeGearField(
  spec: FieldSpec,
  value: GearValue | undefined,
  unit: MassUnit = "kg",
): string {
  if (value === undefined) return "";
  switch (spec.type) {
    case "yes":
      return value === true ? "yes" : "no";
    case "mass":
      return formatMass(value as Mass);
    case "length":
      return `${plainNumber(value as number, 4)} ${spec.unit}`;
    case "lengths":
      return (value as number[]).map((one) => plainNumber(one, 2)).join(" ");
    case "plates":
      return (value as PlateStock[])
        .map((one) => {
          const own = one.thicknessMm === plateThicknessMm(one.mass) ? "" : `@${one.thicknessMm}`;
          const mark = one.mass.unit === "lb" || unit === "lb" ? one.mass.unit : "";
          const across = one.diameterMm === undefined ? "" : `/${plainNumber(one.diameterMm, 1)}`;
          return `${plainNumber(one.mass.amount, 3)}${mark}x${one.pairs}${own}${across}`;
        })
        .join(" ");
    case "readings":
      return (value as Reading[])
        .map(
          (one) =>
            `${plainNumber(one.lengthM, 3)} ${plainNumber(one.tensionKg, 2)}${unit === "lb" ? "kg" : ""}`,
        )
        .join(", ");
    case "number":
      return plainNumber(value as number, 3);
    default:
      return String(value);
  }
}

/** A piece as a person writes it: in a form, a table or a file. */
export interface WrittenItem {
  kind: GearKind;
  name: string;
  count: string;
  fields: Record<string, string>;
}

export type ItemReading =
  | { ok: true; item: GearItem }
  | { ok: false; problems: Record<string, string> };

/** Reads a written piece; every wrong field gets its sentence. */
export function readGearItem(written: WrittenItem, unit: MassUnit = "kg"): ItemReading {
  const problems: Record<string, string> = {};
  const values: GearValues = {};
  const spec = GEAR[written.kind];
  const name = written.name.trim();
  if (name === "") problems.name = "Give it a name that the room knows it by.";
  if (written.kind === "rack" && !/^\d{1,2}$/.test(name)) {
    problems.name = "A rack has a number, 1 to 99.";
  }
  const count = spec.count === undefined ? 1 : Number(written.count.trim() || "1");
  if (!Number.isInteger(count) || count < 1 || count > MOST_PIECES) {
    problems.count = `A whole number, 1 to ${MOST_PIECES}.`;
  }
  for (const field of spec.fields) {
    const reading = readGearField(field, written.fields[field.name] ?? "", unit);
    if (!reading.ok) problems[field.name] = reading.text;
    else if (reading.value !== undefined) values[field.name] = reading.value;
  }
  const bar = values as { mass?: Mass; rated?: Mass };
  if (written.kind === "bar" && bar.mass && bar.rated) {
    if (massKg(bar.mass) <= 0) problems.mass = "A bar weighs something.";
    if (massKg(bar.rated) <= massKg(bar.mass)) {
      problems.rated = "What a bar holds is counted with itself: more than it weighs.";
    }
  }
  return Object.keys(problems).length > 0
    ? { ok: false, problems }
    : // Every field was read by the kind's own spec, from which the type of its values is made.
      { ok: true, item: { kind: written.kind, name, count, values } as GearItem };
}

/** A piece as it would be written. */
export function writeGearItem(item: GearItem, unit: MassUnit = "kg"): WrittenItem {
  const values: GearValues = item.values;
  return {
    kind: item.kind,
    name: item.name,
    count: String(item.count),
    fields: Object.fromEntries(
      GEAR[item.kind].fields
        .map((field) => [field.name, writeGearField(field, values[field.name], unit)] as const)
        .filter(([, text]) => text !== ""),
    ),
  };
}
