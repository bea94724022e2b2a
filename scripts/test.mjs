/**
 * `npm test`: everything, on a fresh machine too. Types, lint, import rule, unit and database
 * tests, build, browser tests; ends with one line of totals.
 */
import { existsSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { stampBuild } from "./build.mjs";
import { fuzzRound } from "./fuzz.mjs";
import { ensureChromium, ensurePackages, orSentence } from "./install.mjs";
import { run, runAlong, runBeside, runScript } from "./run.mjs";
import { testDatabase, testServer } from "./with-database.mjs";

let passed = 0;
let failed = 0;

function check(name, code) {
  if (code === 0) passed++;
  else failed++;
  console.log(`${code === 0 ? "ok" : "FAILED"}: ${name}`);
}

/** Adds the totals of a test runner's JSON report; a report that is missing is a failure. */
function count(name, file, read) {
  if (!existsSync(file)) {
    failed++;
    console.log(`FAILED: ${name} wrote no report`);
    return;
  }
  const totals = read(JSON.parse(readFileSync(file, "utf8")));
  passed += totals.passed;
  failed += totals.failed;
  if (totals.passed + totals.failed === 0) failed++;
  console.log(`${name}: ${totals.passed} passed, ${totals.failed} failed`);
}

const vitestTotals = (report) => ({
  passed: report.numPassedTests,
  failed: report.numFailedTests + (report.success || report.numFailedTests > 0 ? 0 : 1),
});
const playwrightTotals = (report) => ({
  passed: report.stats.expected,
  failed: report.stats.unexpected + report.stats.flaky + (report.errors?.length ?? 0),
});

const IMPORT_RULE = ["--config", ".dependency-cruiser.cjs", "core", "device", "db", "app"];

/**
 * The browser tests in two parts side by side, each with an application and a cluster of its own:
 * in a part the files run one after the other, for they share a database.
 */
const APART = [
  "box-contrast",
  "gear",
  "import",
  "lab",
  "library",
  "network",
  "own-team",
  "privacy",
  "reach",
  "sign-in",
];
const BROWSER_PARTS = [
  { part: "a", filter: APART.map((name) => `e2e/${name}.spec.ts`) },
  {
    part: "b",
    filter: readdirSync("e2e").flatMap((file) =>
      file.endsWith(".spec.ts") && !APART.includes(file.replace(".spec.ts", ""))
        ? [`e2e/${file}`]
        : [],
    ),
  },
];

async function browserPart({ part, filter }) {
  const database = await testDatabase("sprezza_browser", part === "a" ? "apart" : "");
  try {
    const server = await testServer(database.env, part === "a" ? 4200 : 4100);
    try {
      const env = { ...database.env, BASE_URL: server.base, BROWSER_PART: part };
      await runAlong("playwright", ["test", ...filter], env);
    } finally {
      await server.stop();
    }
  } finally {
    database.stop();
  }
  count(`browser tests, part ${part}`, `test-results/browser-${part}.json`, playwrightTotals);
}

const startedAt = Date.now();
function took(name) {
  console.log(`${name} done after ${Math.round((Date.now() - startedAt) / 1000)} s`);
}

await orSentence(async () => {
  ensurePackages();
  ensureChromium();
  rmSync("test-results", { recursive: true, force: true });

  check("route types", run("react-router", ["typegen"]));
  // Two at a time, for two cores.
  const checks = (async () => {
    check("types", await runBeside("tsc", ["--noEmit"]));
    check("lint", await runBeside("biome", ["check", "."]));
    check("import rule", await runBeside("depcruise", IMPORT_RULE));
    const code = await runBeside("react-router", ["build"], { NODE_ENV: "production" });
    check("build", code);
    // A start in the tests must not build again under the servers that run.
    if (code === 0) stampBuild();
    return code;
  })();
  await runBeside("vitest", ["run", "--project", "unit"], { VITEST_PART: "unit" });
  count("unit tests", "test-results/vitest-unit.json", vitestTotals);
  check("mutants of the fold, each caught", await runScript("scripts/fold-mutants.mjs"));
  took("unit tests");
  const built = await checks;
  took("types, lint, import rule, build");

  const unit = await testDatabase("sprezza_test");
  try {
    const databaseTests = runBeside("vitest", ["run", "--project", "database"], {
      ...unit.env,
      VITEST_PART: "database",
    });
    // Beside them, on a cluster of its own: a short round of what `npm run fuzz` does at length.
    if (built === 0) {
      const round = { count: 3000, seed: 1, apart: "fuzz", port: 4600 };
      check("fuzz: 3,000 inputs, no 500", await fuzzRound(round));
    }
    await databaseTests;
    count("database tests", "test-results/vitest-database.json", vitestTotals);
    took("database tests and fuzz");
    if (built === 0) {
      await Promise.all(BROWSER_PARTS.map(browserPart));
      took("browser tests");
    }
  } finally {
    unit.stop();
  }
});

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
