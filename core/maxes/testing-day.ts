import { plainName } from "../reading/names";
import { readDecimal } from "../units/decimal";
import { formatKg, type Mass, type MassUnit, massKg, readMass } from "../units/mass";
import { daysBetween, isDate, type LocalDate } from "../units/time";
import { type LiftQuestion, liftKey, liftNamed } from "./lift-names";
import { LARGE_JUMP_SHARE } from "./records";
import { estimateRepMax } from "./rep-max";

/** What a cell of a pasted testing day became. */
export type DayEntry =
  | {
      kind: "record";
      variantId: string;
      load: Mass;
      /** A single, or an estimate from a set to near failure. */
      record: "tested" | "rep-max-estimate";
      note: string;
      /** Something to look at twice; it does not stop the line. */
      look: string | undefined;
    }
  | { kind: "body-mass"; mass: Mass }
  | { kind: "result"; testId: string; side: "" | "left" | "right"; trials: number[] };

export interface DayLine {
  line: number;
  athleteName: string;
  athleteId: string | undefined;
  /** Undefined where what stands there is no date; a problem then says so. */
  date: LocalDate | undefined;
  entries: Array<{ column: string; text: string; entry: DayEntry }>;
  problems: string[];
}

export interface TestingDay {
  /** Lift names that may be several lifts: asked once each, for all their lines. */
  questions: LiftQuestion[];
  /** What each column was read as; undefined for one that is not known. */
  columns: Array<{ title: string; as: string | undefined }>;
  lines: DayLine[];
  problems: string[];
  entries: number;
}

export interface DayContext {
  today: LocalDate;
  /** The day of lines that name none. */
  date: LocalDate;
  unit: MassUnit;
  athletes: ReadonlyArray<{ id: string; name: string }>;
  variants: ReadonlyArray<{ id: string; name: string }>;
  tests: ReadonlyArray<{ id: string; name: string; sides: boolean }>;
  /** What somebody said of an ambiguous lift: variant ids by `liftKey`. */
  lifts: Readonly<Record<string, string>>;
  /** The last record of an athlete's lift, kg. */
  lastKg: (athleteId: string, variantId: string) => number | undefined;
}

type Column =
  | { kind: "athlete" | "date" | "body-mass" | "lift" | "load" }
  /** A lift that may be several: waits for an answer. */
  | { kind: "ambiguous"; name: string }
  | { kind: "record"; variantId: string; name: string }
  | { kind: "result"; testId: string; side: "" | "left" | "right"; name: string };

/**
 * Reads a pasted testing day: a header, then one line an athlete. A column is the athlete, the
 * date, the body mass, a lift by its name (or words that only one has), or a test; or the lines
 * name lift and load themselves, one record each. A name that fits several lifts is asked. A
 * lift's cell is a single ("92.5", "205 lb") or a set ("85 x 3", load times reps), a test's cell
 * its trials. Empty cells are left out; everything else is an entry or a problem, never dropped.
 */
export function readTestingDay(
  rows: readonly (readonly string[])[],
  context: DayContext,
): TestingDay {
  const header = rows[0] ?? [];
  const columns = header.map((title) => columnOf(title, context));
  const problems: string[] = [];
  const questions = new Map<string, LiftQuestion>();
  const ask = (text: string) => {
    const named = liftNamed(text, context.variants, context.lifts);
    if (named.is !== "several") return;
    const choices = named.variants.map(({ id, name }) => ({ id, name }));
    questions.set(liftKey(text), { text: text.trim(), key: liftKey(text), choices });
  };
  header.forEach((title, i) => {
    if (columns[i]?.kind === "ambiguous") ask(title);
  });
  const long = columns.some((column) => column?.kind === "lift");
  if (long !== columns.some((column) => column?.kind === "load")) {
    problems.push('A column "Lift" and a column "Load" belong together: one is missing.');
  }
  if (!columns.some((column) => column?.kind === "athlete")) {
    problems.push('No column is called "Athlete". The first line names the columns.');
  }
  header.forEach((title, i) => {
    if (columns[i] === undefined && title.trim() !== "") {
      problems.push(`Column "${title.trim()}" is no lift, test, body mass or date of this team.`);
    }
  });
  const seen = new Map<string, number>();
  const lines = rows.slice(1).flatMap((cells, i): DayLine[] => {
    if (cells.every((cell) => cell.trim() === "")) return [];
    const liftAt = columns.findIndex((column) => column?.kind === "lift");
    if (liftAt >= 0) ask(cells[liftAt] ?? "");
    return [readLine(cells, i + 2, columns, header, context, seen)];
  });
  if (lines.length === 0) problems.push("No line under the header.");
  return {
    questions: [...questions.values()],
    columns: header.map((title, i) => ({ title, as: describeColumn(columns[i]) })),
    lines,
    problems,
    entries: lines.reduce((sum, line) => sum + line.entries.length, 0),
  };
}

