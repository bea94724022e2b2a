import { Link, redirect } from "react-router";
import { describeBasis } from "../../../core/recipe/basis";
import { AFTER_NAMES, expandRecipe, type Recipe } from "../../../core/recipe/recipe";
import type { MassUnit } from "../../../core/units/mass";
import { formObject } from "../../forms/athlete";
import { idFrom } from "../../forms/primitives/id";
import { fieldProblems, recipeFromForm } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Adder, type FormResult, resultOf } from "../../ui/adder";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { RecipeForm, type RecipeResult } from "../../ui/recipe-form";
import { useUnit } from "../../ui/unit";
import { keepOnFilter, useAddress } from "../../ui/use-address";
import {
  copyRecipe,
  importRecipe,
  readRecipes,
  saveRecipeVersion,
  shelveRecipe,
} from "../../workflows/library/plan-library.server";
import type { Route } from "./+types/recipes";
import { LibraryTabs } from "./library-tabs";

export function meta() {
  return [{ title: "Recipes · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return {
    recipes: await readRecipes(principal),
    mayEdit: mayWrite(principal, "/library/recipes"),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const form = await readForm(request);
  const fields = formObject(form);
  const { intent = "" } = fields;
  const id = idFrom(fields.id);
  switch (intent) {
    case "copy": {
      const made = await copyRecipe(principal, id);
      if (made.ok) throw redirect(`/library/recipes?recipe=${made.value.id}`);
      return { intent, ...made };
    }
    case "away":
    case "back":
      return { intent, ...(await shelveRecipe(principal, { id, away: intent === "away" })) };
    case "file": {
      const made = await importRecipe(principal, fields.text ?? "");
      if (made.ok) throw redirect(`/library/recipes?recipe=${made.value.id}`);
      return { intent, ok: false as const, message: made.message, faults: made.problems };
    }
    default: {
      const parsed = recipeFromForm(form);
      if (!parsed.success) {
        return {
          intent: "recipe",
          ok: false as const,
          message: "Nothing was saved: some fields need another look.",
          problems: fieldProblems(parsed.error),
        };
      }
      const made = await saveRecipeVersion(principal, { id, family: "", recipe: parsed.data });
      if (made.ok) throw redirect(`/library/recipes?recipe=${made.value.id}`);
      return { intent: "recipe", ...made };
    }
  }
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof keepOnFilter>[0]) {
  return keepOnFilter(args) && revalidateUnlessFailed(args);
}

/** The recipes of the team: shaped as one types, versioned when they are saved. */
export default function Recipes({ loaderData, actionData }: Route.ComponentProps) {
  const unit = useUnit();
  const { recipes, mayEdit } = loaderData;
  const address = useAddress();
  const inUse = recipes.filter((one) => !one.away);
  const chosen = recipes.find((one) => one.id === address.get("recipe")) ?? inUse[0];
  const families = [...new Set(inUse.map((one) => one.family))];
  const away = recipes.filter((one) => one.away);
  const file = resultOf(actionData, "file") as (FormResult & { faults?: string[] }) | undefined;
  return (
    <Page
      title="Library"
      facts="Recipes: shipped ones are yours to change; a block keeps what it took."
      actions={
        mayEdit ? (
          <Link className="btn" to="/library/own-table">
            From your own table
          </Link>
        ) : undefined
      }
      margin={
        chosen ? (
          <RecipeForm
            key={chosen.id}
            recipe={chosen.recipe}
            hidden={{ id: chosen.id }}
            mayEdit={mayEdit}
            result={resultOf(actionData, "recipe") as RecipeResult | undefined}
          />
        ) : undefined
      }
    >
      <LibraryTabs />
      {families.map((family) => (
        <section key={family} aria-label={family} className="mb-4">
          <h2>{family}</h2>
          <ul>
            {inUse
              .filter((one) => one.family === family)
              .map((one) => (
                <li
                  key={one.id}
                  className={`border-b border-faint py-1 ${one === chosen ? "bg-wash" : ""}`}
                >
                  <div className="flex flex-wrap items-baseline gap-x-3">
                    <Link
                      to={`?recipe=${one.id}`}
                      replace
                      preventScrollReset
                      aria-current={one === chosen ? "true" : undefined}
                      className="font-bold hover:underline"
                    >
                      {one.recipe.name}
                    </Link>
                    <span className="text-muted">{shapeOf(one.recipe, unit)}</span>
                  </div>
                  <p className="text-sm text-muted">
                    {one.recipe.aim} · {one.recipe.school} · version {one.version}, {one.by} ·{" "}
                    {one.source}
                  </p>
                </li>
              ))}
          </ul>
        </section>
      ))}
      {chosen && mayEdit ? (
        <Form method="post" className="flex flex-wrap gap-4">
          <input type="hidden" name="id" value={chosen.id} />
          <button type="submit" name="intent" value="copy" className="underline">
            Copy {chosen.recipe.name}
          </button>
          <button type="submit" name="intent" value="away" className="underline">
            Put it away
          </button>
          <a className="underline" href={`/library/recipes/${chosen.id}.json`} download>
            Take it out as JSON
          </a>
        </Form>
      ) : null}
      {away.length > 0 ? (
        <section aria-label="Put away" className="mt-4">
          <h2>Put away</h2>
          {away.map((one) => (
            <Form key={one.id} method="post" className="flex gap-3">
              <input type="hidden" name="id" value={one.id} />
              {one.recipe.name}
              <button type="submit" name="intent" value="back" className="underline">
                Bring back
              </button>
            </Form>
          ))}
        </section>
      ) : null}
      {mayEdit ? (
        <Adder title="Recipe from a file" open={file?.ok === false}>
          <Form method="post" aria-label="Recipe from a file" className="grid max-w-xl gap-2">
            <label className="grid gap-1">
              <span className="text-muted">JSON, as a recipe is taken out</span>
              <textarea
                name="text"
                rows={5}
                className="rounded border border-control bg-base-100 p-2"
              />
            </label>
            {file?.message ? (
              <Notice kind="problem" title={file.message}>
                <ul>
                  {(file.faults ?? []).map((fault) => (
                    <li key={fault}>{fault}</li>
                  ))}
                </ul>
              </Notice>
            ) : null}
            <button type="submit" name="intent" value="file" className="btn justify-self-start">
              Add it
            </button>
          </Form>
        </Adder>
      ) : null}
    </Page>
  );
}

/** A recipe in one line: each week's sets and what they ask. */
function shapeOf(recipe: Recipe, unit: MassUnit): string {
  const weeks = expandRecipe(recipe).map((week) => {
    if (week.sets.length === 0) return week.kind;
    const asked = [...new Set(week.sets.map((set) => describeBasis(set.basis, unit)))];
    const reps = [...new Set(week.sets.map((set) => set.reps))].join("/");
    const range = asked.length > 1 ? `${asked[0]} to ${asked.at(-1)}` : asked[0];
    const name = week.method ? `${week.method.name} ` : week.kind === "deload" ? "deload " : "";
    return `${name}${week.sets.length} × ${reps} @ ${range}`;
  });
  const then = recipe.after ? `; then ${AFTER_NAMES[recipe.after]}` : "";
  return `${weeks.join(" · ")}${then}`;
}
