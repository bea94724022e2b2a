import { defineConfig } from "@playwright/test";

/** Chromium's switches for a machine without a network, a monitor or a sandbox. */
export const CHROMIUM = {
  executablePath: "/usr/bin/chromium",
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

export default defineConfig({
  testDir: "e2e",
  testMatch: "*.spec.ts",
  globalSetup: "./e2e/global-setup.ts",
  // One database for all: the tests take different squads and teams, in order.
  workers: 1,
  fullyParallel: false,
  timeout: 60_000,
  expect: { timeout: 8_000 },
  retries: 0,
  reporter: [["list"], ["json", { outputFile: "test-results/browser.json" }]],
  use: {
    baseURL: process.env.BASE_URL,
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    trace: process.env.TRACE ? "retain-on-failure" : "off",
  },
});
