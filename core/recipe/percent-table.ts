import { readDecimal } from "../units/decimal";
import { expandRecipe, type Recipe, type RecipeStep, type RecipeWeek } from "./recipe";

/**
 * Reads a coach's own table of sets and percentages, weeks downwards, into a recipe:
 *
 *     4x2 45/50/55
 *     week 2: 3 x 2 @ 55%
 *     70% 5x3, 80% 2x2
 *     deload
 *
 * A line is a week. What can be read in two ways is asked, never guessed; what a recipe cannot
 * hold is said. The recipe is expanded again and compared with the table before it is given out.
 */

/** Sets of one line: so many, of so many reps, at a percentage of the working max. */
export interface WrittenGroup {
  sets: number;
  reps: number;
  percent: number;
}

export interface WrittenWeek {
  /** Line of the paste, from 1. */
  line: number;
  text: string;
  kind: "work" | "deload" | "test" | "off";
  groups: WrittenGroup[];
}

/** What a list of percentages after one "sets x reps" means. */
export const LIST_READINGS = ["each", "share", "weeks"] as const;
export type ListReading = (typeof LIST_READINGS)[number];

export interface TableChoices {
  /** Which column holds the sets, where several do. */
  column?: number | undefined;
  list?: ListReading | undefined;
  /** What "4x2" is. */
  order?: "sets-reps" | "reps-sets" | undefined;
}

export interface TableQuestion {
  about: "column" | "list";
  text: string;
  choices: Array<{ value: string; words: string }>;
}

export interface PercentTable {
  weeks: WrittenWeek[];
  /** Waits for an answer: nothing is made before. */
  questions: TableQuestion[];
  problems: Array<{ line: number; text: string }>;
  /** Start, steps and weeks; undefined while something is asked or wrong. */
  shape: Pick<Recipe, "start" | "steps" | "weeks"> | undefined;
}

/** Over this it is a load or a slip, not a share of a max. */
export const MOST_TABLE_PERCENT = 110;
/** Weeks and sets that a table may have. */
const MOST_WEEKS = 52;
const MOST_SETS = 40;
const MOST_REPS = 50;

const NUMBER = "\\d{1,3}(?:[.,]\\d+)?";
const LIST = `${NUMBER}\\s*%?(?:\\s*[/-]\\s*${NUMBER}\\s*%?)*`;
/** "4x2 45/50/55", "4 x 2 @ 45 %", "4 sets of 2 at 45". */
const SETS_FIRST = new RegExp(
  `^(\\d{1,3})\\s*(?:[x×*]|sets?\\s+of)\\s*(\\d{1,3})(?:\\s*reps?)?\\s*(?:@|at|on)?\\s*(${LIST})$`,
  "i",
);
/** "45% 4x2", "45/50 % : 4x2". */
const PERCENT_FIRST = new RegExp(
  `^(${LIST})\\s*(?::|@|for)?\\s*(\\d{1,3})\\s*(?:[x×*]|sets?\\s+of)\\s*(\\d{1,3})(?:\\s*reps?)?$`,
  "i",
);
const WEEK_LABEL = /^(?:(?:week|wk|w)\s*\d{1,2}\s*[:.)-]?|\d{1,2}\s*[:.)])\s*/i;
const KINDS: ReadonlyArray<[RegExp, WrittenWeek["kind"]]> = [
  [/^deload\b[:\s]*/i, "deload"],
  [/^(?:re-?)?test\b[:\s]*/i, "test"],
  [/^(?:off|rest|free)\b[:\s]*/i, "off"],
];

interface RawGroup {
  first: number;
  second: number;
  percents: number[];
  /** Written as "45-55". */
  range: boolean;
}

