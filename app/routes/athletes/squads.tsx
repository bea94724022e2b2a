import { useState } from "react";
import { Link } from "react-router";
import { formObject } from "../../forms/athlete";
import { fieldProblems } from "../../forms/recipe";
import { SquadForm } from "../../forms/squad";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { type FormResult, resultOf } from "../../ui/adder";
import { Day } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Empty, Notice, Page } from "../../ui/page";
import { changeSquads, readSquads } from "../../workflows/athletes/squads.server";
import type { Route } from "./+types/squads";

export function meta() {
  return [{ title: "Squads · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return { ...(await readSquads(principal)), mayEdit: mayWrite(principal, "/athletes/squads") };
}

export async function action({ request, context }: Route.ActionArgs) {
  const fields = formObject(await readForm(request));
  const { intent = "", squadId = "" } = fields;
  const parsed = SquadForm.safeParse(fields);
  if (!parsed.success)
    return { ok: false as const, intent, squadId, problems: fieldProblems(parsed.error) };
  return { intent, squadId, ...(await changeSquads(principalOf(context), parsed.data)) };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

type Data = Route.ComponentProps["loaderData"];
type Squad = Data["squads"][number];

/** The squads: made, named, put in order, ended; and who trains alone. */
export default function Squads({ loaderData, actionData }: Route.ComponentProps) {
  const { squads, archived, alone, rooms, mayEdit } = loaderData;
  const made = resultOf(actionData, "make");
  const failed = actionData && !actionData.ok ? (actionData as FormResult) : undefined;
  return (
    <Page
      title="Squads"
      facts="Their order is the order of every list."
      actions={
        <Link className="btn" to="/athletes">
          Athletes
        </Link>
      }
      margin={
        mayEdit ? (
          <Form method="post" aria-label="New squad" className="grid gap-2" noValidate>
            <h2>New squad</h2>
            <SquadFields rooms={rooms} problems={made?.ok === false ? made.problems : undefined} />
            {made?.message ? <Notice kind="problem" title={made.message} /> : null}
            <button
              type="submit"
              name="intent"
              value="make"
              className="btn btn-primary justify-self-start"
            >
              Make the squad
            </button>
          </Form>
        ) : undefined
      }
    >
      {failed?.message && failed.intent !== "make" ? (
        <Notice kind="problem" title={failed.message} />
      ) : null}
      {squads.length === 0 ? (
        <Empty>
          No squad yet. Name one in the margin: it gives its athletes their room and their plans.
        </Empty>
      ) : (
        <div className="overflow-x-auto">
          <table className="ledger">
            <thead>
              <tr>
                <th scope="col">Squad</th>
                <th scope="col">Sport</th>
                <th scope="col">Room</th>
                <th scope="col" className="!text-right">
                  Athletes
                </th>
                <th scope="col" className="!text-right">
                  Plans
                </th>
                <th scope="col">
                  <span className="sr-only">Changes</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {squads.map((squad, at) => (
                <SquadRow
                  key={squad.id}
                  squad={squad}
                  data={loaderData}
                  first={at === 0}
                  last={at === squads.length - 1}
                  result={actionData as (FormResult & { squadId?: string }) | undefined}
                />
              ))}
            </tbody>
          </table>
        </div>
      )}
      {alone.length > 0 ? (
        <section aria-labelledby="alone" className="mt-6">
          <h2 id="alone">Train alone</h2>
          <p className="text-muted">A plan can be made for each of them, as for a squad.</p>
          <ul>
            {alone.map((one) => (
              <li key={one.id} className="flex gap-3 border-b border-faint py-1">
                <Link className="underline-offset-3 hover:underline" to={`/athletes/${one.id}`}>
                  {one.name}
                </Link>
                <span className="text-muted">{one.roomName}</span>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {archived.length > 0 ? (
        <section aria-labelledby="archived" className="mt-6">
          <h2 id="archived">Train no more</h2>
          <ul>
            {archived.map((one) => (
              <li key={one.id} className="flex items-center gap-3 border-b border-faint py-1">
                {one.name}
                {mayEdit ? (
                  <Form method="post">
                    <input type="hidden" name="squadId" value={one.id} />
                    <button
                      type="submit"
                      name="intent"
                      value="back"
                      className="btn btn-sm"
                      aria-label={`Bring ${one.name} back`}
                    >
                      Bring back
                    </button>
                  </Form>
                ) : null}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </Page>
  );
}

function SquadFields({
  rooms,
  squad,
  problems,
}: {
  rooms: Data["rooms"];
  squad?: Squad;
  problems: Record<string, string> | undefined;
}) {
  return (
    <>
      <Field label="Name" name="name" inline defaultValue={squad?.name} problem={problems?.name} />
      <Field
        label="Sport"
        name="sport"
        inline
        defaultValue={squad?.sport}
        problem={problems?.sport}
      />
      <Select
        label="Room"
        name="roomId"
        inline
        defaultValue={squad?.roomId}
        problem={problems?.roomId}
      >
        {rooms.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </Select>
    </>
  );
}

function SquadRow({
  squad,
  data,
  first,
  last,
  result,
}: {
  squad: Squad;
  data: Data;
  first: boolean;
  last: boolean;
  result: (FormResult & { squadId?: string }) | undefined;
}) {
  const [open, setOpen] = useState(false);
  const own = result?.squadId === squad.id ? result : undefined;
  const act = (intent: string, words: string, label: string, disabled = false) => (
    <button
      type="submit"
      name="intent"
      value={intent}
      className="btn btn-sm"
      aria-label={label}
      disabled={disabled}
    >
      {words}
    </button>
  );
  return (
    <>
      <tr>
        <th scope="row" className="!text-base-content">
          <Link className="underline-offset-3 hover:underline" to={`/athletes?squad=${squad.id}`}>
            {squad.name}
          </Link>
        </th>
        <td>{squad.sport}</td>
        <td>{squad.roomName}</td>
        <td className="text-right">{squad.athletes}</td>
        <td className="text-right">{squad.plans}</td>
        <td>
          {data.mayEdit ? (
            <Form method="post" className="flex justify-end gap-1">
              <input type="hidden" name="squadId" value={squad.id} />
              {act("up", "↑", `${squad.name} one up`, first)}
              {act("down", "↓", `${squad.name} one down`, last)}
              <button
                type="button"
                className="btn btn-sm"
                aria-expanded={open}
                aria-label={`Change ${squad.name}`}
                onClick={() => setOpen(!open)}
              >
                Change
              </button>
            </Form>
          ) : null}
        </td>
      </tr>
      {open ? (
        <tr>
          <td colSpan={6}>
            <div className="grid gap-4 py-2 md:grid-cols-2">
              <Form
                method="post"
                aria-label={`Facts of ${squad.name}`}
                className="grid gap-2"
                noValidate
              >
                <input type="hidden" name="squadId" value={squad.id} />
                <SquadFields rooms={data.rooms} squad={squad} problems={own?.problems} />
                <div className="flex gap-2">
                  {act("change", "Keep", `Keep the facts of ${squad.name}`)}
                  {act("archive", "Archive", `Archive ${squad.name}`)}
                </div>
              </Form>
              <Form
                method="post"
                aria-label={`Competition of ${squad.name}`}
                className="grid content-start gap-2"
                noValidate
              >
                <input type="hidden" name="squadId" value={squad.id} />
                <Field
                  label="Competition"
                  name="name"
                  inline
                  problem={own?.intent === "competition" ? own.problems?.name : undefined}
                />
                <Field label="On" name="date" type="date" inline problem={own?.problems?.date} />
                {act("competition", "Add", `Add a competition to ${squad.name}`)}
              </Form>
              {squad.competitions.length > 0 ? (
                <ul className="md:col-span-2">
                  {squad.competitions.map((one) => (
                    <li key={one.id} className="flex items-center gap-3 py-0.5">
                      <Day of={one.date} /> {one.name}
                      <Form method="post">
                        <input type="hidden" name="competitionId" value={one.id} />
                        <button
                          type="submit"
                          name="intent"
                          value="drop-competition"
                          className="underline"
                          aria-label={`Remove ${one.name}`}
                        >
                          Remove
                        </button>
                      </Form>
                    </li>
                  ))}
                </ul>
              ) : null}
            </div>
          </td>
        </tr>
      ) : null}
    </>
  );
}
