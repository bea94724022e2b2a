import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { endOwnSessions, readOwnSessions } from "../../workflows/frame/own-sessions.server";
import type { Route } from "./+types/account";

export function meta() {
  return [{ title: "Signed in · Sprezza" }];
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return { name: principal.name, sessions: await readOwnSessions(principal, request) };
}

export async function action({ request }: Route.ActionArgs) {
  const id = (await readForm(request)).get("id");
  return endOwnSessions(request, typeof id === "string" && id !== "" ? id : "others");
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** Where a person is signed in, and an end to it elsewhere. */
export default function Account({ loaderData, actionData }: Route.ComponentProps) {
  const { name, sessions } = loaderData;
  const others = sessions.filter((one) => !one.current);
  return (
    <Page
      title="Where you are signed in"
      facts={name}
      actions={
        others.length > 0 ? (
          <Form method="post">
            <button type="submit" className="btn">
              End all others
            </button>
          </Form>
        ) : null
      }
    >
      {actionData && !actionData.ok ? <Notice kind="problem" title={actionData.message} /> : null}
      {actionData?.ok ? (
        <Notice
          kind="note"
          title={`${actionData.value.ended} ended. Screens that were open there have closed.`}
        />
      ) : null}
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Where</th>
            <th scope="col">Since</th>
            <th scope="col">Last used</th>
            <th scope="col">From</th>
            <th scope="col">
              <span className="sr-only">End it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sessions.map((one) => (
            <tr key={one.id}>
              <td>
                {one.where}
                {one.current ? <b> · this one</b> : null}
              </td>
              <td>{one.since}</td>
              <td>{one.lastUsed}</td>
              <td className="text-muted">{one.address}</td>
              <td>
                {one.current ? null : (
                  <Form method="post">
                    <input type="hidden" name="id" value={one.id} />
                    <button type="submit" className="btn btn-sm">
                      End it
                    </button>
                  </Form>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-muted">
        A tablet at a rack is not signed in as you: coaches take tablets off under Tablets.
      </p>
    </Page>
  );
}