function readGroup(text: string): RawGroup | undefined {
  const setsFirst = SETS_FIRST.exec(text);
  const percentFirst = setsFirst ? null : PERCENT_FIRST.exec(text);
  const match = setsFirst ?? percentFirst;
  if (!match) return undefined;
  const [first, second, list] = setsFirst
    ? [match[1], match[2], match[3]]
    : [match[2], match[3], match[1]];
  const percents = (list ?? "").split(/[/-]/).map((part) => {
    const reading = readDecimal(part.replace("%", "").trim());
    return reading.ok ? reading.value : Number.NaN;
  });
  return {
    first: Number(first),
    second: Number(second),
    percents,
    range: /\d\s*%?\s*-\s*\d/.test(list ?? ""),
  };
}

/** Groups apart by ";", "+", or a comma that is no decimal mark. */
const groupsOf = (text: string) =>
  text
    .split(/\s*[;+]\s*|\s*,\s+|,(?=\d+\s*[x×*])/)
    .map((part) => part.trim())
    .filter((part) => part !== "");

interface RawWeek {
  line: number;
  text: string;
  kind: WrittenWeek["kind"];
  groups: RawGroup[];
  problem: string | undefined;
}

function readCell(line: number, cell: string): RawWeek {
  const text = cell.trim();
  let rest = text.replace(WEEK_LABEL, "");
  let kind: RawWeek["kind"] = "work";
  for (const [pattern, named] of KINDS) {
    if (!pattern.test(rest)) continue;
    kind = named;
    rest = rest.replace(pattern, "").trim();
    break;
  }
  const parts = groupsOf(rest);
  const groups = parts.map(readGroup);
  const bad = parts.find((_, i) => groups[i] === undefined);
  const problem =
    bad !== undefined
      ? `"${bad}" is not sets, reps and a percentage. Write it as 4x2 50, or 4 x 2 @ 50 %.`
      : parts.length === 0 && kind === "work"
        ? `"${text}" has no sets.`
        : undefined;
  return { line, text, kind, groups: groups.flatMap((one) => one ?? []), problem };
}

/** Whether a cell looks like a week of work: how columns and a header line are told apart. */
const isWeek = (cell: string) => {
  const read = readCell(0, cell);
  return cell.trim() !== "" && read.problem === undefined && read.groups.length > 0;
};

/**
 * @param rows the paste, as cells; a column of week numbers or dates is left aside
 * @example readPercentTable([["3x2 50"], ["3x2 55"]], {}).shape // start 50, one step, +0 and +5
 */
export function readPercentTable(
  rows: readonly (readonly string[])[],
  choices: TableChoices,
): PercentTable {
  const width = Math.max(0, ...rows.map((cells) => cells.length));
  const held = Array.from({ length: width }, (_, i) => i).filter((i) =>
    rows.some((cells) => isWeek(cells[i] ?? "")),
  );
  const questions: TableQuestion[] = [];
  const column = held.length === 1 ? held[0] : held.find((one) => one === choices.column);
  if (held.length > 1 && column === undefined) {
    const header = rows.find((cells) => !cells.some(isWeek) && cells.some((cell) => cell.trim()));
    questions.push({
      about: "column",
      text: "Several columns hold sets and percentages: each is a recipe of its own. Which first?",
      choices: held.map((i) => ({
        value: String(i),
        words: (header?.[i] ?? "").trim() || `column ${i + 1}`,
      })),
    });
    return { weeks: [], questions, problems: [], shape: undefined };
  }
  if (column === undefined) {
    const filled = rows.some((cells) => cells.some((cell) => cell.trim() !== ""));
    const text = filled
      ? "No line holds sets, reps and a percentage. Write a week as 4x2 50, or 4 x 2 @ 50 %."
      : "The table is empty.";
    return { weeks: [], questions, problems: [{ line: 1, text }], shape: undefined };
  }
  const firstWeek = rows.findIndex((cells) => isWeek(cells[column] ?? ""));
  const raw = rows.flatMap((cells, i) => {
    const cell = cells[column] ?? "";
    // Titles above the first week are no weeks.
    if (cell.trim() === "" || (i < firstWeek && readCell(0, cell).problem !== undefined)) return [];
    return [readCell(i + 1, cell)];
  });
  return shapeOf(raw, choices, questions);
}

