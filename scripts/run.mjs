/** Runs the project's own programs (from node_modules) as child processes. */
import { spawn, spawnSync } from "node:child_process";
import path from "node:path";

export function bin(name) {
  return path.resolve("node_modules", ".bin", name);
}

/** Runs to the end; returns the exit code. */
export function run(name, args, env = {}, stdio = "inherit") {
  const result = spawnSync(bin(name), args, { stdio, env: { ...process.env, ...env } });
  if (result.error) throw result.error;
  return result.status ?? 1;
}

/** Like `run`, beside other work, with what it prints as it comes. */
export function runAlong(name, args, env = {}) {
  const child = spawn(bin(name), args, { stdio: "inherit", env: { ...process.env, ...env } });
  return new Promise((resolve, reject) => {
    child.on("error", reject);
    child.on("close", (code) => resolve(code ?? 1));
  });
}

/** Like `run`, beside other work: what it prints comes at its end. */
export function runBeside(name, args, env = {}) {
  const child = spawn(bin(name), args, {
    stdio: ["ignore", "pipe", "pipe"],
    env: { ...process.env, ...env },
  });
  let text = "";
  for (const stream of [child.stdout, child.stderr]) {
    stream.on("data", (chunk) => {
      text += String(chunk);
    });
  }
  return new Promise((resolve, reject) => {
    child.on("error", reject);
    child.on("close", (code) => {
      process.stdout.write(text);
      resolve(code ?? 1);
    });
  });
}

/** Starts the built server and waits for its address. */
export function startServer(env) {
  const child = spawn(process.execPath, ["--import", "tsx", "scripts/serve.ts"], {
    env: { ...process.env, ...env },
    stdio: ["ignore", "pipe", "inherit"],
  });
  const address = new Promise((resolve, reject) => {
    let found = false;
    let text = "";
    child.stdout.on("data", (chunk) => {
      if (found) {
        if (env.SHOW_LOG === "1") process.stdout.write(chunk);
        return;
      }
      text += String(chunk);
      const match = /^listening (\S+)$/m.exec(text);
      if (!match) return;
      found = true;
      resolve(match[1]);
    });
    child.on("exit", (code) => reject(new Error(`The server ended with code ${code}.`)));
  });
  const ended = new Promise((resolve) => child.on("exit", resolve));
  return {
    child,
    address,
    ended,
    async stop() {
      if (child.exitCode === null) child.kill("SIGTERM");
      await ended;
    },
  };
}
