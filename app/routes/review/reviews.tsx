import { Link } from "react-router";
import { principalOf } from "../../platform/guard.server";
import { Empty, Page } from "../../ui/page";
import { readReviews } from "../../workflows/review/read-review.server";
import type { Route } from "./+types/reviews";

export function meta() {
  return [{ title: "Review · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return readReviews(principalOf(context));
}

export default function Reviews({ loaderData }: Route.ComponentProps) {
  return (
    <Page
      title="Review"
      facts="What was done, against what was planned."
      actions={
        <Link className="btn" to="/review/box">
          Box cycles
        </Link>
      }
    >
      {loaderData.length === 0 ? (
        <Empty
          action={
            <Link className="underline" to="/floor">
              Open the floor
            </Link>
          }
        >
          No session yet. A session's review stands here as soon as it is started.
        </Empty>
      ) : (
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col">Date</th>
              <th scope="col">Session</th>
              <th scope="col">State</th>
            </tr>
          </thead>
          <tbody>
            {loaderData.map((session) => (
              <tr key={session.id}>
                <td className="whitespace-nowrap">{session.date}</td>
                <td>
                  <Link className="underline" to={`/review/${session.id}`}>
                    {session.title}
                  </Link>
                  {session.alone ? `, ${session.alone} alone` : ""}
                </td>
                <td className="text-muted">{session.status}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Page>
  );
}