function shapeOf(
  raw: readonly RawWeek[],
  choices: TableChoices,
  questions: TableQuestion[],
): PercentTable {
  const problems = raw.flatMap((week) => {
    const at = (text: string) => ({ line: week.line, text });
    if (week.problem) return [at(week.problem)];
    return week.groups.flatMap((group) => {
      if (group.range)
        return [
          at(
            "A range of percentages is not one load: write the one to start from, or each set's own.",
          ),
        ];
      const high = group.percents.find((percent) => percent > MOST_TABLE_PERCENT);
      if (high !== undefined)
        return [
          at(`${high} is over ${MOST_TABLE_PERCENT} %: this table takes percentages, no loads.`),
        ];
      if (group.percents.some((percent) => !(percent > 0))) return [at("A percentage is over 0.")];
      return [];
    });
  });
  const lists = raw.flatMap((week) => week.groups.filter((group) => group.percents.length > 1));
  const swap = choices.order === "reps-sets";
  const setsOf = (group: RawGroup) => (swap ? group.second : group.first);
  const repsOf = (group: RawGroup) => (swap ? group.first : group.second);
  const example = lists[0];
  if (example && problems.length === 0 && choices.list === undefined) {
    questions.push(
      listQuestion(example, raw.length, setsOf(example), repsOf(example), lists, setsOf),
    );
  }
  const weeks =
    questions.length > 0 || problems.length > 0
      ? []
      : raw.flatMap((week) => written(week, choices.list, setsOf, repsOf, problems));
  for (const week of weeks) {
    const sets = week.groups.reduce((sum, group) => sum + group.sets, 0);
    const wrong =
      sets > MOST_SETS
        ? `${sets} sets: at most ${MOST_SETS} in a session.`
        : week.groups.some((group) => group.reps > MOST_REPS || group.reps < 1 || group.sets < 1)
          ? `Sets and reps lie between 1 and ${MOST_REPS}.`
          : undefined;
    if (wrong) problems.push({ line: week.line, text: wrong });
  }
  if (weeks.length > MOST_WEEKS)
    problems.push({ line: 1, text: `${weeks.length} weeks: at most ${MOST_WEEKS} in a recipe.` });
  if (problems.length > 0 || questions.length > 0)
    return { weeks, questions, problems, shape: undefined };
  const fit = fitShape(weeks);
  return "shape" in fit
    ? { weeks, questions, problems, shape: fit.shape }
    : { weeks, questions, problems: [fit], shape: undefined };
}

function listQuestion(
  group: RawGroup,
  weeks: number,
  sets: number,
  reps: number,
  lists: readonly RawGroup[],
  setsOf: (group: RawGroup) => number,
): TableQuestion {
  const said = group.percents.join(", ");
  const count = group.percents.length;
  const divides = lists.every((one) => setsOf(one) % one.percents.length === 0);
  const choices = [
    {
      value: "each",
      words: `${sets} x ${reps} at each of ${said} %: ${sets * count} sets in the session`,
    },
    ...(divides
      ? [
          {
            value: "share",
            words: `${sets} sets in all, ${sets / count} at each of ${said} %`,
          },
        ]
      : []),
    ...(weeks === 1
      ? [{ value: "weeks", words: `${sets} x ${reps} a week: ${said} % in weeks 1 to ${count}` }]
      : []),
  ];
  return {
    about: "list",
    text: `${sets}x${reps} ${group.percents.join("/")}: what does the list of percentages mean?`,
    choices,
  };
}

function written(
  week: RawWeek,
  list: ListReading | undefined,
  setsOf: (group: RawGroup) => number,
  repsOf: (group: RawGroup) => number,
  problems: Array<{ line: number; text: string }>,
): WrittenWeek[] {
  const { line, text, kind } = week;
  const [only] = week.groups;
  if (list === "weeks" && week.groups.length === 1 && only && only.percents.length > 1) {
    return only.percents.map((percent) => ({
      line,
      text,
      kind,
      groups: [{ sets: setsOf(only), reps: repsOf(only), percent }],
    }));
  }
  const groups = week.groups.flatMap((group): WrittenGroup[] => {
    const count = group.percents.length;
    const sets = setsOf(group);
    if (count > 1 && list === "share" && sets % count !== 0) {
      problems.push({ line, text: `${sets} sets do not go evenly into ${count} percentages.` });
      return [];
    }
    const own = count > 1 && list === "share" ? sets / count : sets;
    return group.percents.map((percent) => ({ sets: own, reps: repsOf(group), percent }));
  });
  return [{ line, text, kind, groups }];
}

