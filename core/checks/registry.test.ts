import { readdirSync } from "node:fs";
import { expect, it } from "vitest";
import { RULES } from "./registry";

const files = readdirSync(new URL("./rules", import.meta.url)).filter((name) =>
  name.endsWith(".ts"),
);
const written = files.map(async (name) => {
  const exported = Object.values(await import(`./rules/${name.replace(/\.ts$/, "")}.ts`));
  return exported.filter((one) => typeof one === "object" && one !== null && "find" in one);
});

it("holds every rule that is written, once, one a file", async () => {
  const rules = await Promise.all(written);
  expect(rules.map((one) => one.length)).toEqual(files.map(() => 1));
  expect(new Set(RULES)).toEqual(new Set(rules.flat()));
  expect(RULES).toHaveLength(files.length);
});

it("gives no code to two rules: answers hang on it", () => {
  const codes = RULES.map((rule) => rule.code);
  expect(codes.filter((code, i) => codes.indexOf(code) !== i)).toEqual([]);
});
