import { Link } from "react-router";
import { formObject } from "../../forms/athlete";
import { AskResetForm } from "../../forms/people";
import { fieldProblems } from "../../forms/recipe";
import { mailIsSet } from "../../platform/mail.server";
import { readForm } from "../../platform/submission.server";
import { problemsOf } from "../../ui/adder";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice } from "../../ui/page";
import { askReset } from "../../workflows/people/password.server";
import type { Route } from "./+types/forgot";

export function meta() {
  return [{ title: "Forgotten password · Sprezza" }];
}

export function loader() {
  return { mail: mailIsSet() };
}

export async function action({ request }: Route.ActionArgs) {
  const parsed = AskResetForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success)
    return { ok: false as const, problems: fieldProblems(parsed.error), message: undefined };
  const asked = await askReset(request, parsed.data.email);
  return asked.ok
    ? { ok: true as const, minutes: asked.value.minutes }
    : { ok: false as const, problems: {}, message: asked.message };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** The ways to a new password. */
export default function Forgot({ loaderData, actionData }: Route.ComponentProps) {
  const problems = problemsOf(actionData);
  return (
    <main className="mx-auto flex min-h-dvh max-w-sm flex-col justify-center p-6">
      <p className="text-2xl font-bold tracking-tight">sprezza</p>
      <h1 className="mt-6">Forgotten password</h1>
      {actionData?.ok ? (
        <Notice kind="note" title="If somebody signs in with this address, a letter is on its way.">
          Its link works once, for {actionData.minutes} minutes.
        </Notice>
      ) : null}
      {actionData && !actionData.ok && actionData.message ? (
        <Notice kind="problem" title={actionData.message} />
      ) : null}
      {loaderData.mail ? (
        <Form method="post" className="mt-3 grid gap-3" noValidate>
          <Field
            label="Email"
            name="email"
            type="email"
            autoComplete="username"
            problem={problems.email}
            required
          />
          <button type="submit" className="btn btn-primary">
            Send me a link
          </button>
        </Form>
      ) : null}
      <ul className="mt-4 grid gap-2 border-t border-rule pt-3">
        <li>
          <b>An athlete</b> asks a coach: People, then “New password link”.
        </li>
        <li>
          <b>A coach or assistant</b> asks the owner of the team.
        </li>
        <li>
          <b>An owner</b> {loaderData.mail ? "uses the letter above, or asks" : "asks"} whoever runs
          the server:
          <code className="mt-1 block bg-base-200 p-2 text-sm">
            npm run password -- name@club.example
          </code>
        </li>
      </ul>
      <p className="mt-4">
        <Link className="underline" to="/sign-in">
          Back to signing in
        </Link>
      </p>
    </main>
  );
}
