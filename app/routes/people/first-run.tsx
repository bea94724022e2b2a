import { redirect, useNavigation } from "react-router";
import { formObject } from "../../forms/athlete";
import { FirstRunForm } from "../../forms/people";
import { fieldProblems } from "../../forms/recipe";
import { isFirstRun } from "../../platform/installation.server";
import { readForm } from "../../platform/submission.server";
import { problemsOf } from "../../ui/adder";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice } from "../../ui/page";
import { ZoneField } from "../../ui/zone-field";
import { makeFirstTeam } from "../../workflows/people/first-run.server";
import type { Route } from "./+types/first-run";

export function meta() {
  return [{ title: "Your team · Sprezza" }];
}

export async function loader() {
  if (!(await isFirstRun())) throw redirect("/sign-in");
  return null;
}

export async function action({ request }: Route.ActionArgs) {
  const parsed = FirstRunForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success)
    return { ok: false as const, problems: fieldProblems(parsed.error), message: undefined };
  const made = await makeFirstTeam(request, parsed.data);
  if (!made.ok) {
    const problems: Record<string, string> =
      made.code === "wrong-code" ? { code: made.message } : {};
    return { ok: false as const, problems, message: problems.code ? undefined : made.message };
  }
  const headers = new Headers();
  for (const cookie of made.value.cookies) headers.append("set-cookie", cookie);
  throw redirect("/first-hour", { headers });
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** Of two who press at once the second reads why, before the page is gone. */
export const shouldRevalidate = revalidateUnlessFailed;

/** The one page of a server without a team: it makes the team and its owner. */
export default function FirstRun({ actionData }: Route.ComponentProps) {
  const busy = useNavigation().state === "submitting";
  const problems = problemsOf(actionData);
  return (
    <main className="mx-auto max-w-3xl p-6">
      <p className="text-2xl font-bold tracking-tight">sprezza</p>
      <h1 className="mt-4">Make your team</h1>
      <p className="mt-1 max-w-prose text-muted">
        This server has no team yet. What you write here makes it, with you as its owner: exercises,
        lifts, recipes, pairings, schools and a room to correct come with it. Everything can be
        changed afterwards.
      </p>
      {actionData?.message ? <Notice kind="problem" title={actionData.message} /> : null}
      <Form method="post" className="mt-4 grid gap-6 sm:grid-cols-2" noValidate>
        <section aria-labelledby="the-team" className="grid content-start gap-3">
          <h2 id="the-team">The team</h2>
          <Field label="Name of the team" name="team" problem={problems.team} autoFocus required />
          <ZoneField problem={problems.zone} />
          <Select label="Loads in" name="unit" hint="each person may read another">
            <option value="kg">kilograms</option>
            <option value="lb">pounds</option>
          </Select>
        </section>
        <section aria-labelledby="the-owner" className="grid content-start gap-3">
          <h2 id="the-owner">You, its owner</h2>
          <Field
            label="Your name"
            name="name"
            autoComplete="name"
            problem={problems.name}
            required
          />
          <Field
            label="Email"
            name="email"
            type="email"
            autoComplete="username"
            hint="what you sign in with; nothing is sent there"
            problem={problems.email}
            required
          />
          <Field
            label="Password"
            name="password"
            type="password"
            autoComplete="new-password"
            hint="ten characters at least; several words make a good one"
            problem={problems.password}
            required
          />
        </section>
        <section
          aria-labelledby="the-code"
          className="grid content-start gap-3 border-t border-rule pt-4 sm:col-span-2"
        >
          <h2 id="the-code">That it is you</h2>
          <div className="max-w-xs">
            <Field
              label="Code from the terminal"
              name="code"
              autoComplete="off"
              autoCapitalize="characters"
              placeholder="ABCD-EFGH"
              hint="the last lines of npm start print it; it works for one team"
              problem={problems.code}
              required
            />
          </div>
          <button type="submit" className="btn btn-primary justify-self-start" disabled={busy}>
            {busy ? "Making it …" : "Make the team"}
          </button>
        </section>
      </Form>
      <p className="mt-6 max-w-prose text-sm text-muted">
        Sprezza supports a qualified coach. It is no medical advice; local rules and licensed
        practitioners come first.
      </p>
    </main>
  );
}
