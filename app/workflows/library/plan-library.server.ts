import { uuidv7 } from "uuidv7";
import type { School } from "../../../core/checks/school";
import type { Recipe } from "../../../core/recipe/recipe";
import { COACH_VALUES, listCoachValues } from "../../../core/settings/coach-values";
import { listTeamDefaults, TEAM_DEFAULTS } from "../../../core/settings/team-defaults";
import { PROCESSING_VERSION } from "../../../core/velocity/stream";
import {
  addRecipeVersion,
  coachValues,
  ensurePlanLibrary,
  listRecipes,
  listSchools,
  olderCoachValues,
  putRecipeAway,
  saveSchool,
  setCoachValue,
} from "../../../db/queries/plan-library.server";
import { readTeam } from "../../../db/queries/squads.server";
import { readRecipeFile, recipeAsJson } from "../../forms/block";
import { choicesOf, type OwnTable, readOwnTable, recipeOf } from "../../forms/own-table";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { teamDay } from "../lifters/today.server";

/** The team's recipes, the newest version of each. */
export function readRecipes(principal: Principal) {
  return inTeam(principal, async (tx) => {
    await ensurePlanLibrary(tx);
    return (await listRecipes(tx)).map(
      ({ id, lineageId, version, family, source, recipe, awayOn, enteredBy }) => ({
        id,
        lineageId,
        version,
        family,
        source,
        recipe,
        away: awayOn !== null,
        by: enteredBy,
      }),
    );
  });
}

const GONE = failed("gone", "This recipe is not in your library any more.");

/** A new version of a recipe; what blocks took of it stays as they took it. */
export function saveRecipeVersion(
  principal: Principal,
  input: { id: string; family: string; recipe: Recipe },
): Promise<Outcome<{ id: string; version: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const old = (await listRecipes(tx)).find((one) => one.id === input.id);
    if (!old) return GONE;
    const id = uuidv7();
    const version = old.version + 1;
    await addRecipeVersion(tx, {
      id,
      lineageId: old.lineageId,
      version,
      family: input.family || old.family,
      source: old.source,
      recipe: input.recipe,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ id, version });
  });
}

/** A recipe of its own that begins as a copy. */
export function copyRecipe(principal: Principal, id: string): Promise<Outcome<{ id: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const old = (await listRecipes(tx)).find((one) => one.id === id);
    if (!old) return GONE;
    const copy = uuidv7();
    await addRecipeVersion(tx, {
      id: copy,
      lineageId: uuidv7(),
      version: 1,
      family: old.family,
      source: `copied from ${old.recipe.name}`,
      recipe: { ...old.recipe, name: `${old.recipe.name}, own` },
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ id: copy });
  });
}

export function importRecipe(
  principal: Principal,
  text: string,
): Promise<Outcome<{ id: string }> & { problems?: string[] }> {
  const read = readRecipeFile(text);
  if (!read.ok) {
    return Promise.resolve({
      ...failed("file", "Nothing was added: this file has faults."),
      problems: read.problems,
    });
  }
  return inTeamOnce(principal, async (tx) => {
    const { family, source, recipe } = read.value;
    const id = uuidv7();
    await addRecipeVersion(tx, {
      id,
      lineageId: uuidv7(),
      version: 1,
      family,
      source,
      recipe,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ id });
  });
}

/** A coach's own table as a recipe: read again here, and kept only where nothing is open. */
export function keepOwnTable(
  principal: Principal,
  input: OwnTable,
): Promise<Outcome<{ id: string }>> {
  const table = readOwnTable(input.text, choicesOf(input));
  const { shape } = table;
  if (!shape) {
    const [problem] = table.problems;
    const words = problem ? `Line ${problem.line}: ${problem.text}` : table.questions[0]?.text;
    return Promise.resolve(failed("table", `Nothing was made. ${words ?? ""}`));
  }
  return inTeamOnce(principal, async (tx) => {
    await ensurePlanLibrary(tx);
    const schools = await listSchools(tx);
    const usual = (await readTeam(tx))?.schoolId;
    const school = (schools.find((one) => one.id === usual) ?? schools[0])?.school.name ?? "";
    const same = (await listRecipes(tx)).find(
      (one) => one.recipe.name.toLowerCase() === input.name.toLowerCase(),
    );
    if (same) return failed("same-name", `${same.recipe.name} is there already. Use another name.`);
    const id = uuidv7();
    await addRecipeVersion(tx, {
      id,
      lineageId: uuidv7(),
      version: 1,
      family: "Your own",
      source: "your own table",
      recipe: recipeOf(shape, { name: input.name, aim: input.aim, school }),
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ id });
  });
}

export function shelveRecipe(
  principal: Principal,
  input: { id: string; away: boolean },
): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    await putRecipeAway(tx, input.id, input.away ? (await teamDay(tx))(now()) : null);
    return done(null);
  });
}

export function exportRecipe(principal: Principal, id: string): Promise<Outcome<{ text: string }>> {
  return inTeam(principal, async (tx) => {
    const found = (await listRecipes(tx)).find((one) => one.id === id);
    return found ? done({ text: recipeAsJson(found) }) : GONE;
  });
}

export function readSchools(principal: Principal) {
  return inTeam(principal, async (tx) => {
    await ensurePlanLibrary(tx);
    const usual = (await readTeam(tx))?.schoolId;
    return (await listSchools(tx)).map(({ id, school, enteredBy }) => ({
      id,
      school,
      by: enteredBy,
      usual: id === usual,
    }));
  });
}

/** Keeps a school's rules; with no id, a new one under its own name. */
export function keepSchool(
  principal: Principal,
  input: { id: string; school: School },
): Promise<Outcome<{ id: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const all = await listSchools(tx);
    const same = all.find(
      (one) =>
        one.school.name.toLowerCase() === input.school.name.toLowerCase() && one.id !== input.id,
    );
    if (same) return failed("same-name", `${same.school.name} is there already. Use another name.`);
    const id = input.id || uuidv7();
    await saveSchool(tx, {
      id,
      school: input.school,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ id });
  });
}

/** What only a coach can set, unset ones first. */
/** What only a coach can set, unset first, and the usual numbers that a team may set. */
export function readCoachValues(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const values = await coachValues(tx);
    const older = await olderCoachValues(tx);
    return { values: listCoachValues(values), defaults: listTeamDefaults(values), older };
  });
}

export function keepCoachValue(
  principal: Principal,
  input: { key: string; value: number | undefined },
): Promise<Outcome<null>> {
  const spec = [...COACH_VALUES, ...TEAM_DEFAULTS].find((one) => one.key === input.key);
  if (!spec) return Promise.resolve(failed("no-value", "There is no such value."));
  const { value } = input;
  if (value !== undefined && (value < spec.low || value > spec.high)) {
    return Promise.resolve(
      failed("range", `${spec.name}: between ${spec.low} and ${spec.high} ${spec.unit}.`),
    );
  }
  return inTeamOnce(principal, async (tx) => {
    await setCoachValue(tx, {
      id: uuidv7(),
      key: input.key,
      value: value ?? null,
      processing: spec.unit === "m/s" ? PROCESSING_VERSION : null,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done(null);
  });
}
