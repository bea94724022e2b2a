import { type Columns, guessColumns } from "../reading/columns";
import { readDate, SLASHED, type SlashOrder, slashOrderOf } from "../reading/dates";
import { plainName } from "../reading/names";
import { readDecimal } from "../units/decimal";
import { type Mass, type MassUnit, massKg, readMass } from "../units/mass";
import { daysBetween, type LocalDate } from "../units/time";
import { keepVelocity } from "../units/velocity";
import { type LiftQuestion, liftKey, liftNamed } from "./lift-names";

/** What a column of a sheet of earlier sessions can be. docs/formats.md describes them. */
export const EARLIER_COLUMNS = [
  "date",
  "athlete",
  "lift",
  "sets",
  "reps",
  "load",
  "speed",
] as const;
export type EarlierColumn = (typeof EARLIER_COLUMNS)[number];

export const EARLIER_COLUMN_NAMES: Record<EarlierColumn, string> = {
  date: "Date",
  athlete: "Athlete",
  lift: "Lift",
  sets: "Sets, or sets x reps",
  reps: "Reps",
  load: "Load",
  speed: "Speed, m/s",
};

/** Headers that name a role, in small letters without marks and blanks. */
const HEADERS: Record<EarlierColumn, readonly string[]> = {
  date: ["date", "day", "when"],
  athlete: ["athlete", "name", "lifter", "player", "who"],
  lift: ["lift", "exercise", "movement", "variant"],
  sets: ["sets", "set", "setsxreps", "setsreps", "scheme"],
  reps: ["reps", "rep", "repetitions"],
  load: ["load", "weight", "kg", "loadkg", "lb", "lbs", "weightkg"],
  speed: ["speed", "velocity", "mcv", "meanvelocity", "ms", "mps"],
};

export type EarlierMapping = Columns<EarlierColumn>;

export interface EarlierSet {
  athleteId: string;
  variantId: string;
  date: LocalDate;
  sets: number;
  reps: number;
  load: Mass;
  velocityMps: number | undefined;
  /** What tells the same line of the same athlete, kept once. */
  line: string;
}

export interface EarlierLine {
  line: number;
  text: string;
  set: EarlierSet | undefined;
  problems: string[];
}

export interface EarlierSheet {
  header: string[];
  mapping: EarlierMapping;
  lines: EarlierLine[];
  problems: string[];
  lifts: LiftQuestion[];
  /** Asked where dates are written 3/4/2026 and no line tells which is the day. */
  askDates: boolean;
}

export interface EarlierContext {
  today: LocalDate;
  unit: MassUnit;
  athletes: ReadonlyArray<{ id: string; name: string }>;
  variants: ReadonlyArray<{ id: string; name: string }>;
  mapping: EarlierMapping | undefined;
  /** Which lift an ambiguous name is, by `liftKey`. */
  lifts: Readonly<Record<string, string>>;
  slash: SlashOrder | undefined;
}

/** Lines of one sheet: they are kept in one transaction. */
export const MOST_EARLIER_LINES = 10_000;
const MOST_LOAD_KG = 1000;
const MOST_SPEED_MPS = 5;

/**
 * Reads a coach's sheet of earlier sessions: a header, then a line for sets of one athlete's lift
 * at one load. Every line is a set or a problem; what is ambiguous is asked once for all lines.
 * @example readEarlierSheet([["Date", "Athlete", "Lift", "Sets", "Reps", "Load"], …], context)
 */
