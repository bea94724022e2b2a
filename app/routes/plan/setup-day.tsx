import { useState } from "react";
import { asSchool } from "../../../core/checks/as-school";
import { isPlaceKind, PLACE_KINDS } from "../../../core/gear/kinds";
import {
  SECTION_NAMES,
  SECTIONS,
  type SectionKind,
  type Slot,
  slotsOf,
} from "../../../core/plan/block";
import { type Json, moveSlot, removeDay, removeSlot } from "../../../core/plan/edits";
import { withCoachFloor } from "../../../core/recipe/coach-floor";
import { recipeWeeks } from "../../../core/recipe/recipe";
import { Adder } from "../../ui/adder";
import { Select } from "../../ui/field";
import type { PlanPage } from "../../workflows/plan/read-plan.server";
import { BoxPart } from "./setup-box";
import { type Edit, freshId } from "./setup-edit";
import { DayPairings } from "./setup-pairing";
import { slotName } from "./slot-picker";

const WEEKDAYS = ["first day", "2nd", "3rd", "4th", "5th", "6th", "7th"];
const jsonOf = (value: unknown) => JSON.parse(JSON.stringify(value)) as Json;

function isBox(data: PlanPage, slot: Slot): boolean {
  const { work } = slot;
  return (
    work.kind === "lift" &&
    data.lifts.find((one) => one.id === work.variantId)?.lift === "box-squat"
  );
}

interface PartProps {
  data: PlanPage;
  mayEdit: boolean;
  edit: Edit;
}

/** A day's name and place in the week. */
function DayHead({ data, dayId, mayEdit, edit }: PartProps & { dayId: string }) {
  const { block } = data;
  const day = block.days[dayId];
  if (!day) return null;
  return (
    <div className="flex flex-wrap items-center gap-2">
      {mayEdit ? (
        <>
          <input
            key={day.name}
            className="field !w-44 font-bold"
            aria-label={`Name of ${day.name}`}
            defaultValue={day.name}
            onBlur={(event) => {
              const name = event.target.value.trim();
              if (name && name !== day.name) {
                edit({
                  words: `Day renamed: ${name}`,
                  sets: [{ path: ["days", dayId, "name"], value: name }],
                });
              }
            }}
          />
          <select
            className="field-select !w-32"
            aria-label={`${day.name}, day of the week`}
            value={day.offset}
            onChange={(event) =>
              edit({
                words: `${day.name} moved`,
                sets: [{ path: ["days", dayId, "offset"], value: Number(event.target.value) }],
              })
            }
          >
            {WEEKDAYS.map((words, i) => (
              <option key={words} value={i}>
                {words}
              </option>
            ))}
          </select>
          <button type="button" className="underline" onClick={() => edit(removeDay(block, dayId))}>
            Take the day out
          </button>
        </>
      ) : (
        <h2>{day.name}</h2>
      )}
    </div>
  );
}

/** Another school for one slot: its rules check it, and everything else stays. */
function setSlotSchool(slotId: string, name: string, schoolId: string, data: PlanPage) {
  const school = data.schools.find((one) => one.id === schoolId);
  return {
    words: `${name}: checked by ${school?.name ?? "the block's school"}`,
    sets: [{ path: ["slots", slotId, "schoolId"], value: school ? school.id : undefined }],
  };
}

/** Another kind of place than its movement's. */
function setSlotPlace(slotId: string, name: string, place: string) {
  return {
    words: place === "" ? `${name} where its movement is done` : `${name} at a ${place}`,
    sets: [{ path: ["slots", slotId, "doneAt"], value: isPlaceKind(place) ? place : undefined }],
  };
}

