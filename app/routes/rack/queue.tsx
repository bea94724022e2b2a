import type { LifterState } from "../../../core/floor/lifter-state";
import type { RackState } from "../../../core/floor/state";
import { kgToGrains, massIn, plainNumber } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";

/** Who rests how long, in the order in which they come. */
export function Queue({
  rack,
  shownId,
  still,
  rest,
  rested,
}: {
  rack: RackState;
  shownId: string | undefined;
  /** The session has ended: no clock runs. */
  still: boolean;
  rest: { leastS: number };
  rested: (one: LifterState) => number | undefined;
}) {
  const up = rack.lifters.findIndex((one) => one.lifter.athleteId === rack.upId);
  const turn = [...rack.lifters.slice(Math.max(0, up)), ...rack.lifters.slice(0, Math.max(0, up))];
  const moves = rack.slot.groups.find((group) => group.stationId === rack.rack.id)?.moves;
  const others = turn.filter((one) => one.lifter.athleteId !== shownId);
  return (
    <>
      <ol aria-label="Who is next">
        {others.map((one) => {
          const set = one.current === undefined ? undefined : one.sets[one.current];
          const seconds = still ? undefined : rested(one);
          const wanted = rest.leastS + one.addedRestS;
          const left = seconds === undefined ? 0 : wanted - seconds;
          const share = seconds === undefined ? 1 : Math.min(1, seconds / wanted);
          return (
            <li key={one.lifter.athleteId} className="border-b border-rule py-2">
              <p className="flex items-baseline justify-between gap-2">
                <span className="text-[20px] font-bold">
                  {one.callName}{" "}
                  <span className="text-[17px] font-normal">
                    {set?.loadKg === undefined
                      ? ""
                      : `${plainNumber(massIn(kgToGrains(set.loadKg), one.lifter.unit), 1)} ${one.lifter.unit}`}
                  </span>
                </span>
                <span className="text-[22px] font-bold">
                  {set === undefined
                    ? "done"
                    : still
                      ? ""
                      : left > 0
                        ? formatClock(Math.ceil(left))
                        : "ready"}
                </span>
              </p>
              {set === undefined ? null : (
                <>
                  <p className="text-[17px] text-muted">
                    set {set.prescription.number}
                    {seconds === undefined ? "" : `, rested ${formatClock(seconds)}`}
                  </p>
                  <div className="mt-1 h-1.5 bg-faint" aria-hidden="true">
                    <div className="h-full bg-primary" style={{ width: `${100 * share}%` }} />
                  </div>
                </>
              )}
            </li>
          );
        })}
      </ol>
      {moves ? (
        <p className="text-[17px] text-muted">
          Plates of the rotation: {moves.moves} moves
          {moves.alone > moves.moves ? `, ${moves.alone} load by load` : ""}
        </p>
      ) : null}
    </>
  );
}
