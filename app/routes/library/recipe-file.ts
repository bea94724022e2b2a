import { idFrom } from "../../forms/primitives/id";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { exportRecipe } from "../../workflows/library/plan-library.server";
import type { Route } from "./+types/recipe-file";

/** A recipe as a file to share. */
export async function loader({ context, params }: Route.LoaderArgs) {
  const found = await exportRecipe(
    principalOf(context),
    idFrom(params.recipeFile.replace(/\.json$/, "")),
  );
  if (!found.ok) throw notThere(found);
  return new Response(found.value.text, {
    headers: {
      "content-type": "application/json; charset=utf-8",
      "content-disposition": 'attachment; filename="recipe.json"',
    },
  });
}
