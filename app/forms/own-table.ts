import { z } from "zod";
import { AIM_BEGINNINGS } from "../../core/checks/dose";
import {
  LIST_READINGS,
  readPercentTable,
  type TableChoices,
} from "../../core/recipe/percent-table";
import { AIMS, type Recipe } from "../../core/recipe/recipe";
import { rowsOf } from "./delimited";

/** What the page that reads a coach's own table sends. */
export const MOST_TABLE_TEXT = 20_000;

export const OwnTableForm = z.object({
  text: z
    .string()
    .trim()
    .min(1, "Paste the table first.")
    .max(MOST_TABLE_TEXT, "This is longer than a year of weeks. Paste one table."),
  name: z.string().trim().min(1, "Name the recipe.").max(80, "At most 80 characters."),
  aim: z.enum(AIMS),
  column: z.union([z.literal(""), z.coerce.number().int().min(0).max(200)]).default(""),
  list: z.union([z.literal(""), z.enum(LIST_READINGS)]).default(""),
  order: z.enum(["sets-reps", "reps-sets"]).default("sets-reps"),
});
export type OwnTable = z.output<typeof OwnTableForm>;

/** The table as it is read while it is typed, and again when it is kept. */
export function readOwnTable(text: string, choices: TableChoices) {
  // A table of one column has no delimiter: its commas stand between groups.
  const rows = text.includes("\t") ? rowsOf(text) : text.split(/\r\n?|\n/).map((line) => [line]);
  return readPercentTable(rows, choices);
}

export const choicesOf = (form: Pick<OwnTable, "column" | "list" | "order">): TableChoices => ({
  column: form.column === "" ? undefined : form.column,
  list: form.list === "" ? undefined : form.list,
  order: form.order,
});

export function recipeOf(
  shape: Pick<Recipe, "start" | "steps" | "weeks">,
  facts: { name: string; aim: Recipe["aim"]; school: string },
): Recipe {
  return {
    ...facts,
    basis: "percent",
    convention: "bar",
    cycle: [],
    lead: "percent",
    ...AIM_BEGINNINGS[facts.aim],
    ...shape,
  };
}
