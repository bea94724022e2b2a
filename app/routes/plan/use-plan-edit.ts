import { useSubmit } from "react-router";
import type { BlockEdit } from "../../../core/wave/edits";

/** Sends an edit made on what this page shows; the answer comes as the page's action result. */
export function usePlanEdit(base: number) {
  const submit = useSubmit();
  return (edit: BlockEdit | undefined) => {
    if (!edit) return;
    void submit(
      { intent: "edit", base: String(base), edit: JSON.stringify(edit) },
      { method: "post", preventScrollReset: true },
    );
  };
}
