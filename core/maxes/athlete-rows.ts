import { type Columns, guessColumns, plainTitle } from "../reading/columns";
import { plainName } from "../reading/names";
import { type LengthReading, readLength } from "../units/length";
import { type Mass, type MassUnit, massKg, readMass } from "../units/mass";
import { addDays, daysBetween, isDate, type LocalDate } from "../units/time";
import {
  GOAL_NAMES,
  GOALS,
  type Goal,
  SEASON_PHASE_NAMES,
  SEASON_PHASES,
  type SeasonPhase,
} from "./season";

/** What a column of a list of athletes can be. docs/formats.md describes them. */
export const ATHLETE_COLUMNS = [
  "name",
  "first",
  "last",
  "squad",
  "room",
  "sport",
  "birthYear",
  "trainingSince",
  "goal",
  "seasonPhase",
  "unit",
  "stature",
  "bodyMass",
] as const;
export type AthleteColumn = (typeof ATHLETE_COLUMNS)[number];

export const ATHLETE_COLUMN_NAMES: Record<AthleteColumn, string> = {
  name: "Name",
  first: "First name",
  last: "Last name",
  squad: "Squad",
  room: "Usual room",
  sport: "Sport",
  birthYear: "Birth year or date",
  trainingSince: "Trains since (date, year or years)",
  goal: "Goal",
  seasonPhase: "Season phase",
  unit: "Reads loads in",
  stature: "Stature",
  bodyMass: "Body mass",
};

/** Headers that name a role, in small letters without marks and blanks. */
const HEADERS: Record<AthleteColumn, readonly string[]> = {
  name: ["name", "athlete", "athletes", "fullname", "lifter", "player"],
  first: ["first", "firstname", "forename", "givenname"],
  last: ["last", "lastname", "surname", "familyname"],
  squad: ["squad", "group", "team", "class"],
  room: ["room", "usualroom", "gym", "place"],
  sport: ["sport", "discipline", "event"],
  birthYear: [
    "birthyear",
    "born",
    "birth",
    "birthdate",
    "dateofbirth",
    "dob",
    "yearofbirth",
    "yob",
  ],
  trainingSince: ["trainssince", "trainingsince", "since", "trainingage", "trainingyears", "years"],
  goal: ["goal", "aim"],
  seasonPhase: ["seasonphase", "phase", "season"],
  unit: ["unit", "units", "readsloadsin"],
  stature: ["stature", "height", "heightcm", "staturecm"],
  bodyMass: ["bodymass", "bodyweight", "mass", "weight", "bw", "bodymasskg", "weightkg"],
};

/** Column number (from 0) of each role; roles that the list lacks are absent. */
export type AthleteMapping = Columns<AthleteColumn>;

export interface AthleteFacts {
  squad?: string;
  room?: string;
  sport?: string;
  birthYear?: number;
  trainingSince?: LocalDate;
  goal?: Goal;
  seasonPhase?: SeasonPhase;
  unit?: MassUnit;
  statureCm?: number;
  bodyMass?: Mass;
}

/** What a line of the list becomes. */
export type LineFate =
  | { kind: "add" }
  | { kind: "update"; athleteId: string }
  /** Several have this name, or it stands twice: somebody says which. */
  | { kind: "ask"; choices: Array<{ id: string; squad: string; archived: boolean }> };

export interface AthleteLine {
  line: number;
  name: string;
  facts: AthleteFacts;
  fate: LineFate;
  problems: string[];
}

export interface AthleteList {
  /** The first line's titles; undefined where the list has no header. */
  header: string[] | undefined;
  mapping: AthleteMapping;
  lines: AthleteLine[];
  /** What is wrong with the list as a whole. */
  problems: string[];
  /** Squads that are not there yet, as the list writes them. */
  newSquads: string[];
}

export interface KnownAthlete {
  id: string;
  name: string;
  squad: string;
  archived: boolean;
}

export interface ListContext {
  today: LocalDate;
  unit: MassUnit;
  athletes: readonly KnownAthlete[];
  squads: readonly string[];
  rooms: readonly string[];
  /** What somebody said of a line that was asked about: an athlete's id, or "new". */
  choices: Readonly<Record<number, string>>;
  /** The columns as somebody has set them; undefined: as the header says. */
  mapping: AthleteMapping | undefined;
}

/** A list longer than this comes in parts: it is kept in one transaction. */
export const MOST_ATHLETES = 10_000;
const MOST_NAME = 80;

/** Letters that must be changed, added or swapped with their neighbour to make one word of another. */
function changesBetween(a: string, b: string): number {
  let before: number[] = [];
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      const swapped =
        i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]
          ? (before[j - 2] as number) + 1
          : Number.POSITIVE_INFINITY;
      next.push(
        Math.min(
          (row[j - 1] as number) + same,
          (row[j] as number) + 1,
          (next[j - 1] as number) + 1,
          swapped,
        ),
      );
    }
    before = row;
    row = next;
  }
  return row[b.length] as number;
}

