/**
 * `npm test`: everything, on a fresh machine too. Types, lint, import rule, unit and database
 * tests, build, browser tests; ends with one line of totals.
 */
import { existsSync, readFileSync, rmSync } from "node:fs";
import { ensureChromium, ensurePackages, orSentence } from "./install.mjs";
import { run } from "./run.mjs";
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

await orSentence(async () => {
  ensurePackages();
  ensureChromium();
  rmSync("test-results", { recursive: true, force: true });

  check("route types", run("react-router", ["typegen"]));
  check("types", run("tsc", ["--noEmit"]));
  check("lint", run("biome", ["check", "."]));
  check(
    "import rule",
    run("depcruise", ["--config", ".dependency-cruiser.cjs", "core", "device", "db", "app"]),
  );

  run("vitest", ["run", "--project", "unit"], { VITEST_PART: "unit" });
  count("unit tests", "test-results/vitest-unit.json", vitestTotals);

  const built = run("react-router", ["build"], { NODE_ENV: "production" }, "ignore");
  check("build", built);

  const unit = await testDatabase("sprezza_test");
  try {
    run("vitest", ["run", "--project", "database"], { ...unit.env, VITEST_PART: "database" });
    count("database tests", "test-results/vitest-database.json", vitestTotals);
    if (built === 0) {
      const browser = await testDatabase("sprezza_browser");
      const server = await testServer(browser.env);
      try {
        run("playwright", ["test"], { ...browser.env, BASE_URL: server.base });
      } finally {
        await server.stop();
      }
      count("browser tests", "test-results/browser.json", playwrightTotals);
    }
  } finally {
    unit.stop();
  }
});

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
