import { useState } from "react";
import { removeDay } from "../../../../core/plan/edits";
import { Field, Select } from "../../../ui/field";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { usePlanEdit } from "../plan-edits";
import { DayPairings } from "./day-pairings";

const WEEKDAYS = ["first day", "2nd", "3rd", "4th", "5th", "6th", "7th"];

/** A day of the block: its name, its place in the week, when it starts and how long it may be, its pairings. */
export function DayPanel({
  data,
  dayId,
  mayEdit,
}: {
  data: PlanPage;
  dayId: string;
  mayEdit: boolean;
}) {
  const edit = usePlanEdit();
  const [problem, setProblem] = useState<string>();
  const { block } = data;
  const day = block.days[dayId];
  if (!day) return null;
  const set = (path: string, value: string | number | undefined, words: string) =>
    void edit({ words, sets: [{ path: ["days", dayId, path], value }] });
  return (
    <section aria-labelledby="day-panel">
      <h2 id="day-panel">{day.name}</h2>
      <fieldset disabled={!mayEdit} className="mt-1 grid gap-1.5">
        <legend className="sr-only">{day.name}</legend>
        <Field
          key={`name-${dayId}-${day.name}`}
          inline
          label="Name"
          aria-label={`Name of ${day.name}`}
          defaultValue={day.name}
          onBlur={(event) => {
            const name = event.target.value.trim();
            if (name && name !== day.name) set("name", name, `Day renamed: ${name}`);
          }}
        />
        <Select
          inline
          label="In the week"
          aria-label={`${day.name}, day of the week`}
          value={day.offset}
          onChange={(event) => set("offset", Number(event.target.value), `${day.name} moved`)}
        >
          {WEEKDAYS.map((words, i) => (
            <option key={words} value={i}>
              {words}
            </option>
          ))}
        </Select>
        <Field
          key={`start-${dayId}-${day.startAt ?? ""}`}
          inline
          label="Starts at"
          aria-label={`${day.name}, starts at`}
          type="time"
          defaultValue={day.startAt ?? ""}
          hint="not set: the calendar has whole days"
          onBlur={(event) => {
            const at = event.target.value;
            if (at === (day.startAt ?? "")) return;
            set(
              "startAt",
              at === "" ? undefined : at,
              at === "" ? `${day.name}: no time` : `${day.name} at ${at}`,
            );
          }}
        />
        <Field
          key={`length-${dayId}-${day.lengthMin ?? ""}`}
          inline
          label="Has, min"
          aria-label={`${day.name}, minutes it has`}
          inputMode="numeric"
          defaultValue={day.lengthMin ?? ""}
          hint="not set: no length is asked"
          problem={problem}
          onBlur={(event) => {
            const text = event.target.value.trim();
            const minutes = text === "" ? undefined : Number(text);
            setProblem(undefined);
            if (minutes === day.lengthMin) return;
            if (
              minutes !== undefined &&
              !(Number.isInteger(minutes) && minutes >= 5 && minutes <= 480)
            )
              return setProblem("Whole minutes from 5 to 480.");
            set(
              "lengthMin",
              minutes,
              minutes === undefined ? `${day.name}: no length` : `${day.name} has ${minutes} min`,
            );
          }}
        />
      </fieldset>
      <h3 className="mt-3 font-bold">Pairings</h3>
      <DayPairings data={data} dayId={dayId} mayEdit={mayEdit} edit={edit} />
      {mayEdit ? (
        <button
          type="button"
          className="btn mt-4"
          onClick={() => void edit(removeDay(block, dayId))}
        >
          Take the day out
        </button>
      ) : null}
    </section>
  );
}
