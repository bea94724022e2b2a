import { type Columns, guessColumns } from "../reading/columns";
import { readDate } from "../reading/dates";
import { plainName } from "../reading/names";
import { readDecimal } from "../units/decimal";
import { type Mass, type MassUnit, massKg, readMass } from "../units/mass";
import { daysBetween, type LocalDate } from "../units/time";
import { type LiftQuestion, liftKey, liftNamed } from "./lift-names";
import { MAX_KIND_NAMES, MAX_KINDS, type MaxKind } from "./records";

/** What a column of a sheet of max records can be: those that records.csv goes out with. */
export const RECORD_COLUMNS = [
  "athlete",
  "lift",
  "date",
  "load",
  "unit",
  "loadKg",
  "kind",
  "note",
] as const;
export type RecordColumn = (typeof RECORD_COLUMNS)[number];

export const RECORD_COLUMN_NAMES: Record<RecordColumn, string> = {
  athlete: "Athlete",
  lift: "Lift",
  date: "Date",
  load: "Load",
  unit: "kg or lb",
  loadKg: "Load in kg",
  kind: "Kind",
  note: "Note",
};

/** Headers that name a role, in small letters without marks and blanks. */
const HEADERS: Record<RecordColumn, readonly string[]> = {
  athlete: ["athlete", "name", "lifter", "who"],
  lift: ["lift", "exercise", "movement", "variant"],
  date: ["date", "day", "when"],
  load: ["load", "max", "rm", "weight", "record"],
  unit: ["unit", "units"],
  loadKg: ["loadkg", "kg"],
  kind: ["kind", "how", "source"],
  note: ["note", "notes", "remark"],
};

export type RecordMapping = Columns<RecordColumn>;

export interface SheetRecord {
  athleteId: string;
  variantId: string;
  date: LocalDate;
  load: Mass;
  kind: MaxKind;
  note: string;
}

export interface RecordLine {
  line: number;
  text: string;
  record: SheetRecord | undefined;
  problems: string[];
}

export interface RecordSheet {
  header: string[];
  mapping: RecordMapping;
  lines: RecordLine[];
  problems: string[];
  lifts: LiftQuestion[];
}

export interface RecordContext {
  today: LocalDate;
  /** Unit of a load that says none. */
  unit: MassUnit;
  /** Kind of a record that says none. */
  kind: MaxKind;
  athletes: ReadonlyArray<{ id: string; name: string }>;
  variants: ReadonlyArray<{ id: string; name: string }>;
  mapping: RecordMapping | undefined;
  /** Which lift an ambiguous name is, by `liftKey`. */
  lifts: Readonly<Record<string, string>>;
}

/** Records of one sheet: they are kept in one transaction. */
export const MOST_RECORD_LINES = 10_000;
const MOST_LOAD_KG = 1000;
const MOST_NOTE = 500;

const plainKind = (text: string) => text.toLowerCase().replace(/[^a-z]/g, "");
const KINDS = new Map(
  MAX_KINDS.flatMap((kind) => [
    [plainKind(MAX_KIND_NAMES[kind]), kind],
    [plainKind(kind), kind],
  ]),
);

/** A load as the sheet has it, to its last digit: an estimate may have many. */
function readLoad(text: string, unitText: string, usual: MassUnit): Mass | undefined {
  const named = /^(kg|lb)s?$/i.exec(unitText)?.[1]?.toLowerCase() as MassUnit | undefined;
  if (unitText !== "" && !named) return undefined;
  const unit = named ?? usual;
  const short = readMass(text, unit);
  if (short.ok) return short.mass;
  if (short.reason !== "too-many-decimals") return undefined;
  const long = readDecimal(text);
  return long.ok ? { amount: long.value, unit } : undefined;
}

/**
 * Reads a sheet of max records: a header, then a record a line, as records.csv goes out. Every line
 * is a record or a problem; a lift's name that fits several is asked once for all lines.
 * @example readRecordSheet([["athlete", "lift", "date", "load"], …], context)
 */
