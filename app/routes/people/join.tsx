import { useState } from "react";
import { Link, redirect, useNavigation } from "react-router";
import { formObject } from "../../forms/athlete";
import { JoinForm } from "../../forms/people";
import { fieldProblems } from "../../forms/recipe";
import { environment } from "../../platform/env.server";
import { teamCookie } from "../../platform/principal.server";
import { readForm } from "../../platform/submission.server";
import { problemsOf } from "../../ui/adder";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice } from "../../ui/page";
import { join, readInvitation } from "../../workflows/people/join.server";
import type { Route } from "./+types/join";

export function meta() {
  return [
    { title: "Join · Sprezza" },
    // The address is the secret: it goes to no other site.
    { name: "referrer", content: "no-referrer" },
  ];
}

export async function loader({ request, params }: Route.LoaderArgs) {
  const offer = await readInvitation(request, params.token);
  return offer.ok
    ? { offer: offer.value, problem: undefined }
    : { offer: undefined, problem: offer.message };
}

export async function action({ request, params }: Route.ActionArgs) {
  const parsed = JoinForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success)
    return { ok: false as const, problems: fieldProblems(parsed.error), message: undefined };
  const joined = await join(request, params.token, parsed.data);
  if (!joined.ok) return { ok: false as const, problems: {}, message: joined.message };
  const headers = new Headers();
  for (const cookie of joined.value.cookies) headers.append("set-cookie", cookie);
  const secure = environment().TLS_CERT !== undefined;
  headers.append("set-cookie", teamCookie(joined.value.teamId, secure));
  throw redirect("/", { headers });
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** Takes an invitation: somebody new, or somebody with a password here. */
export default function Join({ loaderData, actionData }: Route.ComponentProps) {
  const { offer, problem } = loaderData;
  const [known, setKnown] = useState(false);
  const busy = useNavigation().state === "submitting";
  if (!offer) {
    return (
      <main className="mx-auto flex min-h-dvh max-w-sm flex-col justify-center p-6">
        <p className="text-2xl font-bold tracking-tight">sprezza</p>
        <h1 className="mt-6">This link is over</h1>
        <Notice kind="problem" title={problem} />
        <p className="mt-3">
          <Link className="btn" to="/sign-in">
            Sign in
          </Link>
        </p>
      </main>
    );
  }
  const problems = problemsOf(actionData);
  const role = offer.role === "athlete" ? "with your own card" : `as ${offer.role}`;
  const as = known ? "known" : "new";
  return (
    <main className="mx-auto flex min-h-dvh max-w-sm flex-col justify-center p-6">
      <p className="text-2xl font-bold tracking-tight">sprezza</p>
      <h1 className="mt-6">{offer.team}</h1>
      <p className="mt-1 text-muted">
        {offer.by} lets {offer.name} in {role}. The link works once.
      </p>
      {actionData?.message ? <Notice kind="problem" title={actionData.message} /> : null}
      {offer.signedInAs ? (
        <Form method="post" className="mt-4 border-b border-rule pb-4">
          <input type="hidden" name="as" value="signed-in" />
          <button type="submit" className="btn btn-primary" disabled={busy}>
            Join as {offer.signedInAs}
          </button>
        </Form>
      ) : null}
      <fieldset className="mt-4 flex flex-wrap gap-x-4">
        <legend className="text-muted">You are</legend>
        {(
          [
            [false, "new here"],
            [true, "I have a password here"],
          ] as const
        ).map(([value, words]) => (
          <label key={words} className="flex min-h-11 items-center gap-2">
            <input
              type="radio"
              name="who"
              checked={known === value}
              onChange={() => setKnown(value)}
              className="radio radio-sm border-control"
            />
            {words}
          </label>
        ))}
      </fieldset>
      <Form method="post" className="mt-2 grid gap-3" noValidate key={as}>
        <input type="hidden" name="as" value={as} />
        {known ? null : (
          <Field
            label="Your name"
            name="name"
            autoComplete="name"
            defaultValue={offer.name}
            problem={problems.name}
            readOnly={offer.role === "athlete"}
            required
          />
        )}
        <Field
          label="Email"
          name="email"
          type="email"
          autoComplete="username"
          defaultValue={offer.email}
          problem={problems.email}
          required
        />
        <Field
          label={known ? "Password" : "Choose a password"}
          name="password"
          type="password"
          autoComplete={known ? "current-password" : "new-password"}
          hint={known ? undefined : "ten characters at least; several words make a good one"}
          problem={problems.password}
          required
        />
        <button type="submit" className="btn btn-primary min-h-11" disabled={busy}>
          {busy ? "Joining …" : `Join ${offer.team}`}
        </button>
      </Form>
    </main>
  );
}
