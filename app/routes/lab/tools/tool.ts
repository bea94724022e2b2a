import { readDecimal } from "../../../../core/units/decimal";
import type { useAddress } from "../../../ui/use-address";
import type { readBench } from "../../../workflows/lab/read-bench.server";

export type Racks = Awaited<ReturnType<typeof readBench>>;

/** What every tool of the bench gets: the address that is its state, and the team's racks. */
export interface ToolProps {
  address: ReturnType<typeof useAddress>;
  racks: Racks;
}

/** A number from the address; the default where it holds none, undefined where it is no number. */
export function numberAt(
  { get }: ToolProps["address"],
  name: string,
  start: number,
): number | undefined {
  const text = get(name);
  if (text === "") return start;
  const reading = readDecimal(text);
  return reading.ok ? reading.value : undefined;
}

/** Numbers with blanks or semicolons between. */
export function numbersOf(text: string): { values: number[]; wrong: string[] } {
  const parts = text.split(/[\s;]+/).filter((part) => part !== "");
  const readings = parts.map((part) => readDecimal(part));
  return {
    values: readings.flatMap((one) => (one.ok ? [one.value] : [])),
    wrong: parts.filter((_, i) => !readings[i]?.ok),
  };
}
