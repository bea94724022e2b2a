import { readDecimal } from "../units/decimal";
import { massKg, readMass } from "../units/mass";
import { daysBetween, isDate, type LocalDate } from "../units/time";
import { keepVelocity, type VelocityMetric } from "../units/velocity";
import type { Columns } from "./columns";
import { LineProblems } from "./line-problems";
import { plainName } from "./names";

/** What a column of a file of reps can be. docs/formats.md describes them. */
export const REP_COLUMNS = [
  "athlete",
  "lift",
  "date",
  "load",
  "set",
  "rep",
  "MCV",
  "MPV",
  "PV",
  "force",
  "power",
] as const;
export type RepColumn = (typeof REP_COLUMNS)[number];

export const REP_COLUMN_NAMES: Record<RepColumn, string> = {
  athlete: "Athlete",
  lift: "Lift",
  date: "Date",
  load: "Load",
  set: "Set",
  rep: "Rep",
  MCV: "Mean velocity (MCV)",
  MPV: "Mean propulsive velocity (MPV)",
  PV: "Peak velocity (PV)",
  force: "Mean propulsive force, N",
  power: "Mean propulsive power, W",
};

/** Column number (from 0) of each role; roles that the file lacks are absent. */
export type RepMapping = Columns<RepColumn>;

/** Headers that name a role. */
export const REP_HEADERS: Record<RepColumn, readonly string[]> = {
  athlete: ["athlete", "name", "lifter", "player"],
  lift: ["lift", "exercise", "movement", "variant"],
  date: ["date", "day"],
  load: ["load", "loadkg", "weight", "weightkg", "mass", "masskg", "kg"],
  set: ["set", "setnumber", "setno"],
  rep: ["rep", "repnumber", "repno", "repetition"],
  MCV: ["mcv", "mcvmps", "meanvelocity", "meanconcentricvelocity", "velocity", "meanvelocityms"],
  MPV: ["mpv", "mpvmps", "meanpropulsivevelocity"],
  PV: ["pv", "pvmps", "peakvelocity", "maxvelocity"],
  force: ["force", "forcen", "meanforce", "meanpropulsiveforce", "mpf"],
  power: ["power", "powerw", "meanpower", "meanpropulsivepower", "mpp"],
};

export interface ImportedRep {
  line: number;
  loadKg: number;
  set: number | undefined;
  rep: number | undefined;
  velocityMps: number;
  forceN: number | undefined;
  powerW: number | undefined;
}

export interface ImportedTest {
  athleteId: string;
  variantId: string;
  date: LocalDate;
  reps: ImportedRep[];
}

export interface RepImportSettings {
  mapping: RepMapping;
  metric: VelocityMetric;
  /** Unit of bare loads. */
  unit: "kg" | "lb";
  today: LocalDate;
  athletes: ReadonlyArray<{ id: string; name: string }>;
  variants: ReadonlyArray<{ id: string; name: string }>;
  /** What holds where the file has no such column. */
  athleteId: string | undefined;
  variantId: string | undefined;
  date: LocalDate | undefined;
}

/** Speeds and loads beyond which a value is a slip, not a rep. */
export const MOST_VELOCITY_MPS = 5;
export const MOST_LOAD_KG = 1000;

/**
 * Reads the rows of a file of reps, one at a time, and keeps every fault with its line and
 * reason. Nothing is dropped silently: a row is a rep, empty, or a problem.
 */
export class RepRows {
  readonly problems = new LineProblems();
  #tests = new Map<string, ImportedTest>();
  #seen = new Map<string, number>();
  #rows = 0;
  #settings: RepImportSettings;
  #athletes: Map<string, string>;
  #variants: Map<string, string>;
  /** Rows whose load looks like a speed and whose speed looks like a load. */
  #swapped = 0;

  constructor(settings: RepImportSettings) {
    this.#settings = settings;
    this.#athletes = new Map(settings.athletes.map((one) => [plainName(one.name), one.id]));
    this.#variants = new Map(settings.variants.map((one) => [plainName(one.name), one.id]));
  }

  /** Rows that held anything. */
  get rows(): number {
    return this.#rows;
  }

