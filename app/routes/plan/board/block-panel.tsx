import { useState } from "react";
import { TEMPLATE_NAMES, TEMPLATES } from "../../../../core/plan/block";
import { insertWeek, type Json, removeWeek, startTo } from "../../../../core/plan/edits";
import { isDate } from "../../../../core/units/time";
import { Day } from "../../../ui/dates";
import { Field, Select } from "../../../ui/field";
import { Form } from "../../../ui/form";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { usePlanEdit } from "../plan-edits";
import { type Edit, freshId } from "../setup-edit";

/** The block as a whole, for the margin beside its days. */
export function BlockPanel({ data, mayEdit }: { data: PlanPage; mayEdit: boolean }) {
  const edit = usePlanEdit();
  return (
    <div className="grid content-start gap-5">
      <WholeBlock data={data} mayEdit={mayEdit} edit={edit} />
      <Marks data={data} mayEdit={mayEdit} edit={edit} />
      <Away data={data} mayEdit={mayEdit} edit={edit} />
      {mayEdit ? <Elsewhere data={data} /> : null}
    </div>
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
            isDate(e.target.value) && e.target.value !== block.startDate
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
          value={block.schoolId}
          onChange={(e) => {
            const school = data.schools.find((one) => one.id === e.target.value);
            if (school) set("schoolId", school.id, `School: ${school.name}`);
          }}
        >
          {data.schools.some((one) => one.id === block.schoolId) ? null : (
            <option value={block.schoolId}>none of your schools: choose one</option>
          )}
          {data.schools.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
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
            edit(insertWeek(block, freshId("m"), { week: at, kind, words: "" }));
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
                <Day of={away.from} /> to <Day of={away.to} />
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
              sets: [{ path: ["away", freshId("a")], value }],
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
        <Select label="For" name="groupId" inline defaultValue={data.plan.groupId}>
          {data.groups.map((one) => (
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
