import { z } from "zod";
import { principalOf } from "../../platform/guard.server";
import { reach } from "../../platform/reach.server";
import { readForm } from "../../platform/submission.server";
import { Day } from "../../ui/dates";
import { Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { QrCode } from "../../ui/link-to-hand";
import { Empty, Notice, Page } from "../../ui/page";
import { makeSensorToken } from "../../workflows/tablets/sensor.server";
import {
  endTrying,
  readTablets,
  startPairing,
  takeTabletOff,
  trySensor,
} from "../../workflows/tablets/tablets.server";
import type { Route } from "./+types/tablets";

export function meta() {
  return [{ title: "Tablets · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return readTablets(principalOf(context));
}

const TabletForm = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("pair"), rackId: z.uuid() }),
  z.object({ intent: z.literal("revoke"), tabletId: z.uuid() }),
  z.object({ intent: z.literal("sensor"), rackId: z.uuid() }),
  z.object({ intent: z.literal("try"), rackId: z.uuid() }),
  z.object({ intent: z.literal("end-trying"), rackId: z.uuid() }),
]);

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const parsed = TabletForm.safeParse(Object.fromEntries(await readForm(request)));
  if (!parsed.success) throw new Response("This form is not one of this page's.", { status: 400 });
  if (parsed.data.intent === "pair") {
    const result = await startPairing(principal, parsed.data.rackId);
    return result.ok
      ? { ok: true as const, ...result.value, link: reach(request, "/pair") }
      : result;
  }
  if (parsed.data.intent === "sensor") {
    const result = await makeSensorToken(principal, parsed.data.rackId);
    return result.ok
      ? { ok: true as const, ...result.value, address: reach(request, "/").url.replace(/\/$/, "") }
      : result;
  }
  if (parsed.data.intent !== "revoke") {
    const { intent, rackId } = parsed.data;
    const result = await (intent === "try" ? trySensor : endTrying)(principal, rackId);
    return result.ok ? { ok: true as const } : result;
  }
  const result = await takeTabletOff(principal, parsed.data.tabletId);
  return result.ok ? { ok: true as const } : result;
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export default function Tablets({ loaderData, actionData }: Route.ComponentProps) {
  const { tablets, racks } = loaderData;
  return (
    <Page
      title="Tablets"
      facts="A tablet fixed at a rack signs in by itself, for its own room only."
      margin={
        <Form method="post" className="grid gap-2">
          <h2>Pair a tablet</h2>
          <Select label="Rack" name="rackId">
            {racks.map((rack) => (
              <option key={rack.id} value={rack.id}>
                {rack.label}
              </option>
            ))}
          </Select>
          <button type="submit" name="intent" value="pair" className="btn btn-primary">
            Give me a code
          </button>
          {actionData && "code" in actionData && actionData.ok ? (
            <div role="status" className="border-t border-rule pt-2">
              <p className="text-muted">
                Open this address on the tablet, or point its camera here, and type the code:
              </p>
              <p className="my-1 text-lg break-all" data-testid="pairing-address">
                {actionData.link.url}
              </p>
              <QrCode qr={actionData.link.qr} label={`QR code: ${actionData.link.url}`} />
              {actionData.link.problem ? (
                <p className="my-1 border-l-[3px] border-secondary pl-2 text-sm">
                  {actionData.link.problem}
                </p>
              ) : null}
              <p className="text-3xl font-bold tracking-wide" data-testid="pairing-code">
                {actionData.code}
              </p>
              <p className="text-muted">
                Works once, for {actionData.minutes} minutes, five tries.
              </p>
            </div>
          ) : null}
          <button type="submit" name="intent" value="sensor" className="btn">
            A sensor's token
          </button>
          {actionData && "token" in actionData && actionData.ok ? (
            <div role="status" className="border-t border-rule pt-2">
              <p className="text-muted">
                For the sensor of rack {actionData.rackNumber}, shown this once. A token from before
                sends no more. In Gear a sensor "cord" or "camera" stands at this rack.
              </p>
              <p className="my-1 break-all" data-testid="sensor-token">
                {actionData.token}
              </p>
              <p className="text-sm text-muted break-all">
                npm run sensor -- --rack {actionData.rackNumber} --url {actionData.address} --token
                …
              </p>
            </div>
          ) : null}
          {actionData && !actionData.ok ? (
            <Notice kind="problem" title={actionData.message} />
          ) : null}
        </Form>
      }
    >
      <Sensors racks={racks} />
      <h2 className="mt-6">Tablets</h2>
      {tablets.length === 0 ? (
        <Empty>No tablet is paired yet. Choose a rack in the margin and ask for a code.</Empty>
      ) : (
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col">Rack</th>
              <th scope="col">Paired</th>
              <th scope="col">State</th>
              <th scope="col">
                <span className="sr-only">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {tablets.map((tablet) => (
              <tr key={tablet.id}>
                <td>
                  {tablet.roomName}, rack {tablet.rackNumber}
                  {tablet.kind === "sensor" ? ", sensor" : ""}
                </td>
                <td>
                  <Day of={tablet.pairedOn} />
                </td>
                <td>{tablet.revokedAt ? "taken off" : "paired"}</td>
                <td className="text-right">
                  {tablet.revokedAt ? null : (
                    <Form method="post">
                      <input type="hidden" name="tabletId" value={tablet.id} />
                      <button type="submit" name="intent" value="revoke" className="btn btn-sm">
                        Take off
                      </button>
                    </Form>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Page>
  );
}

/** What measures at each rack: as Gear has it, and a way to try without a device. */
function Sensors({ racks }: { racks: Route.ComponentProps["loaderData"]["racks"] }) {
  return (
    <section aria-labelledby="sensors">
      <h2 id="sensors">What measures at each rack</h2>
      <p className="text-muted">
        A sensor stands at a rack as Gear has it. The simulated one lifts by itself, so that you can
        try a whole session; take it off before people train.
      </p>
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Rack</th>
            <th scope="col">Sensor</th>
            <th scope="col">
              <span className="sr-only">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {racks.map((rack) => (
            <tr key={rack.id}>
              <th scope="row" className="!text-base-content">
                {rack.roomName}, {rack.number}
              </th>
              <td>
                {rack.sensor
                  ? `${rack.sensor.name}, ${rack.sensor.by}, ${rack.sensor.rateHz} Hz`
                  : "none: speeds are typed"}
              </td>
              <td className="text-right">
                {rack.sensor && rack.sensor.by !== "simulated" ? null : (
                  <Form method="post">
                    <input type="hidden" name="rackId" value={rack.id} />
                    <button
                      type="submit"
                      name="intent"
                      value={rack.sensor ? "end-trying" : "try"}
                      className="btn btn-sm"
                      aria-label={`${rack.sensor ? "Take the simulated sensor off" : "Try the simulated sensor at"} rack ${rack.number}, ${rack.roomName}`}
                    >
                      {rack.sensor ? "Take it off" : "Try the simulated one"}
                    </button>
                  </Form>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
