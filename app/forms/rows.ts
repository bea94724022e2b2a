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

interface Shape {
  rows: number;
  /** A path is a key, or the key of an object and one in it. */
  columns: Array<{ path: [string] | [string, string]; of: Column }>;
}

type Column =
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

/** An object that holds its fields one level further down, as a log entry's body does. */
const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);

type Path = Shape["columns"][number]["path"];

function pathsOf(row: Record<string, unknown>): Path[] {
  return Object.entries(row).flatMap(([key, value]): Path[] => {
    if (value === undefined) return [];
    // An empty object has no fields to be told by.
    if (!isPlain(value) || Object.values(value).every((one) => one === undefined)) return [[key]];
    return Object.entries(value).flatMap(([inner, one]): Path[] =>
      one === undefined ? [] : [[key, inner]],
    );
  });
}

/** The same for rows with the same paths: cheaper than the paths, for it is made for every row. */
function shapeOf(row: Record<string, unknown>): string {
  let name = "";
  for (const key in row) {
    const value = row[key];
    if (value === undefined) continue;
    const before = name;
    if (isPlain(value))
      for (const inner in value)
        if (value[inner] !== undefined) name += `${key}\u0001${inner}\u0002`;
    if (name === before) name += `${key}\u0002`;
  }
  return name;
}

const MOST_FEW = 255;

export function packRows<T extends object>(rows: readonly T[]): PackedRows<T> {
  const byShape = new Map<string, { paths: Path[]; rows: Array<Record<string, unknown>> }>();
  const order: number[] = [];
  const places = new Map<string, number>();
  for (const given of rows) {
    const row = { ...given } as Record<string, unknown>;
    const name = shapeOf(row);
    let shape = byShape.get(name);
    if (!shape) {
      shape = { paths: pathsOf(row), rows: [] };
      places.set(name, byShape.size);
      byShape.set(name, shape);
    }
    shape.rows.push(row);
    order.push(places.get(name) ?? 0);
  }
  return {
    shapes: [...byShape.values()].map((shape) => ({
      rows: shape.rows.length,
      columns: shape.paths.map((path) => ({
        path,
        of: columnOf(shape.rows.map((row) => valueAt(row, path))),
      })),
    })),
    order: byShape.size > 1 ? order : undefined,
  };
}

function valueAt(row: Record<string, unknown>, [key, inner]: Path): unknown {
  const value = row[key];
  return inner === undefined ? value : isPlain(value) ? value[inner] : undefined;
}

function columnOf(values: unknown[]): Column {
  const [first] = values;
  if (values.every((value) => value === first)) return { all: first };
  if (values.every((value) => Number.isSafeInteger(value))) {
    return { steps: stepsOf(values as number[]) };
  }
  if (values.every(isMoment)) {
    return { moments: stepsOf((values as string[]).map((value) => Date.parse(value))) };
  }
  if (new Set(values).size > MOST_FEW && values.every(isUuid))
    return { uuids: (values as string[]).map((value) => value.replaceAll("-", "")).join("") };
  const places = new Map<string, number>();
  const few: unknown[] = [];
  const at: number[] = [];
  for (const value of values) {
    const name = typeof value === "object" ? JSON.stringify(value) : `${typeof value} ${value}`;
    let place = places.get(name);
    if (place === undefined) {
      if (few.length >= MOST_FEW || few.length > 8 + values.length / 2) return { each: values };
      place = few.length;
      places.set(name, place);
      few.push(value);
    }
    at.push(place);
  }
  return few.length === 1 ? { all: first } : { few, at };
}

const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z$/;
function isMoment(value: unknown): boolean {
  if (typeof value !== "string" || !MOMENT.test(value)) return false;
  const ms = Date.parse(value);
  return Number.isFinite(ms) && new Date(ms).toISOString() === value;
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;
const isUuid = (value: unknown) => typeof value === "string" && UUID.test(value);
const UUID_DIGITS = 32;

function uuidAt(digits: string, place: number): string {
  const from = place * UUID_DIGITS;
  const part = (start: number, end: number) => digits.slice(from + start, from + end);
  return `${part(0, 8)}-${part(8, 12)}-${part(12, 16)}-${part(16, 20)}-${part(20, 32)}`;
}

function stepsOf(values: readonly number[]): number[] {
  let before = 0;
  return values.map((value) => {
    const step = value - before;
    before = value;
    return step;
  });
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