/** One slot of a day: its place, cycle and way out. */
function SlotRow({ data, slot, mayEdit, edit }: PartProps & { slot: Slot & { id: string } }) {
  const { block } = data;
  const name = slotName(data, block, slot);
  return (
    <tr>
      <td className="text-muted">{SECTION_NAMES[slot.section]}</td>
      <th scope="row" className="!font-bold !text-base-content">
        {name}
        {slot.work.kind === "exercise" && slot.work.exerciseIds.length > 1 ? (
          <span className="block text-sm font-normal text-muted">
            in turn:{" "}
            {slot.work.exerciseIds
              .map((id) => data.exercises.find((one) => one.id === id)?.name ?? "gone")
              .join(", ")}
          </span>
        ) : null}
        {mayEdit && data.schools.length > 1 ? (
          <select
            className="-ml-1 block min-h-6 max-w-56 bg-transparent text-sm font-normal text-muted pointer-coarse:min-h-11"
            aria-label={`${name}, checked by`}
            value={slot.schoolId ?? ""}
            onChange={(event) => edit(setSlotSchool(slot.id, name, event.target.value, data))}
          >
            <option value="">by the block's school</option>
            {data.schools
              .filter((one) => one.id !== block.schoolId)
              .map((one) => (
                <option key={one.id} value={one.id}>
                  by {one.name}
                </option>
              ))}
          </select>
        ) : null}
        {mayEdit && slot.work.kind === "exercise" ? (
          <select
            className="-ml-1 block min-h-6 max-w-56 bg-transparent text-sm font-normal text-muted pointer-coarse:min-h-11"
            aria-label={`${name}, done at`}
            value={slot.doneAt ?? ""}
            onChange={(event) => edit(setSlotPlace(slot.id, name, event.target.value))}
          >
            <option value="">where its movement is done</option>
            {PLACE_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                at a {kind}
              </option>
            ))}
          </select>
        ) : null}
        {isBox(data, slot) ? (
          <BoxPart
            slotId={slot.id}
            name={name}
            box={slot.box}
            smallestStopS={data.coachValues.smallestStopS}
            mayEdit={mayEdit}
            edit={edit}
          />
        ) : null}
      </th>
      <td>
        {slot.recipe.name}
        <span className="text-muted"> · {recipeWeeks(slot.recipe).length} weeks</span>
      </td>
      <td>
        {mayEdit ? (
          <input
            key={slot.fromWeek}
            className="field !w-14 text-right"
            inputMode="numeric"
            aria-label={`${name}, from week`}
            defaultValue={slot.fromWeek}
            onBlur={(event) => {
              const week = Number(event.target.value);
              if (Number.isInteger(week) && week >= 1 && week !== slot.fromWeek) {
                edit({
                  words: `${name} from week ${week}`,
                  sets: [{ path: ["slots", slot.id, "fromWeek"], value: week }],
                });
              }
            }}
          />
        ) : (
          slot.fromWeek
        )}
      </td>
      <td>
        {mayEdit ? (
          <select
            className="field-select !w-24"
            aria-label={`${name}, after its weeks`}
            value={slot.repeat ? "again" : "once"}
            onChange={(event) =>
              edit({
                words: `${name} ${event.target.value}`,
                sets: [
                  {
                    path: ["slots", slot.id, "repeat"],
                    value: event.target.value === "again",
                  },
                ],
              })
            }
          >
            <option value="once">once</option>
            <option value="again">again</option>
          </select>
        ) : slot.repeat ? (
          "again"
        ) : (
          "once"
        )}
      </td>
      <td>
        {mayEdit ? (
          <input
            key={slot.group}
            className="field !w-12"
            aria-label={`${name}, round letter`}
            maxLength={1}
            defaultValue={slot.group}
            onBlur={(event) => {
              const group = event.target.value.trim().toUpperCase();
              if (group !== slot.group) {
                edit({
                  words: `${name} in round ${group || "none"}`,
                  sets: [{ path: ["slots", slot.id, "group"], value: group }],
                });
              }
            }}
          />
        ) : (
          slot.group
        )}
      </td>
      {mayEdit ? (
        <td className="whitespace-nowrap">
          <button
            type="button"
            className="min-w-8 underline"
            aria-label={`${name} earlier`}
            onClick={() => edit(moveSlot(block, slot.id, -1))}
          >
            ↑
          </button>
          <button
            type="button"
            className="min-w-8 underline"
            aria-label={`${name} later`}
            onClick={() => edit(moveSlot(block, slot.id, 1))}
          >
            ↓
          </button>
          <button
            type="button"
            className="min-w-8"
            aria-label={`Take out ${name}`}
            onClick={() => edit(removeSlot(block, slot.id))}
          >
            ×
          </button>
        </td>
      ) : null}
    </tr>
  );
}

/** One day: its slots in order, each with its place, cycle and way out. */
export function DayPart({ data, dayId, mayEdit, edit }: PartProps & { dayId: string }) {
  const { block } = data;
  const day = block.days[dayId];
  if (!day) return null;
  const slots = slotsOf(block, dayId);
  return (
    <section aria-label={day.name} className="mb-5">
      <DayHead data={data} dayId={dayId} mayEdit={mayEdit} edit={edit} />
      <table className="ledger mt-1">
        <thead>
          <tr>
            <th scope="col">Section</th>
            <th scope="col">Slot</th>
            <th scope="col">Recipe</th>
            <th scope="col">From week</th>
            <th scope="col">Then</th>
            <th scope="col">Round</th>
            {mayEdit ? <th scope="col" /> : null}
          </tr>
        </thead>
        <tbody>
          {slots.map((slot) => (
            <SlotRow key={slot.id} data={data} slot={slot} mayEdit={mayEdit} edit={edit} />
          ))}
        </tbody>
      </table>
      <DayPairings data={data} dayId={dayId} mayEdit={mayEdit} edit={edit} />
      {mayEdit ? (
        <Adder title={`Put a slot on ${day.name}`} open={slots.length === 0}>
          <NewSlot data={data} dayId={dayId} edit={edit} />
        </Adder>
      ) : null}
    </section>
  );
}