const near = (a: number, b: number) => Math.abs(a - b) < 1e-9;
/** Thousandths: sums of decimals stay what was written. */
const round = (value: number) => Math.round(value * 1000) / 1000;

/** One shape of steps with a number added a week, and flat weeks where a week is one block. */
function fitShape(
  weeks: readonly WrittenWeek[],
): { shape: NonNullable<PercentTable["shape"]> } | { line: number; text: string } {
  const filled = weeks.filter((week) => week.groups.length > 0);
  // The steps are those of the first week that has the most of them.
  const most = Math.max(...filled.map((week) => week.groups.length));
  const model = filled.find((week) => week.groups.length === most);
  const base = model?.groups[0];
  if (!model || !base)
    return { line: 1, text: "No week has sets: a recipe needs one that is done." };
  const start = base.percent;
  const steps: RecipeStep[] = model.groups.map((group, i) => ({
    id: `s${i + 1}`,
    sets: group.sets,
    reps: group.reps,
    add: round(group.percent - start),
  }));
  const out: RecipeWeek[] = [];
  for (const [i, week] of weeks.entries()) {
    const id = `w${i + 1}`;
    const [first] = week.groups;
    if (!first) {
      out.push({ id, add: 0, ...(week.kind === "work" ? {} : { kind: week.kind }) });
      continue;
    }
    const add = round(first.percent - start);
    const moreSets = first.sets - base.sets;
    const moreReps = first.reps - base.reps;
    const sameShape =
      week.groups.length === steps.length &&
      week.groups.every((group, at) => {
        const step = steps[at];
        return (
          step !== undefined &&
          near(group.percent, start + add + step.add) &&
          group.sets === step.sets + moreSets &&
          group.reps === step.reps + moreReps
        );
      });
    if (sameShape) {
      out.push({
        id,
        add,
        ...(moreSets === 0 ? {} : { moreSets }),
        ...(moreReps === 0 ? {} : { moreReps }),
      });
    } else if (week.groups.length === 1) {
      out.push({
        id,
        add,
        flat: { sets: first.sets, reps: first.reps, at: first.percent },
      });
    } else {
      return {
        line: week.line,
        text: `"${week.text}" goes another way than "${model.text}": a recipe has one shape, with a number added a week, and weeks of one block. Take this line out, or make two recipes.`,
      };
    }
  }
  const shape = { start, steps, weeks: out };
  return holds(shape, weeks)
    ? { shape }
    : { line: 1, text: "This table does not fit into one recipe. Take it in two parts." };
}

/** What the recipe comes to, set by set, against the table: the proof of the reading. */
function holds(shape: NonNullable<PercentTable["shape"]>, weeks: readonly WrittenWeek[]): boolean {
  const expanded = expandRecipe({
    name: "",
    aim: "speed",
    school: "",
    basis: "percent",
    convention: "bar",
    rest: { leastS: 0, mostS: 0 },
    cycle: [],
    lead: "percent",
    stop: { lossFrom: "best" },
    ...shape,
  });
  return weeks.every((week, i) => {
    const sets = expanded[i]?.sets ?? [];
    if (week.groups.length === 0 && week.kind === "deload") return true;
    const wanted = week.groups.flatMap((group) => Array.from({ length: group.sets }, () => group));
    return (
      sets.length === wanted.length &&
      sets.every((set, at) => {
        const group = wanted[at];
        return (
          group !== undefined &&
          set.reps === group.reps &&
          set.basis.by === "percent" &&
          near(set.basis.percent, group.percent)
        );
      })
    );
  });
}
