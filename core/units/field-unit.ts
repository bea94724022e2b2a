/** The name under which a mass field's unit is sent beside it. */
export const unitNameOf = (name: string): string => `${name}~unit`;

/** A number without a unit. */
const BARE = /^[-−+]?\d+([.,]\d*)?$/;

/**
 * A mass as it was typed into a field of a unit: a bare number gets that unit behind it.
 * @example withUnit("225", "lb") // "225 lb"
 */
export const withUnit = (text: string, unit: string): string =>
  BARE.test(text.trim()) && (unit === "kg" || unit === "lb") ? `${text.trim()} ${unit}` : text;

/** Every field of a form, masses with their fields' units, which are then left out. */
export function withFieldUnits(
  fields: ReadonlyArray<readonly [string, string]>,
): Array<[string, string]> {
  const units = new Map(fields.filter(([name]) => name.endsWith("~unit")));
  const names = new Set(fields.map(([name]) => name));
  return fields.flatMap(([name, value]): Array<[string, string]> => {
    if (units.has(name) && names.has(name.slice(0, -"~unit".length))) return [];
    const unit = units.get(unitNameOf(name));
    return [[name, unit === undefined ? value : withUnit(value, unit)]];
  });
}
