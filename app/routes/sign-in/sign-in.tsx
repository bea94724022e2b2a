import { data, Link, redirect, useNavigation } from "react-router";
import { z } from "zod";
import { signedInUser, signIn } from "../../platform/auth.server";
import { environment } from "../../platform/env.server";
import { maybePrincipal } from "../../platform/guard.server";
import { isFirstRun } from "../../platform/installation.server";
import { log, requestId } from "../../platform/log.server";
import { homeOf } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { takeSignInTry } from "../../platform/tries.server";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice } from "../../ui/page";
import { hasTeam } from "../../workflows/people/teams.server";
import type { Route } from "./+types/sign-in";

const SignInForm = z.object({
  email: z.email("Write your email address, for example name@club.example."),
  password: z.string().min(1, "Write your password.").max(200, "At most 200 characters."),
});

export function meta() {
  return [{ title: "Sign in · Sprezza" }];
}

export async function loader({ context, request }: Route.LoaderArgs) {
  const principal = maybePrincipal(context);
  if (principal?.kind === "person") throw redirect(homeOf(principal));
  if (await isFirstRun()) throw redirect("/first-run");
  const to = new URL(request.url).searchParams.get("to");
  return {
    to: safeTarget(to),
    demo: environment().SPREZZA_DEMO === "1",
    asked: to !== null,
    /** Signed in, and no team lets them in: removed, or suspended. */
    outside: (await signedInUser(request))?.email,
  };
}

/** The form again, with what is wrong; never the password. */
function refused(status: number, email: string, message: string) {
  return data(
    { ok: false as const, email: email.slice(0, 200), problems: {}, message },
    { status },
  );
}

const OUTSIDE =
  "No team lets you in now: you were suspended or removed. Ask the owner, or open the invitation that you were given.";

const TOO_MANY = "Too many tries. Wait a quarter of an hour, or ask your team's owner.";

export async function action({ request }: Route.ActionArgs) {
  const form = await readForm(request);
  const email = String(form.get("email") ?? "");
  const parsed = SignInForm.safeParse({ email, password: String(form.get("password") ?? "") });
  if (!parsed.success) {
    const problems = z.flattenError(parsed.error).fieldErrors;
    return { ok: false as const, email: email.slice(0, 200), problems, message: undefined };
  }
  const tries = await takeSignInTry(request, parsed.data.email);
  if (!tries.allowed) return refused(429, email, TOO_MANY);
  const signed = await signIn(request, parsed.data);
  if (!signed.ok && signed.status === 429) {
    return refused(429, email, "Too many tries from this address. Wait a minute, then try again.");
  }
  if (!signed.ok && signed.status !== 401) {
    const id = requestId(request);
    log.error({ requestId: id, status: signed.status }, "sign-in did not work");
    const away = `Signing in does not work now: our side, not your password. Try again in a moment (request ${id}).`;
    return refused(503, email, away);
  }
  if (!signed.ok) {
    tries.failed();
    const wrong = "Email and password do not match. Check both, or ask your team's owner.";
    return refused(401, email, wrong);
  }
  await tries.succeeded();
  if (!(await hasTeam(signed.userId))) return refused(403, email, OUTSIDE);
  const headers = new Headers();
  for (const cookie of signed.cookies) headers.append("set-cookie", cookie);
  throw redirect(safeTarget(String(form.get("to") ?? "/")), { headers });
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** Only addresses of our own. */
function safeTarget(to: string | null): string {
  return to && /^\/(?!\/)[\w\-./?=&%:]*$/.test(to) ? to : "/";
}

export default function SignIn({ loaderData, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state === "submitting";
  const problems: { email?: string[]; password?: string[] } =
    actionData && "problems" in actionData ? actionData.problems : {};
  return (
    <main className="mx-auto flex min-h-dvh max-w-sm flex-col justify-center p-6">
      <p className="text-2xl font-bold tracking-tight">sprezza</p>
      <h1 className="mt-6">Sign in</h1>
      {loaderData.outside && !actionData ? (
        <Notice kind="note" title={`${loaderData.outside}: no team lets you in now.`}>
          You were suspended or removed. Ask the owner of your team, or sign in as somebody else.
        </Notice>
      ) : loaderData.asked && !actionData ? (
        <Notice kind="note" title="Sign in to go on.">
          You were signed out, or have not signed in on this device. You come back to where you
          were.
        </Notice>
      ) : null}
      {actionData?.message ? <Notice kind="problem" title={actionData.message} /> : null}
      <Form method="post" className="mt-3 grid gap-3" noValidate>
        <input type="hidden" name="to" value={loaderData.to} />
        <Field
          label="Email"
          name="email"
          type="email"
          autoComplete="username"
          defaultValue={actionData && "email" in actionData ? actionData.email : ""}
          problem={problems.email?.[0]}
          required
        />
        <Field
          label="Password"
          name="password"
          type="password"
          autoComplete="current-password"
          problem={problems.password?.[0]}
          required
        />
        <button type="submit" className="btn btn-primary" disabled={busy}>
          {busy ? "Signing in …" : "Sign in"}
        </button>
      </Form>
      <p className="mt-4">
        <Link className="underline" to="/forgot">
          Forgotten password
        </Link>
      </p>
      <p className="mt-2 text-muted">
        A tablet at a rack is paired with a code:{" "}
        <Link className="underline" to="/pair">
          pair it here
        </Link>
        .
      </p>
      {loaderData.demo ? (
        <div className="mt-6 border-t border-rule pt-3 text-muted">
          <p className="font-bold">Demo sign-in</p>
          <p>
            coach@skerry.example, also owner@, assistant@ and maren@skerry.example (an athlete).
            Password for all: skerry-coast-demo
          </p>
        </div>
      ) : null}
    </main>
  );
}
