import { Link } from "react-router";
import { principalOf } from "../../platform/guard.server";
import { Empty, Page } from "../../ui/page";
import { readPlans } from "../../workflows/plan/read-plan.server";
import type { Route } from "./+types/plans";

export function meta() {
  return [{ title: "Plan · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return readPlans(principalOf(context));
}

export default function Plans({ loaderData }: Route.ComponentProps) {
  const groups = ["now", "to come", "past"].map((standing) => ({
    standing,
    plans: loaderData.filter((plan) => plan.standing === standing),
  }));
  return (
    <Page title="Plan" facts="A wave for each squad: the recipe, and everybody's numbers from it.">
      {loaderData.length === 0 ? (
        <Empty>No plan yet. A plan is a recipe for one lift of one squad.</Empty>
      ) : null}
      {groups
        .filter((group) => group.plans.length > 0)
        .map((group) => (
          <section
            key={group.standing}
            aria-labelledby={`plans-${group.standing}`}
            className="mb-6"
          >
            <h2 id={`plans-${group.standing}`}>
              {{ now: "Running now", "to come": "To come", past: "Done" }[group.standing]}
            </h2>
            <div className="overflow-x-auto">
              <table className="ledger mt-1">
                <thead>
                  <tr>
                    <th scope="col">Plan</th>
                    <th scope="col">Squad</th>
                    <th scope="col">Lift</th>
                    <th scope="col">Room</th>
                    <th scope="col">Weeks</th>
                    <th scope="col">First and last session</th>
                  </tr>
                </thead>
                <tbody>
                  {group.plans.map((plan) => (
                    <tr key={plan.id}>
                      <td>
                        <Link className="font-bold underline" to={`/plan/${plan.id}`}>
                          {plan.name}
                        </Link>
                      </td>
                      <td>{plan.squadName}</td>
                      <td>{plan.liftName}</td>
                      <td>{plan.roomName}</td>
                      <td>{plan.weeks}</td>
                      <td>
                        {plan.startDate} to {plan.lastDate}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </section>
        ))}
    </Page>
  );
}
