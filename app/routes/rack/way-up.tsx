import { rampNumber } from "../../../core/floor/entries";
import type { LifterState } from "../../../core/floor/lifter-state";
import type { SetState } from "../../../core/floor/set-state";
import { kgToGrains, massIn, plainNumber } from "../../../core/units/mass";

/** The way up to the first work set: its loads, and the way into it. */
export function WayUp({
  lifter,
  set,
  ramping,
  start,
  stop,
}: {
  lifter: LifterState;
  set: SetState;
  ramping: boolean;
  start: () => void;
  stop: () => void;
}) {
  const { rampKg = [], unit } = lifter.lifter;
  const number = rampNumber(set.prescription.key);
  if (number !== undefined) {
    return (
      <p className="mt-1">
        <button type="button" className="btn min-h-[56px] text-[18px]" onClick={stop}>
          On to the work sets
        </button>
      </p>
    );
  }
  if (lifter.doneCount > 0 || ramping) return null;
  const done = lifter.ramp.filter((one) => one.stage === "done").length;
  const left = rampKg.slice(done).map((kg) => plainNumber(massIn(kgToGrains(kg), unit), 1));
  return (
    <p className="mt-1 flex flex-wrap items-center gap-3 text-[18px] text-muted">
      <button type="button" className="btn min-h-[56px] text-[18px]" onClick={start}>
        Warm-up set
      </button>
      {left.length > 0 ? `${left.join(" · ")} ${unit}` : done > 0 ? `${done} done` : null}
    </p>
  );
}