export function readRecordSheet(
  rows: readonly (readonly string[])[],
  context: RecordContext,
): RecordSheet {
  const first = rows.findIndex((cells) => cells.some((cell) => cell.trim() !== ""));
  const header = (rows[first] ?? []).map((title) => title.trim());
  const mapping = context.mapping ?? guessColumns(header, HEADERS);
  const filled = rows
    .slice(first + 1)
    .flatMap((cells, i) =>
      cells.some((cell) => cell.trim() !== "") ? [{ cells, line: i + first + 2 }] : [],
    );
  const problems = sheetProblems(first >= 0, mapping, filled.length);
  if (problems.length > 0) return { header, mapping, lines: [], lifts: [], problems };

  const named = new Map<string, Array<{ id: string; name: string }>>();
  for (const one of context.athletes) {
    const key = plainName(one.name);
    named.set(key, [...(named.get(key) ?? []), one]);
  }
  const lifts = new Map<string, LiftQuestion>();
  const lines = filled.map(({ cells, line }): RecordLine => {
    const at = (role: RecordColumn) => {
      const column = mapping[role];
      return column === undefined ? "" : (cells[column] ?? "").trim();
    };
    const faults: string[] = [];
    const date = readDate(at("date"), undefined);
    if (at("date") === "") faults.push("No date.");
    else if (date === undefined)
      faults.push(`Date "${at("date")}" is not written year-month-day or day.month.year.`);
    else if (daysBetween(context.today, date) > 0) faults.push(`Date ${date} is still to come.`);

    const people = named.get(plainName(at("athlete"))) ?? [];
    const [person] = people;
    if (at("athlete") === "") faults.push("No athlete.");
    else if (!person) faults.push(`No athlete "${at("athlete")}" in this team: add them first.`);
    else if (people.length > 1)
      faults.push(`${people.length} athletes are called "${person.name}": rename one first.`);

    const lift = liftNamed(at("lift"), context.variants, context.lifts);
    if (at("lift") === "") faults.push("No lift.");
    else if (lift.is === "none") faults.push(`"${at("lift")}" is no lift of this team.`);
    else if (lift.is === "several") {
      const choices = lift.variants.map(({ id, name }) => ({ id, name }));
      lifts.set(liftKey(at("lift")), { text: at("lift"), key: liftKey(at("lift")), choices });
    }

    const written = at("load") || at("loadKg");
    const load =
      at("load") === ""
        ? readLoad(at("loadKg"), "kg", "kg")
        : readLoad(at("load"), at("unit"), context.unit);
    const kg = load ? massKg(load) : 0;
    if (written === "") faults.push("No load.");
    else if (!load || !(kg > 0) || kg > MOST_LOAD_KG)
      faults.push(
        `"${`${written} ${at("unit")}`.trim()}" is no load in kg or lb over 0, up to ${MOST_LOAD_KG} kg.`,
      );

    const kind = at("kind") === "" ? context.kind : KINDS.get(plainKind(at("kind")));
    if (!kind)
      faults.push(`"${at("kind")}" is no kind: ${Object.values(MAX_KIND_NAMES).join(", ")}.`);
    const note = at("note");
    if (note.length > MOST_NOTE) faults.push(`The note is over ${MOST_NOTE} characters.`);

    const text = cells.map((cell) => cell.trim()).join(" · ");
    const isWhole = faults.length === 0 && date && person && lift.is === "one" && load && kind;
    if (!isWhole) return { line, text, record: undefined, problems: faults };
    const variantId = lift.variant.id;
    const record = { athleteId: person.id, variantId, date, load, kind, note };
    return { line, text, record, problems: [] };
  });
  return { header, mapping, lines, problems, lifts: [...lifts.values()] };
}

function sheetProblems(hasHeader: boolean, mapping: RecordMapping, lines: number): string[] {
  if (!hasHeader) return ["The sheet is empty."];
  const problems: string[] = [];
  for (const role of ["athlete", "lift", "date"] as const)
    if (mapping[role] === undefined)
      problems.push(
        `No column holds the ${RECORD_COLUMN_NAMES[role].toLowerCase()}: choose it above the lines.`,
      );
  if (mapping.load === undefined && mapping.loadKg === undefined)
    problems.push("No column holds the load: choose it above the lines.");
  if (lines === 0) problems.push("No line under the header.");
  if (lines > MOST_RECORD_LINES)
    problems.push(
      `${lines} lines: ${MOST_RECORD_LINES} at most are taken at once. Split the sheet.`,
    );
  return problems;
}
