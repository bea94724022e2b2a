/**
 * `npm test`: everything, on a fresh machine too. Types, lint, import rule, unit and database
 * tests, build, browser tests; ends with one line of totals.
 */
import { existsSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { stampBuild } from "./build.mjs";
import { fuzzRound, fuzzSaid } from "./fuzz.mjs";
import { ensureChromium, ensurePackages, orSentence } from "./install.mjs";
import { run, runAlong, runBeside, runScript } from "./run.mjs";
import { testDatabase, testServer } from "./with-database.mjs";

let passed = 0;
let failed = 0;
/** What failed, by name: said again at the end, for a long output is read from there. */
const failures = [];

function check(name, code) {
  if (code === 0) passed++;
  else {
    failed++;
    failures.push(name);
  }
  console.log(`${code === 0 ? "ok" : "FAILED"}: ${name}`);
}

/** Adds the totals of a test runner's JSON report; a report that is missing is a failure. */
function count(name, file, read, failedIn) {
  if (!existsSync(file)) {
    failed++;
    failures.push(`${name} wrote no report`);
    console.log(`FAILED: ${name} wrote no report`);
    return;
  }
  const report = JSON.parse(readFileSync(file, "utf8"));
  const totals = read(report);
  passed += totals.passed;
  failed += totals.failed;
  failures.push(...failedIn(report).map((test) => `${name}: ${test}`));
  if (totals.passed + totals.failed === 0) failed++;
  console.log(`${name}: ${totals.passed} passed, ${totals.failed} failed`);
}

const vitestTotals = (report) => ({
  passed: report.numPassedTests,
  failed: report.numFailedTests + (report.success || report.numFailedTests > 0 ? 0 : 1),
});
/** Tests that failed, each with the first line of its message; a file that could not be loaded too. */
const vitestFailures = (report) =>
  report.testResults.flatMap((file) => {
    const tests = file.assertionResults.filter((test) => test.status === "failed");
    const said = tests.map((test) => `${test.fullName}: ${firstLine(test.failureMessages?.[0])}`);
    if (said.length === 0 && file.status === "failed") said.push(firstLine(file.message));
    return said.map((line) => `${file.name.split("/").slice(-2).join("/")} › ${line}`);
  });
function firstLine(text) {
  return (text ?? "no message").split("\n").slice(0, 3).join(" ").slice(0, 400);
}
const specsOf = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)];
const playwrightFailures = (report) =>
  report.suites.flatMap((suite) =>
    specsOf(suite)
      .filter((spec) => !spec.ok || spec.tests.some((test) => test.status === "flaky"))
      .map((spec) => `${spec.file} › ${spec.title}`),
  );
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
  "groups",
  "import",
  "kept",
  "lab",
  "library",
  "offline",
  "own-server",
  "own-team",
  "privacy",
  "reach",
  "sign-in",
  "two-servers",
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
  count(
    `browser tests, part ${part}`,
    `test-results/browser-${part}.json`,
    playwrightTotals,
    playwrightFailures,
  );
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
  count("unit tests", "test-results/vitest-unit.json", vitestTotals, vitestFailures);
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
      const round = { count: 500, seed: 1, apart: "fuzz", port: 4600 };
      const faults = await fuzzRound(round);
      check("fuzz: 500 inputs, no 500", faults);
      // A short round misses an intent now and then: said in its output, no failure.
      if (faults !== 0) failures.push(...fuzzSaid().map((line) => `fuzz: ${line}`));
    }
    await databaseTests;
    count("database tests", "test-results/vitest-database.json", vitestTotals, vitestFailures);
    took("database tests and fuzz");
    if (built === 0) {
      await Promise.all(BROWSER_PARTS.map(browserPart));
      took("browser tests");
    }
  } finally {
    unit.stop();
  }
});

for (const failure of failures) console.log(`FAILED: ${failure}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
