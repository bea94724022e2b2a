import type { Seed } from "./seeds";
import type { World } from "./world";

/** Chance from a seed: the same seed throws the same. */
export interface Chance {
  next(): number;
  below(n: number): number;
  pick<T>(list: readonly T[]): T;
}

export function chanceFrom(seed: number): Chance {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const below = (n: number) => Math.floor(next() * n);
  return { next, below, pick: (list) => list[below(list.length)] as never };
}

/** What no field expects. Texts; in JSON the other kinds too. */
const HOSTILE_TEXT = [
  "",
  " ",
  "-1",
  "0",
  "1e308",
  "1e309",
  "-0",
  "5e-324",
  "NaN",
  "Infinity",
  "9.75",
  "0.005",
  "1,000",
  "2147483648",
  "9007199254740993",
  "99999999999999999999",
  "0000-01-01",
  "9999-12-31",
  "-271821-04-20",
  "2026-02-30",
  "1899-12-31",
  "2200-12-31",
  "2026-13-01T25:00:00Z",
  "constructor",
  "__proto__",
  "toString",
  "hasOwnProperty",
  "null",
  "undefined",
  "[]",
  "{}",
  '{"a":[1,2,{"b":null}]}',
  '{"__proto__":{"x":1}}',
  "[".repeat(3000),
  "a\u0000b",
  "\u0000",
  "\u202e\u200b😀\ufeff",
  "Å".repeat(50),
  "x".repeat(12_000),
  "'; DROP TABLE athlete; --",
  "<script>alert(1)</script>",
  "=1+1",
  "../../etc/passwd",
  "%",
  "%00",
  "a\r\nb: c",
  "00000000-0000-0000-0000-000000000000",
  "NOT-A-UUID",
  "0198C0DE-0000-7000-8000-000000000001",
  "72.5 kg",
  "225 lb",
  "44 cm",
];
const HOSTILE_VALUES: readonly unknown[] = [
  ...HOSTILE_TEXT,
  "\ud800",
  null,
  true,
  false,
  0,
  -0,
  -1,
  9.75,
  1e308,
  -1e308,
  5e-324,
  2 ** 31,
  2 ** 53,
  2 ** 63,
  [],
  {},
  [[[[[]]]]],
  { constructor: 1 },
  { toJSON: "x", length: -1 },
];

/** A number or date a little off: most of these are still right. */
function nudged(text: string, chance: Chance): string {
  if (/^-?\d+([.,]\d+)?$/.test(text)) {
    const n = Number(text.replace(",", "."));
    return String(chance.pick([n + 1, n - 1, n * 2, n / 2, n + 0.5, n * 10, Math.round(n)]));
  }
  if (/^\d{4}-\d\d-\d\d$/.test(text)) {
    return chance.pick(["2026-03-01", "2026-01-31", "2025-12-31", "2024-02-29", "2026-03-10"]);
  }
  return chance.pick([`${text} `, text.slice(0, -1), `${text}a`, text]);
}

const idsOf = (w: World): string[] =>
  Object.values(w).flatMap((value) =>
    Array.isArray(value) ? value.filter((one) => typeof one === "string") : [],
  );

function otherText(value: string, w: World, chance: Chance, gentle: boolean): string {
  if (gentle) return nudged(value, chance);
  return chance.next() < 0.25 ? chance.pick(idsOf(w)) : chance.pick(HOSTILE_TEXT);
}

type Path = Array<string | number>;
function leaves(data: unknown, path: Path = [], out: Path[] = []): Path[] {
  out.push(path);
  if (typeof data === "object" && data !== null)
    for (const [name, inner] of Object.entries(data))
      leaves(inner, [...path, Array.isArray(data) ? Number(name) : name], out);
  return out;
}

