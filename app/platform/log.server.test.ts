import { expect, it } from "vitest";
import { loggedPath, makeLog } from "./log.server";

function logged(error: unknown): string {
  const lines: string[] = [];
  makeLog({ write: (line: string) => void lines.push(line) }).error({ err: error }, "it failed");
  return lines.join("");
}

it("keeps the parameters of a failed query out of the log", () => {
  const cause = new Error("connect ECONNREFUSED\nparams: secret-token-2");
  const error = new Error("Failed query: select 1\nparams: secret-token-1,Maren", { cause });
  const line = logged(error);
  expect(line).toContain("Failed query: select 1");
  expect(line).toContain("connect ECONNREFUSED");
  expect(line).toContain("log.server.test.ts");
  expect(line).not.toContain("secret-token");
  expect(line).not.toContain("Maren");
});

it("keeps a reason of several lines out of it, whatever its lines look like", () => {
  const reason = "Knee, since spring.\n    at the physio (knee.ts:1:1)\nparams: and the other knee";
  class DrizzleQueryError extends Error {}
  const line = logged(new DrizzleQueryError(`Failed query: insert\nparams: 1,${reason},after`));
  expect(line).toContain("Failed query: insert");
  expect(line).not.toMatch(/knee|physio|spring|after/i);
});

it("keeps out what the database quotes", () => {
  class PostgresError extends Error {
    override name = "PostgresError";
    code = "22P02";
  }
  const cause = new PostgresError('invalid input syntax for type uuid: "Maren\nSolhaug"');
  const line = logged(new Error("Failed query: select\nparams: x", { cause }));
  expect(line).toContain("22P02");
  expect(line).toContain("invalid input syntax for type uuid");
  expect(line).not.toMatch(/Maren|Solhaug/);
});

it("says nothing of what was thrown and is no error", () => {
  expect(logged({ reason: "knee" })).not.toContain("knee");
});

it("cuts the token of a followed calendar from an address", () => {
  expect(loggedPath("/feed/a-token.ics")).toBe("/feed/(token)");
  // A way into a team, and to a password: with the route's own data request too.
  expect(loggedPath("/join/a-token")).toBe("/join/(token)");
  expect(loggedPath("/reset/a-token.data")).toBe("/reset/(token)");
  expect(loggedPath("/reset/a-token/")).toBe("/reset/(token)/");
  expect(loggedPath("/plan/1/out/loads.csv")).toBe("/plan/1/out/loads.csv");
});
