import { Link, useSearchParams } from "react-router";
import type { PlateStock } from "../../../core/barload/loading-gear";
import { writeGearItem } from "../../../core/gear/fields";
import {
  GEAR,
  GEAR_KINDS,
  type GearItem,
  type GearKind,
  isGearKind,
} from "../../../core/gear/kinds";
import { formatKg, formatMass } from "../../../core/units/mass";
import { formObject } from "../../forms/athlete";
import { InspectionForm, ItemForm, RoomForm } from "../../forms/gear";
import { idFrom } from "../../forms/primitives/id";
import { fieldProblems } from "../../forms/recipe";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Adder, resultOf } from "../../ui/adder";
import { Day } from "../../ui/dates";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { keepOnFilter } from "../../ui/use-address";
import {
  hangPlates,
  inspectBand,
  keepItem,
  readRoom,
  renameRoom,
  shelveItem,
} from "../../workflows/gear/room.server";
import type { Route } from "./+types/room";
import { RoomPicture } from "./drawn/room-picture";
import { ItemEditor } from "./item-editor";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.room.name ?? "Room"} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const found = await readRoom(principal, params.roomId);
  if (!found.ok) throw notThere(found);
  return { room: found.value, mayEdit: mayWrite(principal, "/gear/:roomId") };
}

export async function action({ request, context, params }: Route.ActionArgs) {
  const principal = principalOf(context);
  const form = formObject(await readForm(request));
  const { intent = "" } = form;
  switch (intent) {
    case "away":
    case "back":
      return {
        intent,
        ...(await shelveItem(principal, params.roomId, {
          id: idFrom(form.id),
          away: intent === "away",
        })),
      };
    case "inspect": {
      const parsed = InspectionForm.safeParse(form);
      if (!parsed.success) return { ok: false as const, intent, message: "Say what you saw." };
      return { intent, ...(await inspectBand(principal, params.roomId, parsed.data)) };
    }
    case "rename": {
      const parsed = RoomForm.safeParse(form);
      if (!parsed.success) {
        return { ok: false as const, intent, problems: fieldProblems(parsed.error) };
      }
      return { intent, ...(await renameRoom(principal, params.roomId, parsed.data)) };
    }
    case "hang":
      return {
        intent,
        ...(await hangPlates(principal, params.roomId, {
          id: idFrom(form.id),
          plates: String(form.plates ?? ""),
        })),
      };
    default: {
      const parsed = ItemForm.safeParse(form);
      if (!parsed.success) {
        return { ok: false as const, intent: "item", problems: fieldProblems(parsed.error) };
      }
      return { intent: "item", ...(await keepItem(principal, params.roomId, parsed.data)) };
    }
  }
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof keepOnFilter>[0]) {
  return keepOnFilter(args) && revalidateUnlessFailed(args);
}

