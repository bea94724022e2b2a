import type { Column, PackedRows, Shape } from "./rows";

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
function stepsOf(values: readonly number[]): number[] {
  let before = 0;
  return values.map((value) => {
    const step = value - before;
    before = value;
    return step;
  });
}