/** Names that are meant to differ by a number (U16, U18) are no slips of one another. */
const digitsOf = (text: string) => text.replace(/\D/g, "");

/** A name of the list among known ones: the one it is, one that it is nearly, or neither. */
function among(name: string, known: readonly string[]): { is?: string; nearly?: string } {
  const plain = plainName(name);
  const is = known.find((one) => plainName(one) === plain);
  if (is !== undefined) return { is };
  const slip = plain.length < 4 ? 0 : plain.length < 6 ? 1 : 2;
  const nearly = known.find(
    (one) =>
      digitsOf(one) === digitsOf(plain) &&
      Math.abs(one.length - plain.length) <= slip &&
      changesBetween(plain, plainName(one)) <= slip,
  );
  return nearly === undefined ? {} : { nearly };
}

/**
 * Reads a list of athletes: a header and a line each, or names alone, one a line. Everything on a
 * line is a fact or a problem; nothing is dropped. Somebody of the same name is updated; several
 * of one name are asked about.
 * @example readAthleteList([["Name", "Squad"], ["Ann Berg", "Judo"]], context).lines[0].fate // add
 */
export function readAthleteList(
  rows: readonly (readonly string[])[],
  context: ListContext,
): AthleteList {
  const first = rows.findIndex((cells) => cells.some((cell) => cell.trim() !== ""));
  const problems: string[] = [];
  if (first < 0) {
    return {
      header: undefined,
      mapping: {},
      lines: [],
      problems: ["The list is empty."],
      newSquads: [],
    };
  }
  const titles = rows[first] ?? [];
  const guessed = guessColumns(titles, HEADERS);
  const isHeader = guessed.name !== undefined || guessed.last !== undefined;
  const mapping = context.mapping ?? (isHeader ? guessed : { name: 0 });
  if (mapping.name === undefined && mapping.last === undefined)
    problems.push("No column holds the names: choose it above the list.");
  const body = rows.slice(isHeader ? first + 1 : first);
  const offset = (isHeader ? first + 1 : first) + 1;
  const filled = body.flatMap((cells, i) =>
    cells.some((cell) => cell.trim() !== "") ? [{ cells, line: i + offset }] : [],
  );
  if (filled.length === 0) problems.push("No line under the header.");
  if (filled.length > MOST_ATHLETES)
    problems.push(
      `${filled.length} lines: ${MOST_ATHLETES} at most are taken at once. Split the list.`,
    );

  const byName = new Map<string, KnownAthlete[]>();
  for (const one of context.athletes) {
    const plain = plainName(one.name);
    byName.set(plain, [...(byName.get(plain) ?? []), one]);
  }
  const seen = new Map<string, number>();
  const newSquads = new Map<string, string>();
  const lines =
    problems.length > 0
      ? []
      : filled.map(({ cells, line }) => {
          const read = readLine(cells, line, mapping, context, byName, seen);
          const { squad } = read.facts;
          if (squad !== undefined && among(squad, context.squads).is === undefined)
            newSquads.set(plainName(squad), newSquads.get(plainName(squad)) ?? squad);
          return read;
        });
  return {
    header: isHeader ? titles.map((title) => title.trim()) : undefined,
    mapping,
    lines,
    problems,
    newSquads: [...newSquads.values()],
  };
}

function readLine(
  cells: readonly string[],
  line: number,
  mapping: AthleteMapping,
  context: ListContext,
  byName: ReadonlyMap<string, readonly KnownAthlete[]>,
  seen: Map<string, number>,
): AthleteLine {
  const problems: string[] = [];
  const cell = (role: AthleteColumn) => {
    const at = mapping[role];
    return at === undefined ? "" : (cells[at] ?? "").trim();
  };
  const name = (cell("name") || `${cell("first")} ${cell("last")}`).trim().replace(/\s+/g, " ");
  if (name === "") problems.push("No name.");
  else if (name.length > MOST_NAME) problems.push(`A name of over ${MOST_NAME} characters.`);
  else if (!/\p{L}/u.test(name)) problems.push(`"${name}" is no name.`);

  const facts: AthleteFacts = {};
  const take = <K extends keyof AthleteFacts>(
    role: AthleteColumn,
    fact: K,
    read: (text: string, context: ListContext) => { ok: true; value: AthleteFacts[K] } | string,
  ) => {
    const text = cell(role);
    if (text === "") return;
    const found = read(text, context);
    if (typeof found === "string") problems.push(`${ATHLETE_COLUMN_NAMES[role]}: ${found}`);
    else facts[fact] = found.value;
  };
  take("squad", "squad", readSquad);
  take("room", "room", readRoom);
  take("sport", "sport", (text) =>
    text.length > 60 ? "at most 60 characters." : { ok: true, value: text },
  );
  take("birthYear", "birthYear", readBirthYear);
  take("trainingSince", "trainingSince", readTrainingSince);
  take("goal", "goal", (text) => readNamed(text, GOALS, GOAL_NAMES));
  take("seasonPhase", "seasonPhase", (text) => readNamed(text, SEASON_PHASES, SEASON_PHASE_NAMES));
  take("unit", "unit", (text) => {
    const plain = plainName(text);
    if (/^(kg|kgs|kilograms?|kilos?)$/.test(plain)) return { ok: true, value: "kg" };
    if (/^(lbs?|pounds?)$/.test(plain)) return { ok: true, value: "lb" };
    return `"${text}" is neither kg nor lb.`;
  });
  take("stature", "statureCm", readStature);
  take("bodyMass", "bodyMass", readBodyMass);

  const plain = plainName(name);
  const chosen = context.choices[line];
  const same = byName.get(plain) ?? [];
  const before = plain === "" ? undefined : seen.get(plain);
  if (plain !== "" && before === undefined) seen.set(plain, line);
  if (before !== undefined && chosen !== "new")
    problems.push(
      `${name} stands on line ${before} already. Take one of the two away, or say that this is another person.`,
    );
  return { line, name, facts, fate: fateOf(same, chosen), problems };
}

