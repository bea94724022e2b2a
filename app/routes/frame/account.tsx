import { data, redirect } from "react-router";
import { z } from "zod";
import { formObject } from "../../forms/athlete";
import { ChangePasswordForm, TeamForm } from "../../forms/people";
import { fieldProblems } from "../../forms/recipe";
import { signedInUser } from "../../platform/auth.server";
import { environment } from "../../platform/env.server";
import { principalOf } from "../../platform/guard.server";
import { teamCookie } from "../../platform/principal.server";
import { readForm } from "../../platform/submission.server";
import { Adder, type FormResult, resultOf } from "../../ui/adder";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { ZoneField } from "../../ui/zone-field";
import { endOwnSessions, readOwnSessions } from "../../workflows/frame/own-sessions.server";
import { leaveTeam } from "../../workflows/people/members.server";
import { changePassword } from "../../workflows/people/password.server";
import { asPerson } from "../../workflows/people/person.server";
import { makeAnotherTeam, maySwitch, readTeams } from "../../workflows/people/teams.server";
import type { Route } from "./+types/account";
import { TeamFromArchive } from "./team-from-archive";

export function meta() {
  return [{ title: "Your sign-in · Sprezza" }];
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const principal = asPerson(principalOf(context));
  return {
    name: principal.name,
    email: (await signedInUser(request))?.email ?? "",
    sessions: await readOwnSessions(principal, request),
    teams: await readTeams(principal),
  };
}

const inTeam = (teamId: string) => ({
  headers: { "set-cookie": teamCookie(teamId, environment().TLS_CERT !== undefined) },
});

const Which = z.object({ teamId: z.uuid() });

