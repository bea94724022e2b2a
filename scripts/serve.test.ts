import { spawnSync } from "node:child_process";
import { expect, it } from "vitest";

it("says which settings a start lacks, in one sentence", () => {
  const { DATABASE_URL, AUTH_DATABASE_URL, SESSION_SECRET, ...rest } = process.env;
  const result = spawnSync(process.execPath, ["scripts/serve.mjs"], {
    encoding: "utf8",
    env: rest,
  });
  expect(result.status).toBe(1);
  expect(result.stderr).toMatch(/There is no build yet|^Not set: DATABASE_URL/);
  expect(result.stderr.trim().split("\n")).toHaveLength(1);
});
