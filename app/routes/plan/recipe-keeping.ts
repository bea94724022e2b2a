import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { recipeTo } from "../../../core/plan/edits";
import type { Recipe } from "../../../core/recipe/recipe";
import type { RecipeResult } from "../../ui/recipe-form";
import { say } from "../../ui/said";
import type { Edit } from "./setup-edit";

/**
 * A slot's recipe while it is typed and kept. What is typed stays in the form, whatever others
 * edit meanwhile; it is kept as an edit drawn up on what the form was filled from, so that another
 * coach's change of the same recipe is told, and only the second press goes over it.
 * What is tried on a slot goes with it when another is picked: that is said, with the way back.
 * @param version number of the newest edit that the page has loaded
 * @param again picks a slot whose tried recipe is asked back
 */
export function useRecipeKeeping(
  edit: Edit,
  slotId: string,
  version: number,
  again: (slotId: string) => void,
) {
  const [tried, setTried] = useState<{ slotId: string; recipe: Recipe }>();
  const draft = tried?.slotId === slotId ? tried.recipe : undefined;
  /** Ahead of what is drawn: keys that come faster than the page each add to the one before. */
  const newest = useRef(draft);
  const asked = useRef<{ slotId: string; recipe: Recipe }>(undefined);
  const now = useRef({ edit, slotId, version, again });
  now.current = { edit, slotId, version, again };
  /** Asked back since it was left: a form is filled from it anew. */
  const [givenBack, setGivenBack] = useState<Recipe>();
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
  const leaving = useRef(false);
  useEffect(() => {
    leaving.current = false;
    return () => {
      leaving.current = true;
    };
  }, []);
  const settled = useCallback(() => {
    changes.current++;
    newest.current = undefined;
    setTyping(false);
    setResult(undefined);
    setTried(undefined);
    setGivenBack(undefined);
  }, []);
  useEffect(() => {
    const again = asked.current?.slotId === slotId ? asked.current.recipe : undefined;
    asked.current = undefined;
    settled();
    setTold(false);
    if (again) {
      newest.current = again;
      setTyping(true);
      setTried({ slotId, recipe: again });
      setGivenBack(again);
    }
    return () => {
      const left = newest.current;
      if (!left) return;
      const back = {
        label: "Try it again",
        run: () => {
          asked.current = { slotId, recipe: left };
          now.current.again(slotId);
        },
      };
      say(`Not kept: what was tried on ${left.name}.`, leaving.current ? undefined : back);
    };
  }, [slotId, settled]);
  const shown = result?.ok && version > savedAt ? undefined : result;
  const onTyping = useCallback(() => {
    changes.current++;
    setTyping(true);
  }, []);
  const onDraft = useCallback(
    (recipe: Recipe | undefined) => {
      // Of a slot that is let go already: nothing is tried on another.
      if (now.current.slotId !== slotId) return;
      changes.current++;
      newest.current = recipe;
      setTyping(true);
      setResult(undefined);
      setTried(recipe && { slotId, recipe });
    },
    [slotId],
  );
  const onKeep = useCallback(
    async (recipe: Recipe) => {
      const before = changes.current;
      const { edit, version } = now.current;
      // On its way: who leaves the slot now has not lost it. What is refused is tried still.
      newest.current = undefined;
      const answer = await edit(recipeTo(slotId, recipe), told ? version : filledAt);
      // What it says of a recipe that is not in the form any more stands above the plan.
      if (!answer || changes.current !== before) return;
      if (!answer.ok) newest.current = recipe;
      setTold(!answer.ok);
      setResult(answer.ok ? { ok: true } : { ok: false, message: answer.message });
      if (!answer.ok) return;
      setSavedAt(answer.value.seq);
      setTyping(false);
      setTried(undefined);
      setGivenBack(undefined);
    },
    [slotId, told, filledAt],
  );
  return useMemo(
    () => ({
      draft,
      result: shown,
      filledAt,
      givenBack,
      onTyping,
      onDraft,
      /** The recipe to go on from: what is tried, though it be not drawn yet; else what is kept. */
      newestOf: (kept: Recipe) => newest.current ?? kept,
      /** What was tried is put back: the recipe is as it is kept. */
      putBack: settled,
      onKeep,
    }),
    [draft, shown, filledAt, givenBack, onTyping, onDraft, settled, onKeep],
  );
}