function NewSlot({ data, dayId, edit }: { data: PlanPage; dayId: string; edit: Edit }) {
  const { block } = data;
  const [section, setSection] = useState<SectionKind>("main");
  const [work, setWork] = useState("");
  const [more, setMore] = useState<string[]>([]);
  const [hands, setHands] = useState<1 | 2>(1);
  const [recipeId, setRecipeId] = useState("");
  const [bySchool, setBySchool] = useState(false);
  const [kind, id] = work.split(":");
  const families = [...new Set(data.recipes.map((one) => one.family))];
  const picked = data.recipes.find((one) => one.id === recipeId)?.recipe;
  const school = data.schools.find((one) => one.id === block.schoolId);
  const proposed = picked && school ? asSchool(picked, school) : undefined;
  const add = () => {
    const chosen = bySchool && proposed ? proposed.recipe : picked;
    if (!chosen || !id) return;
    const lift = kind === "lift" ? data.lifts.find((one) => one.id === id)?.lift : undefined;
    const recipe = withCoachFloor(chosen, lift, data.coachValues);
    const slot: Slot = {
      dayId,
      section,
      order: slotsOf(block, dayId).filter((one) => one.section === section).length + 1,
      work:
        kind === "lift"
          ? { kind: "lift", variantId: id }
          : { kind: "exercise", exerciseIds: [id, ...more], hands },
      recipe,
      fromWeek: 1,
      repeat: true,
      session: 1,
      group: "",
    };
    edit({
      words: `Slot added: ${recipe.name}`,
      sets: [{ path: ["slots", freshId("s")], value: jsonOf(slot) }],
    });
    setWork("");
    setMore([]);
  };
  return (
    <form
      aria-label="New slot"
      className="grid max-w-2xl gap-2 sm:grid-cols-3"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <Select
        label="Section"
        value={section}
        onChange={(e) => setSection(e.target.value as SectionKind)}
      >
        {SECTIONS.map((one) => (
          <option key={one} value={one}>
            {SECTION_NAMES[one]}
          </option>
        ))}
      </Select>
      <Select label="Lift or exercise" value={work} onChange={(e) => setWork(e.target.value)}>
        <option value="">choose</option>
        <optgroup label="Lifts with a max">
          {data.lifts.map((one) => (
            <option key={one.id} value={`lift:${one.id}`}>
              {one.name}
            </option>
          ))}
        </optgroup>
        <optgroup label="Exercises">
          {data.exercises.map((one) => (
            <option key={one.id} value={`exercise:${one.id}`}>
              {one.name}
            </option>
          ))}
        </optgroup>
      </Select>
      <Select label="Recipe" value={recipeId} onChange={(e) => setRecipeId(e.target.value)}>
        <option value="">choose</option>
        {families.map((family) => (
          <optgroup key={family} label={family}>
            {data.recipes
              .filter((one) => one.family === family)
              .map((one) => (
                <option key={one.id} value={one.id}>
                  {one.recipe.name}
                </option>
              ))}
          </optgroup>
        ))}
      </Select>
      {kind === "exercise" ? (
        <>
          <Select
            label="Then in turn, week by week"
            value=""
            onChange={(e) => e.target.value && setMore([...more, e.target.value])}
          >
            <option value="">
              {more.length === 0
                ? "nothing else"
                : more.map((one) => data.exercises.find((two) => two.id === one)?.name).join(", ")}
            </option>
            {data.exercises.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Select>
          <Select
            label="The load counts"
            value={String(hands)}
            onChange={(e) => setHands(e.target.value === "2" ? 2 : 1)}
          >
            <option value="1">in all, or one hand</option>
            <option value="2">per hand, both count</option>
          </Select>
        </>
      ) : null}
      {proposed && school && proposed.changes.length > 0 ? (
        <label className="flex items-start gap-2 sm:col-span-3">
          <input
            type="checkbox"
            className="checkbox checkbox-sm mt-0.5 border-control"
            checked={bySchool}
            onChange={(event) => setBySchool(event.target.checked)}
          />
          <span>
            As {school.name} does: {proposed.changes.join(", ")}
          </span>
        </label>
      ) : null}
      <button type="submit" className="btn btn-primary self-end" disabled={!id || recipeId === ""}>
        Put it on
      </button>
    </form>
  );
}