function fateOf(same: readonly KnownAthlete[], chosen: string | undefined): LineFate {
  if (chosen === "new") return { kind: "add" };
  const picked = same.find((one) => one.id === chosen);
  if (picked) return { kind: "update", athleteId: picked.id };
  const [only] = same;
  if (!only) return { kind: "add" };
  if (same.length === 1 && !only.archived) return { kind: "update", athleteId: only.id };
  return {
    kind: "ask",
    choices: same.map(({ id, squad, archived }) => ({ id, squad, archived })),
  };
}

type Read<T> = { ok: true; value: T } | string;

function readSquad(text: string, { squads }: ListContext): Read<string> {
  if (text.length > 60) return "at most 60 characters.";
  const { is, nearly } = among(text, squads);
  if (is !== undefined) return { ok: true, value: is };
  if (nearly !== undefined)
    return `"${text}" is no squad here, and nearly "${nearly}". Write that, or a name that is less like it.`;
  return { ok: true, value: text };
}

function readRoom(text: string, { rooms }: ListContext): Read<string> {
  const { is, nearly } = among(text, rooms);
  if (is !== undefined) return { ok: true, value: is };
  const hint = nearly ?? rooms[0];
  return `"${text}" is no room here.${hint ? ` Did you mean "${hint}"?` : ""}`;
}

const EARLIEST_BIRTH = 1920;

function readBirthYear(text: string, { today }: ListContext): Read<number> {
  const year = Number(/(?:^|\D)(\d{4})(?:\D|$)/.exec(text)?.[1] ?? Number.NaN);
  const latest = Number(today.slice(0, 4));
  if (!(year >= EARLIEST_BIRTH && year <= latest))
    return `"${text}" holds no year between ${EARLIEST_BIRTH} and ${latest}.`;
  return { ok: true, value: year };
}

/** A date; a year, from its first day; or a number of years until today. */
function readTrainingSince(text: string, { today }: ListContext): Read<LocalDate> {
  const written = /^\d{4}$/.test(text) ? `${text}-01-01` : text;
  if (isDate(written)) {
    return daysBetween(today, written) > 0
      ? `${written} is still to come.`
      : { ok: true, value: written };
  }
  const years = Number(text.replace(",", ".").replace(/\s*(years?|y)$/i, ""));
  if (text !== "" && years >= 0 && years <= 60)
    return { ok: true, value: addDays(today, -Math.round(years * 365.25)) };
  return `"${text}" is no date (year-month-day), no year and no number of years.`;
}

function readNamed<T extends string>(
  text: string,
  values: readonly T[],
  names: Record<T, string>,
): Read<T> {
  const plain = plainTitle(text);
  const value = values.find((one) => plainTitle(one) === plain || plainTitle(names[one]) === plain);
  if (value) return { ok: true, value };
  return `"${text}" is none of ${values.map((one) => names[one].toLowerCase()).join(", ")}.`;
}

/** Bare numbers under 3 are metres, all others centimetres. */
function readStature(text: string): Read<number> {
  const bare = Number(text.replace(",", "."));
  const reading: LengthReading =
    bare > 0 && bare < 3
      ? { ok: true, value: Math.round(bare * 1000) / 10 }
      : readLength(text, "cm");
  if (!reading.ok || reading.value < 90 || reading.value > 250)
    return `"${text}" is no stature between 90 and 250 cm.`;
  return { ok: true, value: reading.value };
}

function readBodyMass(text: string, { unit }: ListContext): Read<Mass> {
  const reading = readMass(text, unit);
  const kg = reading.ok ? massKg(reading.mass) : 0;
  if (!reading.ok || kg < 20 || kg > 300) return `"${text}" is no body mass.`;
  return { ok: true, value: reading.mass };
}
