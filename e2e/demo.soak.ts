import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import path from "node:path";
import { expect, test } from "@playwright/test";
import { signInAt } from "./wire";

/** `npm run demo` keeps itself up: whatever of it is killed, and its database, comes back. */

const childrenOf = (pid: number): number[] =>
  execFileSync("ps", ["-e", "-o", "pid=,ppid="], { encoding: "utf8" })
    .trim()
    .split("\n")
    .map((line) => line.trim().split(/\s+/).map(Number))
    .flatMap(([child = 0, parent]) => (parent === pid ? [child, ...childrenOf(child)] : []));

const commandOf = (pid: number) =>
  execFileSync("ps", ["-o", "args=", "-p", String(pid)], { encoding: "utf8" }).trim();

let demo: ChildProcess;
let base = "";
// Where its database's owner can enter: below /var/tmp, as the set-up's own sentence proposes.
const home = mkdtempSync("/var/tmp/sprezza-demo-");

test.beforeAll(async () => {
  test.setTimeout(240_000);
  execFileSync("chmod", ["755", home]);
  demo = spawn(process.execPath, ["scripts/demo.mjs"], {
    env: { ...process.env, SPREZZA_DATA: home, PORT: "3170" },
    stdio: ["ignore", "pipe", "inherit"],
  });
  base = await new Promise<string>((resolve, reject) => {
    let text = "";
    demo.stdout?.on("data", (piece) => {
      text += String(piece);
      const match = /Sprezza is at (\S+)/.exec(text);
      if (match?.[1]) resolve(match[1]);
    });
    demo.on("exit", (code) => reject(new Error(`The demo ended with ${code}: ${text}`)));
  });
});
test.afterAll(async () => {
  const ended = new Promise((resolve) => demo.once("exit", resolve));
  demo.kill("SIGTERM");
  await ended;
  rmSync(home, { recursive: true, force: true });
});

const answers = async (cookie: string) =>
  fetch(`${base}/floor`, { headers: { cookie } }).then((response) => response.status);

test("each process of the server, and the database, is killed and comes back", async () => {
  test.setTimeout(180_000);
  const cookie = await signInAt(base, "coach@skerry.example");
  expect(await answers(cookie)).toBe(200);
  const processes = childrenOf(demo.pid ?? 0).filter((pid) =>
    /scripts\/(server|front)\.mjs/.test(commandOf(pid)),
  );
  expect(processes).toHaveLength(3);
  for (const pid of processes) {
    process.kill(pid, "SIGKILL");
    await expect
      .poll(() => answers(cookie).catch(() => 0), { timeout: 30_000, intervals: [200] })
      .toBe(200);
  }
  const postmaster = path.join(home, "demo", "data", "postmaster.pid");
  process.kill(Number(readFileSync(postmaster, "utf8").split("\n")[0]), "SIGKILL");
  await expect
    .poll(async () => (await fetch(`${base}/health`)).status, { timeout: 30_000, intervals: [100] })
    .toBe(503);
  await expect
    .poll(() => answers(cookie).catch(() => 0), { timeout: 60_000, intervals: [500] })
    .toBe(200);
});
