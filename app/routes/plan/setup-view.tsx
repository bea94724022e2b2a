import { daysOf, realignsAfter } from "../../../core/plan/block";
import type { PlanPage } from "../../workflows/plan/read-plan.server";
import { usePlanEdit } from "./plan-edits";
import { DayPart } from "./setup-day";
import { freshId } from "./setup-edit";

/** The days with their slots. */
export function SetupView({ data, mayEdit }: { data: PlanPage; mayEdit: boolean }) {
  const edit = usePlanEdit();
  const { block } = data;
  const cycles = realignsAfter(block);
  return (
    <>
      {daysOf(block).map((day) => (
        <DayPart key={day.id} data={data} dayId={day.id} mayEdit={mayEdit} edit={edit} />
      ))}
      {mayEdit ? (
        <button
          type="button"
          className="btn"
          onClick={() => {
            const id = freshId("d");
            const used = daysOf(block).map((day) => day.offset);
            const offset = [0, 2, 4, 1, 3, 5, 6].find((one) => !used.includes(one)) ?? 6;
            edit({
              words: "Day added",
              sets: [
                { path: ["days", id], value: { name: `Day ${daysOf(block).length + 1}`, offset } },
              ],
            });
          }}
        >
          Add a day
        </button>
      ) : null}
      <p className="mt-2 text-sm text-muted">
        {cycles > 1
          ? `Repeating cycles stand together again every ${cycles} working weeks.`
          : "A cycle of its own for each slot; they may differ in length."}
      </p>
    </>
  );
}
