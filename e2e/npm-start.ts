import { type ChildProcess, spawn, spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import path from "node:path";
import { expect } from "@playwright/test";

/** What a person does in a terminal: `npm start` and the commands beside it, on a folder of its own. */
export interface Started {
  child: ChildProcess;
  address: string;
  code: string | undefined;
  said: () => string;
}

/** The environment of somebody's own shell: nothing of the tests in it. */
export function bare(): NodeJS.ProcessEnv {
  const ours = /DATABASE_URL$|^(SESSION_SECRET|SPREZZA_DEMO|SPREZZA_NOW)$/;
  return Object.fromEntries(Object.entries(process.env).filter(([name]) => !ours.test(name)));
}

/** Starts it and reads its last lines. */
export async function npmStart(home: string, env: Record<string, string>): Promise<Started> {
  const child = spawn("npm", ["start"], {
    env: { ...bare(), SPREZZA_DATA: home, LOG_LEVEL: "error", ...env },
    stdio: ["ignore", "pipe", "pipe"],
    detached: true,
  });
  let text = "";
  const said = () => text;
  for (const stream of [child.stdout, child.stderr])
    stream?.on("data", (chunk) => {
      text += String(chunk);
    });
  await expect
    .poll(() => /Ctrl-C stops/.test(text) || child.exitCode !== null, { timeout: 150_000 })
    .toBe(true);
  return {
    child,
    said,
    address: /Sprezza is at (\S+)/.exec(text)?.[1] ?? "",
    code: /^ {4}([A-Z0-9]{4}-[A-Z0-9]{4})$/m.exec(text)?.[1],
  };
}

export async function npmStop(home: string, { child }: Started): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null || child.pid === undefined) return;
  const ended = new Promise((resolve) => child.once("exit", resolve));
  process.kill(-child.pid, "SIGTERM");
  await ended;
  // npm ends before what it started: the database is down when its own file is gone.
  const running = path.join(home, "own", "data", "postmaster.pid");
  await expect.poll(() => existsSync(running), { timeout: 30_000 }).toBe(false);
}

/** Runs one of the commands beside it to its end; `said` without npm's own lines. */
export function npmRun(command: string, args: string[], env: Record<string, string | undefined>) {
  const result = spawnSync("npm", ["run", "--silent", command, "--", ...args], {
    encoding: "utf8",
    env: { ...bare(), ...env },
    timeout: 120_000,
  });
  const said = `${result.stdout}${result.stderr}`.replace(/^npm warn.*$/gm, "").trim();
  return { status: result.status, said };
}
