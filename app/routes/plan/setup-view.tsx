import { useState } from "react";
import { Form } from "react-router";
import {
  daysOf,
  realignsAfter,
  SECTION_NAMES,
  SECTIONS,
  type SectionKind,
  type Slot,
  slotsOf,
  TEMPLATE_NAMES,
  TEMPLATES,
} from "../../../core/wave/block";
import {
  type BlockEdit,
  insertWeek,
  type Json,
  moveSlot,
  removeDay,
  removeSlot,
  removeWeek,
  startTo,
} from "../../../core/wave/edits";
import { recipeWeeks } from "../../../core/wave/recipe";
import { Adder } from "../../ui/adder";
import { Field, Select } from "../../ui/field";
import type { PlanPage } from "../../workflows/plan/read-plan.server";
import { slotName } from "./slot-picker";
import { usePlanEdit } from "./use-plan-edit";

const WEEKDAYS = ["first day", "2nd", "3rd", "4th", "5th", "6th", "7th"];
const jsonOf = (value: unknown) => JSON.parse(JSON.stringify(value)) as Json;

/** An id that no place of the block has yet. */
function freshId(prefix: string, taken: Record<string, unknown>): string {
  let n = Object.keys(taken).length + 1;
  while (taken[`${prefix}${n}`]) n++;
  return `${prefix}${n}`;
}

