import { Link } from "react-router";
import { formatKg } from "../../../core/units/mass";
import { principalOf } from "../../platform/guard.server";
import { Empty, Page } from "../../ui/page";
import { Figure, Figures } from "../../ui/working";
import { readAthletes } from "../../workflows/athletes/read-athletes.server";
import type { Route } from "./+types/athletes";

export function meta() {
  return [{ title: "Athletes · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return readAthletes(principalOf(context));
}

export default function Athletes({ loaderData }: Route.ComponentProps) {
  const { squads } = loaderData;
  const used = new Set(
    squads.flatMap((squad) =>
      squad.athletes.flatMap((athlete) => athlete.maxes.map((max) => max.variantId)),
    ),
  );
  const variants = loaderData.variants.filter((variant) => used.has(variant.id));
  const count = squads.reduce((sum, squad) => sum + squad.athletes.length, 0);
  return (
    <Page title="Athletes" facts={`${count} in ${squads.length} squads`}>
      {count === 0 ? (
        <Empty>No athletes yet. A squad's athletes stand here with their maxes.</Empty>
      ) : null}
      <Figures label="Squads" className="overflow-x-auto">
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col">Athlete</th>
              {variants.map((variant) => (
                <th key={variant.id} scope="col" className="!text-right">
                  {variant.name.split(",")[0]}
                </th>
              ))}
              <th scope="col" className="!text-right">
                Tested
              </th>
              <th scope="col">Profile</th>
              <th scope="col" className="!text-right">
                Training age
              </th>
              <th scope="col">Instruction</th>
            </tr>
          </thead>
          {squads.map((squad) => (
            <tbody key={squad.id}>
              <tr>
                <th
                  scope="rowgroup"
                  colSpan={6 + variants.length - 1}
                  className="!pt-2.5 !text-base-content"
                >
                  <b>{squad.name}</b>{" "}
                  <span className="text-muted">
                    {squad.sport} · {squad.roomName} · {squad.athletes.length}
                  </span>
                </th>
              </tr>
              {squad.athletes.map((athlete) => (
                <tr key={athlete.id}>
                  <th scope="row" className="!py-[0.1rem] !text-base-content">
                    <Link className="hover:underline" to={`/athletes/${athlete.id}`}>
                      {athlete.name}
                    </Link>
                  </th>
                  {variants.map((variant) => {
                    const max = athlete.maxes.find((one) => one.variantId === variant.id);
                    return (
                      <td key={variant.id} className="!py-[0.1rem] text-right">
                        {max ? (
                          <Figure
                            id={`${athlete.id}/${variant.id}`}
                            working={max.working}
                            label={`${athlete.name}, ${variant.name}: ${formatKg(max.kg)}`}
                          >
                            {formatKg(max.kg, "kg", 1)}
                          </Figure>
                        ) : (
                          <span className="text-muted">not set</span>
                        )}
                      </td>
                    );
                  })}
                  <td className="!py-[0.1rem] text-right whitespace-nowrap">
                    {athlete.maxes[0] ? `${athlete.maxes[0].ageDays} d ago` : ""}
                    {athlete.maxes[0]?.stale ? (
                      <span className="ml-1 font-bold text-secondary">stale</span>
                    ) : null}
                  </td>
                  <td className="!py-[0.1rem] whitespace-nowrap">{athlete.profileOn ?? "none"}</td>
                  <td className="!py-[0.1rem] text-right whitespace-nowrap">
                    {athlete.trainingYears === undefined ? "not set" : `${athlete.trainingYears} y`}
                  </td>
                  <td className="!py-[0.1rem] text-secondary">{athlete.instruction}</td>
                </tr>
              ))}
            </tbody>
          ))}
        </table>
      </Figures>
    </Page>
  );
}
