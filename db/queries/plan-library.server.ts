import { asc, desc, eq, sql } from "drizzle-orm";
import { uuidv7 } from "uuidv7";
import { type School, schoolOf } from "../../core/checks/school";
import type { Recipe } from "../../core/recipe/recipe";
import type { CoachValues } from "../../core/settings/coach-values";
import type { LocalDate } from "../../core/units/time";
import { isOlder } from "../../core/velocity/processing";
import { SHIPPED_RECIPES } from "../library/recipes";
import { SHIPPED_SCHOOLS } from "../library/schools";
import { coachValue, teamRecipe, teamSchool } from "../schema";
import type { TeamTransaction } from "../team.server";

export interface RecipeRow {
  id: string;
  lineageId: string;
  version: number;
  family: string;
  source: string;
  recipe: Recipe;
  awayOn: LocalDate | null;
  enteredBy: string;
}

/** Copies the shipped recipes and schools into a team that has none. */
export async function copyPlanLibrary(
  tx: TeamTransaction,
  entered: { enteredBy: string; enteredAt: Date },
  uuid: () => string = uuidv7,
): Promise<void> {
  await tx.insert(teamRecipe).values(
    SHIPPED_RECIPES.map((one) => ({
      teamId: tx.teamId,
      id: uuid(),
      lineageId: uuid(),
      version: 1,
      ...one,
      ...entered,
    })),
  );
  await tx
    .insert(teamSchool)
    .values(
      SHIPPED_SCHOOLS.map((school) => ({ teamId: tx.teamId, id: uuid(), school, ...entered })),
    );
}

/** The id of a team's school by its name; empty where there is none. */
export async function schoolIdByName(tx: TeamTransaction, name: string): Promise<string> {
  return (await listSchools(tx)).find((one) => one.school.name === name)?.id ?? "";
}

/** Teams that were seen with a library, in this process. */
const stocked = new Set<string>();

/**
 * Gives a team from before, or a new one, the shipped recipes and schools. Two who come first at
 * once wait for each other, so that they stand once. Called before what reads them.
 */
export async function ensurePlanLibrary(tx: TeamTransaction): Promise<void> {
  if (stocked.has(tx.teamId)) return;
  const empty = async () =>
    (await tx.select({ id: teamSchool.id }).from(teamSchool).limit(1)).length === 0;
  if (!(await empty())) {
    // Nothing takes a team's last school away: it need not be asked again.
    stocked.add(tx.teamId);
    return;
  }
  await tx.execute(
    sql`SELECT pg_advisory_xact_lock(hashtextextended(${`plan library ${tx.teamId}`}, 0))`,
  );
  if (await empty()) await copyPlanLibrary(tx, { enteredBy: "shipped", enteredAt: new Date(0) });
}

/** The newest version of every recipe. */
export async function listRecipes(tx: TeamTransaction): Promise<RecipeRow[]> {
  const rows = await tx
    .select()
    .from(teamRecipe)
    .orderBy(asc(teamRecipe.lineageId), desc(teamRecipe.version));
  return rows
    .filter((row, i) => row.lineageId !== rows[i - 1]?.lineageId)
    .sort((a, b) => a.family.localeCompare(b.family) || a.recipe.name.localeCompare(b.recipe.name));
}

export async function addRecipeVersion(
  tx: TeamTransaction,
  row: Omit<typeof teamRecipe.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(teamRecipe).values({ teamId: tx.teamId, ...row });
}

export async function putRecipeAway(tx: TeamTransaction, id: string, awayOn: LocalDate | null) {
  await tx.update(teamRecipe).set({ awayOn }).where(eq(teamRecipe.id, id));
}

export async function listSchools(
  tx: TeamTransaction,
): Promise<Array<{ id: string; school: School; enteredBy: string }>> {
  const rows = await tx.select().from(teamSchool);
  return rows
    .map((row) => ({ ...row, school: schoolOf(row.school) }))
    .sort((a, b) => a.school.name.localeCompare(b.school.name));
}

export async function saveSchool(
  tx: TeamTransaction,
  row: Omit<typeof teamSchool.$inferInsert, "teamId">,
): Promise<void> {
  await tx
    .insert(teamSchool)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoUpdate({ target: [teamSchool.teamId, teamSchool.id], set: row });
}

/** What the team's coaches have set; the newest number of a key holds. */
export async function coachValues(tx: TeamTransaction): Promise<CoachValues> {
  const rows = await tx
    .select()
    .from(coachValue)
    .orderBy(asc(coachValue.enteredAt), asc(coachValue.id));
  return Object.fromEntries(
    rows.map((row) => [row.key, isOlder(row.processing) ? undefined : (row.value ?? undefined)]),
  );
}

/** Speeds that were set under an older processing and not confirmed since: they raise nothing. */
export async function olderCoachValues(tx: TeamTransaction): Promise<CoachValues> {
  const rows = await tx
    .select()
    .from(coachValue)
    .orderBy(asc(coachValue.enteredAt), asc(coachValue.id));
  const newest = new Map(rows.map((row) => [row.key, row]));
  return Object.fromEntries(
    [...newest.values()].flatMap((row) =>
      isOlder(row.processing) && row.value !== null ? [[row.key, row.value]] : [],
    ),
  );
}

export async function setCoachValue(
  tx: TeamTransaction,
  row: Omit<typeof coachValue.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(coachValue).values({ teamId: tx.teamId, ...row });
}
