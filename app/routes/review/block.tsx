import { Link } from "react-router";
import { z } from "zod";
import { formatKg, plainNumber } from "../../../core/units/mass";
import { formObject } from "../../forms/athlete";
import { idFrom, isId } from "../../forms/primitives/id";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Day } from "../../ui/dates";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Empty, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { giveToParent } from "../../workflows/review/for-parent.server";
import { type BlockPage, readBlock } from "../../workflows/review/read-block.server";
import type { Route } from "./+types/block";
import { BlockReport } from "./block-report";
import { ParentReport } from "./parent-report";
import { ReviewNav } from "./review-nav";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.block?.name ?? "Blocks"} · Sprezza` }];
}

/** Typical errors that were typed into the address: `error.<test>=0.8`. */
function typedErrors(params: URLSearchParams): Record<string, number> {
  const typed: Record<string, number> = {};
  for (const [name, text] of params) {
    const id = name.startsWith("error.") ? name.slice("error.".length) : "";
    const value = Number(text.replace(",", "."));
    if (isId(id) && value > 0 && value < 1000) typed[id] = value;
  }
  return typed;
}

export async function loader({ context, url }: Route.LoaderArgs) {
  const get = (name: string) => idFrom(url.searchParams.get(name) ?? "");
  const principal = principalOf(context);
  const page = await readBlock(principal, {
    planId: get("plan"),
    athleteId: get("athlete"),
    typed: typedErrors(url.searchParams),
  });
  return { ...page, mayGive: mayWrite(principal, "/review/block") };
}

const ParentForm = z.object({
  intent: z.literal("for-parent"),
  athleteId: z.uuid(),
  planId: z.uuid(),
});

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = ParentForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success) throw new Response("This form is not one of this page's.", { status: 400 });
  return giveToParent(principalOf(context), parsed.data);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** A block by its tests: the squad in lines, one athlete as a report of one page. */
export default function BlockReview({ loaderData }: Route.ComponentProps) {
  const { blocks, block } = loaderData;
  const address = useAddress();
  if (!block)
    return (
      <Page title="Blocks">
        <ReviewNav />
        <Empty
          action={
            <Link className="btn btn-primary" to="/plan">
              Open the plans
            </Link>
          }
        >
          No block has begun yet.
        </Empty>
      </Page>
    );
  const { people = [], opened } = loaderData;
  return (
    <Page
      title={opened ? `${opened.name}, ${block.name}` : block.name}
      facts={`${block.squadName} · ${block.from} to ${block.to}${block.over ? "" : " · still running"}`}
      actions={
        <button type="button" className="btn no-print" onClick={() => window.print()}>
          Print the report
        </button>
      }
    >
      <ReviewNav />
      <div className="no-print mb-3 flex flex-wrap gap-4">
        <div className="w-[28rem] max-w-full">
          <PageSelect
            label="Block"
            value={block.planId}
            onChange={(event) => address.setAll({ plan: event.target.value, athlete: "" })}
          >
            {blocks.map((one) => (
              <option key={one.planId} value={one.planId}>
                <Day of={one.from} /> {one.name}
              </option>
            ))}
          </PageSelect>
        </div>
        <div className="w-56">
          <PageSelect
            label="Athlete"
            value={opened?.id ?? ""}
            onChange={(event) =>
              address.setAll({ plan: block.planId, athlete: event.target.value })
            }
          >
            {people.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </PageSelect>
        </div>
      </div>
      {opened?.given && address.get("for") === "parent" ? (
        <ParentReport opened={opened} block={block} />
      ) : opened ? (
        <BlockReport opened={opened} block={block} />
      ) : (
        <Empty>Nobody is in this block.</Empty>
      )}
      {opened ? (
        <ForParent opened={opened} planId={block.planId} mayGive={loaderData.mayGive} />
      ) : null}
      <Squad people={people} openedId={opened?.id} planId={block.planId} />
    </Page>
  );
}

/** A sheet for a parent is there only after a coach's act, which is written down. */
function ForParent({
  opened,
  planId,
  mayGive,
}: {
  opened: { id: string; given: { by: string; date: string } | undefined };
  planId: string;
  mayGive: boolean;
}) {
  const address = useAddress();
  const shown = address.get("for") === "parent";
  return (
    <div className="no-print mt-4 flex flex-wrap items-center gap-3">
      {opened.given ? (
        <>
          <button
            type="button"
            className="btn"
            onClick={() => address.set("for", shown ? "" : "parent")}
          >
            {shown ? "The coach's report" : "The parent's sheet"}
          </button>
          <span className="text-muted">
            Given by {opened.given.by}, <Day of={opened.given.date} />
          </span>
        </>
      ) : mayGive ? (
        <Form method="post" preventScrollReset>
          <input type="hidden" name="athleteId" value={opened.id} />
          <input type="hidden" name="planId" value={planId} />
          <button type="submit" name="intent" value="for-parent" className="btn">
            Write a sheet for a parent
          </button>
          <span className="ml-3 text-sm text-muted">
            Written down as given: attendance and tests in plain words, no loads, nothing on health.
          </span>
        </Form>
      ) : null}
    </div>
  );
}

const MARKS = { better: "▲ better", trivial: "● trivial", worse: "▼ worse", unclear: "? unclear" };

/** Everybody in a line: work, maxes before and since, tests by their verdict. */
function Squad({
  people,
  openedId,
  planId,
}: {
  people: NonNullable<Extract<BlockPage, { people: unknown }>["people"]>;
  openedId: string | undefined;
  planId: string;
}) {
  const unit = useUnit();
  return (
    <section aria-labelledby="block-squad" className="no-print mt-6">
      <h2 id="block-squad">The squad</h2>
      <div className="overflow-x-auto">
        <table className="ledger ledger-tight">
          <thead>
            <tr>
              <th scope="col">Athlete</th>
              <th scope="col" className="!text-right">
                Sessions
              </th>
              <th scope="col" className="!text-right">
                Sets
              </th>
              <th scope="col" className="!text-right">
                Cut
              </th>
              <th scope="col">Maxes, before and since</th>
              <th scope="col">Tests</th>
            </tr>
          </thead>
          <tbody>
            {people.map((one) => (
              <tr key={one.id} className={one.id === openedId ? "bg-wash" : ""}>
                <th scope="row" className="!text-base-content">
                  <Link
                    className="hover:underline"
                    preventScrollReset
                    to={`/review/block?plan=${planId}&athlete=${one.id}`}
                  >
                    {one.name}
                  </Link>
                </th>
                <td className="text-right">{one.sessions}</td>
                <td className="text-right">
                  {one.setsDone} of {one.setsPlanned}
                </td>
                <td className="text-right">{one.cut}</td>
                <td className="min-w-56">
                  {one.maxes.map((max) => (
                    <span key={max.lift} className="block">
                      {max.lift}: {max.before ? formatKg(max.before.kg, unit, 1) : "none"}
                      {max.after ? ` → ${formatKg(max.after.kg, unit, 1)}` : ""}
                    </span>
                  ))}
                </td>
                <td className="min-w-64">
                  {one.changes
                    .filter((change) => change.change)
                    .map((change) => (
                      <span key={change.testName + change.side} className="block">
                        {change.testName} {change.side}{" "}
                        {change.change ? MARKS[change.change.verdict] : ""}{" "}
                        {change.change
                          ? plainNumber(change.change.difference, change.decimals)
                          : ""}{" "}
                        {change.unit}
                      </span>
                    ))}
                  {one.changes.some((change) => change.change) ? null : (
                    <span className="text-muted">not tested on both sides of its start</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
