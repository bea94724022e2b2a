import { Link } from "react-router";
import { formObject } from "../../forms/athlete";
import { type PeopleChange, PeopleForm } from "../../forms/people";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { type FormResult, resultOf } from "../../ui/adder";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { LinkToHand } from "../../ui/link-to-hand";
import { Notice, Page } from "../../ui/page";
import { ZoneField } from "../../ui/zone-field";
import { handLink, invite, withdraw } from "../../workflows/people/invite.server";
import {
  changeRole,
  changeTeamFacts,
  letIn,
  readPeople,
  remove,
  rename,
  suspend,
} from "../../workflows/people/members.server";
import { giveReset } from "../../workflows/people/password.server";
import { asPerson, type Person } from "../../workflows/people/person.server";
import type { Route } from "./+types/people";
import { PersonRow } from "./person-row";

export function meta() {
  return [{ title: "People · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return readPeople(asPerson(principalOf(context)));
}

async function carryOut(person: Person, request: Request, change: PeopleChange) {
  switch (change.intent) {
    case "invite":
      return invite(person, request, change);
    case "invite-athlete":
      return invite(person, request, { ...change, role: "athlete" });
    case "link":
      return handLink(person, request, change.invitationId);
    case "withdraw":
      return withdraw(person, change.invitationId);
    case "role":
      return changeRole(person, change.memberId, change.role);
    case "rename":
      return rename(person, change.memberId, change.name);
    case "suspend":
      return suspend(person, change.memberId);
    case "let-in":
      return letIn(person, change.memberId);
    case "remove":
      return remove(person, change.memberId);
    case "team":
      return changeTeamFacts(person, change);
    case "reset":
      return giveReset(person, request, change.memberId);
  }
}

export async function action({ request, context }: Route.ActionArgs) {
  const fields = formObject(await readForm(request));
  const parsed = PeopleForm.safeParse(fields);
  const intent = fields.intent ?? "";
  if (!parsed.success) return { ok: false as const, intent, problems: fieldProblems(parsed.error) };
  const result = await carryOut(asPerson(principalOf(context)), request, parsed.data);
  return { intent, ...result };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

type Data = Route.ComponentProps["loaderData"];

interface Handed {
  ok: boolean;
  value?: {
    link: Parameters<typeof LinkToHand>[0]["link"];
    name: string;
    sentTo?: string;
    notSent?: boolean;
    hours?: number;
  };
}

/** Who belongs to the team: their roles, their ways in, and every change of it. */
export default function People({ loaderData, actionData }: Route.ComponentProps) {
  const { people, invitations, changes, role } = loaderData;
  const failure = actionData && !actionData.ok ? (actionData as FormResult) : undefined;
  const inMargin = failure?.intent?.startsWith("invite");
  return (
    <Page
      title="People"
      facts={
        role === "owner"
          ? "Who may sign in, and as what."
          : "Athletes' sign-ins. Coaches and assistants are the owner's."
      }
      margin={<Invite data={loaderData} result={actionData} />}
    >
      {failure?.message && !inMargin ? <Notice kind="problem" title={failure.message} /> : null}
      <div className="overflow-x-auto">
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col">Name</th>
              <th scope="col">Role</th>
              <th scope="col">Signs in as</th>
              <th scope="col">Since</th>
              <th scope="col">
                <span className="sr-only">Changes</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {people.map((one) => (
              <PersonRow key={one.id} person={one} owner={role === "owner"} />
            ))}
          </tbody>
        </table>
      </div>
      {people.length === 0 ? (
        <p className="py-2 text-muted">
          No athlete has a sign-in yet. Choose one in the margin and hand over the link.
        </p>
      ) : null}
      {invitations.length > 0 ? (
        <section aria-labelledby="waiting" className="mt-6">
          <h2 id="waiting">Invitations that wait</h2>
          <div className="overflow-x-auto">
            <table className="ledger">
              <thead>
                <tr>
                  <th scope="col">For</th>
                  <th scope="col">As</th>
                  <th scope="col">By</th>
                  <th scope="col">Works until</th>
                  <th scope="col">
                    <span className="sr-only">Withdraw it</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {invitations.map((one) => (
                  <tr key={one.id}>
                    <th scope="row" className="!text-base-content">
                      {one.name}
                    </th>
                    <td>{one.role}</td>
                    <td>{one.by}</td>
                    <td>{one.until ?? <span className="text-muted">no link yet</span>}</td>
                    <td className="text-right">
                      <Form method="post" className="flex justify-end gap-2">
                        <input type="hidden" name="invitationId" value={one.id} />
                        {one.until === undefined ? (
                          <button
                            type="submit"
                            name="intent"
                            value="link"
                            className="btn btn-sm"
                            aria-label={`Make a link for ${one.name}`}
                          >
                            Make a link
                          </button>
                        ) : null}
                        <button
                          type="submit"
                          name="intent"
                          value="withdraw"
                          className="btn btn-sm"
                          aria-label={`Withdraw the invitation for ${one.name}`}
                        >
                          Withdraw
                        </button>
                      </Form>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </section>
      ) : null}
      {role === "owner" && changes.length > 0 ? <Changes changes={changes} /> : null}
    </Page>
  );
}

function Invite({ data, result }: { data: Data; result: unknown }) {
  const { role, mail, without } = data;
  const staff = resultOf(result, "invite");
  const athlete = resultOf(result, "invite-athlete");
  const email = (problem: string | undefined) =>
    mail ? (
      <Field
        label="Send to"
        name="email"
        type="email"
        inline
        hint="leave empty to hand it over"
        problem={problem}
      />
    ) : (
      <input type="hidden" name="email" value="" />
    );
  return (
    <div className="grid gap-6">
      <HandedLink result={result} />
      <Form method="post" aria-label="An athlete's own card" className="grid gap-2" noValidate>
        <h2>An athlete's own card</h2>
        {without.length === 0 ? (
          <p className="text-muted">
            Every athlete has a sign-in, or there are none:{" "}
            <Link className="underline" to="/athletes/add">
              add athletes
            </Link>
            .
          </p>
        ) : (
          <>
            <Select label="Athlete" name="athleteId" inline problem={athlete?.problems?.athleteId}>
              {without.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}, {one.squad}
                  {one.invited ? " · invited" : ""}
                </option>
              ))}
            </Select>
            {email(athlete?.problems?.email)}
            {athlete?.message ? <Notice kind="problem" title={athlete.message} /> : null}
            <button
              type="submit"
              name="intent"
              value="invite-athlete"
              className="btn btn-primary justify-self-start"
            >
              Make a link
            </button>
          </>
        )}
      </Form>
      {role === "owner" ? (
        <Form
          method="post"
          aria-label="Staff"
          className="grid gap-2"
          noValidate
          key={data.invitations[0]?.id ?? "first"}
        >
          <h2>A coach or assistant</h2>
          <Field label="Name" name="name" inline problem={staff?.problems?.name} />
          <Select
            label="Role"
            name="role"
            inline
            hint="A coach plans and keeps records; an assistant logs; an owner looks after people too."
          >
            <option value="coach">coach</option>
            <option value="assistant">assistant</option>
            <option value="owner">owner</option>
          </Select>
          {email(staff?.problems?.email)}
          {staff?.message ? <Notice kind="problem" title={staff.message} /> : null}
          <button
            type="submit"
            name="intent"
            value="invite"
            className="btn btn-primary justify-self-start"
          >
            Make a link
          </button>
        </Form>
      ) : null}
      {role === "owner" && data.team ? (
        <TeamFacts team={data.team} result={resultOf(result, "team")} />
      ) : null}
    </div>
  );
}

/** What the team is called, and where and in what it counts. */
function TeamFacts({
  team,
  result,
}: {
  team: NonNullable<Data["team"]>;
  result: FormResult | undefined;
}) {
  return (
    <Form
      method="post"
      aria-label="The team"
      className="grid gap-2"
      noValidate
      key={`${team.name}/${team.zone}/${team.unit}`}
    >
      <h2>The team</h2>
      {result?.message ? <Notice kind="problem" title={result.message} /> : null}
      <Field
        label="Team"
        name="team"
        inline
        defaultValue={team.name}
        problem={result?.problems?.team}
      />
      <ZoneField inline defaultValue={team.zone} problem={result?.problems?.zone} />
      <Select label="Loads in" name="unit" inline defaultValue={team.unit}>
        <option value="kg">kilograms</option>
        <option value="lb">pounds</option>
      </Select>
      <button type="submit" name="intent" value="team" className="btn justify-self-start">
        Keep it
      </button>
    </Form>
  );
}

/** The link that was just made: shown once, kept nowhere. */
function HandedLink({ result }: { result: unknown }) {
  const handed = result as Handed | undefined;
  if (!handed?.ok || !handed.value?.link) return null;
  const { link, name, sentTo, notSent, hours } = handed.value;
  return (
    <section role="status" aria-label="The link" className="border-b border-control pb-4">
      <h2>
        {name}: {hours ? "new password" : "the way in"}
      </h2>
      <p className="mb-2 text-sm text-muted">
        Shown once. Works once{hours ? `, for ${hours} hours` : ""}: let them photograph it, or send
        the text.
      </p>
      {sentTo ? <Notice kind="note" title={`Sent to ${sentTo} too.`} /> : null}
      {notSent ? (
        <Notice kind="warning" title="The mail server did not take it: hand the link over." />
      ) : null}
      <LinkToHand link={link} label={`Link for ${name}`} />
    </section>
  );
}

const KIND_WORDS: Record<Data["changes"][number]["kind"], string> = {
  "team-made": "made the team",
  invited: "invited",
  withdrawn: "withdrew the invitation of",
  joined: "joined",
  role: "changed the role of",
  renamed: "renamed",
  suspended: "suspended",
  "let-in": "let in again",
  removed: "removed",
  left: "left",
  "reset-link": "gave a password link to",
  "password-set": "set a new password by a link",
};

function Changes({ changes }: { changes: Data["changes"] }) {
  return (
    <section aria-labelledby="changes" className="mt-6">
      <h2 id="changes">What changed</h2>
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Who</th>
            <th scope="col">Did</th>
          </tr>
        </thead>
        <tbody>
          {changes.map((one) => (
            <tr key={one.id}>
              <td className="whitespace-nowrap text-muted">{one.at}</td>
              <td>{one.by}</td>
              <td>
                {KIND_WORDS[one.kind]} {one.by === one.name ? "" : one.name}
                {one.detail ? <span className="text-muted"> {one.detail}</span> : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
