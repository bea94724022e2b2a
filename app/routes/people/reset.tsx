import { Link, redirect } from "react-router";
import { formObject } from "../../forms/athlete";
import { NewPasswordForm } from "../../forms/people";
import { fieldProblems } from "../../forms/recipe";
import { readForm } from "../../platform/submission.server";
import { problemsOf } from "../../ui/adder";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice } from "../../ui/page";
import { readReset, useReset as setByReset } from "../../workflows/people/password.server";
import type { Route } from "./+types/reset";

export function meta() {
  return [{ title: "New password · Sprezza" }, { name: "referrer", content: "no-referrer" }];
}

export async function loader({ params }: Route.LoaderArgs) {
  const reset = await readReset(params.token);
  return reset.ok
    ? { person: reset.value, problem: undefined }
    : { person: undefined, problem: reset.message };
}

export async function action({ request, params }: Route.ActionArgs) {
  const parsed = NewPasswordForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success)
    return { ok: false as const, problems: fieldProblems(parsed.error), message: undefined };
  const set = await setByReset(request, params.token, parsed.data.password);
  if (!set.ok) return { ok: false as const, problems: {}, message: set.message };
  const headers = new Headers();
  for (const cookie of set.value.cookies) headers.append("set-cookie", cookie);
  throw redirect("/", { headers });
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** Sets a new password by a link, once. */
export default function Reset({ loaderData, actionData }: Route.ComponentProps) {
  const { person, problem } = loaderData;
  const problems = problemsOf(actionData);
  return (
    <main className="mx-auto flex min-h-dvh max-w-sm flex-col justify-center p-6">
      <p className="text-2xl font-bold tracking-tight">sprezza</p>
      <h1 className="mt-6">A new password</h1>
      {person ? (
        <>
          <p className="mt-1 text-muted">
            For {person.name}, who signs in as {person.email}. Everywhere else you are signed out.
          </p>
          {actionData?.message ? <Notice kind="problem" title={actionData.message} /> : null}
          <Form method="post" className="mt-3 grid gap-3" noValidate>
            <input type="hidden" name="username" autoComplete="username" value={person.email} />
            <Field
              label="New password"
              name="password"
              type="password"
              autoComplete="new-password"
              hint="ten characters at least; several words make a good one"
              problem={problems.password}
              required
            />
            <button type="submit" className="btn btn-primary min-h-11">
              Keep it and sign in
            </button>
          </Form>
        </>
      ) : (
        <>
          <Notice kind="problem" title={problem} />
          <p className="mt-3 flex gap-2">
            <Link className="btn" to="/forgot">
              Ask for another
            </Link>
            <Link className="btn" to="/sign-in">
              Sign in
            </Link>
          </p>
        </>
      )}
    </main>
  );
}
