import { useState } from "react";
import { pairingsOf } from "../../../../core/plan/block";
import { putPairing } from "../../../../core/plan/edits";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { type Edit, freshId } from "../setup-edit";

/** The pairings of a day: complexes of the library, each from a week on. */
export function DayPairings({
  data,
  dayId,
  mayEdit,
  edit,
}: {
  data: PlanPage;
  dayId: string;
  mayEdit: boolean;
  edit: Edit;
}) {
  const { block } = data;
  const [chosen, setChosen] = useState("");
  const day = block.days[dayId]?.name ?? "";
  const nameOf = (id: string) =>
    [...data.complexNames, ...data.complexes.map((one) => ({ id: one.id, ...one.complex }))].find(
      (one) => one.id === id,
    )?.name ?? "not in the library any more";
  const pairings = pairingsOf(block, dayId);
  if (!mayEdit && pairings.length === 0) return null;
  return (
    <div className="mt-1">
      <ul aria-label={`Pairings of ${day}`}>
        {pairings.map((one) => (
          <li
            key={one.id}
            className="flex flex-wrap items-center gap-x-3 border-b border-faint py-1"
          >
            <span>
              <span className="text-muted">Pairing </span>
              <b>{nameOf(one.complexId)}</b>
            </span>
            {mayEdit ? (
              <>
                <label className="flex items-center gap-2 text-muted">
                  from week
                  <input
                    key={one.fromWeek}
                    className="field !w-14 text-right text-base-content"
                    inputMode="numeric"
                    aria-label={`${nameOf(one.complexId)}, from week`}
                    defaultValue={one.fromWeek}
                    onBlur={(event) => {
                      const week = Number(event.target.value);
                      if (Number.isInteger(week) && week >= 1 && week !== one.fromWeek)
                        edit({
                          words: `${nameOf(one.complexId)} from week ${week}`,
                          sets: [{ path: ["pairings", one.id, "fromWeek"], value: week }],
                        });
                    }}
                  />
                </label>
                <button
                  type="button"
                  className="underline"
                  onClick={() =>
                    edit({
                      words: `Pairing taken off: ${nameOf(one.complexId)}`,
                      sets: [{ path: ["pairings", one.id] }],
                    })
                  }
                >
                  Take it off
                </button>
              </>
            ) : (
              <span className="text-muted">from week {one.fromWeek}</span>
            )}
          </li>
        ))}
      </ul>
      {mayEdit && data.complexNames.length > 0 ? (
        <div className="mt-1 flex flex-wrap items-center gap-2">
          <select
            className="field-select !w-60"
            aria-label={`Complex for ${day}`}
            value={chosen}
            onChange={(event) => setChosen(event.target.value)}
          >
            <option value="">a complex</option>
            {data.complexNames.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
          <button
            type="button"
            className="btn"
            disabled={chosen === ""}
            onClick={() => {
              edit(
                putPairing(
                  block,
                  freshId("p"),
                  { dayId, complexId: chosen, fromWeek: 1 },
                  nameOf(chosen),
                ),
              );
              setChosen("");
            }}
          >
            Pair it on {day}
          </button>
        </div>
      ) : null}
    </div>
  );
}
