import { useState } from "react";
import { Link, redirect } from "react-router";
import { formatKg } from "../../../core/units/mass";
import { formObject } from "../../forms/athlete";
import { RoomForm } from "../../forms/gear";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { type FormResult, resultOf } from "../../ui/adder";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Empty, Notice, Page } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { addRoom, importRoom, readRooms } from "../../workflows/gear/room.server";
import type { Route } from "./+types/gear";

export function meta() {
  return [{ title: "Gear · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return { rooms: await readRooms(principal), mayEdit: mayWrite(principal, "/gear") };
}

export async function action({ request, context }: Route.ActionArgs) {
  const form = formObject(await readForm(request));
  const intent = form.intent === "file" ? "file" : "room";
  const principal = principalOf(context);
  if (intent === "file") {
    const text = form.text ?? "";
    if (text.length > 400_000) {
      return {
        ok: false as const,
        intent,
        message: "A room is no larger than 400 kB. Is this another file?",
      };
    }
    const result = await importRoom(principal, {
      name: (form.name ?? "").trim(),
      zone: form.zone || "UTC",
      text,
    });
    if (result.ok) throw redirect(`/gear/${result.value.id}`);
    return { intent, ...result, problems: undefined, faults: result.problems };
  }
  const parsed = RoomForm.safeParse(form);
  if (!parsed.success) return { ok: false as const, intent, problems: fieldProblems(parsed.error) };
  const result = await addRoom(principal, parsed.data);
  if (result.ok) throw redirect(`/gear/${result.value.id}?kind=bar`);
  return { intent, ...result };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

type Room = Route.ComponentProps["loaderData"]["rooms"][number];

/** The rooms of the team: what stands in each, what its racks build, what it lacks. */
export default function Gear({ loaderData, actionData }: Route.ComponentProps) {
  const unit = useUnit();
  const { rooms, mayEdit } = loaderData;
  const faults = (actionData as { faults?: Array<{ line: number; text: string }> } | undefined)
    ?.faults;
  return (
    <Page
      title="Gear"
      facts="The rooms, and what each rack can build."
      margin={
        mayEdit ? (
          <div className="grid gap-6">
            <NewRoom rooms={rooms} result={resultOf(actionData, "room")} />
            <RoomFromFile rooms={rooms} result={resultOf(actionData, "file")} faults={faults} />
          </div>
        ) : undefined
      }
    >
      {rooms.length === 0 ? (
        <Empty>No room yet. Name one; its bars and racks come next.</Empty>
      ) : null}
      {rooms.map((room) => (
        <section key={room.id} aria-labelledby={room.id} className="mb-6">
          <h2 id={room.id}>
            <Link to={`/gear/${room.id}`} className="underline-offset-3 hover:underline">
              {room.name}
            </Link>{" "}
            <span className="font-normal text-muted">{room.zone}</span>
          </h2>
          <p className="text-muted">
            {room.kinds.map((one) => `${one.many.toLowerCase()} ${one.pieces}`).join(" · ")}
          </p>
          {room.problems.slice(0, 3).map((text) => (
            <Notice key={text} kind="warning" title={text} />
          ))}
          {room.builds.length > 0 ? (
            <div className="overflow-x-auto">
              <table className="ledger mt-1">
                <thead>
                  <tr>
                    <th scope="col">Rack</th>
                    <th scope="col">Bar and plates, pairs</th>
                    <th scope="col">Builds</th>
                  </tr>
                </thead>
                <tbody>
                  {room.builds.map((rack) => (
                    <tr key={rack.number}>
                      <th scope="row" className="!font-bold !text-base-content">
                        {rack.number}
                      </th>
                      <td>{rack.line}</td>
                      <td className="whitespace-nowrap">
                        {rack.totals} totals, {formatKg(rack.lightestKg, unit)} to{" "}
                        {formatKg(rack.heaviestKg, unit)}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          ) : null}
        </section>
      ))}
    </Page>
  );
}

function NewRoom({ rooms, result }: { rooms: Room[]; result: FormResult | undefined }) {
  const problems = result?.problems ?? {};
  return (
    <Form method="post" aria-label="New room" className="grid gap-2" noValidate>
      <h2>New room</h2>
      <Field label="Name" name="name" inline problem={problems.name} />
      <Field
        label="Time zone"
        name="zone"
        inline
        defaultValue={rooms[0]?.zone ?? "UTC"}
        problem={problems.zone}
      />
      <Select label="Start with" name="from" inline>
        <option value="">nothing</option>
        {rooms.map((room) => (
          <option key={room.id} value={room.id}>
            all gear of {room.name}
          </option>
        ))}
      </Select>
      {result?.message ? <Notice kind="problem" title={result.message} /> : null}
      <button type="submit" name="intent" value="room" className="btn btn-primary">
        Make the room
      </button>
    </Form>
  );
}

function RoomFromFile({
  rooms,
  result,
  faults,
}: {
  rooms: Room[];
  result: FormResult | undefined;
  faults: Array<{ line: number; text: string }> | undefined;
}) {
  const [text, setText] = useState("");
  return (
    <Form method="post" aria-label="Room from a file" className="grid gap-2" noValidate>
      <h2>Room from a file</h2>
      <p className="text-sm text-muted">JSON or a table, as a room's page writes them.</p>
      <label className="grid gap-1">
        <span className="text-muted">File</span>
        <input
          type="file"
          accept=".json,.csv,text/csv,application/json"
          className="file-input w-full"
          onChange={async (event) => {
            const file = event.target.files?.[0];
            if (file) setText(await file.text());
          }}
        />
      </label>
      <label className="grid gap-1">
        <span className="text-muted">Or its text</span>
        <textarea
          name="text"
          rows={4}
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="w-full rounded border border-control bg-base-100 p-2"
        />
      </label>
      <Field label="Name" name="name" inline placeholder="as in the file" />
      <input type="hidden" name="zone" value={rooms[0]?.zone ?? "UTC"} />
      {result?.message ? (
        <Notice kind="problem" title={result.message}>
          {faults ? (
            <ul>
              {faults.slice(0, 12).map((one) => (
                <li key={`${one.line}${one.text}`}>
                  {one.line > 0 ? `Line ${one.line}: ` : ""}
                  {one.text}
                </li>
              ))}
            </ul>
          ) : null}
        </Notice>
      ) : null}
      <button
        type="submit"
        name="intent"
        value="file"
        className="btn"
        disabled={text.trim() === ""}
      >
        Make the room
      </button>
    </Form>
  );
}
