import { defineConfig } from "@playwright/test";

/** Debian's headless Chromium, with switches for a machine without a network or a sandbox. */
export const CHROMIUM = {
  executablePath: "/usr/bin/chromium-headless-shell",
  args: [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ],
};

/** Parts run side by side, each with a database and files of its own. */
const PART = process.env.BROWSER_PART ?? "all";

export default defineConfig({
  testDir: "e2e",
  testMatch: "*.spec.ts",
  outputDir: `test-results/artifacts-${PART}`,
  globalSetup: "./e2e/global-setup.ts",
  // One database for all: the tests take different squads and teams, in order.
  workers: 1,
  fullyParallel: false,
  // How long to wait is no claim of speed: two parts share two cores, and a machine may be slow.
  timeout: 120_000,
  // What kills, restarts or upgrades for long (@long), and what stands on its file's other tests and
  // takes long (@whole), runs in `npm run soak`, before an issue is closed.
  ...(process.env.LONG
    ? { grep: /@long/ }
    : process.env.FULL_DAY
      ? {}
      : { grepInvert: /@long|@whole/ }),
  expect: { timeout: 15_000 },
  retries: 0,
  reporter: [["list"], ["json", { outputFile: `test-results/browser-${PART}.json` }]],
  use: {
    baseURL: process.env.BASE_URL,
    viewport: { width: 1280, height: 800 },
    // Reads dates year first; other orders have a test of their own.
    locale: "en-SE",
    launchOptions: CHROMIUM,
    trace: process.env.TRACE ? "retain-on-failure" : "off",
  },
});
