import { Form } from "react-router";
import { describeSide } from "../../../core/barload/load";
import { REASON_KIND_NAMES } from "../../../core/maxes/limits";
import { formatKg } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { Empty, Notice, Page } from "../../ui/page";
import { Figure, Figures } from "../../ui/working";
import { showReasons } from "../../workflows/athletes/save-facts.server";
import { readCard } from "../../workflows/card/read-card.server";
import type { Route } from "./+types/card";

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
  const { name, instructions, next } = loaderData;
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
      {next ? (
        <>
          <h2>
            {next.title}, week {next.week} of {next.weeks}
          </h2>
          <p className="text-muted">
            {next.liftName} · {next.roomName} · rest {next.rest.leastS} to {next.rest.mostS} s
          </p>
          <Figures label="My sets" className="mt-2">
            <ol className="border-t border-rule">
              {next.sets.map((set) => (
                <li
                  key={set.key}
                  className="grid grid-cols-[1.6rem_5.8rem_1fr] items-baseline gap-x-2 border-b border-faint py-1.5"
                >
                  <span className="text-muted">{set.number}</span>
                  <span className="text-xl font-bold">
                    {set.loadKg === undefined ? (
                      "no load"
                    ) : (
                      <Figure
                        id={set.key}
                        working={set.working}
                        label={`Set ${set.number}, ${formatKg(set.loadKg, next.unit, 1)}`}
                      >
                        {formatKg(set.loadKg, next.unit, 1)}
                      </Figure>
                    )}
                  </span>
                  <span>
                    {set.reps} reps{set.cycleItem ? `, ${set.cycleItem}` : ""}
                    <span className="block text-sm text-muted">
                      {set.loadKg === undefined ? set.loadReason : `side ${describeSide(set.side)}`}
                      {set.target
                        ? ` · ${formatVelocity(set.target.lowMps)} to ${formatVelocity(set.target.highMps)} m/s`
                        : ""}
                    </span>
                  </span>
                </li>
              ))}
            </ol>
          </Figures>
          <p className="mt-3 text-sm text-muted">{next.caution}</p>
        </>
      ) : (
        <Empty>Nothing is planned for you from today on. Your coach puts the next wave here.</Empty>
      )}
    </Page>
  );
}
