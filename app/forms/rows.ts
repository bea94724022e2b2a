/**
 * Many like objects as columns: a long log is a tenth of its size as JSON, and is read faster.
 * For plain data: strings, numbers, booleans, lists and objects; what is undefined is left out.
 */

declare const held: unique symbol;

/** Rows as columns, with the type of what they are. */
export interface PackedRows<T> {
  readonly [held]?: T;
  shapes: Shape[];
  /** The shape of each row, in the rows' order; undefined where all have one. */
  order: number[] | undefined;
}

export interface Shape {
  rows: number;
  /** A path is a key, or the key of an object and one in it. */
  columns: Array<{ path: [string] | [string, string]; of: Column }>;
}

export type Column =
  /** One value for all. */
  | { all: unknown }
  /** Few values: each once, and which. */
  | { few: unknown[]; at: number[] }
  /** Whole numbers: each as what it is more than the one before. */
  | { steps: number[] }
  /** Moments as ISO 8601 in UTC to the millisecond, as steps of ms. */
  | { moments: number[] }
  /** UUIDs one after the other, without their dashes. */
  | { uuids: string }
  | { each: unknown[] };

const UUID_DIGITS = 32;

function uuidAt(digits: string, place: number): string {
  const from = place * UUID_DIGITS;
  const part = (start: number, end: number) => digits.slice(from + start, from + end);
  return `${part(0, 8)}-${part(8, 12)}-${part(12, 16)}-${part(16, 20)}-${part(20, 32)}`;
}

export function unpackRows<T extends object>(packed: PackedRows<T>): T[] {
  const lists = packed.shapes.map(rowsOf);
  if (!packed.order) return (lists[0] ?? []) as T[];
  const next = lists.map(() => 0);
  return packed.order.map((shape) => {
    const place = next[shape] ?? 0;
    next[shape] = place + 1;
    return lists[shape]?.[place] as T;
  });
}

function rowsOf(shape: Shape): Array<Record<string, unknown>> {
  const rows: Array<Record<string, unknown>> = Array.from({ length: shape.rows }, () => ({}));
  for (const { path, of } of shape.columns) {
    const [key, inner] = path;
    const values = valuesOf(of);
    for (let i = 0; i < rows.length; i++) {
      const row = rows[i] as Record<string, unknown>;
      const value = values(i);
      if (inner === undefined) row[key] = value;
      else {
        const nested = (row[key] ?? {}) as Record<string, unknown>;
        nested[inner] = value;
        row[key] = nested;
      }
    }
  }
  return rows;
}

/** A column's values one after the other, from the first on. */
function valuesOf(column: Column): (i: number) => unknown {
  if ("all" in column) return () => column.all;
  if ("few" in column) return (i) => column.few[column.at[i] ?? 0];
  if ("each" in column) return (i) => column.each[i];
  if ("uuids" in column) return (i) => uuidAt(column.uuids, i);
  let sum = 0;
  if ("steps" in column) {
    return (i) => {
      sum += column.steps[i] ?? 0;
      return sum;
    };
  }
  return (i) => {
    sum += column.moments[i] ?? 0;
    return new Date(sum).toISOString();
  };
}
