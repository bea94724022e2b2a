/** Runs the project's own programs (from node_modules) as child processes. */
import { spawn, spawnSync } from "node:child_process";
import path from "node:path";

export function bin(name) {
  return name === "node" ? process.execPath : path.resolve("node_modules", ".bin", name);
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

/** A script of ours, beside other work: what it prints comes at its end. */
export function runScript(file) {
  return collected(process.execPath, [file]);
}

/** Like `run`, beside other work: what it prints comes at its end. */
export function runBeside(name, args, env = {}) {
  return collected(bin(name), args, env);
}

function collected(program, args, env = {}) {
  const child = spawn(program, args, {
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

/**
 * Starts the built server (its supervisor, as `npm start` comes to) and waits for its address.
 * `stop()` lets it drain; `kill()` ends everything at once, as a power cut would.
 */
export function startServer(env) {
  // A group of its own: a killed supervisor leaves nothing behind, and Ctrl-C is ours to pass on.
  const child = spawn(process.execPath, ["scripts/serve.mjs"], {
    env: { ...process.env, ...env },
    stdio: ["ignore", "pipe", "inherit", "ipc"],
    detached: true,
  });
  let pids = {};
  let firstRun = false;
  child.on("message", (message) => {
    pids = message.pids ?? pids;
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
      firstRun = /^first run$/m.test(text);
      resolve(match[1]);
    });
    child.on("exit", (code) => reject(new Error(`The server ended with code ${code}.`)));
  });
  address.catch(() => {});
  const ended = new Promise((resolve) => child.on("exit", resolve));
  return {
    child,
    address,
    /** Whether the server said that it has no team yet; known once it has an address. */
    isFirstRun: () => firstRun,
    ended,
    /** Process numbers of `pages`, `floor` and `front`, as they were at the start. */
    pids: () => pids,
    async stop() {
      if (child.exitCode === null && child.signalCode === null) child.kill("SIGTERM");
      await ended;
    },
    async kill() {
      if (child.exitCode === null && child.signalCode === null) process.kill(-child.pid, "SIGKILL");
      await ended;
    },
  };
}
