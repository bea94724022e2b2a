import { Field } from "../../../ui/field";
import { numbersOf, type ToolProps } from "./tool";

/** A list of numbers of a tool, so many of one thing after the other; what is wrong with it in words. */
export function ListField({
  address,
  label,
  name,
  start,
  each,
  what,
}: Pick<ToolProps, "address"> & {
  label: string;
  name: string;
  start: string;
  /** Numbers that belong together. */
  each: number;
  /** What they are: "a rest and a change". */
  what: string;
}) {
  const text = address.get(name) || start;
  const { values, wrong } = numbersOf(text);
  return (
    <Field
      label={label}
      name={name}
      defaultValue={text}
      onChange={(event) => address.set(name, event.target.value)}
      problem={
        wrong[0]
          ? `"${wrong[0]}" is not a number.`
          : values.length % each !== 0
            ? `The last is not whole: ${what}.`
            : undefined
      }
    />
  );
}

/** The list cut into its parts; what is not whole at the end is left out. */
export function partsOf(address: ToolProps["address"], name: string, start: string, each: number) {
  const { values } = numbersOf(address.get(name) || start);
  return Array.from({ length: Math.floor(values.length / each) }, (_, i) =>
    values.slice(i * each, (i + 1) * each),
  );
}
