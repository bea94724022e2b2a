import { Link } from "react-router";
import { idFrom } from "../../../forms/primitives/id";
import { notThere } from "../../../platform/answers.server";
import { principalOf } from "../../../platform/guard.server";
import { mayWrite } from "../../../platform/rights";
import { readForm } from "../../../platform/submission.server";
import { Day } from "../../../ui/dates";
import { Form } from "../../../ui/form";
import { keepForm } from "../../../ui/keep-form";
import { Notice, Page } from "../../../ui/page";
import { PageSelect } from "../../../ui/page-select";
import { useUnit } from "../../../ui/unit";
import { useAddress } from "../../../ui/use-address";
import { readPaper } from "../../../workflows/floor/paper-day.server";
import { endFeed, listFeeds, makeFeed } from "../../../workflows/plan/export-plan.server";
import type { Route } from "./+types/print";
import { Cards } from "./cards";
import { WallSheet } from "./wall-sheet";

export function meta() {
  return [{ title: "Print · Sprezza" }];
}

export async function loader({ request, context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const asked = new URL(request.url).searchParams;
  const found = await readPaper(principal, params.planId, {
    week: asked.get("week"),
    day: asked.get("day"),
  });
  if (!found.ok) throw notThere(found);
  return {
    ...found.value,
    feeds: await listFeeds(principal, params.planId),
    mayEdit: mayWrite(principal, "/plan/:planId/print"),
  };
}

export async function action({ request, context, params }: Route.ActionArgs) {
  const form = await readForm(request);
  const principal = principalOf(context);
  if (form.get("intent") === "revoke") {
    return { ...(await endFeed(principal, idFrom(form.get("id")))), address: undefined };
  }
  const made = await makeFeed(principal, params.planId);
  return made.ok ? { ok: true as const, address: made.value.address } : made;
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** The wall sheet of a day and the athletes' cards, as they leave the printer. */
export default function Print({ loaderData, actionData }: Route.ComponentProps) {
  const { plan, days, week, dayId, paper } = loaderData;
  const address = useAddress();
  const unit = useUnit();
  const what = address.get("what") === "cards" ? "cards" : "wall";
  const day = days.find((one) => one.id === dayId);
  return (
    <Page
      title={`Print: ${plan.name}`}
      actions={
        <>
          <button type="button" className="btn btn-primary" onClick={() => window.print()}>
            Print
          </button>
          <Link className="btn" to={`/plan/${plan.id}`}>
            Back to the plan
          </Link>
        </>
      }
      margin={
        <div className="grid gap-5">
          <section className="grid gap-2" aria-label="What to print">
            <PageSelect
              label="What"
              inline
              value={what}
              onChange={(e) => address.set("what", e.target.value === "wall" ? "" : e.target.value)}
            >
              <option value="wall">wall sheet of a day</option>
              <option value="cards">a card for each athlete</option>
            </PageSelect>
            <PageSelect
              label="Week"
              inline
              value={String(week)}
              onChange={(e) => address.set("week", e.target.value)}
            >
              {Array.from({ length: plan.weeks }, (_, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: the number is the identity
                <option key={i} value={i + 1}>
                  week {i + 1}
                </option>
              ))}
            </PageSelect>
            <PageSelect
              label="Day"
              inline
              value={dayId}
              onChange={(e) => address.set("day", e.target.value)}
            >
              {days.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </PageSelect>
            <p className="text-sm text-muted">
              A4 and letter, on their side
              {what === "cards" ? "; two cards a page, cut in the middle" : ""}. No reasons of
              limits are printed.
            </p>
          </section>
          {loaderData.mayEdit ? (
            <Feeds feeds={loaderData.feeds} result={actionData as FeedResult} />
          ) : null}
        </div>
      }
    >
      {!day || !paper ? (
        <p>No day yet.</p>
      ) : paper.ok ? (
        <>
          <div className="no-print mb-3 text-muted">
            <p>
              {paper.value.onFloor
                ? "With the groups and racks that are on the floor."
                : "With everybody here, grouped by load as one tap would start it."}
            </p>
            {paper.value.changedSince ? (
              <Notice
                kind="note"
                title={`Printed as it is lifted: version ${paper.value.frozen.planVersion}. The plan was changed since; publish it to print the changes.`}
              />
            ) : null}
          </div>
          {what === "wall" ? (
            <WallSheet frozen={paper.value.frozen} day={day} unit={unit} />
          ) : (
            <Cards frozen={paper.value.frozen} day={day} />
          )}
        </>
      ) : (
        <Notice kind="problem" title="There is nothing to print for this day.">
          {paper.message}
        </Notice>
      )}
    </Page>
  );
}

type FeedResult = { ok: boolean; address?: string; message?: string } | undefined;

function Feeds({
  feeds,
  result,
}: {
  feeds: Route.ComponentProps["loaderData"]["feeds"];
  result: FeedResult;
}) {
  return (
    <section className="grid gap-2" aria-label="Calendar to follow">
      <h2>Calendar to follow</h2>
      <p className="text-sm text-muted">
        Dates only, nobody's name; whoever has the address can read it.
      </p>
      {result?.address ? (
        <p className="break-all" role="status">
          {result.address} <span className="text-muted">(shown once)</span>
        </p>
      ) : null}
      <Form method="post">
        <button type="submit" name="intent" value="feed" className="btn">
          Make an address
        </button>
      </Form>
      <ul>
        {feeds.map((one) => (
          <li key={one.id} className="flex gap-3 border-b border-faint py-1">
            <span className="grow">
              <Day of={one.on} />, {one.by}
              {one.revoked ? ", revoked" : ""}
            </span>
            {one.revoked ? null : (
              <Form method="post">
                <input type="hidden" name="id" value={one.id} />
                <button type="submit" name="intent" value="revoke" className="underline">
                  Revoke
                </button>
              </Form>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
