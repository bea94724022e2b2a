/**
 * `npm run structure`: the house as it stands, measured from its imports: each room with its share
 * of the lines and the rooms it knows, circles, and arrows that point upwards in the core's order.
 * `-- core`, `-- app/workflows` for the rooms of another folder than the whole house.
 */
import { spawnSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";

const inside = process.argv[2] ?? "";
const [, listed = ""] =
  /CORE_ORDER = \[([^\]]*)\]/.exec(readFileSync(".dependency-cruiser.cjs", "utf8")) ?? [];
const order = inside === "core" ? [...listed.matchAll(/"(\w+)"/g)].map(([, name]) => name) : [];
const run = spawnSync(
  "node_modules/.bin/depcruise",
  ["--config", ".dependency-cruiser.cjs", "--output-type", "json", "core", "device", "db", "app"],
  { encoding: "utf8", maxBuffer: 1 << 28 },
);
const { modules, summary } = JSON.parse(run.stdout);

const ours = (file) => existsSync(file) && !file.startsWith("node_modules/");
const isTest = (file) => /\.test\.tsx?$|\/fixtures\//.test(file);
/** The room of a file: the folder next under the one that is looked at. */
function roomOf(file) {
  if (inside !== "" && !file.startsWith(`${inside}/`)) return undefined;
  const [first, second, ...rest] = file.slice(inside === "" ? 0 : inside.length + 1).split("/");
  if (inside !== "") return second === undefined ? "(here)" : first;
  return first === "app" && rest.length > 0 ? `app/${second}` : first;
}

const rooms = new Map();
for (const { source, dependencies } of modules) {
  const name = isTest(source) || !ours(source) ? undefined : roomOf(source);
  if (name === undefined) continue;
  const room = rooms.get(name) ?? { lines: 0, files: 0, knows: new Map() };
  rooms.set(name, room);
  room.lines += readFileSync(source, "utf8").split("\n").length;
  room.files++;
  for (const { resolved } of dependencies) {
    const other = ours(resolved) ? roomOf(resolved) : undefined;
    if (other !== undefined && other !== name)
      room.knows.set(other, (room.knows.get(other) ?? 0) + 1);
  }
}
const place = (name) => (order.includes(name) ? order.indexOf(name) : order.length);
const all = [...rooms].sort(
  ([a, one], [b, two]) => place(a) - place(b) || two.lines - one.lines || a.localeCompare(b),
);
const whole = all.reduce((sum, [, room]) => sum + room.lines, 0);
let upward = 0;
for (const [name, room] of all) {
  const knows = [...room.knows].sort(([, a], [, b]) => b - a);
  upward += knows.filter(([other]) => order.includes(name) && place(other) > place(name)).length;
  const share = `${((100 * room.lines) / whole).toFixed(1)} %`.padStart(7);
  console.log(
    `${name.padEnd(20)}${String(room.files).padStart(4)} files ${share}  ${knows.map(([other, n]) => `${other} ${n}`).join(", ")}`,
  );
}
const circles = summary.violations.filter((one) => one.rule.name === "no-circles").length;
console.log(
  `${all.length} rooms, ${whole} lines without tests; circles ${circles}${order.length > 0 ? `, upward arrows ${upward}` : ""}`,
);
