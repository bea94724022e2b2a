import { expect, it } from "vitest";
import { makeLog } from "./log.server";

it("keeps the parameters of a failed query out of the log", () => {
  const lines: string[] = [];
  const log = makeLog({ write: (line: string) => void lines.push(line) });
  const cause = new Error("connect ECONNREFUSED\nparams: secret-token-2");
  const error = new Error("Failed query: select 1\nparams: secret-token-1,Maren", { cause });
  log.error({ err: error }, "the database does not answer");
  const [line] = lines;
  expect(line).toContain("Failed query: select 1");
  expect(line).not.toContain("secret-token");
  expect(line).not.toContain("Maren");
});
