/** What a fresh machine needs before anything of the project can run. Node's own modules only. */

import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { installDebian, SetupProblem } from "./cluster.mjs";

const STAMP = "node_modules/.sprezza-installed";

function wanted() {
  const hash = createHash("sha256");
  for (const file of ["package.json", "package-lock.json"]) {
    if (existsSync(file)) hash.update(readFileSync(file));
  }
  return hash.digest("hex");
}

/** Installs the npm packages when the lock has changed since the last time. */
export function ensurePackages() {
  const [major, minor] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new SetupProblem(`Node ${process.versions.node} is too old: 20.19 or newer is needed.`);
  }
  const hash = wanted();
  if (existsSync(STAMP) && readFileSync(STAMP, "utf8") === hash) return;
  console.log("Installing npm packages …");
  const result = spawnSync("npm", ["install", "--no-audit", "--no-fund", "--loglevel=error"], {
    stdio: ["ignore", "inherit", "inherit"],
  });
  if (result.status !== 0) {
    throw new SetupProblem(
      "npm install failed. Check the link to the npm registry, then run this again.",
    );
  }
  writeFileSync(STAMP, wanted());
}

const CHROMIUM = "/usr/bin/chromium-headless-shell";

/** Debian's headless Chromium and OpenSSL (a certificate for the test over HTTPS), for the browser tests. */
export function ensureChromium() {
  if (!existsSync("/usr/bin/openssl")) installDebian(["openssl"], "OpenSSL");
  if (!existsSync(CHROMIUM)) installDebian(["chromium-headless-shell"], "Chromium");
  if (!existsSync(CHROMIUM))
    throw new SetupProblem(`Chromium was installed but is not at ${CHROMIUM}.`);
}

/** Ends with one sentence where set-up is not possible; anything else is a bug and shows itself. */
export async function orSentence(work) {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof SetupProblem)) throw error;
    console.error(error.message);
    process.exit(1);
  }
}
