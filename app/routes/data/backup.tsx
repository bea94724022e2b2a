import { Link } from "react-router";
import { principalOf } from "../../platform/guard.server";
import { Notice, Page } from "../../ui/page";
import { readBackups } from "../../workflows/data/backup.server";
import type { Route } from "./+types/backup";

export function meta() {
  return [{ title: "Backup · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return readBackups(principalOf(context));
}

type Data = Route.ComponentProps["loaderData"];

const size = (bytes: number) =>
  bytes >= 1024 * 1024
    ? `${(bytes / 1024 / 1024).toFixed(1)} MB`
    : `${Math.max(1, Math.round(bytes / 1024))} kB`;

const ago = (hours: number) =>
  hours < 1
    ? "within the hour"
    : hours < 48
      ? `${hours} ${hours === 1 ? "hour" : "hours"} ago`
      : `${Math.floor(hours / 24)} days ago`;

/** When the last good backup was, and the team's own archive. */
export default function Backup({ loaderData }: Route.ComponentProps) {
  return (
    <Page
      title="Backup"
      facts="What brings a year of work back, and what leaves with you."
      actions={
        <Link className="btn" to="/data">
          Data
        </Link>
      }
      margin={<How />}
    >
      <Installation data={loaderData} />
      <Archive />
    </Page>
  );
}

function Installation({ data }: { data: Data }) {
  const { good, failed, daily, late } = data;
  return (
    <section aria-labelledby="installation" className="mb-8 max-w-3xl">
      <h2 id="installation">This server, whole</h2>
      {failed ? (
        <Notice kind="problem" title={`The last backup failed, ${day(failed.at, data.zone)}.`}>
          {failed.words}
        </Notice>
      ) : null}
      {late && !failed ? (
        <Notice
          kind="problem"
          title={good ? "The daily backup is late." : "There is no daily backup yet."}
        >
          It is set for {daily?.at} each day. Look at the server's log.
        </Notice>
      ) : null}
      {!good && !late && !failed ? (
        <Notice kind="problem" title="Nothing is kept of this server yet.">
          If its disk dies, all of it is gone. Whoever runs it keeps a backup, or sets a daily one.
        </Notice>
      ) : null}
      <table className="ledger max-w-2xl">
        <tbody>
          <tr>
            <th scope="row">Last good one</th>
            <td>
              {good ? (
                <>
                  <b>{ago(good.hours)}</b>, {day(good.at, data.zone)}
                </>
              ) : (
                "none"
              )}
            </td>
          </tr>
          {good ? (
            <tr>
              <th scope="row">It holds</th>
              <td>
                {good.rows.toLocaleString("en-GB")} rows in {size(good.bytes)}, file {good.file}
              </td>
            </tr>
          ) : null}
          <tr>
            <th scope="row">Daily</th>
            <td>
              {daily
                ? `at ${daily.at} of the server's clock; the newest ${daily.keep} are kept`
                : "not set: whoever runs the server sets BACKUP_FOLDER"}
            </td>
          </tr>
        </tbody>
      </table>
      <p className="mt-1 max-w-prose text-muted">
        A backup holds every team of this server, and is read back and compared when it is made.
        Whoever was erased since is erased again when it is brought back. A copy on another machine
        is what survives a fire: the folder can be one that is carried elsewhere.
      </p>
    </section>
  );
}

const day = (at: string, zone: string) =>
  new Intl.DateTimeFormat("en-GB", {
    dateStyle: "medium",
    timeStyle: "short",
    timeZone: zone,
  }).format(new Date(at));

function Archive() {
  return (
    <section aria-labelledby="archive" className="max-w-3xl">
      <h2 id="archive">This team's archive</h2>
      <p className="max-w-prose">
        Everything of this team in one open file: people, limits and reasons, maxes, tests, gear,
        library, plans with every version, sessions with their whole log, as JSON with a schema, and
        tables for a spreadsheet. It comes in again as a team of its own, here or on another server,
        and goes out the same.
      </p>
      <p className="my-2">
        <a className="btn btn-primary" href="/data/archive" download>
          Take the archive
        </a>
      </p>
      <p className="max-w-prose text-muted">
        It names people and holds the reasons of their limits: keep it as you keep their files; that
        you took it is written down as reading them. No password, no link and no address of a person
        is in it. To bring one in, open{" "}
        <Link className="underline" to="/account">
          your sign-in
        </Link>
        , “A team from its archive”.
      </p>
    </section>
  );
}

function How() {
  return (
    <div className="grid gap-3 text-sm">
      <section>
        <h2>At the server</h2>
        <pre className="mt-1 break-all whitespace-pre-wrap bg-base-100 p-2">
          {"npm run backup -- FILE\nnpm run restore -- FILE"}
        </pre>
        <p className="text-muted">
          The first works while people train. The second leaves what is there alone unless told to
          put it aside. docs/operate.md has both, line by line.
        </p>
      </section>
      <section>
        <h2>Back in, a table each</h2>
        <ul>
          <li>
            <Link className="underline" to="/data/records">
              records.csv
            </Link>{" "}
            <span className="text-muted">max records</span>
          </li>
          <li>
            <Link className="underline" to="/data">
              reps.csv
            </Link>{" "}
            <span className="text-muted">reps of profile tests</span>
          </li>
          <li>
            <Link className="underline" to="/data/earlier">
              earlier.csv
            </Link>{" "}
            <span className="text-muted">sets from before</span>
          </li>
        </ul>
      </section>
    </div>
  );
}
