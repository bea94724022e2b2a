import { Link } from "react-router";
import { formatKg } from "../../../core/units/mass";
import { addDays } from "../../../core/units/time";
import { idFrom } from "../../forms/primitives/id";
import { principalOf } from "../../platform/guard.server";
import { Dated } from "../../ui/dates";
import { Empty, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { readWeek, type WeekPage } from "../../workflows/review/read-week.server";
import type { Route } from "./+types/week";
import { ReviewNav } from "./review-nav";

export function meta() {
  return [{ title: "The week · Sprezza" }];
}

export function loader({ context, url }: Route.LoaderArgs) {
  return readWeek(principalOf(context), {
    groupId: idFrom(url.searchParams.get("group") ?? ""),
    on: url.searchParams.get("on") ?? "",
  });
}

type Digest = NonNullable<WeekPage["digest"]>;

/** A squad's week on one page: to read, to print, to take as Markdown. */
export default function Week({ loaderData }: Route.ComponentProps) {
  const { digest, groups, groupId } = loaderData;
  const address = useAddress();
  if (!digest)
    return (
      <Page title="The week">
        <ReviewNav />
        <Empty>No squad yet.</Empty>
      </Page>
    );
  const at = (days: number) => `/review/week?group=${groupId}&on=${addDays(digest.from, days)}`;
  return (
    <Page
      title={`The week, ${digest.squadName}`}
      facts={`${digest.from} to ${digest.to}`}
      actions={
        <>
          <a
            className="btn no-print"
            href={`/review/week/out/week.md?group=${groupId}&on=${digest.from}`}
            download
          >
            As Markdown
          </a>
          <button type="button" className="btn no-print" onClick={() => window.print()}>
            Print
          </button>
        </>
      }
    >
      <ReviewNav />
      <div className="no-print mb-3 flex flex-wrap items-end gap-4">
        <div className="w-56">
          <PageSelect
            label="Squad"
            value={groupId}
            onChange={(event) => address.setAll({ group: event.target.value, on: digest.from })}
          >
            {groups.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </PageSelect>
        </div>
        <Link className="btn" to={at(-7)}>
          The week before
        </Link>
        <Link className="btn" to={at(7)}>
          The week after
        </Link>
      </div>
      <Work digest={digest} />
      <div className="mt-4 grid gap-x-8 gap-y-4 sm:grid-cols-2">
        <Words
          title="Sessions"
          none="None."
          rows={digest.sessions.map((one) => `${one.date} ${one.title}`)}
        />
        <Records digest={digest} />
        <Words
          title={digest.waiting === undefined ? "Calls" : `Calls, ${digest.waiting} waiting`}
          none="None was decided."
          rows={digest.decided.map((one) => `${one.name}: ${one.words}, ${one.decision}`)}
        />
        <Words
          title="Notes"
          none="None."
          rows={digest.notes.map((one) => `${one.date} ${one.about}: ${one.words} (${one.by})`)}
        />
        <Words
          title="Competitions to come"
          none="None in the next two weeks."
          rows={digest.coming.map((one) => `${one.date} ${one.name}`)}
        />
      </div>
    </Page>
  );
}

function Work({ digest }: { digest: Digest }) {
  const unit = useUnit();
  if (digest.athletes.length === 0)
    return <p className="text-muted">Nobody of the squad trained in this week.</p>;
  return (
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
            <th scope="col" className="!text-right">
              Tonnage
            </th>
            <th scope="col" className="!text-right">
              Heavy days
            </th>
            <th scope="col">Faults</th>
          </tr>
        </thead>
        <tbody>
          {digest.athletes.map((one) => (
            <tr key={one.name}>
              <th scope="row" className="!text-base-content">
                {one.name}
              </th>
              <td className="text-right">{one.sessions}</td>
              <td className="text-right">
                {one.setsDone} of {one.setsPlanned}
              </td>
              <td className="text-right">{one.cut}</td>
              <td className="text-right">{formatKg(one.tonnageKg, unit, 0)}</td>
              <td className="text-right">{one.heavyDays}</td>
              <td>{one.faults.join(", ")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Records({ digest }: { digest: Digest }) {
  const unit = useUnit();
  return (
    <Words
      title="Records"
      none="None."
      rows={digest.records.map(
        (one) => `${one.name}, ${one.lift}: ${formatKg(one.kg, unit, 1)}, ${one.date}`,
      )}
    />
  );
}

function Words({ title, rows, none }: { title: string; rows: readonly string[]; none: string }) {
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      {rows.length === 0 ? <p className="text-muted">{none}</p> : null}
      <ul>
        {rows.map((row) => (
          <li key={row} className="border-b border-faint py-1">
            <Dated>{row}</Dated>
          </li>
        ))}
      </ul>
    </section>
  );
}
