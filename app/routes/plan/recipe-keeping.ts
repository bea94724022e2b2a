import { useEffect, useRef, useState } from "react";
import { recipeTo } from "../../../core/plan/edits";
import type { Recipe } from "../../../core/recipe/recipe";
import type { RecipeResult } from "../../ui/recipe-form";
import type { Edit } from "./setup-edit";

/**
 * A slot's recipe while it is typed and kept. What is typed stays in the form, whatever others
 * edit meanwhile; it is kept as an edit drawn up on what the form was filled from, so that another
 * coach's change of the same recipe is told, and only the second press goes over it.
 * @param version number of the newest edit that the page has loaded
 */
export function useRecipeKeeping(edit: Edit, slotId: string, version: number) {
  const [draft, setDraft] = useState<Recipe>();
  const [result, setResult] = useState<RecipeResult>();
  const [typing, setTyping] = useState(false);
  /** What the form was filled from, and on what the next edit is drawn up. */
  const [filledAt, setFilledAt] = useState(version);
  const [told, setTold] = useState(false);
  /** Number of the edit that kept it: "saved" is said until another edit comes, an undo too. */
  const [savedAt, setSavedAt] = useState(version);
  /** Rises with every keystroke and slot: an answer that comes later clears nothing typed since. */
  const changes = useRef(0);
  if (!typing && filledAt !== version) setFilledAt(version);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another slot has a form of its own
  useEffect(() => {
    changes.current++;
    setDraft(undefined);
    setResult(undefined);
    setTyping(false);
    setTold(false);
  }, [slotId]);
  return {
    draft,
    result: result?.ok && version > savedAt ? undefined : result,
    filledAt,
    onDraft(recipe: Recipe | undefined) {
      changes.current++;
      setTyping(true);
      setResult(undefined);
      setDraft(recipe);
    },
    /** What was tried is put back: the recipe is as it is kept. */
    putBack() {
      changes.current++;
      setTyping(false);
      setResult(undefined);
      setDraft(undefined);
    },
    async onKeep(recipe: Recipe) {
      const before = changes.current;
      const answer = await edit(recipeTo(slotId, recipe), told ? version : filledAt);
      // What it says of a recipe that is not in the form any more stands above the plan.
      if (!answer || changes.current !== before) return;
      setTold(!answer.ok);
      setResult(answer.ok ? { ok: true } : { ok: false, message: answer.message });
      if (!answer.ok) return;
      setSavedAt(answer.value.seq);
      setTyping(false);
      setDraft(undefined);
    },
  };
}
