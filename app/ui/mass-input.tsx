import type { ComponentProps } from "react";
import { unitNameOf } from "../../core/units/field-unit";
import { Field } from "./field";
import { useUnit } from "./unit";

/**
 * A field for a mass: a bare number is in the unit in which the person reads loads, and any other
 * is written behind it, with or without a blank.
 */
export function MassInput({
  name,
  label,
  ...field
}: ComponentProps<typeof Field> & { name: string }) {
  const unit = useUnit();
  return (
    <>
      <input type="hidden" name={unitNameOf(name)} value={unit} />
      <Field {...field} name={name} label={`${label}, ${unit}`} inputMode="decimal" />
    </>
  );
}