/** The data with one place changed, taken out, doubled or filled up. */
function otherJson(data: unknown, w: World, chance: Chance, gentle: boolean): unknown {
  const copy = structuredClone(data);
  const path = chance.pick(leaves(copy).slice(1));
  if (!path) return chance.pick(HOSTILE_VALUES);
  const last = path.at(-1) as string | number;
  const parent = path
    .slice(0, -1)
    .reduce((at, name) => (at as Record<string, unknown>)[name], copy) as Record<string, unknown>;
  const value = parent[last];
  if (gentle) {
    if (typeof value === "number") parent[last] = Number(nudged(String(value), chance));
    else if (typeof value === "string") parent[last] = nudged(value, chance);
    return copy;
  }
  switch (chance.below(6)) {
    case 0:
      delete parent[last];
      break;
    case 1:
      parent[chance.pick(["extra", "constructor", "id", "kind"])] = chance.pick(HOSTILE_VALUES);
      break;
    case 2:
      if (Array.isArray(value))
        parent[last] = Array.from({ length: chance.pick([2, 60, 501]) }, () => value).flat();
      else parent[last] = chance.pick(HOSTILE_VALUES);
      break;
    case 3:
      parent[last] = chance.pick(idsOf(w));
      break;
    default:
      parent[last] = chance.pick(HOSTILE_VALUES);
  }
  return copy;
}

