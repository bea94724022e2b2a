import { useEffect, useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import { formObject, NewPersonForm, QuickForm } from "../../forms/athlete";
import { ManyForm } from "../../forms/athlete-list";
import { idFrom } from "../../forms/primitives/id";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Adder, type FormResult, resultOf } from "../../ui/adder";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Empty, Notice, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useUnit } from "../../ui/unit";
import { keepOnFilter, useAddress } from "../../ui/use-address";
import { changeMany } from "../../workflows/athletes/athlete-list.server";
import { readAthletes } from "../../workflows/athletes/read-athletes.server";
import { addPerson, saveQuick } from "../../workflows/athletes/save-facts.server";
import { makeWorkingMaxes } from "../../workflows/athletes/testing-day.server";
import type { Route } from "./+types/athletes";
import { ChangeMany } from "./change-many";
import { ChooseColumns } from "./choose-columns";
import { SavedViews } from "./saved-views";
import { columnNames, HIDDEN_AT_FIRST } from "./squad-columns";
import { SHOW_NAMES, SHOWS, type Show, SquadTable, shown } from "./squad-table";

export function meta() {
  return [{ title: "Athletes · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return { ...(await readAthletes(principal)), mayEdit: mayWrite(principal, "/athletes") };
}

const NO_FACTS = {
  goal: "",
  seasonPhase: "",
  sport: "",
  roomId: "",
  unit: "",
  statureCm: "",
  trainingSince: "",
};

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const fields = formObject(await readForm(request));
  if (fields.intent === "many") {
    const parsed = ManyForm.safeParse(fields);
    if (!parsed.success) {
      const [message] = Object.values(fieldProblems(parsed.error));
      return { ok: false as const, intent: "many", message: message ?? "Not changed." };
    }
    return { intent: "many", ...(await changeMany(principal, parsed.data)) };
  }
  if (fields.intent === "use-newest") {
    const ids = String(fields.records ?? "").split(",");
    if (!ids.every((id) => idFrom(id) === id))
      return { ok: false as const, intent: "many", message: "These records could not be read." };
    return { intent: "use-newest", ...(await makeWorkingMaxes(principal, ids)) };
  }
  if (fields.intent === "person") {
    const parsed = NewPersonForm.safeParse({ ...NO_FACTS, ...fields });
    if (!parsed.success) {
      return { ok: false as const, intent: "person", problems: fieldProblems(parsed.error) };
    }
    return { intent: "person", ...(await addPerson(principal, parsed.data)) };
  }
  const parsed = QuickForm.safeParse(fields);
  if (!parsed.success) {
    const [problem] = Object.values(fieldProblems(parsed.error));
    return { ok: false as const, intent: "quick", message: problem ?? "Not kept." };
  }
  return { intent: "quick", ...(await saveQuick(principal, parsed.data)) };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = keepOnFilter;

/** In the address: every column is shown, those left out at first too. */
const NONE_HIDDEN = "none";

export default function Athletes({ loaderData, actionData }: Route.ComponentProps) {
  const { rows, squads, rooms, variants, archived, mayEdit } = loaderData;
  const { params, set } = useAddress();
  const unit = useUnit();
  const squadId = params.get("squad") ?? "";
  const show = SHOWS.find((one) => one === params.get("show")) ?? "all";
  const find = params.get("find") ?? "";
  const listed = rows.filter(
    (row) => (squadId === "" || row.squadIds.includes(squadId)) && shown(row, show),
  );
  const finder = useRef<HTMLInputElement>(null);
  // A view that is opened has its own word; who is typing is ahead of the address.
  useEffect(() => {
    const field = finder.current;
    if (field && field !== document.activeElement) field.value = find;
  }, [find]);
  const hide = params.get("hide");
  const hidden = useMemo(
    () => new Set(hide === null ? HIDDEN_AT_FIRST : hide === NONE_HIDDEN ? [] : hide.split(" ")),
    [hide],
  );
  const [marked, setMarked] = useState<ReadonlySet<string>>();
  const mark = (ids: readonly string[], on: boolean) => {
    const next = new Set(marked);
    for (const id of ids) on ? next.add(id) : next.delete(id);
    setMarked(next);
  };
  return (
    <Page
      title="Athletes"
      facts={`${rows.length} in ${squads.length} squads · working maxes in ${unit}`}
      actions={
        <>
          <Link className="btn" to="/athletes/box">
            Box ladder
          </Link>
          <Link className="btn" to="/athletes/profiles">
            Profiles
          </Link>
          <Link className="btn" to="/athletes/squads">
            Squads
          </Link>
          {mayEdit ? (
            <>
              <Link className="btn" to="/athletes/testing-day">
                Testing day
              </Link>
              <Link className="btn" to="/athletes/add">
                Add athletes
              </Link>
              <button
                type="button"
                className="btn"
                aria-pressed={marked !== undefined}
                onClick={() => setMarked(marked ? undefined : new Set())}
              >
                Change several
              </button>
            </>
          ) : null}
        </>
      }
      margin={
        marked ? (
          <ChangeMany
            key={resultOf(actionData, "many")?.ok ? "changed" : "open"}
            marked={marked}
            data={loaderData}
            result={resultOf(actionData, "use-newest") ?? resultOf(actionData, "many")}
          />
        ) : undefined
      }
    >
      {rows.length === 0 ? (
        <Empty
          action={
            mayEdit ? (
              <Link className="btn btn-primary" to="/athletes/add">
                Paste a list
              </Link>
            ) : undefined
          }
        >
          No athletes yet. They stand here with their maxes; a list of names is enough to begin.
        </Empty>
      ) : null}
      <search className="mb-2 flex flex-wrap items-end gap-3">
        <span className="w-48">
          <Field
            ref={finder}
            label="Find"
            defaultValue={find}
            placeholder="name, instruction …"
            onChange={(event) => set("find", event.target.value)}
          />
        </span>
        <span className="w-40">
          <PageSelect
            label="Squad"
            value={squadId}
            onChange={(event) => set("squad", event.target.value)}
          >
            <option value="">all</option>
            {squads.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </PageSelect>
        </span>
        <span className="w-52">
          <PageSelect
            label="Show"
            value={show}
            onChange={(event) => set("show", event.target.value)}
          >
            {SHOWS.map((one) => (
              <option key={one} value={one}>
                {SHOW_NAMES[one as Show]}
              </option>
            ))}
          </PageSelect>
        </span>
        <ChooseColumns
          names={columnNames(variants)}
          hidden={hidden}
          onHide={(ids) => set("hide", ids.join(" ") || NONE_HIDDEN)}
        />
        <SavedViews />
      </search>
      <SquadTable
        hidden={hidden}
        rows={listed}
        variants={variants}
        find={find}
        mayEdit={mayEdit}
        marked={marked}
        onMark={mark}
      />
      {archived.length > 0 ? (
        <p className="py-1 text-muted">
          Archived:{" "}
          {archived.map((one, i) => (
            <span key={one.id}>
              {i > 0 ? " · " : ""}
              <Link className="underline" to={`/athletes/${one.id}`}>
                {one.name}
              </Link>
            </span>
          ))}
        </p>
      ) : null}
      {mayEdit ? (
        <AddAthlete squads={squads} rooms={rooms} added={resultOf(actionData, "person")} />
      ) : null}
    </Page>
  );
}

function AddAthlete({
  squads,
  rooms,
  added,
}: Pick<Route.ComponentProps["loaderData"], "squads" | "rooms"> & {
  added: FormResult | undefined;
}) {
  return (
    <Adder title="Add an athlete" open={added?.ok === false}>
      <Form method="post" className="flex flex-wrap items-end gap-2" noValidate>
        <Field label="Name" name="name" problem={added?.problems?.name} />
        <Select label="Squad" name="squadId">
          {squads.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
          <option value="">none: trains alone</option>
        </Select>
        <Select label="Usual room" name="roomId" problem={added?.problems?.roomId}>
          <option value="">the squad's</option>
          {rooms.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        <span className="w-24">
          <Field
            label="Birth year"
            name="birthYear"
            inputMode="numeric"
            problem={added?.problems?.birthYear}
          />
        </span>
        <button type="submit" name="intent" value="person" className="btn btn-primary">
          Add
        </button>
        {added?.code === "same-name" ? (
          <label className="flex min-h-8 basis-full items-center gap-2">
            <input type="checkbox" name="another" value="yes" className="checkbox checkbox-sm" />
            Another person of the same name
          </label>
        ) : null}
        {added?.message ? <Notice kind="problem" title={added.message} /> : null}
      </Form>
    </Adder>
  );
}
