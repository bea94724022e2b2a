/**
 * The laws of the fold against mutants of it: each takes one rule away, in a copy of the core of
 * its own, and the laws must fail on every one. Run by `npm test`; by itself:
 * `node scripts/fold-mutants.mjs`.
 */
import { spawnSync } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const MUTANTS = [
  {
    name: "a correction of one target, where another is taken",
    file: "core/floor/corrections.ts",
    from: "if (taken.length > 0 || closesCircle(one)) {",
    to: "if (taken.length === one.targets.length || closesCircle(one)) {",
  },
  {
    name: "order by arrival",
    file: "core/floor/validity.ts",
    from: "if (a.seq !== undefined && b.seq !== undefined) return a.seq - b.seq;",
    to: "if (a.seq !== undefined && b.seq !== undefined) return 0;",
  },
  {
    name: "a voided correction that stays",
    file: "core/floor/corrections.ts",
    from: "const again = release(one.targets.flatMap((target) => byId.get(target) ?? []));",
    to: "const again = release([]);",
  },
  {
    name: "a newer version that replaces",
    file: "core/floor/state.ts",
    from: "if (known.problem !== undefined || this.#wantsPain(known.entry)) return false;",
    to: "if ((known.problem !== undefined && known.body) || this.#wantsPain(known.entry)) return false;",
  },
  {
    name: "reps by the device that ends the set",
    file: "core/floor/set-state.ts",
    from: "const detector = all[0]?.root.deviceId;",
    to: "const detector = finished?.deviceId ?? all[0]?.root.deviceId;",
  },
];

const LAWS = ["core/floor/fold.laws.test.ts", "core/floor/floor.test.ts"];

/** Whether the laws hold for the core in a folder. */
function lawsHold(root) {
  const run = spawnSync(
    process.execPath,
    [join(root, "node_modules/vitest/vitest.mjs"), "run", "--root", root, ...LAWS],
    { encoding: "utf8", cwd: root },
  );
  const seen = /Tests\s+.*?(\d+) (?:passed|failed)/.test(run.stdout);
  if (!seen) throw new Error(`The laws did not run:\n${run.stdout}\n${run.stderr}`);
  return run.status === 0;
}

let caught = 0;
const root = mkdtempSync(join(tmpdir(), "fold-mutants-"));
try {
  cpSync("core", join(root, "core"), { recursive: true });
  symlinkSync(join(process.cwd(), "node_modules"), join(root, "node_modules"));
  if (!lawsHold(root)) throw new Error("The laws fail without any mutant.");
  for (const { name, file, from, to } of MUTANTS) {
    const path = join(root, file);
    const text = readFileSync(path, "utf8");
    if (text.split(from).length !== 2) throw new Error(`${file} has not, or not once: ${from}`);
    writeFileSync(path, text.replace(from, to));
    const held = lawsHold(root);
    writeFileSync(path, text);
    if (!held) caught++;
    console.log(`${held ? "NOT CAUGHT" : "caught"}: ${name}`);
  }
} finally {
  rmSync(root, { recursive: true, force: true });
}
console.log(`${caught} of ${MUTANTS.length} mutants of the fold caught`);
process.exitCode = caught === MUTANTS.length ? 0 : 1;
