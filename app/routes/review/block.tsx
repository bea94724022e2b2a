import { Link } from "react-router";
import { formatKg, plainNumber } from "../../../core/units/mass";
import { idFrom, isId } from "../../forms/primitives/id";
import { principalOf } from "../../platform/guard.server";
import { Select } from "../../ui/field";
import { Empty, Page } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { type BlockPage, readBlock } from "../../workflows/review/read-block.server";
import type { Route } from "./+types/block";
import { BlockReport } from "./block-report";
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

export function loader({ context, url }: Route.LoaderArgs) {
  const get = (name: string) => idFrom(url.searchParams.get(name) ?? "");
  return readBlock(principalOf(context), {
    planId: get("plan"),
    athleteId: get("athlete"),
    typed: typedErrors(url.searchParams),
  });
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
          <Select
            label="Block"
            value={block.planId}
            onChange={(event) => address.setAll({ plan: event.target.value, athlete: "" })}
          >
            {blocks.map((one) => (
              <option key={one.planId} value={one.planId}>
                {one.from} {one.name}
              </option>
            ))}
          </Select>
        </div>
        <div className="w-56">
          <Select
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
          </Select>
        </div>
      </div>
      {opened ? (
        <BlockReport opened={opened} block={block} />
      ) : (
        <Empty>Nobody is in this block.</Empty>
      )}
      <Squad people={people} openedId={opened?.id} planId={block.planId} />
    </Page>
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
                <td>
                  {one.maxes.map((max) => (
                    <span key={max.lift} className="block">
                      {max.lift}: {max.before ? formatKg(max.before.kg, unit, 1) : "none"}
                      {max.after ? ` → ${formatKg(max.after.kg, unit, 1)}` : ""}
                    </span>
                  ))}
                </td>
                <td>
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