function describeColumn(column: Column | undefined): string | undefined {
  if (column === undefined) return undefined;
  if ("name" in column)
    return "side" in column && column.side ? `${column.name}, ${column.side}` : column.name;
  return {
    athlete: "athlete",
    date: "date",
    "body-mass": "body mass",
    lift: "lift",
    load: "load",
  }[column.kind];
}

function columnOf(title: string, context: DayContext): Column | undefined {
  const plain = plainName(title);
  if (plain === "") return undefined;
  if (["athlete", "name", "lifter"].includes(plain)) return { kind: "athlete" };
  if (plain === "date") return { kind: "date" };
  if (["body mass", "bodymass", "body weight", "bodyweight", "bw"].includes(plain)) {
    return { kind: "body-mass" };
  }
  const side = / left$/.test(plain) ? "left" : / right$/.test(plain) ? "right" : "";
  const bare = side ? plain.replace(/[, ]+(left|right)$/, "") : plain;
  const test = context.tests.find((one) => plainName(one.name) === bare);
  if (test && test.sides === (side !== "")) {
    return { kind: "result", testId: test.id, side, name: test.name };
  }
  if (["lift", "exercise"].includes(plain)) return { kind: "lift" };
  if (["load", "max", "1rm", "weight", "kg"].includes(plain)) return { kind: "load" };
  const named = liftNamed(title, context.variants, context.lifts);
  if (named.is === "several") return { kind: "ambiguous", name: title.trim() };
  return named.is === "one"
    ? { kind: "record", variantId: named.variant.id, name: named.variant.name }
    : undefined;
}

function readLine(
  cells: readonly string[],
  line: number,
  columns: ReadonlyArray<Column | undefined>,
  header: readonly string[],
  context: DayContext,
  seen: Map<string, number>,
): DayLine {
  const problems: string[] = [];
  const at = (kind: Column["kind"]) => columns.findIndex((column) => column?.kind === kind);
  const athleteName = (cells[at("athlete")] ?? "").trim();
  const athleteId = context.athletes.find(
    (one) => plainName(one.name) === plainName(athleteName),
  )?.id;
  if (athleteName === "") problems.push("No athlete.");
  else if (!athleteId) problems.push(`No athlete "${athleteName}" in this team.`);
  const written = (cells[at("date")] ?? "").trim();
  const date = written === "" ? context.date : isDate(written) ? written : undefined;
  if (date === undefined) problems.push(`Date "${written}" is not written year-month-day.`);
  else if (daysBetween(context.today, date) > 0) problems.push(`Date ${date} is still to come.`);
  const liftText = (cells[at("lift")] ?? "").trim();
  const named = liftNamed(liftText, context.variants, context.lifts);
  if (athleteId) {
    const key = `${athleteId}/${date ?? written}/${liftKey(liftText)}`;
    const before = seen.get(key);
    if (before !== undefined)
      problems.push(
        liftText === ""
          ? `${athleteName} stands on line ${before} already.`
          : `${athleteName} has ${liftText} on line ${before} already.`,
      );
    else seen.set(key, line);
  }
  if (at("lift") >= 0) {
    if (liftText === "") problems.push("No lift.");
    else if (named.is === "none") problems.push(`"${liftText}" is no lift of this team.`);
  }

  const entries: DayLine["entries"] = [];
  cells.forEach((cell, i) => {
    const text = cell.trim();
    const column = columns[i];
    const title = (header[i] ?? "").trim();
    if (text === "" || column?.kind === "athlete" || column?.kind === "date") return;
    if (column?.kind === "lift" || column?.kind === "ambiguous") return;
    if (column?.kind === "load") {
      if (named.is !== "one") return;
      const { id, name } = named.variant;
      const entry = readCell(text, { kind: "record", variantId: id, name }, athleteId, context);
      if (typeof entry === "string") problems.push(`${name}: ${entry}`);
      else entries.push({ column: name, text, entry });
      return;
    }
    if (column === undefined) {
      if (i >= header.length) problems.push(`"${text}" stands under no column.`);
      return;
    }
    const entry = readCell(text, column, athleteId, context);
    if (typeof entry === "string") problems.push(`${title}: ${entry}`);
    else entries.push({ column: title, text, entry });
  });
  const waits = named.is === "several" || columns.some((column) => column?.kind === "ambiguous");
  if (entries.length === 0 && problems.length === 0 && !waits)
    problems.push("No value on this line.");
  return { line, athleteName, athleteId, date, entries, problems };
}

