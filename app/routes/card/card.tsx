import { useEffect } from "react";
import { redirect } from "react-router";
import { z } from "zod";
import { REASON_KIND_NAMES } from "../../../core/maxes/limits";
import { keyField } from "../../forms/primitives/key";
import { keepScreen } from "../../offline/kept-screens";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { showReasons } from "../../workflows/athletes/save-limits.server";
import { readCard } from "../../workflows/card/read-card.server";
import { openAgain } from "../../workflows/floor/end-session.server";
import { startOwn } from "../../workflows/floor/own-training.server";
import type { Route } from "./+types/card";
import { CardDays } from "./card-days";
import { CardPast } from "./card-past";

export function meta() {
  return [{ title: "My card · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const result = await readCard(principalOf(context));
  if (!result.ok) throw notThere(result);
  return result.value;
}

const BeginForm = z.object({
  planId: z.uuid(),
  week: z.coerce.number().int().min(1).max(104),
  dayId: keyField(60),
});

/**
 * Begins a day alone, or opens it again; else an athlete reads why a limit was set on them, which is
 * recorded.
 */
export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const form = await readForm(request);
  const intent = form.get("intent");
  const problem = (message: string) => ({ ok: false as const, message });
  if (intent === "begin") {
    const parsed = BeginForm.safeParse(Object.fromEntries(form));
    if (!parsed.success) return problem("The form was not complete. Load the page again.");
    const begun = await startOwn(principal, parsed.data);
    if (!begun.ok) return problem(begun.message);
    throw redirect(`/card/${begun.value.sessionId}`);
  }
  if (intent === "again") {
    const sessionId = z.uuid().safeParse(form.get("sessionId"));
    if (!sessionId.success) return problem("The form was not complete. Load the page again.");
    const opened = await openAgain(principal, sessionId.data, "Opened again by the athlete");
    if (!opened.ok) return problem(opened.message);
    throw redirect(`/card/${sessionId.data}`);
  }
  const athleteId = principal.kind === "person" ? principal.athleteId : undefined;
  const shown = await showReasons(principal, athleteId ?? "");
  return shown.ok ? { ok: true as const, reasons: shown.value } : problem(shown.message);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export default function Card({ loaderData, actionData }: Route.ComponentProps) {
  const { name, instructions, next, also, past } = loaderData;
  // The athlete's own phone shows it without the network too; why a limit stands is in none of it.
  useEffect(() => {
    const text = JSON.stringify({ name, instructions, next, also });
    keepScreen({ path: "/card", title: "My card", sessionId: undefined, text }).catch(() => {});
  }, [name, instructions, next, also]);
  return (
    <Page title={name} facts={next ? (next.date === next.today ? "Today" : next.date) : undefined}>
      {instructions.map((text) => (
        <Notice key={text} kind="warning" title={text} />
      ))}
      {actionData?.ok === false ? <Notice kind="problem" title={actionData.message} /> : null}
      {instructions.length > 0 && !actionData?.ok ? (
        <Form method="post">
          <button type="submit" className="min-h-11 underline">
            Why?
          </button>
        </Form>
      ) : null}
      {actionData?.ok
        ? actionData.reasons.map((one) => (
            <p key={one.limitId} className="text-muted">
              {REASON_KIND_NAMES[one.kind]}: {one.reason || "no more was written"} (by {one.by},
              shown to you and your coaches only)
            </p>
          ))
        : null}
      <CardDays next={next} also={also} />
      <CardPast past={past} unit={next?.unit ?? "kg"} />
    </Page>
  );
}
