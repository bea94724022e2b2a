import { useState } from "react";
import type { LoadRun } from "../../../core/plan/block-loads";
import { noOwnLoad, ownLoad } from "../../../core/plan/edits";
import type { Lifter } from "../../../core/prescribe/lifter";
import { withUnit } from "../../../core/units/field-unit";
import { kgToGrains, massIn, massKg, plainNumber } from "../../../core/units/mass";
import { loadIn } from "../../forms/load";
import { useUnit } from "../../ui/unit";
import { usePlanEdit } from "./plan-edits";

export interface Editing {
  athlete: Lifter;
  run: LoadRun;
  week: number;
}

/** A coach's own load for one set: an edit of the plan like any other, undone with them. */
export function OverrideBar({
  editing,
  slotId,
  onClose,
}: {
  editing: Editing;
  slotId: string;
  onClose: () => void;
}) {
  const edit = usePlanEdit();
  const [problem, setProblem] = useState<string>();
  const { athlete, run, week } = editing;
  const at = { athleteId: athlete.id, slotId, setKey: run.key };
  const unit = useUnit();
  const shown =
    run.loadKg === undefined ? "" : plainNumber(massIn(kgToGrains(run.loadKg), unit), 1);
  const keep = (text: FormDataEntryValue | null) => {
    const load = loadIn(withUnit(String(text ?? ""), unit));
    if (!load.ok) {
      setProblem(load.message);
      return;
    }
    void edit(ownLoad(at, massKg(load.mass)));
    onClose();
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        keep(new FormData(event.currentTarget).get("load"));
      }}
      className="sticky bottom-0 left-0 mt-2 flex flex-wrap items-end gap-3 border-t border-control bg-base-200 p-3"
      aria-label={`Own load for ${athlete.name}, week ${week}`}
    >
      <label>
        <span className="block text-muted">
          {athlete.name}, week {week}: your load
        </span>
        <input
          // biome-ignore lint/a11y/noAutofocus: opened by the coach to type into
          autoFocus
          name="load"
          className="field w-40"
          defaultValue={`${shown} ${unit}`}
          aria-invalid={problem ? true : undefined}
        />
      </label>
      <button type="submit" className="btn btn-primary">
        Set this load
      </button>
      {run.overridden ? (
        <button
          type="button"
          className="btn"
          onClick={() => {
            void edit(noOwnLoad(at));
            onClose();
          }}
        >
          Back to the recipe
        </button>
      ) : null}
      <button type="button" className="btn" onClick={onClose}>
        Cancel
      </button>
      {problem ? (
        <p role="alert" className="w-full font-medium text-accent">
          {problem}
        </p>
      ) : null}
    </form>
  );
}