/** The days with their slots. */
export function SetupView({ data, mayEdit }: { data: PlanPage; mayEdit: boolean }) {
  const edit = usePlanEdit(data.plan.version);
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
            const id = freshId("d", block.days);
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

/** The block as a whole, for the margin beside its days. */
export function SetupMargin({ data, mayEdit }: { data: PlanPage; mayEdit: boolean }) {
  const edit = usePlanEdit(data.plan.version);
  return (
    <div className="grid content-start gap-5">
      <WholeBlock data={data} mayEdit={mayEdit} edit={edit} />
      <Marks data={data} mayEdit={mayEdit} edit={edit} />
      <Away data={data} mayEdit={mayEdit} edit={edit} />
      {mayEdit ? <Elsewhere data={data} /> : null}
    </div>
  );
}

type Edit = (edit: BlockEdit | undefined) => void;

function DayPart({
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
  const day = block.days[dayId];
  if (!day) return null;
  const slots = slotsOf(block, dayId);
  return (
    <section aria-label={day.name} className="mb-5">
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
            <button
              type="button"
              className="underline"
              onClick={() => edit(removeDay(block, dayId))}
            >
              Take the day out
            </button>
          </>
        ) : (
          <h2>{day.name}</h2>
        )}
      </div>
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
            <tr key={slot.id}>
              <td className="text-muted">{SECTION_NAMES[slot.section]}</td>
              <th scope="row" className="!font-bold !text-base-content">
                {slotName(data, block, slot)}
                {slot.work.kind === "exercise" && slot.work.exerciseIds.length > 1 ? (
                  <span className="block text-sm font-normal text-muted">
                    in turn:{" "}
                    {slot.work.exerciseIds
                      .map((id) => data.exercises.find((one) => one.id === id)?.name ?? "gone")
                      .join(", ")}
                  </span>
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
                    aria-label={`${slotName(data, block, slot)}, from week`}
                    defaultValue={slot.fromWeek}
                    onBlur={(event) => {
                      const week = Number(event.target.value);
                      if (Number.isInteger(week) && week >= 1 && week !== slot.fromWeek) {
                        edit({
                          words: `${slotName(data, block, slot)} from week ${week}`,
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
                    aria-label={`${slotName(data, block, slot)}, after its weeks`}
                    value={slot.repeat ? "again" : "once"}
                    onChange={(event) =>
                      edit({
                        words: `${slotName(data, block, slot)} ${event.target.value}`,
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
                    aria-label={`${slotName(data, block, slot)}, round letter`}
                    maxLength={1}
                    defaultValue={slot.group}
                    onBlur={(event) => {
                      const group = event.target.value.trim().toUpperCase();
                      if (group !== slot.group) {
                        edit({
                          words: `${slotName(data, block, slot)} in round ${group || "none"}`,
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
                    aria-label={`${slotName(data, block, slot)} earlier`}
                    onClick={() => edit(moveSlot(block, slot.id, -1))}
                  >
                    ↑
                  </button>
                  <button
                    type="button"
                    className="min-w-8 underline"
                    aria-label={`${slotName(data, block, slot)} later`}
                    onClick={() => edit(moveSlot(block, slot.id, 1))}
                  >
                    ↓
                  </button>
                  <button
                    type="button"
                    className="min-w-8"
                    aria-label={`Take out ${slotName(data, block, slot)}`}
                    onClick={() => edit(removeSlot(block, slot.id))}
                  >
                    ×
                  </button>
                </td>
              ) : null}
            </tr>
          ))}
        </tbody>
      </table>
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
  const [kind, id] = work.split(":");
  const families = [...new Set(data.recipes.map((one) => one.family))];
  const add = () => {
    const recipe = data.recipes.find((one) => one.id === recipeId)?.recipe;
    if (!recipe || !id) return;
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
      sets: [{ path: ["slots", freshId("s", block.slots)], value: jsonOf(slot) }],
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
      <button type="submit" className="btn btn-primary self-end" disabled={!id || recipeId === ""}>
        Put it on
      </button>
    </form>
  );
}

function WholeBlock({ data, mayEdit, edit }: { data: PlanPage; mayEdit: boolean; edit: Edit }) {
  const { block } = data;
  const set = (path: string, value: Json, words: string) =>
    edit({ words, sets: [{ path: [path], value }] });
  return (
    <section aria-labelledby="whole-block">
      <h2 id="whole-block">The block</h2>
      <fieldset disabled={!mayEdit} className="mt-1 grid gap-2">
        <legend className="sr-only">The block</legend>
        <Field
          key={block.name}
          label="Name"
          inline
          defaultValue={block.name}
          onBlur={(e) =>
            e.target.value.trim() && e.target.value !== block.name
              ? set("name", e.target.value.trim(), `Renamed to ${e.target.value.trim()}`)
              : undefined
          }
        />
        <Field
          key={block.startDate}
          label="Starts on"
          inline
          type="date"
          defaultValue={block.startDate}
          hint="moving it moves every date"
          onBlur={(e) =>
            e.target.value && e.target.value !== block.startDate
              ? edit(startTo(block, e.target.value))
              : undefined
          }
        />
        <Field
          key={block.weeks}
          label="Weeks"
          inline
          inputMode="numeric"
          defaultValue={block.weeks}
          onBlur={(e) => {
            const weeks = Number(e.target.value);
            if (Number.isInteger(weeks) && weeks >= 1 && weeks !== block.weeks) {
              set("weeks", weeks, `${weeks} weeks`);
            }
          }}
        />
        <Select
          label="School"
          inline
          value={block.school}
          onChange={(e) => set("school", e.target.value, `School: ${e.target.value}`)}
        >
          {data.schools.some((one) => one.name === block.school) ? null : (
            <option>{block.school}</option>
          )}
          {data.schools.map((one) => (
            <option key={one.name}>{one.name}</option>
          ))}
        </Select>
        <Select
          label="Order"
          inline
          value={block.template}
          onChange={(e) => set("template", e.target.value, `Order: ${e.target.value}`)}
        >
          {TEMPLATES.map((one) => (
            <option key={one} value={one}>
              {TEMPLATE_NAMES[one]}
            </option>
          ))}
        </Select>
      </fieldset>
      {mayEdit ? (
        <Form method="post" className="mt-2 grid gap-2" aria-label="Room and rounding">
          <Select label="Room" name="roomId" inline defaultValue={data.plan.roomId}>
            {data.rooms.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Select>
          <Select label="Rounding" name="rounding" inline defaultValue={data.plan.rounding}>
            <option value="nearest">nearest</option>
            <option value="down">always down</option>
          </Select>
          <button type="submit" name="intent" value="move" className="btn justify-self-start">
            Keep room and rounding
          </button>
        </Form>
      ) : null}
    </section>
  );
}

function Marks({ data, mayEdit, edit }: { data: PlanPage; mayEdit: boolean; edit: Edit }) {
  const { block } = data;
  const [week, setWeek] = useState("");
  const [kind, setKind] = useState<"deload" | "test" | "off">("deload");
  const marks = Object.entries(block.marks).sort(([, a], [, b]) => a.week - b.week);
  return (
    <section aria-labelledby="marks">
      <h2 id="marks">Weeks of their own</h2>
      <p className="text-sm text-muted">In them no slot's cycle goes on; everything later moves.</p>
      <ul>
        {marks.map(([id, mark]) => (
          <li key={id} className="flex items-baseline gap-3 border-b border-faint py-1">
            <span className="grow">
              Week {mark.week}: {mark.words || mark.kind}
            </span>
            {mayEdit ? (
              <button
                type="button"
                className="underline"
                onClick={() => edit(removeWeek(block, id))}
              >
                Take out
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      {mayEdit ? (
        <form
          aria-label="Insert a week"
          className="mt-1 flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const at = Number(week);
            if (!Number.isInteger(at) || at < 1 || at > block.weeks + 1) return;
            edit(insertWeek(block, freshId("m", block.marks), { week: at, kind, words: "" }));
            setWeek("");
          }}
        >
          <div className="w-24">
            <Field
              label="Before week"
              inputMode="numeric"
              value={week}
              onChange={(e) => setWeek(e.target.value)}
            />
          </div>
          <div className="w-28">
            <Select
              label="A week of"
              value={kind}
              onChange={(e) => setKind(e.target.value as typeof kind)}
            >
              <option value="deload">deload</option>
              <option value="test">test</option>
              <option value="off">rest</option>
            </Select>
          </div>
          <button type="submit" className="btn">
            Insert
          </button>
        </form>
      ) : null}
    </section>
  );
}

function Away({ data, mayEdit, edit }: { data: PlanPage; mayEdit: boolean; edit: Edit }) {
  const { block } = data;
  const nameOf = (id: string) => data.athletes.find((one) => one.id === id)?.name ?? "somebody";
  return (
    <section aria-labelledby="away-athletes">
      <h2 id="away-athletes">Away</h2>
      <ul>
        {Object.entries(block.away).map(([id, away]) => (
          <li key={id} className="flex items-baseline gap-3 border-b border-faint py-1">
            <span className="grow">
              {nameOf(away.athleteId)}{" "}
              <span className="text-muted">
                {away.from} to {away.to}
              </span>
            </span>
            {mayEdit ? (
              <button
                type="button"
                className="underline"
                onClick={() => edit({ words: "Back again", sets: [{ path: ["away", id] }] })}
              >
                Back
              </button>
            ) : null}
          </li>
        ))}
      </ul>
      {mayEdit ? (
        <form
          aria-label="Somebody is away"
          className="mt-1 grid gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const form = new FormData(event.currentTarget);
            const value = {
              athleteId: String(form.get("athleteId")),
              from: String(form.get("from")),
              to: String(form.get("to")),
            };
            if (!value.athleteId || !value.from || !value.to) return;
            edit({
              words: `Away: ${value.from} to ${value.to}`,
              sets: [{ path: ["away", freshId("a", block.away)], value }],
            });
          }}
        >
          <Select label="Who" name="athleteId" inline>
            {data.athletes.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Select>
          <Field label="From" name="from" inline type="date" />
          <Field label="To" name="to" inline type="date" />
          <button type="submit" className="btn justify-self-start">
            Note it
          </button>
        </form>
      ) : null}
    </section>
  );
}

/** What makes another plan of this one, or puts it away. */
function Elsewhere({ data }: { data: PlanPage }) {
  return (
    <section aria-labelledby="elsewhere">
      <h2 id="elsewhere">Another plan from this one</h2>
      <Form method="post" aria-label="Copy the block" className="mt-1 grid gap-2">
        <Field label="Name" name="name" inline defaultValue={`${data.block.name}, again`} />
        <Field
          label="Starts on"
          name="startDate"
          inline
          type="date"
          defaultValue={data.block.startDate}
        />
        <Select label="For" name="squadId" inline defaultValue={data.plan.squadId}>
          {data.squads.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        <button type="submit" name="intent" value="copy" className="btn justify-self-start">
          Copy
        </button>
      </Form>
      <Form method="post" aria-label="Split an athlete off" className="mt-3 grid gap-2">
        <input type="hidden" name="base" value={data.plan.version} />
        <Select label="Athlete" name="athleteId" inline>
          {data.athletes.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        <button type="submit" name="intent" value="split" className="btn justify-self-start">
          Give them a block of their own
        </button>
      </Form>
      <p className="mt-3">
        <a className="underline" href={`/plan/${data.plan.id}/out/block.json`} download>
          Take out as JSON
        </a>{" "}
        ·{" "}
        <a className="underline" href={`/plan/${data.plan.id}/out/loads.csv`} download>
          loads as a table
        </a>{" "}
        ·{" "}
        <a className="underline" href={`/plan/${data.plan.id}/out/calendar.ics`} download>
          dates as a calendar
        </a>
      </p>
      <Form method="post" className="mt-2">
        <button type="submit" name="intent" value="away" className="underline">
          Put this plan away
        </button>
      </Form>
    </section>
  );
}
