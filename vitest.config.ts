import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: { tsconfigPaths: true },
  test: {
    reporters: [
      "default",
      ["json", { outputFile: `test-results/vitest-${process.env.VITEST_PART ?? "all"}.json` }],
    ],
    projects: [
      {
        extends: true,
        test: {
          name: "unit",
          testTimeout: 30_000,
          pool: "forks",
          // Pure functions leave nothing behind in a process: a module is loaded once for all files.
          isolate: false,
          include: [
            "core/**/*.test.ts",
            "device/**/*.test.ts",
            "app/**/*.test.ts",
            "app/**/*.test.tsx",
            "scripts/**/*.test.ts",
          ],
          exclude: ["**/*.server.test.ts", "node_modules/**"],
        },
      },
      {
        extends: true,
        test: {
          name: "database",
          pool: "forks",
          include: ["db/**/*.test.ts", "app/**/*.server.test.ts"],
          fileParallelism: false,
          testTimeout: 20_000,
          // What is made before a file's tests is as large as they are.
          hookTimeout: 60_000,
        },
      },
    ],
  },
});