const MOST_KG = 1000;

function readCell(
  text: string,
  column: Column,
  athleteId: string | undefined,
  context: DayContext,
): DayEntry | string {
  if (column.kind === "result") {
    const trials = text.split(/[\s;/]+/).map((part) => readDecimal(part));
    const values = trials.flatMap((one) => (one.ok ? [one.value] : []));
    if (values.length !== trials.length || values.some((value) => value <= 0)) {
      return `"${text}" are not trials over 0, with blanks between.`;
    }
    return { kind: "result", testId: column.testId, side: column.side, trials: values };
  }
  if (column.kind !== "record") {
    const reading = readMass(text, context.unit);
    const kg = reading.ok ? massKg(reading.mass) : 0;
    if (!reading.ok || kg < 20 || kg > 300) return `"${text}" is no body mass.`;
    return { kind: "body-mass", mass: reading.mass };
  }
  const set = /^(.+?)\s*[x×*]\s*(\d+)$/i.exec(text);
  const reading = readMass(set?.[1] ?? text, context.unit);
  if (!reading.ok) return `"${text}" is no load. Write 92.5, 205 lb, or a set as 85 x 3.`;
  const kg = massKg(reading.mass);
  if (kg <= 0) return "0 is no load: the bar itself has a mass.";
  if (kg > MOST_KG) return `${text} is over ${MOST_KG} kg.`;
  const reps = Number(set?.[2] ?? 1);
  const lookAt = (toKg: number) => {
    const last = athleteId ? context.lastKg(athleteId, column.variantId) : undefined;
    if (last === undefined || Math.abs(toKg / last - 1) <= LARGE_JUMP_SHARE + 1e-9)
      return undefined;
    return `from ${formatKg(last, context.unit, 1)}: over 10 %, look twice`;
  };
  if (reps === 1) {
    return {
      kind: "record",
      variantId: column.variantId,
      load: reading.mass,
      record: "tested",
      note: "",
      look: lookAt(kg),
    };
  }
  const estimate = estimateRepMax({ loadKg: kg, reps, reserve: 0 });
  if (!estimate.ok) return `${text}: over 15 reps no formula holds.`;
  const amount = Math.round(estimate.medianKg * 10) / 10;
  return {
    kind: "record",
    variantId: column.variantId,
    load: { amount, unit: "kg" },
    record: "rep-max-estimate",
    note: `${text}; median of five formulas, ${formatKg(estimate.leastKg, "kg", 1)} to ${formatKg(estimate.greatestKg, "kg", 1)}`,
    look: lookAt(amount),
  };
}