export function readEarlierSheet(
  rows: readonly (readonly string[])[],
  context: EarlierContext,
): EarlierSheet {
  const first = rows.findIndex((cells) => cells.some((cell) => cell.trim() !== ""));
  const header = (rows[first] ?? []).map((title) => title.trim());
  const mapping = context.mapping ?? guessColumns(header, HEADERS);
  const problems: string[] = [];
  if (first < 0) problems.push("The sheet is empty.");
  for (const role of ["date", "athlete", "lift", "load"] as const)
    if (first >= 0 && mapping[role] === undefined)
      problems.push(
        `No column holds the ${EARLIER_COLUMN_NAMES[role].toLowerCase()}: choose it above the lines.`,
      );
  if (first >= 0 && mapping.sets === undefined && mapping.reps === undefined)
    problems.push("No column holds sets or reps: choose one above the lines.");
  const filled = rows
    .slice(first + 1)
    .flatMap((cells, i) =>
      cells.some((cell) => cell.trim() !== "") ? [{ cells, line: i + first + 2 }] : [],
    );
  if (first >= 0 && filled.length === 0) problems.push("No line under the header.");
  if (filled.length > MOST_EARLIER_LINES)
    problems.push(
      `${filled.length} lines: ${MOST_EARLIER_LINES} at most are taken at once. Split the sheet.`,
    );
  const none = { header, mapping, lines: [], lifts: [], askDates: false };
  if (problems.length > 0) return { ...none, problems };

  const at = (cells: readonly string[], role: EarlierColumn) => {
    const column = mapping[role];
    return column === undefined ? "" : (cells[column] ?? "").trim();
  };
  const order = slashOrderOf(filled.map(({ cells }) => at(cells, "date")));
  const slash = order === "both" ? context.slash : (order ?? context.slash);
  const askDates = order === "both" && context.slash === undefined;
  const athletes = new Map(context.athletes.map((one) => [plainName(one.name), one.id]));
  const lifts = new Map<string, LiftQuestion>();
  const seen = new Map<string, number>();

  const lines = filled.map(({ cells, line }): EarlierLine => {
    const faults: string[] = [];
    const text = cells.map((cell) => cell.trim()).join(" · ");
    const dateText = at(cells, "date");
    const date = readDate(dateText, slash);
    const waits = askDates && SLASHED.test(dateText);
    if (dateText === "") faults.push("No date.");
    else if (date === undefined && !waits)
      faults.push(`Date "${dateText}" is not written year-month-day or day.month.year.`);
    else if (date !== undefined && daysBetween(context.today, date) > 0)
      faults.push(`Date ${date} is still to come.`);

    const name = at(cells, "athlete");
    const athleteId = athletes.get(plainName(name));
    if (name === "") faults.push("No athlete.");
    else if (!athleteId) faults.push(`No athlete "${name}" in this team: add them first.`);

    const liftText = at(cells, "lift");
    const named = liftNamed(liftText, context.variants, context.lifts);
    if (liftText === "") faults.push("No lift.");
    else if (named.is === "none") faults.push(`"${liftText}" is no lift of this team.`);
    else if (named.is === "several") {
      const choices = named.variants.map(({ id, name: own }) => ({ id, name: own }));
      lifts.set(liftKey(liftText), { text: liftText, key: liftKey(liftText), choices });
    }

    const scheme = readScheme(at(cells, "sets"), at(cells, "reps"));
    if (typeof scheme === "string") faults.push(scheme);
    const loadText = at(cells, "load");
    const load = readMass(loadText, context.unit);
    const kg = load.ok ? massKg(load.mass) : 0;
    if (!load.ok || kg <= 0 || kg > MOST_LOAD_KG)
      faults.push(
        loadText === "" ? "No load." : `"${loadText}" is no load over 0, up to ${MOST_LOAD_KG} kg.`,
      );
    const velocity = readSpeed(at(cells, "speed"));
    if (typeof velocity === "string") faults.push(velocity);

    const isWhole =
      faults.length === 0 &&
      date !== undefined &&
      athleteId !== undefined &&
      named.is === "one" &&
      typeof scheme !== "string" &&
      load.ok &&
      typeof velocity !== "string";
    if (!isWhole) return { line, text, set: undefined, problems: faults };
    const { sets, reps } = scheme;
    const key = [date, named.variant.id, sets, reps, kg, velocity.mps ?? ""].join("/");
    const before = seen.get(`${athleteId}/${key}`);
    if (before !== undefined) {
      return { line, text, set: undefined, problems: [`The same as line ${before}.`] };
    }
    seen.set(`${athleteId}/${key}`, line);
    const set: EarlierSet = {
      athleteId,
      variantId: named.variant.id,
      date,
      sets,
      reps,
      load: load.mass,
      velocityMps: velocity.mps,
      line: key,
    };
    return { line, text, set, problems: [] };
  });
  return { header, mapping, lines, problems, lifts: [...lifts.values()], askDates };
}

/** Sets and reps from their columns; "5x3" in the first stands for both. */
function readScheme(setsText: string, repsText: string): { sets: number; reps: number } | string {
  const both = /^(\d{1,2})\s*[x×*]\s*(\d{1,3})$/i.exec(setsText || repsText);
  const sets = both ? Number(both[1]) : setsText === "" ? 1 : Number(setsText);
  const reps = both ? Number(both[2]) : repsText === "" ? 1 : Number(repsText);
  if (setsText === "" && repsText === "") return "No sets and no reps.";
  if (!Number.isInteger(sets) || sets < 1 || sets > 50)
    return `Sets "${setsText}" are not between 1 and 50.`;
  if (!Number.isInteger(reps) || reps < 1 || reps > 100)
    return `Reps "${repsText || setsText}" are not between 1 and 100.`;
  return { sets, reps };
}

function readSpeed(text: string): { mps: number | undefined } | string {
  if (text === "") return { mps: undefined };
  const reading = readDecimal(text.replace(/\s*m\/s$/i, ""));
  if (!reading.ok) return `Speed "${text}" is not a number.`;
  if (reading.value <= 0 || reading.value > MOST_SPEED_MPS)
    return `Speed ${text} is not between 0 and ${MOST_SPEED_MPS} m/s.`;
  return { mps: keepVelocity(reading.value) };
}