/** One room: every piece by kind, the form of one in the margin. */
export default function Room({ loaderData, actionData }: Route.ComponentProps) {
  const { room, mayEdit } = loaderData;
  const [params] = useSearchParams();
  const chosen = room.items.find((one) => one.id === params.get("item"));
  const asked = params.get("kind") ?? "";
  const kind: GearKind = chosen?.kind ?? (isGearKind(asked) ? asked : "bar");
  const shelved = ["away", "back", "inspect"]
    .map((intent) => resultOf(actionData, intent))
    .find((one) => one?.message);
  const away = room.items.filter((one) => one.awayOn !== null);
  return (
    <Page
      title={room.name}
      facts={`Gear of this room · ${room.zone}`}
      actions={
        <>
          <a className="btn no-print" href={`/gear/${room.id}/out/room.json`} download>
            Take out as JSON
          </a>
          <a className="btn no-print" href={`/gear/${room.id}/out/room.csv`} download>
            As a table
          </a>
          <Link className="btn no-print" to="/gear">
            All rooms
          </Link>
        </>
      }
      margin={
        mayEdit ? (
          <ItemEditor
            key={chosen?.id ?? kind}
            kind={kind}
            asked={isGearKind(asked)}
            chosen={chosen}
            room={room}
            result={resultOf(actionData, "item")}
          />
        ) : undefined
      }
    >
      {room.problems.map((one) => (
        <Notice key={one.text} kind="warning" title={one.text} />
      ))}
      {shelved?.message ? <Notice kind="problem" title={shelved.message} /> : null}
      <RoomPicture
        items={room.items.filter((one) => one.awayOn === null)}
        seats={room.seats}
        chosenId={chosen?.id}
        mayEdit={mayEdit}
      />
      {GEAR_KINDS.map((one) => (
        <KindTable
          key={one}
          kind={one}
          items={room.items.filter((item) => item.kind === one && item.awayOn === null)}
          builds={one === "rack" ? room.builds : []}
          chosenId={chosen?.id}
          mayEdit={mayEdit}
        />
      ))}
      {away.length > 0 ? (
        <section aria-labelledby="away" className="mt-5">
          <h2 id="away">Put away</h2>
          <ul>
            {away.map((item) => (
              <li key={item.id} className="flex items-baseline gap-3 border-b border-faint py-1">
                <span>
                  {item.kind === "rack" ? `Rack ${item.name}` : item.name}
                  <span className="text-muted">
                    {" "}
                    since <Day of={item.awayOn} />
                  </span>
                </span>
                {mayEdit ? (
                  <Form method="post" className="no-print">
                    <input type="hidden" name="id" value={item.id} />
                    <button type="submit" name="intent" value="back" className="underline">
                      Bring back
                    </button>
                  </Form>
                ) : null}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {mayEdit ? (
        <Adder title="Name and time zone" open={resultOf(actionData, "rename")?.ok === false}>
          <Form method="post" className="grid max-w-md gap-2" noValidate>
            <Field
              label="Name"
              name="name"
              inline
              defaultValue={room.name}
              problem={
                resultOf(actionData, "rename")?.problems?.name ??
                resultOf(actionData, "rename")?.message
              }
            />
            <Field
              label="Time zone"
              name="zone"
              inline
              defaultValue={room.zone}
              problem={resultOf(actionData, "rename")?.problems?.zone}
            />
            <button type="submit" name="intent" value="rename" className="btn justify-self-start">
              Keep
            </button>
          </Form>
        </Adder>
      ) : null}
    </Page>
  );
}

type RoomData = Route.ComponentProps["loaderData"]["room"];

function KindTable({
  kind,
  items,
  builds,
  chosenId,
  mayEdit,
}: {
  kind: GearKind;
  items: Array<GearItem & { id: string }>;
  builds: RoomData["builds"];
  chosenId: string | undefined;
  mayEdit: boolean;
}) {
  const spec = GEAR[kind];
  const unit = useUnit();
  const written = items.map((item) => ({ item, fields: writeGearItem(item, unit).fields }));
  const rows =
    kind === "rack" ? alike(written) : written.map((one): [Written, ...Written[]] => [one]);
  const columns = spec.fields.filter((field) =>
    written.some((one) => one.fields[field.name] !== undefined),
  );
  if (items.length === 0 && !mayEdit) return null;
  return (
    <section aria-labelledby={`kind-${kind}`} className="mb-4">
      <div className="flex items-baseline gap-3">
        <h2 id={`kind-${kind}`}>{spec.many}</h2>
        {mayEdit && !(kind === "store" && items.length > 0) ? (
          <Link
            to={`?kind=${kind}`}
            replace
            preventScrollReset
            className="no-print text-muted underline underline-offset-3"
          >
            Add a {spec.one}
          </Link>
        ) : null}
      </div>
      {items.length > 0 ? (
        <div className="overflow-x-auto">
          <table className="ledger">
            <thead>
              <tr>
                <th scope="col">{kind === "rack" ? "Rack" : "Name"}</th>
                {spec.count ? (
                  <th scope="col" className="!text-right">
                    {spec.count}
                  </th>
                ) : null}
                {columns.map((field) => (
                  <th key={field.name} scope="col">
                    {field.label}
                  </th>
                ))}
                {kind === "rack" ? <th scope="col">Builds</th> : null}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => {
                const [{ item, fields }] = row;
                const build = builds.find((one) => String(one.number) === item.name);
                return (
                  <tr
                    key={item.id}
                    className={row.some((one) => one.item.id === chosenId) ? "bg-wash" : ""}
                  >
                    <th scope="row" className="!font-bold !text-base-content">
                      {row.map((one, i) => (
                        <span key={one.item.id}>
                          {i > 0 ? ", " : ""}
                          {mayEdit ? (
                            <Link
                              to={`?item=${one.item.id}`}
                              replace
                              preventScrollReset
                              className="hover:underline"
                            >
                              {one.item.name}
                            </Link>
                          ) : (
                            one.item.name
                          )}
                        </span>
                      ))}
                    </th>
                    {spec.count ? <td className="text-right">{item.count}</td> : null}
                    {columns.map((field) => (
                      <td key={field.name}>
                        {field.type === "date" ? (
                          <Day of={fields[field.name]} />
                        ) : field.type === "plates" && "plates" in item.values ? (
                          <PlatesInWords plates={item.values.plates} />
                        ) : (
                          fields[field.name]
                        )}
                      </td>
                    ))}
                    {kind === "rack" ? (
                      <td className="text-muted">
                        {build
                          ? `${build.totals} totals, ${formatKg(build.lightestKg, unit)} to ${formatKg(build.heaviestKg, unit)}`
                          : ""}
                      </td>
                    ) : null}
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      ) : null}
    </section>
  );
}

/** A rack's pairs, the heaviest first; where a size is not known a film has to assume it. */
function PlatesInWords({ plates }: { plates: readonly PlateStock[] }) {
  const sizeless = plates.filter((one) => one.pairs > 0 && one.diameterMm === undefined);
  return (
    <>
      {plates.map((one) => (
        <span key={formatMass(one.mass)} className="mr-2 inline-block whitespace-nowrap">
          {one.pairs} × {formatMass(one.mass)}
        </span>
      ))}
      {sizeless.length > 0 ? (
        <span className="block text-sm text-muted">
          size not known: {sizeless.map((one) => formatMass(one.mass)).join(", ")}
        </span>
      ) : null}
    </>
  );
}

interface Written {
  item: GearItem & { id: string };
  fields: Record<string, string>;
}

/** Racks that are the same in every fact stand in one row. */
function alike(written: readonly Written[]): Array<[Written, ...Written[]]> {
  const rows: Array<[Written, ...Written[]]> = [];
  for (const one of written) {
    const same = rows.find(
      ([first]) => JSON.stringify(first.fields) === JSON.stringify(one.fields),
    );
    if (same) same.push(one);
    else rows.push([one]);
  }
  return rows;
}
