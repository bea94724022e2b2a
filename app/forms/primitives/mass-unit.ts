/** The name under which a mass field's unit is sent beside it. */
export const unitNameOf = (name: string): string => `${name}~unit`;

/** A number without a unit. */
const BARE = /^[-−+]?\d+([.,]\d*)?$/;

/** A mass as it was typed into a field of a unit: a bare number gets that unit behind it. */
export const withUnit = (text: string, unit: string): string =>
  BARE.test(text.trim()) && (unit === "kg" || unit === "lb") ? `${text.trim()} ${unit}` : text;

/** Every mass of a form with its field's unit, which is then left out. */
export function withFieldUnits(form: FormData): FormData {
  const read = new FormData();
  for (const [name, value] of form) {
    if (name.endsWith("~unit") && form.has(name.slice(0, -"~unit".length))) continue;
    const unit = form.get(unitNameOf(name));
    read.append(
      name,
      typeof value === "string" && typeof unit === "string" ? withUnit(value, unit) : value,
    );
  }
  return read;
}
