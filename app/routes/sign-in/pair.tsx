import { data, redirect } from "react-router";
import { environment } from "../../platform/env.server";
import { rackCookie } from "../../platform/rack-token.server";
import { readForm } from "../../platform/submission.server";
import { takePairingTry } from "../../platform/tries.server";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import { pairTablet } from "../../workflows/tablets/tablets.server";
import type { Route } from "./+types/pair";

export function meta() {
  return [{ title: "Pair a tablet · Sprezza" }];
}

export const handle = { theme: "cellar" as const };

export function loader() {
  return null;
}

export async function action({ request }: Route.ActionArgs) {
  const code = String((await readForm(request)).get("code") ?? "");
  const tries = await takePairingTry(request);
  if (!tries.allowed) {
    const message = "Too many tries. Wait ten minutes, then ask a coach for a new code.";
    return data({ code: "", message }, { status: 429 });
  }
  const result = await pairTablet(code);
  if (!result.ok) {
    tries.failed();
    return data({ code: code.slice(0, 20), message: result.message }, { status: 401 });
  }
  await tries.succeeded();
  const secure = environment().TLS_CERT !== undefined;
  throw redirect("/", { headers: { "set-cookie": rackCookie(result.value.token, secure) } });
}

export default function Pair({ actionData }: Route.ComponentProps) {
  return (
    <main className="mx-auto flex min-h-dvh max-w-md flex-col justify-center p-6 text-[17px]">
      <h1>Pair this tablet with a rack</h1>
      <p className="mt-2 text-muted">
        A coach opens Tablets on their own screen and reads out a code: three letters and six
        digits. It works once, for five minutes.
      </p>
      <Form method="post" className="mt-4 grid gap-4">
        <Field
          label="Code"
          name="code"
          autoComplete="off"
          autoCapitalize="characters"
          placeholder="KTW-482913"
          defaultValue={actionData?.code}
          problem={actionData?.message}
          required
        />
        <button type="submit" className="btn btn-primary min-h-[64px] text-lg">
          Pair
        </button>
      </Form>
    </main>
  );
}
