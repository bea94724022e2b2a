import { createContext, useContext, useEffect } from "react";
import type { RoundingMode } from "../../../../core/barload/loading-gear";
import { Field, Select } from "../../../ui/field";
import { Empty } from "../../../ui/page";
import {
  addressText,
  type Bench,
  type BenchRack,
  type FieldKind,
  startText,
  type ToolProps,
  valueAt,
} from "./tool";

const WRONG: Record<FieldKind, string> = {
  number: "A number is needed.",
  mass: "A load, for example 120 or 265 lb.",
  m: "A length, for example 1.4 or 140 cm.",
  cm: "A length, for example 40 or 16 in.",
};

const UNIT_SUFFIX: Partial<Record<FieldKind, string>> = { m: ", m", cm: ", cm" };

/** A field of a tool: its text is the address's. Either unit may be written. */
export function ToolField({
  address,
  unit,
  label,
  name,
  kind = "number",
  start,
  optional = false,
  problem,
  hint,
}: Pick<ToolProps, "address" | "unit"> & {
  label: string;
  name: string;
  kind?: FieldKind;
  /** What stands there before anything is written, in kg, m or cm. */
  start: number | undefined;
  optional?: boolean;
  /** Overrides the sentence for a text that cannot be read. */
  problem?: string | undefined;
  hint?: string;
}) {
  const value = valueAt(address, name, start, kind);
  const text = address.get(name);
  return (
    <Field
      label={`${label}${UNIT_SUFFIX[kind] ?? ""}`}
      name={name}
      inputMode={kind === "mass" ? "text" : "decimal"}
      defaultValue={text || startText(kind, start, unit)}
      onChange={(event) => address.set(name, addressText(kind, event.target.value, unit))}
      problem={
        problem ?? (value === undefined && !(optional && text === "") ? WRONG[kind] : undefined)
      }
      hint={hint}
    />
  );
}

/** A choice of a tool that stands in the address; the first is the default and left out of it. */
export function ToolChoice({
  address,
  label,
  name,
  options,
}: Pick<ToolProps, "address"> & {
  label: string;
  name: string;
  options: ReadonlyArray<readonly [value: string, words: string]>;
}) {
  const first = options[0]?.[0] ?? "";
  return (
    <Select
      label={label}
      value={address.get(name) || first}
      onChange={(event) =>
        address.set(name, event.target.value === first ? "" : event.target.value)
      }
    >
      {options.map(([value, words]) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
    </Select>
  );
}

/** What a tool says that needs a rack where the room has none. */
export const NoRack = () => (
  <Empty>No rack with a bar yet. The bench needs one to say what can be built.</Empty>
);

export function rackOf(address: ToolProps["address"], bench: Bench): BenchRack | undefined {
  return bench.racks.find((one) => one.id === address.get("rack")) ?? bench.racks[0];
}

export const roundingOf = (address: ToolProps["address"]): RoundingMode =>
  address.get("round") === "down" ? "down" : "nearest";

export function RackChoice({ address, bench }: Pick<ToolProps, "address" | "bench">) {
  return (
    <ToolChoice
      address={address}
      label="Rack and bar"
      name="rack"
      options={bench.racks.map((one) => [one.id, one.label] as const)}
    />
  );
}

export function RoundingChoice({ address }: Pick<ToolProps, "address">) {
  return (
    <ToolChoice
      address={address}
      label="Rounding"
      name="round"
      options={[
        ["nearest", "nearest, a tie goes down"],
        ["down", "always down"],
      ]}
    />
  );
}

const AnswerContext = createContext<(answer: string) => void>(() => {});
export const AnswerProvider = AnswerContext.Provider;

/** Tells the bench what the tool answers, for sending. An empty text is no answer yet. */
export function useAnswer(answer: string | undefined): void {
  const tell = useContext(AnswerContext);
  useEffect(() => tell(answer ?? ""), [tell, answer]);
}
