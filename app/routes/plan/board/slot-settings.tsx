import { isPlaceKind, PLACE_KINDS } from "../../../../core/gear/kinds";
import { SECTION_NAMES, SECTIONS, type SectionKind, type Slot } from "../../../../core/plan/block";
import { placeSlot } from "../../../../core/plan/board-edits";
import { removeSlot } from "../../../../core/plan/edits";
import { Field, Select } from "../../../ui/field";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { usePlanEdit } from "../plan-edits";
import { BoxPart } from "./box-part";

const isWeek = (text: string) => {
  const week = Number(text);
  return Number.isInteger(week) && week >= 1 ? week : undefined;
};

/** What a slot has besides its recipe: where it stands, its cycle's start, its round, its school, its box. */
export function SlotSettings({
  data,
  slot,
  name,
  mayEdit,
}: {
  data: PlanPage;
  slot: Slot & { id: string };
  name: string;
  mayEdit: boolean;
}) {
  const edit = usePlanEdit();
  const { block } = data;
  const { work } = slot;
  const onBox =
    work.kind === "lift" &&
    data.lifts.find((one) => one.id === work.variantId)?.lift === "box-squat";
  const set = (path: string, value: string | number | boolean | undefined, words: string) =>
    void edit({ words, sets: [{ path: ["slots", slot.id, path], value }] });
  const place = (dayId: string, section: SectionKind) =>
    void edit(placeSlot(block, slot.id, { dayId, section, before: undefined }));
  return (
    <fieldset disabled={!mayEdit} className="grid gap-1.5">
      <legend className="sr-only">{name}, besides its recipe</legend>
      <Select
        inline
        label="Day"
        aria-label={`${name}, day`}
        value={slot.dayId}
        onChange={(event) => place(event.target.value, slot.section)}
      >
        {Object.entries(block.days).map(([id, day]) => (
          <option key={id} value={id}>
            {day.name}
          </option>
        ))}
      </Select>
      <Select
        inline
        label="Section"
        aria-label={`${name}, section`}
        value={slot.section}
        onChange={(event) => place(slot.dayId, event.target.value as SectionKind)}
      >
        {SECTIONS.map((one) => (
          <option key={one} value={one}>
            {SECTION_NAMES[one]}
          </option>
        ))}
      </Select>
      <Field
        key={`from-${slot.fromWeek}`}
        inline
        label="From week"
        aria-label={`${name}, from week`}
        inputMode="numeric"
        defaultValue={slot.fromWeek}
        onBlur={(event) => {
          const week = isWeek(event.target.value);
          if (week !== undefined && week !== slot.fromWeek)
            set("fromWeek", week, `${name} from week ${week}`);
        }}
      />
      <Select
        inline
        label="After its weeks"
        aria-label={`${name}, after its weeks`}
        value={slot.repeat ? "again" : "once"}
        onChange={(event) =>
          set("repeat", event.target.value === "again", `${name} ${event.target.value}`)
        }
      >
        <option value="once">once</option>
        <option value="again">again</option>
      </Select>
      <Field
        key={`group-${slot.group}`}
        inline
        label="Round, a letter"
        aria-label={`${name}, round letter`}
        maxLength={1}
        defaultValue={slot.group}
        onBlur={(event) => {
          const group = event.target.value.trim().toUpperCase();
          if (group !== slot.group) set("group", group, `${name} in round ${group || "none"}`);
        }}
      />
      {data.schools.length > 1 ? (
        <Select
          inline
          label="Checked by"
          aria-label={`${name}, checked by`}
          value={slot.schoolId ?? ""}
          onChange={(event) => {
            const school = data.schools.find((one) => one.id === event.target.value);
            set(
              "schoolId",
              school?.id,
              `${name}: checked by ${school?.name ?? "the block's school"}`,
            );
          }}
        >
          <option value="">the block's school</option>
          {data.schools
            .filter((one) => one.id !== block.schoolId)
            .map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
        </Select>
      ) : null}
      {work.kind === "exercise" ? (
        <>
          <Select
            inline
            label="Done at"
            aria-label={`${name}, done at`}
            value={slot.doneAt ?? ""}
            onChange={(event) => {
              const kind = event.target.value;
              set(
                "doneAt",
                isPlaceKind(kind) ? kind : undefined,
                kind === "" ? `${name} where its movement is done` : `${name} at a ${kind}`,
              );
            }}
          >
            <option value="">where its movement is done</option>
            {PLACE_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                at a {kind}
              </option>
            ))}
          </Select>
          {work.exerciseIds.length > 1 ? (
            <p className="text-muted">
              In turn:{" "}
              {work.exerciseIds
                .map((id) => data.exercises.find((one) => one.id === id)?.name ?? "gone")
                .join(", ")}
            </p>
          ) : null}
        </>
      ) : null}
      {onBox ? (
        <BoxPart
          slotId={slot.id}
          name={name}
          box={slot.box}
          smallestStopS={data.coachValues.smallestStopS}
          mayEdit={mayEdit}
          edit={edit}
        />
      ) : null}
      {mayEdit ? (
        <button
          type="button"
          className="btn justify-self-start"
          aria-label={`Take out ${name}`}
          onClick={() => void edit(removeSlot(block, slot.id))}
        >
          Take it out
        </button>
      ) : null}
    </fieldset>
  );
}
