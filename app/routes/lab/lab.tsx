import type { ComponentType } from "react";
import { Link } from "react-router";
import { principalOf } from "../../platform/guard.server";
import { Page } from "../../ui/page";
import { keepOnFilter, useAddress } from "../../ui/use-address";
import { readBench } from "../../workflows/lab/read-bench.server";
import type { Route } from "./+types/lab";
import { BoxStack } from "./tools/box-stack";
import { MaxFromSet } from "./tools/max-from-set";
import { Plates } from "./tools/plates";
import { Resistance } from "./tools/resistance";
import { Rests } from "./tools/rests";
import { Sequence } from "./tools/sequence";
import { SpeedLoad } from "./tools/speed-load";
import { Tonnage } from "./tools/tonnage";
import type { ToolProps } from "./tools/tool";

export function meta() {
  return [{ title: "Lab · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return readBench(principalOf(context));
}

export const shouldRevalidate = keepOnFilter;

/** The tools of the bench, in the order in which a coach asks. */
const TOOLS: ReadonlyArray<{ id: string; name: string; tool: ComponentType<ToolProps> }> = [
  { id: "plates", name: "Percent and plates", tool: Plates },
  { id: "sequence", name: "Plate moves", tool: Sequence },
  { id: "max", name: "Max from a set", tool: MaxFromSet },
  { id: "speed", name: "Speed and load", tool: SpeedLoad },
  { id: "resistance", name: "Bands and chains", tool: Resistance },
  { id: "box", name: "Box stack", tool: BoxStack },
  { id: "rest", name: "Rest and groups", tool: Rests },
  { id: "tonnage", name: "Tonnage", tool: Tonnage },
];

/** One bench: each tool answers as one types, and its state is the address. */
export default function Lab({ loaderData }: Route.ComponentProps) {
  const address = useAddress();
  const chosen = TOOLS.find((one) => one.id === address.get("tool")) ?? TOOLS[0];
  const Tool = chosen?.tool ?? Plates;
  return (
    <Page title="Lab" facts="Change a value; the address keeps it, and can be sent.">
      <nav
        aria-label="Tools"
        className="no-print -mx-4 mb-3 flex gap-x-4 overflow-x-auto border-b border-rule px-4"
      >
        {TOOLS.map((one) => (
          <Link
            key={one.id}
            to={`/lab?tool=${one.id}`}
            aria-current={one === chosen ? "page" : undefined}
            className={`whitespace-nowrap border-b-2 py-2 ${one === chosen ? "border-base-content font-bold" : "border-transparent text-muted hover:text-base-content"}`}
          >
            {one.name}
          </Link>
        ))}
        <Link
          to="/lab/profile"
          className="whitespace-nowrap border-b-2 border-transparent py-2 text-muted hover:text-base-content"
        >
          Profile test
        </Link>
      </nav>
      <Tool key={chosen?.id} address={address} racks={loaderData} />
    </Page>
  );
}
