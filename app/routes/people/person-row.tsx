import { useState } from "react";
import { Link } from "react-router";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import type { readPeople } from "../../workflows/people/members.server";

type Person = Awaited<ReturnType<typeof readPeople>>["people"][number];

const STAFF = ["owner", "coach", "assistant"] as const;

/** One who belongs to the team, and what may be done about it. */
export function PersonRow({ person, owner }: { person: Person; owner: boolean }) {
  const [open, setOpen] = useState<"remove" | "rename">();
  const toggle = (what: "remove" | "rename") => setOpen(open === what ? undefined : what);
  const { id, name, role, email, athleteId, self, since, suspended, mayReset } = person;
  const act = (intent: string, words: string, label: string) => (
    <Form method="post">
      <input type="hidden" name="memberId" value={id} />
      <button type="submit" name="intent" value={intent} className="btn btn-sm" aria-label={label}>
        {words}
      </button>
    </Form>
  );
  return (
    <>
      <tr className={suspended ? "text-muted" : ""}>
        <th scope="row" className="!text-base-content">
          {athleteId ? (
            <Link className="underline-offset-3 hover:underline" to={`/athletes/${athleteId}`}>
              {name}
            </Link>
          ) : (
            name
          )}
          {self ? <span className="font-normal text-muted"> · you</span> : null}
        </th>
        <td>
          {owner && role !== "athlete" ? (
            <Form method="post" className="flex items-center gap-1">
              <input type="hidden" name="memberId" value={id} />
              <input type="hidden" name="intent" value="role" />
              <select
                name="role"
                defaultValue={role}
                aria-label={`Role of ${name}`}
                className="field !h-8 w-28"
                key={role}
                onChange={(event) => event.currentTarget.form?.requestSubmit()}
              >
                {STAFF.map((one) => (
                  <option key={one} value={one}>
                    {one}
                  </option>
                ))}
              </select>
              <noscript>
                <button type="submit" className="btn btn-sm">
                  Change
                </button>
              </noscript>
            </Form>
          ) : (
            role
          )}
        </td>
        <td>{email}</td>
        <td className="whitespace-nowrap">
          {since}
          {suspended ? <b className="text-accent"> · suspended</b> : null}
        </td>
        <td>
          <div className="flex flex-wrap justify-end gap-1 [&_button]:whitespace-nowrap">
            {mayReset ? act("reset", "New password link", `New password link for ${name}`) : null}
            {suspended
              ? act("let-in", "Let in again", `Let ${name} in again`)
              : act("suspend", "Suspend", `Suspend ${name}`)}
            {athleteId ? null : (
              <button
                type="button"
                className="btn btn-sm"
                aria-expanded={open === "rename"}
                aria-label={`Rename ${name}`}
                onClick={() => toggle("rename")}
              >
                Rename
              </button>
            )}
            <button
              type="button"
              className="btn btn-sm"
              aria-expanded={open === "remove"}
              aria-label={self ? "Leave the team" : `Remove ${name}`}
              onClick={() => toggle("remove")}
            >
              {self ? "Leave" : "Remove"}
            </button>
          </div>
        </td>
      </tr>
      {open === "rename" ? (
        <tr>
          <td colSpan={5}>
            <Form
              method="post"
              aria-label={`Name of ${name}`}
              className="flex items-end gap-2 py-1"
              onSubmit={() => setOpen(undefined)}
            >
              <input type="hidden" name="memberId" value={id} />
              <span className="w-64">
                <Field label="Name in this team" name="name" defaultValue={name} />
              </span>
              <button type="submit" name="intent" value="rename" className="btn">
                Keep the name
              </button>
            </Form>
          </td>
        </tr>
      ) : null}
      {open === "remove" ? (
        <tr>
          <td colSpan={5}>
            <div className="flex flex-wrap items-center gap-3 py-1">
              <p>
                {self
                  ? "You lose your way into this team. What you logged stays under your name."
                  : athleteId
                    ? `${name} signs in no more. The athlete, the records and the card stay with you.`
                    : `${name} signs in no more. What they logged keeps their name.`}
              </p>
              {act("remove", self ? "Leave the team" : `Remove ${name}`, `Yes, ${name}`)}
              <button type="button" className="btn btn-sm" onClick={() => setOpen(undefined)}>
                Keep
              </button>
            </div>
          </td>
        </tr>
      ) : null}
    </>
  );
}
