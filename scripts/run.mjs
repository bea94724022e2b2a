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
