import type { LoadRun } from "../../../core/plan/block-loads";
import type { Lifter } from "../../../core/prescribe/lifter";
import { kgToGrains, massIn, plainNumber } from "../../../core/units/mass";
import { Form } from "../../ui/form";

export interface Editing {
  athlete: Lifter;
  run: LoadRun;
  week: number;
}

export function OverrideBar({
  editing,
  slotId,
  base,
  onClose,
}: {
  editing: Editing;
  slotId: string;
  base: number;
  onClose: () => void;
}) {
  const { athlete, run, week } = editing;
  const unit = athlete.unit ?? "kg";
  const shown =
    run.loadKg === undefined ? "" : plainNumber(massIn(kgToGrains(run.loadKg), unit), 1);
  return (
    <Form
      method="post"
      onSubmit={onClose}
      className="sticky bottom-0 left-0 mt-2 flex flex-wrap items-end gap-3 border-t border-control bg-base-200 p-3"
      aria-label={`Own load for ${athlete.name}, week ${week}`}
    >
      <input type="hidden" name="athleteId" value={athlete.id} />
      <input type="hidden" name="setKey" value={run.key} />
      <input type="hidden" name="slotId" value={slotId} />
      <input type="hidden" name="week" value={week} />
      <input type="hidden" name="base" value={base} />
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
        />
      </label>
      <button type="submit" name="intent" value="override" className="btn btn-primary">
        Set this load
      </button>
      {run.overridden ? (
        <button type="submit" name="intent" value="lift" className="btn">
          Back to the recipe
        </button>
      ) : null}
      <button type="button" className="btn" onClick={onClose}>
        Cancel
      </button>
    </Form>
  );
}