/** The data that a field holds as text, where it does. */
function jsonIn(value: string): unknown {
  if (!/^[[{]/.test(value)) return undefined;
  try {
    return JSON.parse(value);
  } catch {
    return undefined;
  }
}

/** A request as it goes over the wire. */
export interface Thrown {
  route: string;
  method: string;
  path: string;
  headers: Record<string, string>;
  body: string | undefined;
  as: "coach" | "owner" | "assistant" | "athlete" | "nobody" | "second";
  gentle: boolean;
  intent: string | undefined;
}

export function pathOf(route: string, params: Record<string, string>): string {
  return route.replace(/:(\w+)/g, (_, name) => encodeURIComponent(params[name] ?? name));
}

const QUERIES = [
  "against",
  "after",
  "athlete",
  "week",
  "day",
  "complex",
  "squad",
  "view",
  "tool",
  "plan",
  "slot",
  "variant",
  "rack",
  "trial",
  "worth",
  "kind",
  "recipe",
  "to",
  "load",
  "week",
  "_routes",
  "index",
];

/** Ids that a route's parameters may hold, by name. */
function paramsFor(
  route: string,
  w: World,
  chance: Chance,
  gentle: boolean,
): Record<string, string> {
  const known: Record<string, readonly string[]> = {
    athleteId: w.athletes,
    planId: w.plans,
    sessionId: w.sessions,
    rackId: w.racks,
    roomId: w.rooms,
    runId: w.runs,
    testId: w.profileTests,
    variantId: w.variants,
    planFile: ["block.json", "loads.csv", "calendar.ics"],
    roomFile: ["room.json", "room.csv"],
    recipeFile: w.recipes.map((id) => `${id}.json`),
    file: ["records.csv", "reps.csv", "tests.csv"],
    token: ["x.ics"],
  };
  return Object.fromEntries(
    [...route.matchAll(/:(\w+)/g)].map(([, name = ""]) => {
      const right = chance.pick(known[name] ?? ["x"]) ?? "x";
      const other = chance.next() < 0.5 ? chance.pick(HOSTILE_TEXT) : chance.pick(idsOf(w));
      return [name, gentle || chance.next() < 0.5 ? right : other.slice(0, 300) || "x"];
    }),
  );
}

const READERS = ["coach", "owner", "assistant", "athlete", "second", "nobody"] as const;

/** A page or file asked for. */
export function thrownRead(route: string, w: World, chance: Chance): Thrown {
  const gentle = chance.next() < 0.5;
  let path = pathOf(route, paramsFor(route, w, chance, gentle));
  if (chance.next() < 0.3 && path !== "/") path += ".data";
  const queries = chance.below(3);
  const asked = new URLSearchParams();
  for (let i = 0; i < queries; i++) {
    const value = gentle ? chance.pick(idsOf(w)) : chance.pick(HOSTILE_TEXT).slice(0, 2000);
    asked.append(chance.pick(QUERIES), value);
  }
  if (queries > 0) path += `?${asked}`;
  const headers: Record<string, string> = {};
  if (chance.next() < 0.05)
    headers["last-event-id"] = chance.pick(["-1", "1e9", "x", "9".repeat(40)]);
  if (chance.next() < 0.05) headers.cookie = "theme=%00; sprezza.session_token=x.y; sprezza_rack=;";
  return {
    route,
    method: gentle ? "GET" : chance.pick(["GET", "GET", "GET", "HEAD", "OPTIONS", "PROPFIND"]),
    path,
    headers,
    body: undefined,
    as: chance.next() < 0.7 ? "coach" : chance.pick(READERS),
    gentle,
    intent: undefined,
  };
}

/** A form or data sent, with something about it changed. */
export function thrownWrite(seed: Seed, w: World, chance: Chance): Thrown {
  // Half are nearly right, and go past the reading into the rules and the database.
  const gentle = chance.next() < 0.5;
  const params = { ...seed.params };
  if (!gentle && chance.next() < 0.15) {
    const [name] = chance.pick(Object.entries(params)) ?? [];
    if (name) params[name] = otherText(params[name] ?? "", w, chance, false).slice(0, 300) || "x";
  }
  let path = pathOf(seed.route, params);
  if (chance.next() < 0.3 && !path.startsWith("/api/")) path += ".data";
  const headers: Record<string, string> = {};
  let body: string;
  if ("form" in seed.body) {
    const fields = seed.body.form.map(([name, value]): [string, string] => [name, value]);
    const changes = gentle ? chance.below(3) : 1 + chance.below(3);
    for (let i = 0; i < changes && fields.length > 0; i++) {
      const at = chance.below(fields.length);
      const [name, value] = fields[at] as [string, string];
      if (gentle && name === "intent") continue;
      const inner = chance.next() < 0.7 ? jsonIn(value) : undefined;
      if (inner !== undefined)
        fields[at] = [name, JSON.stringify(otherJson(inner, w, chance, gentle)) ?? ""];
      else if (!gentle && chance.next() < 0.15) fields.splice(at, 1);
      else if (!gentle && chance.next() < 0.1) fields.push([name, chance.pick(HOSTILE_TEXT)]);
      else fields[at] = [name, otherText(value, w, chance, gentle)];
    }
    headers["content-type"] = "application/x-www-form-urlencoded";
    body = new URLSearchParams(fields).toString();
    if (!gentle && chance.next() < 0.03) body += "&%ED%A0%80=%ED%A0%80&=%00";
  } else {
    headers["content-type"] = "application/json";
    let data: unknown = seed.body.json;
    for (let i = 0; i <= chance.below(2); i++) data = otherJson(data, w, chance, gentle);
    body = JSON.stringify(data) ?? "";
  }
  if (!gentle && chance.next() < 0.04) {
    headers["content-type"] = chance.pick([
      "text/plain",
      "multipart/form-data",
      "multipart/form-data; boundary=x",
      "application/json",
      "application/octet-stream",
      ";;;",
    ]);
  }
  if (!gentle && chance.next() < 0.03)
    headers.origin = chance.pick(["null", "http://elsewhere.example", "::", "file://"]);
  if (!gentle && chance.next() < 0.03) body = body.slice(0, chance.below(body.length + 1));
  const usual = seed.as === "athlete" ? "athlete" : seed.as === "nobody" ? "nobody" : "coach";
  return {
    route: seed.route,
    method: gentle || chance.next() < 0.95 ? "POST" : chance.pick(["PUT", "PATCH", "DELETE"]),
    path,
    headers,
    body,
    as: chance.next() < 0.9 ? usual : chance.pick(READERS),
    gentle,
    intent: seed.intent,
  };
}
