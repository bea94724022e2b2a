import { formatKg, formatMass } from "../../../core/units/mass";
import { principalOf } from "../../platform/guard.server";
import { Empty, Page } from "../../ui/page";
import { readGear } from "../../workflows/gear/read-gear.server";
import type { Route } from "./+types/gear";

export function meta() {
  return [{ title: "Gear · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return readGear(principalOf(context));
}

export default function Gear({ loaderData }: Route.ComponentProps) {
  return (
    <Page title="Gear" facts="The rooms, and what each rack can build.">
      {loaderData.length === 0 ? <Empty>No room yet.</Empty> : null}
      {loaderData.map((room) => (
        <section key={room.id} aria-labelledby={room.id} className="mb-6">
          <h2 id={room.id}>
            {room.name} <span className="font-normal text-muted">{room.zone}</span>
          </h2>
          <div className="overflow-x-auto">
            <table className="ledger mt-1">
              <thead>
                <tr>
                  <th scope="col">Rack</th>
                  <th scope="col">Bar</th>
                  <th scope="col" className="!text-right">
                    Holds
                  </th>
                  <th scope="col">Plates, pairs</th>
                  <th scope="col">Builds</th>
                </tr>
              </thead>
              <tbody>
                {room.racks.map((rack) => (
                  <tr key={rack.id}>
                    <th scope="row" className="!font-bold !text-base-content">
                      {rack.number}
                    </th>
                    <td>
                      {rack.gear.bar.name}, {formatMass(rack.gear.bar.mass)}
                    </td>
                    <td className="text-right">{formatMass(rack.gear.bar.rated)}</td>
                    <td>
                      {rack.gear.plates
                        .map((stock) => `${formatMass(stock.mass)} × ${stock.pairs}`)
                        .join(", ")}
                    </td>
                    <td>
                      {rack.totals} totals, {formatKg(rack.lightestKg)} to{" "}
                      {formatKg(rack.heaviestKg)}
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
