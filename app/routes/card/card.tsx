import { useEffect } from "react";
import { REASON_KIND_NAMES } from "../../../core/maxes/limits";
import { keepScreen } from "../../offline/kept-screens";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { Form } from "../../ui/form";
import { Notice, Page } from "../../ui/page";
import { showReasons } from "../../workflows/athletes/save-limits.server";
import { readCard } from "../../workflows/card/read-card.server";
import type { Route } from "./+types/card";
import { CardDays } from "./card-days";

export function meta() {
  return [{ title: "My card · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const result = await readCard(principalOf(context));
  if (!result.ok) throw notThere(result);
  return result.value;
}

/** An athlete may read why a limit was set on them; that too is recorded. */
export async function action({ context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const athleteId = principal.kind === "person" ? principal.athleteId : undefined;
  const shown = await showReasons(principal, athleteId ?? "");
  return shown.ok
    ? { ok: true as const, reasons: shown.value }
    : { ok: false as const, message: shown.message };
}

export default function Card({ loaderData, actionData }: Route.ComponentProps) {
  const { name, instructions, next, also } = loaderData;
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
      {instructions.length > 0 && !actionData ? (
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
    </Page>
  );
}