export async function action({ request, context }: Route.ActionArgs) {
  const principal = asPerson(principalOf(context));
  const form = formObject(await readForm(request));
  const { intent = "end" } = form;
  if (intent === "password") {
    const parsed = ChangePasswordForm.safeParse(form);
    if (!parsed.success)
      return { ok: false as const, intent, problems: fieldProblems(parsed.error) };
    const email = (await signedInUser(request))?.email ?? "";
    const changed = await changePassword(principal, request, email, parsed.data);
    if (!changed.ok) return { intent, ...changed };
    const headers = new Headers();
    for (const cookie of changed.value.cookies) headers.append("set-cookie", cookie);
    return data({ ok: true as const, intent, value: undefined }, { headers });
  }
  if (intent === "switch") {
    const parsed = Which.safeParse(form);
    const chosen = parsed.success ? await maySwitch(principal, parsed.data.teamId) : undefined;
    if (chosen?.ok) throw redirect("/", inTeam(chosen.value));
    return { ok: false as const, intent, message: "You do not belong to this team any more." };
  }
  if (intent === "team") {
    const parsed = TeamForm.safeParse(form);
    if (!parsed.success)
      return { ok: false as const, intent, problems: fieldProblems(parsed.error) };
    const made = await makeAnotherTeam(principal, parsed.data);
    if (made.ok) throw redirect("/first-hour", inTeam(made.value.teamId));
    return { intent, ...made };
  }
  if (intent === "leave") {
    const left = await leaveTeam(principal);
    if (left.ok) throw redirect("/");
    return { intent, ...left };
  }
  return { intent: "end", ...(await endOwnSessions(request, form.id || "others")) };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** A person's own sign-in: password, teams, and where they are signed in. */
export default function Account({ loaderData, actionData }: Route.ComponentProps) {
  const { name, email } = loaderData;
  return (
    <Page
      title="Your sign-in"
      facts={`${name} · ${email}`}
      margin={<Password email={email} result={resultOf(actionData, "password")} />}
    >
      <Teams data={loaderData} result={actionData as FormResult | undefined} />
      <Sessions sessions={loaderData.sessions} result={resultOf(actionData, "end")} />
    </Page>
  );
}

type Data = Route.ComponentProps["loaderData"];

function Password({ email, result }: { email: string; result: FormResult | undefined }) {
  return (
    <Form method="post" aria-label="Password" className="grid gap-2" noValidate>
      <h2>Change your password</h2>
      {result?.ok ? (
        <Notice kind="note" title="Changed. Everywhere else you are signed out." />
      ) : null}
      {result?.message ? <Notice kind="problem" title={result.message} /> : null}
      <input type="hidden" name="username" autoComplete="username" value={email} />
      <Field
        label="Now"
        name="current"
        type="password"
        autoComplete="current-password"
        inline
        problem={result?.problems?.current}
      />
      <Field
        label="New"
        name="password"
        type="password"
        autoComplete="new-password"
        inline
        hint="ten characters at least"
        problem={result?.problems?.password}
      />
      <button
        type="submit"
        name="intent"
        value="password"
        className="btn btn-primary justify-self-start"
      >
        Change it
      </button>
    </Form>
  );
}

function Teams({ data: { teams }, result }: { data: Data; result: FormResult | undefined }) {
  const owns = teams.some((one) => one.role === "owner");
  const made = result?.intent === "team" ? result : undefined;
  return (
    <section aria-labelledby="teams" className="mb-6">
      <h2 id="teams">Your teams</h2>
      {result && !result.ok && ["switch", "leave"].includes(result.intent ?? "") ? (
        <Notice kind="problem" title={result.message ?? ""} />
      ) : null}
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Team</th>
            <th scope="col">You are</th>
            <th scope="col">
              <span className="sr-only">Open it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {teams.map((one) => (
            <tr key={one.id}>
              <th scope="row" className="!text-base-content">
                {one.name}
                {one.open ? <b> · this one</b> : null}
              </th>
              <td>{one.role}</td>
              <td className="text-right">
                {one.open ? null : (
                  <Form method="post">
                    <input type="hidden" name="teamId" value={one.id} />
                    <button
                      type="submit"
                      name="intent"
                      value="switch"
                      className="btn btn-sm"
                      aria-label={`Open ${one.name}`}
                    >
                      Open
                    </button>
                  </Form>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Adder title="Leave this team" open={result?.intent === "leave" && !result.ok}>
        <Form method="post" className="flex flex-wrap items-center gap-3">
          <p>You lose your way into it. What you logged and planned stays under your name.</p>
          <button type="submit" name="intent" value="leave" className="btn btn-sm">
            Leave {teams.find((one) => one.open)?.name}
          </button>
        </Form>
      </Adder>
      {owns ? (
        <Adder title="Make another team" open={made?.ok === false}>
          <Form method="post" aria-label="Another team" className="grid max-w-md gap-2" noValidate>
            <Field label="Name" name="team" inline problem={made?.problems?.team} />
            <ZoneField inline problem={made?.problems?.zone} />
            <Select label="Loads in" name="unit" inline>
              <option value="kg">kilograms</option>
              <option value="lb">pounds</option>
            </Select>
            {made?.message ? <Notice kind="problem" title={made.message} /> : null}
            <button type="submit" name="intent" value="team" className="btn justify-self-start">
              Make the team
            </button>
          </Form>
        </Adder>
      ) : null}
      {owns ? <TeamFromArchive /> : null}
    </section>
  );
}

function Sessions({
  sessions,
  result,
}: {
  sessions: Data["sessions"];
  result: FormResult | undefined;
}) {
  const others = sessions.filter((one) => !one.current);
  const ended = (result as { value?: { ended?: number } } | undefined)?.value?.ended;
  return (
    <section aria-labelledby="sessions">
      <div className="flex flex-wrap items-center gap-3">
        <h2 id="sessions">Where you are signed in</h2>
        {others.length > 0 ? (
          <Form method="post">
            <button type="submit" className="btn btn-sm">
              End all others
            </button>
          </Form>
        ) : null}
      </div>
      {result && !result.ok && result.message ? (
        <Notice kind="problem" title={result.message} />
      ) : null}
      {ended === undefined ? null : (
        <Notice kind="note" title={`${ended} ended. Screens that were open there have closed.`} />
      )}
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Where</th>
            <th scope="col">Since</th>
            <th scope="col">Last used</th>
            <th scope="col">From</th>
            <th scope="col">
              <span className="sr-only">End it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sessions.map((one) => (
            <tr key={one.id}>
              <td>
                {one.where}
                {one.current ? <b> · this one</b> : null}
              </td>
              <td>{one.since}</td>
              <td>{one.lastUsed}</td>
              <td className="text-muted">{one.address}</td>
              <td>
                {one.current ? null : (
                  <Form method="post">
                    <input type="hidden" name="id" value={one.id} />
                    <button type="submit" className="btn btn-sm">
                      End it
                    </button>
                  </Form>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-muted">
        A tablet at a rack is not signed in as you: coaches take tablets off under Tablets.
      </p>
    </section>
  );
}