  push(cells: readonly string[], line: number): void {
    if (cells.every((cell) => cell.trim() === "")) return;
    this.#rows++;
    const faults: string[] = [];
    const say = (text: string) => {
      faults.push(text);
      return undefined;
    };
    const { mapping, metric, unit, today } = this.#settings;
    const cell = (role: RepColumn) => {
      const at = mapping[role];
      return at === undefined ? undefined : (cells[at] ?? "").trim();
    };
    const number = (role: RepColumn, least: number, most: number, name: string) => {
      const text = cell(role);
      if (text === undefined || text === "") return undefined;
      const reading = readDecimal(text);
      if (!reading.ok) return say(`${name} "${text}" is not a number.`);
      if (reading.value < least || reading.value > most) {
        return say(`${name} ${text} is not between ${least} and ${most}.`);
      }
      return reading.value;
    };

    const athleteId = this.#named("athlete", cell("athlete"), this.#athletes, say);
    const variantId = this.#named("lift", cell("lift"), this.#variants, say);
    const date = this.#date(cell("date"), today, say);
    const loadKg = this.#load(cell("load"), unit, say);
    const speed = cell(metric);
    let velocityMps: number | undefined;
    if (speed === undefined || speed === "") say(`No ${metric}.`);
    else {
      const reading = readDecimal(speed);
      if (!reading.ok) say(`${metric} "${speed}" is not a number.`);
      else if (reading.value <= 0) say(`${metric} ${speed}: a rep moves up, over 0 m/s.`);
      else if (reading.value > MOST_VELOCITY_MPS) {
        say(`${metric} ${speed} is over ${MOST_VELOCITY_MPS} m/s. In cm/s, or another column?`);
        if (loadKg !== undefined && loadKg < MOST_VELOCITY_MPS) this.#swapped++;
      } else velocityMps = keepVelocity(reading.value);
    }
    const set = number("set", 1, 100, "Set");
    const rep = number("rep", 1, 100, "Rep");
    const forceN = number("force", 1, 20_000, "Force");
    const powerW = number("power", 1, 20_000, "Power");

    if (faults.length > 0) {
      this.problems.add(line, faults.join(" "));
      return;
    }
    if (!athleteId || !variantId || !date || loadKg === undefined || velocityMps === undefined) {
      return;
    }
    if (rep !== undefined) {
      const same = [athleteId, variantId, date, set ?? "", rep, loadKg].join("/");
      const before = this.#seen.get(same);
      if (before !== undefined) {
        this.problems.add(line, `The same set and rep as line ${before}.`);
        return;
      }
      this.#seen.set(same, line);
    }
    const key = `${athleteId}/${variantId}/${date}`;
    const test = this.#tests.get(key) ?? { athleteId, variantId, date, reps: [] };
    this.#tests.set(key, test);
    test.reps.push({ line, loadKg, set, rep, velocityMps, forceN, powerW });
  }

  /** The tests found; adds what stands against the file as a whole. */
  finish(): ImportedTest[] {
    if (this.#rows === 0) this.problems.add(0, "The file holds no reps under its header.");
    if (this.#swapped > 0 && this.#swapped * 2 > this.#rows) {
      this.problems.add(
        0,
        "Load and velocity look reversed: loads under 5 and speeds over 5 in most lines. Swap the two columns above.",
      );
    }
    return [...this.#tests.values()];
  }

  #named(
    role: "athlete" | "lift",
    text: string | undefined,
    known: ReadonlyMap<string, string>,
    say: (text: string) => undefined,
  ): string | undefined {
    if (text === undefined) {
      const fallback = role === "athlete" ? this.#settings.athleteId : this.#settings.variantId;
      return fallback ?? say(`No ${role}: choose one above, or map its column.`);
    }
    if (text === "") return say(`No ${role}.`);
    return known.get(plainName(text)) ?? say(`No ${role} "${text}" in this team.`);
  }

  #date(text: string | undefined, today: LocalDate, say: (text: string) => undefined) {
    const written = text ?? this.#settings.date;
    if (written === undefined || written === "") return say("No date.");
    if (!isDate(written)) return say(`Date "${written}" is not written year-month-day.`);
    if (daysBetween(today, written) > 0) return say(`Date ${written} is still to come.`);
    return written;
  }

  #load(text: string | undefined, unit: "kg" | "lb", say: (text: string) => undefined) {
    if (text === undefined || text === "") return say("No load.");
    const reading = readMass(text, unit);
    if (!reading.ok) return say(`Load "${text}" is not a load.`);
    const kg = massKg(reading.mass);
    if (kg <= 0) return say("Load 0: the bar itself has a mass.");
    if (kg > MOST_LOAD_KG) return say(`Load ${text} is over ${MOST_LOAD_KG} kg.`);
    return kg;
  }
}
